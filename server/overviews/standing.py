"""Points by how they stand: those that are not safe, that failed, or that were not tested since a day."""

from collections.abc import Callable, Iterator, Mapping
from datetime import UTC, datetime, time, timedelta
from typing import Any, Literal

from django.http import HttpRequest
from django.utils import timezone
from ninja import Router

from base.failures import each_shown
from crews.services import crew_of
from evenprobe.deadtests.judgement import Result
from evenprobe.entries import Day
from evenprobe.interpretation import WORST_FIRST, Verdict
from evenprobe.interpretation.findings import State
from overviews.shapes import StandingOut
from readings.in_short import in_short, not_shown
from readings.point_view import PointView
from sites.services import sites_of
from visits.on_site import CircuitRecord, records_of

router = Router(tags=["sites"])
_A_YEAR = timedelta(days=365)


@router.get("/standing/{what}", response=list[StandingOut])
def standing(
    request: HttpRequest, what: Literal["not-safe", "failed", "not-tested"], since: Day | None = None
) -> list[StandingOut]:
    """The worst first. `since`: of those that were not tested; a year ago where nothing is said."""
    day = since or (timezone.now() - _A_YEAR).date()
    wanted, begin = _WANTED[what], datetime.combine(day, time(), UTC)
    points = [one for one in _points(request) if wanted(one, begin)]
    return sorted(points, key=lambda one: WORST_FIRST.index(Verdict(one.verdict)))


_WANTED: Mapping[str, Callable[[StandingOut, datetime], bool]] = {
    "not-safe": lambda one, _since: not Verdict(one.verdict).is_safe,
    "failed": lambda one, _since: bool(one.failed),
    "not-tested": lambda one, since: one.last_tested is None or one.last_tested < since,
}


def _points(request: HttpRequest) -> Iterator[StandingOut]:
    """Of all the crew's sites, in their order."""
    sites = list(sites_of(crew_of(request)).filter(retired_at=None))
    records = records_of(sites)
    for site in sites:
        for record in records[site.id].circuits.values():
            yield from each_shown(
                record.views,
                lambda view, record=record: _shown(view, record, in_short(view)),  # type: ignore[misc]
                lambda view, why, record=record: _shown(view, record, not_shown(why)),  # type: ignore[misc]
            )


def _shown(view: PointView, record: CircuitRecord, said: dict[str, Any]) -> StandingOut:
    circuit = record.circuit
    return StandingOut(
        id=view.point.id,
        name=view.point.name,
        where=f"{circuit.name}, {circuit.board.name}, {view.site.name}",
        last_tested=_last_tested(view, record),
        failed=list(_failed(view, record, said)),
        **said,
    )


def _own(view: PointView, point: str | None) -> bool:
    return point in (None, str(view.point.id))


def _last_tested(view: PointView, record: CircuitRecord) -> datetime | None:
    """The last reading that counts, or test of its circuit."""
    readings = (row.taken_at for row in view.counting().values())
    tests = (e.at for sheet in record.sheets for e in sheet.of("tested") if _own(view, e.entry.get("point")))
    return max([*readings, *tests], default=None)


def _failed(view: PointView, record: CircuitRecord, said: Mapping[str, object]) -> Iterator[str]:
    """Dead tests in force that failed, and the two answers beside the wiring's."""
    sheets = record.sheets[:1]
    for sheet in sheets:
        for line in sheet.lines:
            taken = sheet.taken.get(line.id)
            if taken is not None and taken.outcome.result is Result.FAIL and _own(view, line.point):
                yield sheet.line_title(line.id)
    for key, name in (("insulation", "Insulation"), ("protection", "Protective device")):
        if getattr(said[key], "state", "") == State.FAIL:
            yield name
