"""Dead tests in a case: where the probes are for a line of a sheet, and what is then typed in its form."""

from collections.abc import Mapping
from typing import Any
from uuid import UUID

from base.problems import Refused
from evenprobe.deadtests.measured import figure_of, measured_along
from evenprobe.deadtests.sheet import Line
from evenprobe.formats.shown import typed_in
from evenprobe.practices import PRACTICES
from evenprobe.quantities import Reading
from practising.models import Practised
from sheets.records import SheetView
from sheets.services import sheet_of

_NOT_SIMULATED = "this test is not simulated; its ohms between two conductors are"


def is_on_a_sheet(told: Mapping[str, Any]) -> bool:
    return "sheet" in told


def is_tips_together(told: Mapping[str, Any]) -> bool:
    """Of a sheet, and of none of its lines."""
    return is_on_a_sheet(told) and "line" not in told


def reading_of(practised: Practised, told: Mapping[str, Any]) -> dict[str, Any]:
    """The reading that the test will be, as the survey format has it. Raises Refused for what is no line of a sheet."""
    view, line = _line(practised, told)
    found = measured_along(line, told.get("test") or {}, PRACTICES[view.practice], view.loads)
    if found is None:
        raise Refused(("entry", _NOT_SIMULATED))
    return found


def typed_of(practised: Practised, told: Mapping[str, Any], shown: Reading) -> str:
    """What is typed of it."""
    if is_tips_together(told):
        return typed_in(shown, "ohm")
    figure = figure_of(_line(practised, told)[1])
    return typed_in(shown, figure.unit) if figure else ""


def _line(practised: Practised, told: Mapping[str, Any]) -> tuple[SheetView, Line]:
    try:
        sheet = UUID(str(told["sheet"]))
    except ValueError:
        raise Refused(("entry.sheet", "must be the id of a sheet")) from None
    view = SheetView(sheet_of(practised.sandbox, sheet))
    line = view.line(str(told.get("line")))
    if line is None:
        raise Refused(("entry.line", "no such line on this sheet"))
    return view, line
