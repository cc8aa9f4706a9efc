"""A kind of dead test: its entry, its lines on a sheet, its form, and how what it showed is said."""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from typing import Any, Literal

from evenprobe.deadtests.kinds.entry import OneTest
from evenprobe.deadtests.sheet import Line, SheetCircuit, Step
from evenprobe.registry import Listed, Registry
from evenprobe.testers.purposes import Purpose

Answer = tuple[bool | float, str, str]
"""What is written down, what is picked, and what is said of it afterwards."""
Known = Literal["null_ohm", "accuracy", "neutral", "loads"]


@dataclass(frozen=True, kw_only=True)
class Figure:
    """A number of a form.

    Parameters
    ----------
    key, label, unit
        As the entry has it, as the form names it, and in what it is.
    units
        What else a display may show it in, its own unit first.
    over_range, at_least
        The keys that say instead that the display showed more than its range, or more than a number.
    printed
        Whether it is printed on the part, and not read off a display.
    said
        How it is said afterwards, empty where it is not.
    """

    key: str
    label: str
    unit: str
    units: tuple[str, ...] = ()
    over_range: str = ""
    at_least: str = ""
    printed: bool = False
    said: str = ""


@dataclass(frozen=True, kw_only=True)
class Choice:
    """One of a few answers. `optional`: the test is whole without it; `preset`: the sheet knows which it is."""

    key: str
    label: str
    answers: tuple[Answer, ...]
    preset: bool = False


@dataclass(frozen=True, kw_only=True)
class Pairs:
    """Pairs of figures, as a thermometer's and a sensor's, so many of them."""

    key: str
    labels: tuple[str, str]
    unit: str
    rows: int


FormField = Figure | Choice | Pairs


def no_lines(circuit: SheetCircuit) -> Iterable[Line]:  # noqa: ARG001
    """Of what is on no sheet by itself."""
    return ()


@dataclass(frozen=True, kw_only=True, eq=False, repr=False)
class DeadTest(Listed):
    """A kind of dead test.

    Parameters
    ----------
    id, rank, title
        As the tests file writes it, its place in the order of the work, and what people call it.
    entry
        The model of its entry, which also judges it and says what it is worth as evidence.
    lines
        Its lines on the sheet of a circuit.
    fields
        Its form.
    purpose
        What a tester is wanted for that makes it.
    known
        What a sheet and the tester's register know already of what it takes.
    followed
        Whether its value is followed from visit to visit.
    charges
        Whether it leaves a charge on the conductors.
    """

    listed_as = "kind of dead test"

    id: str
    rank: int
    title: str
    entry: type[OneTest]
    fields: tuple[FormField, ...] = ()
    lines: Callable[[SheetCircuit], Iterable[Line]] = no_lines
    step: Step | None = None
    purpose: Purpose = Purpose.CONTINUITY
    known: frozenset[Known] = frozenset()
    followed: bool = False
    charges: bool = False

    def shown(self, test: Mapping[str, Any]) -> str:
        """What the display showed, in words."""
        figures = [f for f in self.fields if isinstance(f, Figure)]
        if any(test.get(f.over_range) for f in figures if f.over_range):
            return "over-range"
        return ", ".join(said for f in self.fields if (said := _said(f, test))) or self.title


def _said(field: FormField, test: Mapping[str, Any]) -> str:
    if isinstance(field, Choice):
        return next((said for value, _, said in field.answers if value == test.get(field.key)), "")
    if isinstance(field, Pairs) or not field.said:
        return ""
    value, least = test.get(field.key), test.get(field.at_least) if field.at_least else None
    if isinstance(value, int | float):
        return field.said.format(value)
    return f"more than {field.said.format(least)}" if isinstance(least, int | float) else ""


DEAD_TESTS: Registry[DeadTest] = Registry(DeadTest.listed_as, lambda kind: kind.rank)
"""Adding one is adding a module to this package."""
