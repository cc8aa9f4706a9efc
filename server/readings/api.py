"""The Bench over HTTP: a point, its readings and what they can mean; surveys out and in."""

from collections.abc import Sequence
from datetime import date
from functools import lru_cache
from typing import Any
from uuid import UUID

from django.http import HttpRequest, StreamingHttpResponse
from django.http.response import HttpResponseBase
from django.utils import timezone
from ninja import Router

from base.clocks import by_our_clock
from base.problems import Problems, Refused
from base.shapes import Named
from crews.rights import Act, may
from crews.services import crew_of, membership_of
from evenprobe.formats import InstrumentEntry
from evenprobe.formats.answers import CapabilitiesOut, SweepOut
from evenprobe.quantities import QUANTITIES
from evenprobe.quantities.fit_here import may_trip, why_unfit
from evenprobe.quantities.functions import functions_with
from evenprobe.supplies import SYSTEMS
from evenprobe.testers import TYPED
from evenprobe.testers.fitness import Held
from evenprobe.wiring import PointFacts
from kit.hands import Hands
from kit.models import Tester
from kit.services import tester_of
from readings.covering import covered_of, is_covered
from readings.importing import bring_in
from readings.interpretations import at_once, capabilities_of, interpretation_of, loads_of, make_ready
from readings.models import Reading
from readings.point_view import PointView, view_of, with_readings
from readings.services import as_if_recorded, record, withdraw
from readings.shapes import (
    BenchOut,
    BringIn,
    CannotIn,
    JudgedReadingOut,
    JudgeReadingIn,
    RecordIn,
    WithdrawalIn,
)
from readings.standings import keep
from readings.surveys import source_of, status_of, survey_in_pieces, survey_of, tester_said
from readings.visit import cannot_here, remember
from sites.models import Point
from sites.services import site_of

router = Router(tags=["work"])

InHand = Sequence[tuple[Tester, InstrumentEntry]]
_TESTERS_AT_POINTS = 1024
"""That are remembered."""


@router.get("/points/{point_id}/bench", response={200: BenchOut, 404: Problems}, by_alias=True)
def bench(request: HttpRequest, point_id: UUID) -> dict[str, Any]:
    crew = crew_of(request)
    view = view_of(crew, point_id)
    records = may(membership_of(request.user).role, Act.RECORD)
    hands = Hands(crew, timezone.now()) if records else None
    found = bench_out(request, view, hands)
    make_ready(view)
    return found


@router.put(
    "/points/{point_id}/readings/{reading_id}",
    response={200: BenchOut, 404: Problems, 409: Problems, 422: Problems},
    by_alias=True,
)
def record_reading(request: HttpRequest, point_id: UUID, reading_id: UUID, data: RecordIn) -> dict[str, Any]:
    crew = crew_of(request)
    now = timezone.now()
    when = by_our_clock(now, data.taken_at, data.sent_at) if data.sent_at else min(data.taken_at or now, now)
    hands = Hands(crew, when)
    view = record(crew, request.user, point_id, reading_id, data.entry, data.tester, data.supersedes, when, hands)
    return _changed(request, view, hands, verdict_first=data.verdict_first)


@router.post(
    "/points/{point_id}/judge",
    response={200: JudgedReadingOut, 404: Problems, 409: Problems, 422: Problems},
    by_alias=True,
)
def judge_reading(request: HttpRequest, point_id: UUID, data: JudgeReadingIn) -> dict[str, Any]:
    """What a reading would make of the verdict, while it is typed. Nothing is kept."""
    crew = crew_of(request)
    view = as_if_recorded(crew, request.user, point_id, data.entry, data.tester, data.supersedes)
    cannot = cannot_here(request, view.site.id)
    found = at_once(view, cannot, view.point.circuit.noticed)
    return {"verdict": found and found.verdict, "summary": found.summary if found else ""}


@router.put("/points/{point_id}/cannot", response={200: BenchOut, 404: Problems, 422: Problems}, by_alias=True)
def say_cannot(request: HttpRequest, point_id: UUID, data: CannotIn) -> dict[str, Any]:
    """What is not to be had at the point's site for the rest of the day; no next test there needs it."""
    crew = crew_of(request)
    view = view_of(crew, point_id)
    remember(request, view.site.id, data.cannot)
    return bench_out(request, view, Hands(crew, timezone.now()))


@router.put(
    "/points/{point_id}/withdrawals/{withdrawal_id}",
    response={200: BenchOut, 404: Problems, 409: Problems, 422: Problems},
    by_alias=True,
)
def withdraw_reading(request: HttpRequest, point_id: UUID, withdrawal_id: UUID, data: WithdrawalIn) -> dict[str, Any]:
    crew = crew_of(request)
    view = withdraw(crew, request.user, point_id, withdrawal_id, data.reading)
    return _changed(request, view, Hands(crew, timezone.now()))


def _changed(request: HttpRequest, view: PointView, hands: Hands, *, verdict_first: bool = False) -> dict[str, Any]:
    """The point after a change, which is kept beside it where it is whole and lists would have the same answer."""
    found = bench_out(request, view, hands, verdict_first=verdict_first)
    if not (found["cannot"] or found["covered"] or found["to_follow"] or view.point.circuit.noticed):
        keep(view)
    return found


@router.get("/points/{point_id}/capabilities/{tester_id}", response={200: CapabilitiesOut, 404: Problems})
def capabilities(request: HttpRequest, point_id: UUID, tester_id: UUID) -> CapabilitiesOut:
    """What the tester can strike out at the point as it stands, and what it never can."""
    crew = crew_of(request)
    return capabilities_of(view_of(crew, point_id), tester_of(crew, tester_id).instrument())


@router.get("/points/{point_id}/survey", response={200: dict[str, Any], 404: Problems})
def point_survey(request: HttpRequest, point_id: UUID) -> dict[str, Any]:
    view = view_of(crew_of(request), point_id)
    return survey_of(view.site, {view.point: view.rows}, whole=True, leaving=True)


@router.get("/sites/{site_id}/survey", response={200: dict[str, Any], 404: Problems, 422: Problems})
def site_survey(request: HttpRequest, site_id: UUID) -> HttpResponseBase:
    site = site_of(crew_of(request), site_id)
    here = Point.objects.filter(circuit__board__supply__site=site)
    if not here.exists():
        raise Refused(("points", "this site has no points yet; add one, then save the file"))
    points = with_readings(here).order_by("circuit__board__name", "circuit__position", "position", "id")
    return StreamingHttpResponse(survey_in_pieces(site, points), content_type="application/json")


@router.put("/sites/{site_id}/survey", response={200: Named, 409: Problems, 422: Problems})
def bring_survey_in(request: HttpRequest, site_id: UUID, data: BringIn) -> Named:
    site = bring_in(crew_of(request), request.user, site_id, data.name.strip(), data.survey)
    return Named(id=site.id, name=site.name)


def bench_out(
    request: HttpRequest, view: PointView, hands: Hands | None, *, verdict_first: bool = False
) -> dict[str, Any]:
    """The point as the Bench shows it. `hands`: the crew's, none for who holds nothing.

    `verdict_first`: without what can still be, where the verdict is certain and the rest has to be worked out.
    """
    point, cannot, covered = view.point, cannot_here(request, view.site.id), is_covered(request)
    circuit = point.circuit
    first = at_once(view, cannot, circuit.noticed) if verdict_first and not covered else None
    supply = circuit.board.supply
    return {
        "id": point.id,
        "name": point.name,
        "kind": point.kind,
        "terminals": point.terminals,
        "length_m": point.length_m,
        "practice": view.site.practice,
        "nominal_volts": SYSTEMS[supply.system].nominal_volts,
        "system": supply.system,
        "system_title": SYSTEMS[supply.system].title,
        "earthing": supply.earthing,
        "site": {"id": view.site.id, "name": view.site.name},
        "from_file": point.brought.said if point.brought else "",
        "loose": view.site.loose,
        "board": circuit.board.name,
        "circuit": {"id": circuit.id, "name": circuit.name},
        "rating_a": circuit.rating_a,
        "conductor": circuit.conductor,
        "residual_ma": circuit.residual_ma,
        "curve": circuit.curve,
        "neighbours": [{"id": p.id, "name": p.name} for p in circuit.points.all()],
        "readings": [_reading_out(row) for row in view.rows if row.entry is not None],
        "dead_tests": [
            {"id": t.id, "title": t.title, "entry": t.entry, "taken_at": t.taken_at, "by": t.by_name}
            for t in view.dead_tests
        ],
        **_of_each_tester(hands.all_at(timezone.now()) if hands else [], view.facts),
        "sweeps": SweepOut.of_each(view.readings, view.facts.practice),
        "interpretation": covered_of(view) if covered else first or interpretation_of(view, cannot, circuit.noticed),
        "covered": covered,
        "to_follow": first is not None,
        "cannot": list(cannot),
        "loads": loads_of(view),
    }


def _of_each_tester(held: InHand, facts: PointFacts) -> dict[str, dict[str, Any]]:
    """By tester: why what it shows does not count here, by quantity; what its low impedance may trip; its functions."""
    today = timezone.localdate()
    unfit, trips, functions = {}, {}, {"": [f.id for f in functions_with(TYPED, facts)]}
    for tester, entry in held:
        name, instrument = str(tester.id), entry.instrument()
        unfit[name] = _unfit_here(facts, entry.held(), today)
        if warning := may_trip(facts, instrument):
            trips[name] = warning
        functions[name] = [f.id for f in functions_with(instrument, facts)]
    return {"unfit": unfit, "may_trip": trips, "functions": functions}


@lru_cache(maxsize=_TESTERS_AT_POINTS)
def _unfit_here(facts: PointFacts, held: Held, today: date) -> dict[str, str]:
    """Why what it shows does not count, by quantity: the same from one reading to the next."""
    whys = {str(quantity): why_unfit(facts, quantity, held, today) for quantity in QUANTITIES.values()}
    return {quantity: why for quantity, why in whys.items() if why}


def _reading_out(reading: Reading) -> dict[str, Any]:
    return {
        "id": reading.id,
        "entry": reading.entry,
        "tester": reading.tester_id,
        "tester_label": tester_said(reading),
        "source": source_of(reading),
        "taken_at": reading.taken_at,
        "by": reading.by_name,
        "supersedes": reading.supersedes_id,
        "status": status_of(reading),
    }
