"""The crew's sheets as lines, and what a board's circuits should read together."""

from collections.abc import Iterable
from math import isfinite
from uuid import UUID

from django.utils import timezone

from base.failures import each_shown
from crews.models import Crew
from evenprobe.deadtests.energising import in_the_way
from evenprobe.deadtests.insulation import CircuitInsulation, several
from evenprobe.rounding import figures
from sheets.models import Sheet
from sheets.pictures import history_out
from sheets.records import SheetView
from sheets.shapes import CircuitForSheet, SheetLine, TogetherOut
from sites.models import Circuit


def sheet_line(sheet: Sheet) -> SheetLine:
    view = SheetView(sheet)
    found = in_the_way(view.record)
    energised = bool(view.of("energised"))
    drawn = history_out(view)
    return SheetLine(
        id=sheet.id,
        circuit=sheet.circuit.name,
        board=sheet.circuit.board.name,
        site=view.site.name,
        begun_at=sheet.begun_at,
        state="energised" if energised else "in-the-way" if found else "clear",
        said=next((w.text for w in found if w.code == "fails"), found[0].text if found else ""),
        left=0 if energised else len(found),
        dead=not energised and view.dead(timezone.now()),
        halved=any(h["halved"] for h in drawn),
        lowest=_lowest(view),
        fails=not energised and any(w.code == "fails" for w in found),
    )


def unshown_line(sheet: Sheet, why: str) -> SheetLine:
    """In the way, for nobody knows what is on it."""
    return SheetLine(
        id=sheet.id,
        circuit=sheet.circuit.name,
        board=sheet.circuit.board.name,
        site=sheet.circuit.board.supply.site.name,
        begun_at=sheet.begun_at,
        state="in-the-way",
        said=f"{why} Treat as live.",
        left=1,
        dead=False,
        halved=False,
        lowest="",
        fails=False,
        unshown=why,
    )


def _lowest(view: SheetView) -> str:
    lowest = _lowest_insulation(view)
    return "" if lowest is None else f"{figures(lowest):g} MΩ at 20 °C"


def _lowest_insulation(view: SheetView) -> float | None:
    """Megohms at 20 °C of the pair that insulates least, of the tests in force."""
    tests = [t.outcome.held for name, t in view.taken.items() if name.startswith("insulation ")]
    return min((held.value for held in tests if held is not None and isfinite(held.value)), default=None)


def together_out(latest: Iterable[Sheet]) -> list[TogetherOut]:
    """Of every board with several circuits measured: what they should read together, and which to split off first."""
    boards: dict[UUID, list[tuple[SheetView, float | None]]] = {}
    for measured in each_shown(latest, _measured, lambda _sheet, _why: None):
        if measured is not None:
            boards.setdefault(measured[0].sheet.circuit.board_id, []).append(measured)
    found = []
    for of_board in boards.values():
        views = [view for view, _ in of_board]
        lowest = [CircuitInsulation(r.sheet.circuit.name, mohm) for r, mohm in of_board]
        known = [c for c in lowest if c.mohm_20c is not None]
        if len(known) > 1:
            outcome = several(known, None, views[0].circuit.rule)
            board = views[0].sheet.circuit.board
            found.append(TogetherOut(board=board.name, site=views[0].site.name, says=outcome.text))
    return found


def _measured(sheet: Sheet) -> tuple[SheetView, float | None] | None:
    view = SheetView(sheet)
    return view, _lowest_insulation(view)


def circuits_out(crew: Crew, latest: dict[UUID, Sheet]) -> list[CircuitForSheet]:
    in_use = {f"{over}retired_at": None for over in ("", "board__", "board__supply__", "board__supply__site__")}
    found = Circuit.objects.filter(board__supply__site__crew=crew, **in_use).select_related("board__supply__site")
    return [
        CircuitForSheet(
            id=c.id,
            name=c.name,
            board=c.board.name,
            site=c.board.supply.site.name,
            practice=c.board.supply.site.practice,
            sheet=latest[c.id].id if c.id in latest else None,
        )
        for c in found
    ]
