"""The tests file: dead tests, trips, loads and components, each with what it is judged by."""

from collections.abc import Iterable
from math import isfinite
from typing import Annotated, Any, Literal

from pydantic import Field, field_validator

from evenprobe.deadtests import Outcome
from evenprobe.formats.fields import PracticeName, Strict, Text
from evenprobe.formats.problems import FieldError
from evenprobe.formats.tests.parts import BatteryTest, CapacitorTest, CoilTest, ElementTest, TemperatureSensorTest
from evenprobe.formats.tests.protective import FrequencyTest, LoadTest, ResidualCurrentTest
from evenprobe.formats.tests.wiring import (
    ClosedContactTest,
    ContinuityTest,
    InsulationRatioTest,
    InsulationTest,
    ParallelTest,
    RingTest,
    SeparationTest,
)
from evenprobe.limits import Limit
from evenprobe.rounding import figures

COMPUTED_FIGURES = 4

TestEntry = Annotated[
    ContinuityTest
    | SeparationTest
    | ClosedContactTest
    | InsulationTest
    | InsulationRatioTest
    | ParallelTest
    | ResidualCurrentTest
    | RingTest
    | LoadTest
    | CapacitorTest
    | BatteryTest
    | TemperatureSensorTest
    | CoilTest
    | ElementTest
    | FrequencyTest,
    Field(discriminator="kind"),
]


class TestsFile(Strict):
    format: Literal["even-probe/tests"]
    version: Literal[1]
    practice: PracticeName
    label: Text | None = None
    tests: list[TestEntry]

    @field_validator("tests")
    @classmethod
    def _each_once(cls, tests: list[TestEntry]) -> list[TestEntry]:
        seen: set[str] = set()
        for index, test in enumerate(tests):
            if test.id in seen:
                raise FieldError(f"[{index}].id", f"{test.id!r} stands twice")
            seen.add(test.id)
        return tests

    def outcomes(self) -> Iterable[tuple[str, Outcome]]:
        return [(test.id, test.outcome(self.practice)) for test in self.tests]


def outcome_answer(outcome: Outcome) -> dict[str, Any]:
    answer = {
        "result": str(outcome.result),
        "limit": None if outcome.limit is None else limit_answer(outcome.limit),
        "computed": {name: _rounded(value) for name, value in outcome.computed.items()},
        "text": outcome.text,
    }
    return {**answer, "question": outcome.question} if outcome.question else answer


def tests_answer(outcomes: Iterable[tuple[str, Outcome]]) -> dict[str, Any]:
    return {"tests": [{"id": name, **outcome_answer(outcome)} for name, outcome in outcomes]}


def limit_answer(limit: Limit) -> dict[str, Any]:
    """`value`: the one bound there is, both where there are two, null where only over-range passes."""
    bounds = [b for b in (limit.band.low, limit.band.high) if isfinite(b)]
    if limit.band.low == 0:
        bounds = bounds[1:]
    value = None if not bounds else bounds[0] if len(bounds) == 1 else bounds
    return {"id": limit.id, "value": _rounded(value), "unit": limit.unit, "source": limit.source}


def _rounded(value: Any) -> Any:
    if isinstance(value, bool) or not isinstance(value, float):
        return [_rounded(v) for v in value] if isinstance(value, list) else value
    return figures(value, COMPUTED_FIGURES)
