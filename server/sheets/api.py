"""Dead tests over HTTP: a circuit's sheet, results as they are typed, parts checked alone, the tests as a file."""

from typing import Any
from uuid import UUID

from django.http import HttpRequest
from ninja import Router

from base.failures import each_shown
from base.problems import NotFoundHere, Problems, Refused
from base.shapes import Titled
from crews.services import crew_of
from evenprobe.deadtests.checks import QUICK_CHECKS, advise
from evenprobe.deadtests.completing import whole_test
from evenprobe.deadtests.ranges import range_says
from evenprobe.practices import PRACTICES
from evenprobe.rounding import figures
from kit.services import tester_of
from sheets.completing import checked
from sheets.files import bring_in, tests_of
from sheets.listing import circuits_out, sheet_line, together_out, unshown_line
from sheets.models import Sheet
from sheets.presenters import WIRING_TITLES, judged_out, sheet_out
from sheets.records import SheetView
from sheets.services import begin, held_by, put_down, sheet_of, sheets_of
from sheets.shapes import (
    AdviceOut,
    AdviseIn,
    EntryIn,
    JudgedOut,
    JudgeIn,
    PartTestIn,
    QuickCheckOut,
    SheetIn,
    SheetList,
    SheetOut,
    SheetReference,
    TestsIn,
)

router = Router(tags=["sheets"])
_REFUSALS = {404: Problems, 409: Problems, 422: Problems}


@router.get("/reference/sheets", response=SheetReference)
def sheet_reference(request: HttpRequest) -> SheetReference:  # noqa: ARG001
    """How a circuit may be wired, and the quick checks of parts."""
    return SheetReference(
        wirings=[Titled(id=key, title=title) for key, title in WIRING_TITLES.items()],
        checks=[
            QuickCheckOut(
                id=c.id,
                title=c.title,
                kind=c.kind,
                function=c.setting.function,
                jack=c.setting.jack,
                unit=c.setting.unit,
                first=c.first,
                expect=c.expect,
                needs=list(c.needs),
                presets=dict(c.presets or {}),
                leaves_out=list(c.leaves_out),
            )
            for c in QUICK_CHECKS.values()
        ],
    )


@router.get("/sheets", response=SheetList)
def sheets(request: HttpRequest) -> SheetList:
    """The crew's sheets, the latest of each circuit, and the circuits one can be begun for."""
    crew = crew_of(request)
    latest: dict[UUID, Sheet] = {}
    for sheet in sheets_of(crew):
        latest.setdefault(sheet.circuit_id, sheet)
    return SheetList(
        sheets=each_shown(latest.values(), sheet_line, unshown_line),
        together=together_out(latest.values()),
        circuits=circuits_out(crew, latest),
    )


@router.get("/sheets/{sheet_id}", response={200: SheetOut, 404: Problems})
def sheet(request: HttpRequest, sheet_id: UUID) -> dict[str, Any]:
    return sheet_out(sheet_of(crew_of(request), sheet_id), request.user)


@router.put("/sheets/{sheet_id}", response={200: SheetOut, **_REFUSALS})
def begin_sheet(request: HttpRequest, sheet_id: UUID, data: SheetIn) -> dict[str, Any]:
    begun = begin(
        crew_of(request), request.user, sheet_id, data.circuit, data.proof, data.wiring, data.ring, data.temperature_c
    )
    return sheet_out(begun, request.user)


@router.put("/sheets/{sheet_id}/entries/{entry_id}", response={200: SheetOut, **_REFUSALS})
def put_down_entry(request: HttpRequest, sheet_id: UUID, entry_id: UUID, data: EntryIn) -> dict[str, Any]:
    crew = crew_of(request)
    put_down(crew, request.user, sheet_id, entry_id, data.entry, data.tester, data.supersedes, happened=data.happened())
    return sheet_out(sheet_of(crew, sheet_id), request.user)


@router.post("/sheets/{sheet_id}/judge", response={200: JudgedOut, 404: Problems, 422: Problems})
def judge_line(request: HttpRequest, sheet_id: UUID, data: JudgeIn) -> dict[str, Any]:
    """What a test would come to, while it is typed. Nothing is kept."""
    crew = crew_of(request)
    view = SheetView(sheet_of(crew, sheet_id))
    held = held_by(tester_of(crew, data.tester) if data.tester else None)
    line = view.line(data.line)
    if data.line and line is None:
        raise Refused(("line", "no such line on this sheet"))
    test = whole_test(
        line, data.test, null_ohm=view.null_ohm, loads=view.loads, tester=held.instrument() if held else None
    )
    return judged_out(view, test, held)


@router.post("/judge", response={200: JudgedOut, 422: Problems})
def judge_part(request: HttpRequest, data: PartTestIn) -> dict[str, Any]:  # noqa: ARG001
    """A part checked alone. Nothing is kept."""
    if data.practice not in PRACTICES:
        raise Refused(("practice", f"must be one of {', '.join(PRACTICES)}"))
    test = whole_test(None, data.test)
    return judged_out(None, test, None, checked(data.practice, test).outcome(PRACTICES[data.practice]))


@router.post("/advise", response={200: AdviceOut, 404: Problems})
def advise_on_part(request: HttpRequest, data: AdviseIn) -> AdviceOut:  # noqa: ARG001
    """Which range to set on a manual meter for a part with these figures."""
    if data.check not in QUICK_CHECKS:
        raise NotFoundHere("check")
    quick = QUICK_CHECKS[data.check]
    advice = advise(quick, data.figures)
    return AdviceOut(
        range_top=advice.range_top,
        range_says=range_says(advice.range_top, quick.setting.unit),
        over_range=advice.over_range,
        expected=None if advice.expected is None else figures(advice.expected),
    )


@router.get("/sheets/{sheet_id}/tests", response={200: dict[str, Any], 404: Problems})
def sheet_tests(request: HttpRequest, sheet_id: UUID) -> dict[str, Any]:
    """The sheet's tests as a tests file."""
    return tests_of(sheet_of(crew_of(request), sheet_id))


@router.put("/sheets/{sheet_id}/tests", response={200: SheetOut, **_REFUSALS})
def bring_tests_in(request: HttpRequest, sheet_id: UUID, data: TestsIn) -> dict[str, Any]:
    kept = bring_in(crew_of(request), request.user, sheet_id, data.tests)
    return sheet_out(kept, request.user)
