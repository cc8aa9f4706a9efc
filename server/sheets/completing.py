"""A test as a sheet keeps it: checked as the tests file has it, judged, and what its tester was worth."""

from datetime import datetime
from typing import Any

from base.problems import Refused
from evenprobe.deadtests import Outcome, fit
from evenprobe.deadtests.kinds import OneTest
from evenprobe.formats import FormatError, InstrumentEntry, dead_tests_file, parse
from evenprobe.practices import PRACTICES
from evenprobe.supplies import SYSTEMS


def checked(practice: str, test: dict[str, Any]) -> OneTest:
    """The test as the format has it. Raises Refused with the test's own keys."""
    file = {"format": "even-probe/tests", "version": 1, "practice": practice, "tests": [{"id": "t", **test}]}
    try:
        return parse(dead_tests_file(), file).tests[0]
    except FormatError as error:
        raise Refused(*((path.removeprefix("tests[0]").lstrip("."), text) for path, text in error.problems)) from None


def outcome_of(practice: str, test: dict[str, Any]) -> Outcome:
    return checked(practice, test).outcome(PRACTICES[practice])


def why_unfit(practice: str, system: str, test: dict[str, Any], held: dict[str, Any] | None, at: datetime) -> str:
    """Why what was held could clear nothing, in words; empty where it could."""
    entry = None if held is None else InstrumentEntry.model_validate({"id": "held", **held}).held()
    return fit.why_unfit(PRACTICES[practice], SYSTEMS[system], test, entry, at.date())
