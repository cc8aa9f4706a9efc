"""A test as somebody types it, made whole: with what the sheet, the leads and the tester's register already know."""

from datetime import datetime
from typing import Any

from evenprobe.deadtests import Outcome
from evenprobe.deadtests.sheet import Line
from evenprobe.formats import FormatError, InstrumentEntry, TestsFile, parse
from evenprobe.formats.tests import TestEntry
from evenprobe.formats.units import to_si
from evenprobe.practices import PRACTICES
from evenprobe.quantities import RESISTANCE
from evenprobe.quantities.fit_here import known_problems
from evenprobe.supplies import SYSTEMS
from evenprobe.testers.purposes import Purpose
from evenprobe.testers.ratings import Place
from evenprobe.testers.tasks import Task
from project.problems import Refused

IN_OHMS: tuple[str, ...] = ("continuity", "separation", "closed-contact")
NO_TESTER = "no tester was named, so it clears nothing"


def whole_test(
    line: Line | None,
    typed: dict[str, Any],
    *,
    null_ohm: float | None = None,
    loads: dict[str, Any] | None = None,
    held: InstrumentEntry | None = None,
) -> dict[str, Any]:
    """The tests file's entry. What is typed comes before what is known, and None takes a known thing out."""
    known: dict[str, Any] = {"kind": line.kind, **line.preset} if line else {}
    kind = typed.get("kind", known.get("kind"))
    if kind in IN_OHMS:
        known["null_ohm"] = null_ohm
        known |= _accuracy(held)
    if kind in ("continuity", "separation", "insulation") and loads:
        known["neutral"] = loads["neutral"]
    if kind == "insulation" and loads:
        known["loads"] = loads["loads"]
    return in_ohms({key: value for key, value in {**known, **typed}.items() if value is not None})


def in_ohms(test: dict[str, Any]) -> dict[str, Any]:
    """What was typed in another unit, in ohms: a display changes its unit by itself."""
    if test.get("unit") is None:
        return test
    test, unit = {key: value for key, value in test.items() if key != "unit"}, test["unit"]
    if unit not in RESISTANCE.written.units:
        raise Refused(("unit", f"must be one of {', '.join(RESISTANCE.written.units)}"))
    ohms = test.get("measured_ohm")
    if not isinstance(ohms, int | float):
        return test
    try:
        return {**test, "measured_ohm": to_si(ohms, unit)}
    except OverflowError:
        raise Refused(("measured_ohm", "is larger than any reading")) from None


def _accuracy(held: InstrumentEntry | None) -> dict[str, Any]:
    ability = held.instrument().ohms() if held else None
    if ability is None:
        return {}
    return {
        "accuracy_percent": ability.percent,
        "accuracy_counts": ability.counts,
        "resolution": ability.resolution,
    }


def checked(practice: str, test: dict[str, Any]) -> TestEntry:
    """The test as the format has it. Raises Refused with the test's own keys."""
    file = {"format": "even-probe/tests", "version": 1, "practice": practice, "tests": [{"id": "t", **test}]}
    try:
        return parse(TestsFile, file).tests[0]
    except FormatError as error:
        raise Refused(*((path.removeprefix("tests[0]").lstrip("."), text) for path, text in error.problems)) from None


def outcome_of(practice: str, test: dict[str, Any]) -> Outcome:
    return checked(practice, test).outcome(PRACTICES[practice])


def why_unfit(practice: str, system: str, test: dict[str, Any], held: dict[str, Any] | None, at: datetime) -> str:
    """Why what was held could clear nothing, in words; empty where it could."""
    if held is None:
        return NO_TESTER
    insulation = test["kind"] == "insulation"
    task = Task(
        Purpose.INSULATION if insulation else Purpose.CONTINUITY,
        Place.INSTALLATION,
        SYSTEMS[system],
        PRACTICES[practice],
        test_volts=test.get("test_v") if insulation else None,
        on=at.date(),
    )
    return known_problems(task, InstrumentEntry.model_validate({"id": "held", **held}).held())
