"""One tester: what it is fit for wherever the crew works, its checks, and when it was last proved."""

from datetime import date, datetime
from typing import Any
from uuid import UUID

from django.http import HttpRequest
from django.utils import timezone
from ninja import Router

from base.problems import Problems
from crews.rights import Act
from crews.services import crew_of, refuse_unless_may
from evenprobe.entries import Time
from evenprobe.formats.answers import FitnessOut
from evenprobe.practices import CONTINENTAL
from evenprobe.supplies import SYSTEMS
from evenprobe.testers.daily_check import items_for
from evenprobe.testers.fitness import Held, attention, fitness
from evenprobe.testers.purposes import Purpose
from evenprobe.testers.ratings import Place
from kit.api import tester_out
from kit.faults import found_faulty
from kit.hands import Hands
from kit.models import Tester
from kit.services import check, put_tester, task_of, tester_of
from kit.shapes import CheckIn, TesterIn, TesterOut
from overviews.leaning import leaning_on
from overviews.shapes import CheckOut, FaultIn, FaultOut, FitOut, ItemOut, LastProof, LeaningOut, TesterPage
from sites.models import Supply

router = Router(tags=["kit"])

_CHECKS_SHOWN = 20


@router.get("/testers/{tester_id}", response={200: TesterPage, 404: Problems})
def tester_page(request: HttpRequest, tester_id: UUID) -> TesterPage:
    return _page(tester_of(crew_of(request), tester_id))


@router.put("/testers/{tester_id}", response={200: TesterOut, 404: Problems, 409: Problems, 422: Problems})
def save_tester(request: HttpRequest, tester_id: UUID, data: TesterIn) -> TesterOut:
    entry = data.dict(exclude_none=True, exclude={"usual_leads", "retired"})
    crew = crew_of(request)
    if data.retired:
        refuse_unless_may(request.user, Act.RETIRE)
    tester = put_tester(crew, tester_id, _as_json(entry), usual_leads=data.usual_leads, retired=data.retired)
    return tester_out(tester, Hands(crew, timezone.now()))


@router.put(
    "/testers/{tester_id}/checks/{check_id}",
    response={200: TesterPage, 404: Problems, 409: Problems, 422: Problems},
)
def save_check(request: HttpRequest, tester_id: UUID, check_id: UUID, data: CheckIn) -> TesterPage:
    return _page(check(crew_of(request), request.user, tester_id, check_id, data.entry))


@router.put(
    "/testers/{tester_id}/faults/{fault_id}",
    response={200: TesterPage, 404: Problems, 409: Problems, 422: Problems},
)
def save_fault(request: HttpRequest, tester_id: UUID, fault_id: UUID, data: FaultIn) -> TesterPage:
    """Found faulty: what it showed since then confirms nothing. With no `since`: found good after all."""
    return _page(found_faulty(crew_of(request), request.user, tester_id, fault_id, data.what, data.since))


@router.get("/testers/{tester_id}/leaning", response={200: LeaningOut, 404: Problems})
def leaning(request: HttpRequest, tester_id: UUID, since: Time) -> LeaningOut:
    """Everything it took since a time, and what would come of each verdict without it. Changes nothing."""
    return leaning_on(tester_of(crew_of(request), tester_id), since, timezone.now())


def _as_json(entry: dict[str, Any]) -> dict[str, Any]:
    return {key: value.isoformat() if isinstance(value, date) else value for key, value in entry.items()}


def _page(tester: Tester) -> TesterPage:
    now = timezone.now()
    hands = Hands(tester.crew, now)
    entry, in_force = hands.holding(tester, now), hands.check_in_force(tester, now)
    return TesterPage(
        tester=tester_out(tester, hands),
        from_file=tester.brought.said if tester.brought else "",
        strange=tester.is_strange,
        taken_over=f"{tester.taken_over_by}, {tester.taken_over_at:%Y-%m-%d}" if tester.taken_over_at else "",
        says=entry.kind.says,
        blind_to=list(entry.kind.blind_to),
        fits=_fits(tester, entry.held()),
        items=[
            ItemOut(id=i.id, asks=i.asks, how=i.how, good=i.good, bad=i.bad, unit=i.unit) for i in items_for(entry.kind)
        ],
        checks=[
            CheckOut(at=c.at, by=c.by_name, entry=c.entry, in_force=c == in_force)
            for c in tester.checks.all()[:_CHECKS_SHOWN]
        ],
        faults=[FaultOut(at=f.at, by=f.by_name, what=f.what, since=f.since) for f in reversed(tester.faults.all())],
        good_until=_good_until(tester),
        last_proof=_last_proof(tester),
    )


def _good_until(tester: Tester) -> datetime | None:
    """What it showed until then has been checked since."""
    checks = (
        c.at for c in tester.checks.all() if not attention(c.found().applied(tester.instrument()).held(), c.at.date())
    )
    proved = tester.proof_events.filter(type="proved").order_by("-at").first()
    known = [*([proved.at] if proved else []), *checks]
    return max(known, default=None)


def _fits(tester: Tester, held: Held) -> list[FitOut]:
    """Purpose by place, for every supply system the crew works on."""
    used = Supply.objects.filter(site__crew=tester.crew).values_list("site__practice", "system").distinct()
    fits = []
    for practice, system in sorted(used) or [(CONTINENTAL.id, "230/400")]:
        for purpose in Purpose:
            for place in Place:
                found = FitnessOut.of(fitness(task_of(practice, purpose, place, system), held))
                fits.append(
                    FitOut(
                        practice=practice,
                        system=system,
                        system_title=SYSTEMS[system].title,
                        purpose=purpose,
                        place=place,
                        fit=found.fit,
                        problems=found.problems,
                        warnings=found.warnings,
                    )
                )
    return fits


def _last_proof(tester: Tester) -> LastProof | None:
    event = tester.proof_events.filter(type__in=("proved", "prove-failed")).order_by("-at", "-number").first()
    if event is None:
        return None
    good = event.type == "proved"
    against = event.entry.get("against", "a known source").replace("-", " ")
    said = f"{event.entry.get('shows_v', event.entry.get('at_least'))} V on {against}" if good else "failed"
    return LastProof(at=event.at, good=good, said=said, proof=event.proof_id, proof_name=event.proof.name)
