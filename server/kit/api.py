"""The kit over HTTP: testers, leads, adapters, today's checks, and what a hand holds."""

from typing import Any
from uuid import UUID

from django.http import HttpRequest
from django.utils import timezone
from ninja import Router

from base.failures import each_shown
from base.problems import Problems
from base.shapes import Named
from crews.rights import Act
from crews.services import crew_of, refuse_unless_may
from evenprobe.formats.answers import FindingOut, FitnessOut
from evenprobe.testers.fitness import attention, fitness
from evenprobe.testers.ratings import LEAST, volts_to_cover
from kit.hands import Hands, in_hand
from kit.models import Part, Tester
from kit.services import bring_back, out_of_use, part_of, parts_of, put_part, task_of, tester_of
from kit.shapes import (
    HoldingIn,
    HoldingOut,
    PartIn,
    PartOut,
    TesterOut,
)
from kit.strangers import take_over

router = Router(tags=["kit"])


def tester_out(tester: Tester, hands: Hands) -> TesterOut:
    now = timezone.now()
    entry, latest = hands.holding(tester, now), hands.check_in_force(tester, now)
    ability = entry.instrument().volts()
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


def _part_out(part: Part) -> PartOut:
    entry = part.entry
    return PartOut(
        id=part.id,
        role=part.role,
        label=f"{part} ({part.brought.said})" if part.brought else str(part),
        category=entry.get("category"),
        rated_v=entry.get("rated_v"),
        tip_covers=entry.get("tip_covers"),
        damage=entry.get("damage", False),
        ohm=entry.get("ohm"),
    )


@router.get("/testers", response=list[TesterOut])
def testers(request: HttpRequest) -> list[TesterOut]:
    hands = Hands(crew_of(request), timezone.now())
    found = each_shown(hands.testers, lambda tester: tester_out(tester, hands), _unshown_tester)
    return sorted(found, key=lambda t: t.label)


@router.get("/parts", response=list[PartOut])
def parts(request: HttpRequest) -> list[PartOut]:
    return sorted((_part_out(p) for p in parts_of(crew_of(request))), key=lambda p: (p.role, p.label))


@router.put("/parts/{part_id}", response={200: PartOut, 409: Problems, 422: Problems})
def save_part(request: HttpRequest, part_id: UUID, data: PartIn) -> PartOut:
    entry = data.dict(exclude_none=True, exclude={"role", "retired"})
    if data.retired:
        refuse_unless_may(request.user, Act.RETIRE)
    return _part_out(put_part(crew_of(request), part_id, data.role, entry, retired=data.retired))


@router.get("/kit/out-of-use", response=list[Named])
def kit_out_of_use(request: HttpRequest) -> list[Named]:
    """Testers, leads and adapters that were taken out of the register."""
    return [Named(id=one.id, name=str(one)) for one in out_of_use(crew_of(request))]


@router.put("/kit/{kit_id}/back", response={200: Named, 404: Problems})
def bring_kit_back(request: HttpRequest, kit_id: UUID) -> Named:
    """Into use again: a tester, leads or an adapter."""
    found = bring_back(crew_of(request), kit_id)
    return Named(id=found.id, name=str(found))


@router.put("/testers/{tester_id}/ours", response={200: Named, 404: Problems})
def tester_is_ours(request: HttpRequest, tester_id: UUID) -> Named:
    """Somebody says that a tester known from a file is the crew's: what it showed counts from now on."""
    found = take_over(crew_of(request), request.user, tester_id)
    return Named(id=found.id, name=str(found))


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
    wanted = task_of(data.practice, data.purpose, data.place, data.system)
    needs = {
        "category": LEAST[wanted.place][0].name,
        "voltage": volts_to_cover(wanted.place, wanted.system, wanted.line_to_line),
    }
    return {**dict(FitnessOut.of(fitness(wanted, entry.held()))), "needs": needs}
