"""Points by how they stand: those that are not safe, that failed, or that were not tested since a day."""

from collections.abc import Callable, Mapping
from datetime import UTC, datetime, time, timedelta
from typing import Annotated, Any, Literal

from django.db.models import Case, F, Q, When
from django.http import HttpRequest
from django.utils import timezone
from ninja import Query, Router

from base.failures import each_shown
from base.unchanged import same_until_changed
from crews.services import crew_of
from evenprobe.entries import Day
from evenprobe.interpretation import WORST_FIRST, Verdict
from overviews.shapes import StandingOut, StandingPage
from readings.settling import settled
from readings.standings import not_shown, short_of
from sites.models import SITE_BY_SITE, Point

router = Router(tags=["sites"])
_A_YEAR = timedelta(days=365)
_AT_A_TIME = 200

_SAFE = [str(verdict) for verdict in WORST_FIRST if verdict.is_safe]
_SAFE_STILL = Q(standing__verdict__in=_SAFE, standing__made_of=F("standing__changes"))
_WORST_FIRST = Case(
    *(When(_SAFE_STILL & Q(standing__verdict=v) if v in _SAFE else Q(standing__verdict=v), then=n)
      for n, v in enumerate(map(str, WORST_FIRST))),
    default=WORST_FIRST.index(Verdict.UNTESTED),
)  # fmt: skip
_WANTED: Mapping[str, Callable[[datetime], Q]] = {
    "not-safe": lambda _since: ~_SAFE_STILL,
    "failed": lambda _since: Q(standing__failed__0__isnull=False),
    "not-tested": lambda since: Q(standing__last_tested=None) | Q(standing__last_tested__lt=since),
}


@router.get("/standing/{what}", response=StandingPage)
@same_until_changed(settled)
def standing(
    request: HttpRequest,
    what: Literal["not-safe", "failed", "not-tested"],
    since: Day | None = None,
    skip: Annotated[int, Query(ge=0, le=1_000_000)] = 0,
) -> StandingPage:
    """The worst first, 200 at a time. `since`: of those that were not tested; a year ago where nothing is said."""
    day = since or (timezone.now() - _A_YEAR).date()
    wanted = _WANTED[what](datetime.combine(day, time(), UTC))
    here = Point.objects.in_use().filter(wanted, circuit__board__supply__site__crew=crew_of(request))
    worst_first = here.select_related("standing", "circuit__board__supply__site").order_by(_WORST_FIRST, *SITE_BY_SITE)
    found = list(worst_first[skip : skip + _AT_A_TIME + 1])
    lines = each_shown(
        found[:_AT_A_TIME],
        lambda point: _line(point, short_of(point.standing)),
        lambda point, why: _line(point, not_shown(why)),
    )
    return StandingPage(points=lines, more=len(found) > _AT_A_TIME)


def _line(point: Point, said: dict[str, Any]) -> StandingOut:
    circuit = point.circuit
    return StandingOut(
        id=point.id,
        name=point.name,
        where=f"{circuit.name}, {circuit.board.name}, {circuit.board.supply.site.name}",
        last_tested=point.standing.last_tested,
        failed=point.standing.failed or [],
        **said,
    )
