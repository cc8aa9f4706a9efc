"""Dead tests in a case: where the probes are for a line of a sheet."""

from collections.abc import Mapping
from typing import Any
from uuid import UUID

from base.problems import Refused
from evenprobe.deadtests.measured import measured_along
from evenprobe.practices import PRACTICES
from practising.models import Practised
from sheets.records import SheetView
from sheets.services import sheet_of

_NOT_SIMULATED = "this test is not simulated; ohms and insulation between two conductors are"


def is_on_a_sheet(told: Mapping[str, Any]) -> bool:
    return "sheet" in told


def is_tips_together(told: Mapping[str, Any]) -> bool:
    """Of a sheet, and of none of its lines."""
    return is_on_a_sheet(told) and "line" not in told


def reading_of(practised: Practised, told: Mapping[str, Any]) -> dict[str, Any]:
    """The reading that the test will be, as the survey format has it. Raises Refused for what is no line of a sheet."""
    try:
        sheet = UUID(str(told["sheet"]))
    except ValueError:
        raise Refused(("entry.sheet", "must be the id of a sheet")) from None
    view, picked = SheetView(sheet_of(practised.sandbox, sheet)), told.get("test") or {}
    line = view.line(str(told["line"]))
    if line is None:
        raise Refused(("entry.line", "no such line on this sheet"))
    if not isinstance(picked, dict):
        raise Refused(("entry.test", "must be an object"))
    found = measured_along(line, picked, PRACTICES[view.practice], view.loads)
    if found is None:
        raise Refused(("entry", _NOT_SIMULATED))
    return found
