"""A test as a sheet keeps it: checked as the tests file has it, judged, and what its tester was worth."""

from datetime import datetime
from typing import Any

from base.problems import Refused
from evenprobe.deadtests import Outcome, fit
from evenprobe.deadtests.kinds import OneTest
from evenprobe.formats import FormatError, InstrumentEntry, dead_tests_file, parse
from evenprobe.formats.sheet import SheetEntryFile
from evenprobe.practices import PRACTICES
from evenprobe.supplies import SYSTEMS


def checked(practice: str, test: dict[str, Any]) -> OneTest:
    """The test as the format has it. Raises Refused with the test's own keys."""
    file = {"format": "even-probe/tests", "version": 1, "practice": practice, "tests": [{"id": "t", **test}]}
    try:
        return parse(dead_tests_file(), file).tests[0]
    except FormatError as error:
        raise Refused(*((path.removeprefix("tests[0]").lstrip("."), text) for path, text in error.problems)) from None


def check_entry(id_: object, entry: dict[str, Any]) -> None:
    """What a file has on a sheet, as it was kept elsewhere. Raises FormatError."""
    tested = entry.get("type") == "tested" and isinstance(entry.get("test"), dict)
    parse(SheetEntryFile, {"entry": {**entry, "test": {"id": str(id_), **entry["test"]}} if tested else entry})


def outcome_of(practice: str, test: dict[str, Any]) -> Outcome:
    return checked(practice, test).outcome(PRACTICES[practice])


def why_unfit(practice: str, system: str, test: dict[str, Any], held: dict[str, Any] | None, at: datetime) -> str:
    """Why what was held could clear nothing, in words; empty where it could."""
    entry = None if held is None else InstrumentEntry.model_validate({"id": "held", **held}).held()
    return fit.why_unfit(PRACTICES[practice], SYSTEMS[system], test, entry, at.date())
