"""The kit over HTTP: testers, leads, adapters, today's checks, and what a hand holds."""

from datetime import date
from typing import Any
from uuid import UUID

from django.http import HttpRequest
from django.utils import timezone
from ninja import Router

from crews.services import crew_of
from evenprobe.formats import parse
from evenprobe.formats.answers import FindingOut, FitnessOut
from evenprobe.formats.kit import TaskEntry
from evenprobe.practices import CONTINENTAL, PRACTICES
from evenprobe.supplies import SYSTEMS
from evenprobe.testers.daily_check import items_for
from evenprobe.testers.fitness import Held, attention, fitness
from evenprobe.testers.purposes import Purpose
from evenprobe.testers.ratings import LEAST, Place, volts_to_cover
from evenprobe.testers.tasks import Task
from kit.models import Part, Tester
from kit.services import check, check_in_force, in_hand, part_of, parts_of, put_part, put_tester, tester_of, testers_of
from kit.shapes import (
    CheckIn,
    CheckOut,
    FitOut,
    HoldingIn,
    HoldingOut,
    ItemOut,
    LastProof,
    PartIn,
    PartOut,
    TesterIn,
    TesterOut,
    TesterPage,
)
from project.failures import each_shown
from project.problems import Problems, Refused
from sites.models import Supply

router = Router(tags=["kit"])

CHECKS_SHOWN = 20


def tester_out(tester: Tester) -> TesterOut:
    now = timezone.now()
    entry = in_hand(tester, now)
    ability = entry.instrument().volts()
    latest = check_in_force(tester, now)
    return TesterOut(
        id=tester.id,
        label=entry.label or entry.kind.name,
        kind=entry.kind.id,
        kind_name=entry.kind.name,
        proved=entry.proved,
        rated_v=entry.rated_v,
        category=entry.category,
        low_z=ability is not None and ability.low_input_ohm is not None,
        plugs_in=entry.kind.plugs_in,
        stepped=entry.kind.stepped,
        goes_round=entry.kind.goes_round,
        steps_v=entry.steps_v or [],
        usual_leads=tester.usual_leads_id,
        checked_at=latest.at if latest else None,
        attention=[FindingOut(code=f.code, text=f.text) for f in attention(entry.held(), timezone.localdate())],
        entry=tester.entry,
    )


def _unshown_tester(tester: Tester, why: str) -> TesterOut:
    """With no range and no rating, so that it is fit for nothing."""
    nothing = dict.fromkeys(("proved", "rated_v", "category", "usual_leads", "checked_at"))
    return TesterOut(
        id=tester.id,
        label=str(tester),
        kind="",
        kind_name=why,
        low_z=False,
        plugs_in=False,
        stepped=False,
        goes_round=False,
        steps_v=[],
        attention=[FindingOut(code="unshown", text=why)],
        entry={},
        **nothing,
    )


def part_out(part: Part) -> PartOut:
    entry = part.entry
    return PartOut(
        id=part.id,
        role=part.role,
        label=str(part),
        category=entry.get("category"),
        rated_v=entry.get("rated_v"),
        tip_covers=entry.get("tip_covers"),
        damage=entry.get("damage", False),
        ohm=entry.get("ohm"),
    )


@router.get("/testers", response=list[TesterOut])
def testers(request: HttpRequest) -> list[TesterOut]:
    found = each_shown(testers_of(crew_of(request)), tester_out, _unshown_tester)
    return sorted(found, key=lambda t: t.label)


@router.get("/parts", response=list[PartOut])
def parts(request: HttpRequest) -> list[PartOut]:
    return sorted((part_out(p) for p in parts_of(crew_of(request))), key=lambda p: (p.role, p.label))


@router.get("/testers/{tester_id}", response={200: TesterPage, 404: Problems})
def tester_page(request: HttpRequest, tester_id: UUID) -> TesterPage:
    return _page(tester_of(crew_of(request), tester_id))


@router.put("/testers/{tester_id}", response={200: TesterOut, 404: Problems, 409: Problems, 422: Problems})
def save_tester(request: HttpRequest, tester_id: UUID, data: TesterIn) -> TesterOut:
    entry = data.dict(exclude_none=True, exclude={"usual_leads", "retired"})
    crew = crew_of(request)
    tester = put_tester(crew, tester_id, _as_json(entry), usual_leads=data.usual_leads, retired=data.retired)
    return tester_out(tester)


@router.put("/parts/{part_id}", response={200: PartOut, 409: Problems, 422: Problems})
def save_part(request: HttpRequest, part_id: UUID, data: PartIn) -> PartOut:
    entry = data.dict(exclude_none=True, exclude={"role", "retired"})
    return part_out(put_part(crew_of(request), part_id, data.role, entry, retired=data.retired))


@router.put(
    "/testers/{tester_id}/checks/{check_id}",
    response={200: TesterPage, 404: Problems, 409: Problems, 422: Problems},
)
def save_check(request: HttpRequest, tester_id: UUID, check_id: UUID, data: CheckIn) -> TesterPage:
    return _page(check(crew_of(request), request.user, tester_id, check_id, data.entry))


@router.post("/testers/{tester_id}/holding", response={200: HoldingOut, 404: Problems, 422: Problems})
def holding(request: HttpRequest, tester_id: UUID, data: HoldingIn) -> dict[str, Any]:
    """What tester, leads and adapters amount to for a task. Writes nothing."""
    crew = crew_of(request)
    tester = tester_of(crew, tester_id)
    leads = part_of(crew, data.leads, Part.Role.LEADS) if data.leads else None
    adapters = [part_of(crew, a, Part.Role.ADAPTER) for a in data.adapters]
    entry = in_hand(tester, timezone.now(), leads, adapters)
    if entry.leads is not None and data.tip_covers is not None:
        entry = entry.model_copy(update={"leads": entry.leads.model_copy(update={"tip_covers": data.tip_covers})})
    wanted = _task(data.practice, data.purpose, data.place, data.system)
    needs = {
        "category": LEAST[wanted.place][0].name,
        "voltage": volts_to_cover(wanted.place, wanted.system, wanted.line_to_line),
    }
    return {**dict(FitnessOut.of(fitness(wanted, entry.held()))), "needs": needs}


def _task(practice: str, purpose: str, place: str, system: str) -> Task:
    if practice not in PRACTICES:
        raise Refused(("practice", f"must be one of {', '.join(PRACTICES)}"))
    asked = {"purpose": purpose, "place": place, "system": system, "on": timezone.localdate()}
    return parse(TaskEntry, asked).task(PRACTICES[practice])


def _as_json(entry: dict[str, Any]) -> dict[str, Any]:
    return {key: value.isoformat() if isinstance(value, date) else value for key, value in entry.items()}


def _page(tester: Tester) -> TesterPage:
    now = timezone.now()
    entry = in_hand(tester, now)
    in_force = check_in_force(tester, now)
    return TesterPage(
        tester=tester_out(tester),
        says=entry.kind.says,
        blind_to=list(entry.kind.blind_to),
        fits=_fits(tester, entry.held()),
        items=[
            ItemOut(id=i.id, asks=i.asks, how=i.how, good=i.good, bad=i.bad, unit=i.unit) for i in items_for(entry.kind)
        ],
        checks=[
            CheckOut(at=c.at, by=c.by_name, entry=c.entry, in_force=c == in_force) for c in tester.checks.all()[:20]
        ],
        last_proof=_last_proof(tester),
    )


def _fits(tester: Tester, held: Held) -> list[FitOut]:
    """Purpose by place, for every supply system the crew works on."""
    used = Supply.objects.filter(site__crew=tester.crew).values_list("site__practice", "system").distinct()
    fits = []
    for practice, system in sorted(used) or [(CONTINENTAL.id, "230/400")]:
        for purpose in Purpose:
            for place in Place:
                found = FitnessOut.of(fitness(_task(practice, purpose, place, system), held))
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
