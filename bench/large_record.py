"""2 000 points and 100 000 readings of the demo's crew, written down at once; run where Django is set up.

How each point stands is taken from the first of them, for it is the reading of lists that is measured on them.
"""

import random
from collections.abc import Sequence
from datetime import timedelta
from typing import Any
from uuid import uuid4

from django.db.models import F, Model
from django.utils import timezone

SITES, BOARDS, CIRCUITS, POINTS, READINGS = 10, 4, 10, 5, 50
_AT_A_TIME = 5_000


def make() -> None:
    from bench.crew import entry_of
    from crews.models import Crew
    from evenprobe.planning import Work
    from readings.models import PointStanding, Reading
    from readings.standings import settle
    from sites.models import Board, Circuit, Point, Site, Supply
    from visits.models import Visit, VisitEvent

    crew, now, dice = Crew.objects.get(), timezone.now(), random.Random(7)
    sites = [Site(crew=crew, name=f"Larkspur Hill {n + 1}", practice="north-america") for n in range(SITES)]
    supplies = [Supply(site=site, name="Service", system="120", earthing="TN-C-S") for site in sites]
    boards = [Board(supply=supply, name=f"B{n + 1}", position=n) for supply in supplies for n in range(BOARDS)]
    circuits = [
        Circuit(board=board, name=f"C{n + 1}", rating_a=15, conductor="14 AWG", position=n)
        for board in boards
        for n in range(CIRCUITS)
    ]
    outlet: dict[str, Any] = {"kind": "outlet", "terminals": ["L", "N", "PE"]}
    points = [
        Point(circuit=circuit, name=f"Outlet {n + 1}", length_m=8.0 + 4 * n, position=n, **outlet)
        for circuit in circuits
        for n in range(POINTS)
    ]
    written: list[tuple[type[Model], Sequence[Any]]]
    written = [(Site, sites), (Supply, supplies), (Board, boards), (Circuit, circuits), (Point, points)]
    for model, rows in written:
        model._default_manager.bulk_create(rows, batch_size=_AT_A_TIME)
    readings = (
        Reading(
            id=uuid4(), point=point, entry=entry_of(number, dice), by_name="Anna Reed",
            taken_at=now - timedelta(days=READINGS - number), recorded_at=now - timedelta(days=READINGS - number),
        )
        for point in points
        for number in range(READINGS)
    )  # fmt: skip
    Reading.objects.bulk_create(readings, batch_size=_AT_A_TIME)
    first = points[0]
    settle(PointStanding.objects.filter(point=first))
    made = PointStanding.objects.get(point=first)
    PointStanding.objects.filter(point__in=[p.pk for p in points]).update(
        made_of=F("changes"), made_by=made.made_by, verdict=made.verdict, said=made.said, failed=[],
        last_tested=made.last_tested, last_read=made.last_read, days=made.days,
    )  # fmt: skip
    for site in sites[:5]:
        own = [c for c in circuits if c.board.supply.site == site][:10]
        visit = Visit.objects.create(
            site=site, why="yearly", planned_for=now.date(), circuits=[str(c.id) for c in own],
            works=[str(Work.LIVE_TESTS)], made_at=now, by_name="Anna Reed",
        )  # fmt: skip
        VisitEvent.objects.create(visit=visit, kind=VisitEvent.Kind.BEGUN, at=now, by_name="Anna Reed")
    print(f"{len(points)} points, {len(points) * READINGS} readings, {made.verdict}")
