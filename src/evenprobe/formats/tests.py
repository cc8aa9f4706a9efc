"""The tests file: dead tests, trips, loads and components, each with what it is judged by."""

from collections.abc import Iterable
from functools import lru_cache
from typing import TYPE_CHECKING, Annotated, Any, Literal, Union

from pydantic import Field, create_model, field_validator

from evenprobe.deadtests import Outcome
from evenprobe.deadtests.kinds import DEAD_TESTS, OneTest
from evenprobe.entries import FieldError, Strict, Text
from evenprobe.formats.fields import PracticeName


class TestsFile(Strict):
    """The whole file; `dead_tests_file` gives the model that knows every kind of test."""

    format: Literal["even-probe/tests"]
    version: Literal[1]
    practice: PracticeName
    label: Text | None = None
    tests: list[OneTest]

    @field_validator("tests")
    @classmethod
    def _each_once(cls, tests: list[OneTest]) -> list[OneTest]:
        seen: set[str] = set()
        for index, test in enumerate(tests):
            if test.id in seen:
                raise FieldError(f"[{index}].id", f"{test.id!r} stands twice")
            seen.add(test.id)
        return tests

    def outcomes(self) -> Iterable[tuple[str, Outcome]]:
        """What each test comes to, by its id."""
        return [(test.id, test.outcome(self.practice)) for test in self.tests]


def dead_tests_file() -> type[TestsFile]:
    """The model of a tests file, with an entry of every kind of dead test there is now, told apart by `kind`.

    Returns
    -------
    type of TestsFile
        The same again while no kind was added.

    Examples
    --------
    >>> from evenprobe.entries import parse
    >>> test = {"id": "t1", "kind": "insulation", "system": "230", "test_v": 500, "measured_mohm": 0.4}
    >>> file = {"format": "even-probe/tests", "version": 1, "practice": "british", "tests": [test]}
    >>> [str(outcome.result) for _, outcome in parse(dead_tests_file(), file).outcomes()]
    ['fail']
    """
    return _with_entries(tuple(kind.entry for kind in DEAD_TESTS.values()))


@lru_cache(maxsize=4)
def _with_entries(entries: tuple[type[OneTest], ...]) -> type[TestsFile]:
    return create_model("TestsFile", __base__=TestsFile, tests=(_list_of(_one_of(entries)), ...))


def _list_of(entry: Any) -> Any:
    return list[entry]


def _one_of(entries: tuple[type[OneTest], ...]) -> Any:
    return Annotated[Union[entries], Field(discriminator="kind")]  # noqa: UP007


if TYPE_CHECKING:
    TestEntry = OneTest
else:
    TestEntry = _one_of(tuple(kind.entry for kind in DEAD_TESTS.values()))
"""An entry of any kind there is."""
