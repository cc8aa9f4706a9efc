"""What may be done with the kit: writing it down, checking it, and what is in a hand at a time."""

from datetime import datetime
from typing import Any
from uuid import UUID, uuid5

from django.db import transaction
from django.db.models import QuerySet
from django.utils import timezone

from base.problems import NotFoundHere, Refused
from brought.models import BroughtFile
from crews.models import Crew
from crews.services import Author, name_of, person_of
from evenprobe.formats import InstrumentEntry, parse
from evenprobe.formats.kit import AdapterEntry, CheckEntry, LeadsEntry, TaskEntry
from evenprobe.practices import PRACTICES
from evenprobe.testers.daily_check import items_for
from evenprobe.testers.tasks import Task
from kit.models import Check, Part, Tester


def testers_of(crew: Crew) -> QuerySet[Tester]:
    """Those in use."""
    return Tester.objects.filter(crew=crew, retired_at=None).select_related("usual_leads")


def parts_of(crew: Crew) -> QuerySet[Part]:
    return Part.objects.filter(crew=crew, retired_at=None).select_related("brought")


def tester_of(crew: Crew, tester_id: UUID) -> Tester:
    tester = Tester.objects.filter(crew=crew, id=tester_id).select_related("usual_leads").first()
    if tester is None:
        raise NotFoundHere("tester")
    return tester


def part_of(crew: Crew, part_id: UUID, role: Part.Role) -> Part:
    part = Part.objects.filter(crew=crew, id=part_id, role=role).first()
    if part is None:
        raise NotFoundHere(str(role))
    return part


@transaction.atomic
def put_tester(
    crew: Crew,
    tester_id: UUID,
    entry: dict[str, Any],
    *,
    usual_leads: UUID | None = None,
    retired: bool = False,
) -> Tester:
    """Write down a tester, or change what is known of it. Leads are parts of their own."""
    checked = parse(InstrumentEntry, {**entry, "id": str(tester_id)})
    existing = Tester.objects.filter(id=tester_id).first()
    if existing is not None and existing.crew_id != crew.id:
        raise Refused(("id", "this id is taken"), status=409)
    tester = existing or Tester(id=tester_id, crew=crew)
    tester.entry = checked.model_dump(mode="json", exclude_none=True, exclude={"id", "leads", "adapters"})
    tester.usual_leads = part_of(crew, usual_leads, Part.Role.LEADS) if usual_leads else None
    tester.retired_at = (tester.retired_at or timezone.now()) if retired else None
    tester.save()
    return tester


@transaction.atomic
def tester_id_meant(crew: Crew, place: UUID, instrument: InstrumentEntry) -> UUID:
    """The id of the crew's tester that a file brought in at `place` means.

    A tester of another crew's, or named otherwise, gets an id of its own there.
    """
    written = instrument.id.split("/")[0]
    try:
        meant = UUID(written)
    except ValueError:
        return uuid5(place, written)
    foreign = Tester.objects.filter(id=meant).exclude(crew=crew).exists()
    return uuid5(place, written) if foreign else meant


def tester_meant(crew: Crew, place: UUID, instrument: InstrumentEntry, brought: BroughtFile) -> Tester:
    """The same, written down as come from a file if it is new; what the register knows of one stays."""
    tester_id = tester_id_meant(crew, place, instrument)
    own = Tester.objects.filter(crew=crew, id=tester_id).first()
    if own is not None:
        return own
    found = put_tester(crew, tester_id, instrument.model_dump(mode="json", exclude_none=True, exclude={"id"}))
    found.brought = brought
    found.save()
    return found


@transaction.atomic
def put_part(crew: Crew, part_id: UUID, role: str, entry: dict[str, Any], *, retired: bool = False) -> Part:
    """Write down leads or an adapter, or change what is known of them."""
    if role not in Part.Role.values:
        raise Refused(("role", f"must be one of {', '.join(Part.Role.values)}"))
    checked = parse(LeadsEntry if role == Part.Role.LEADS else AdapterEntry, entry)
    existing = Part.objects.filter(id=part_id).first()
    if existing is not None and existing.crew_id != crew.id:
        raise Refused(("id", "this id is taken"), status=409)
    if existing is not None and existing.role != role:
        raise Refused(("role", f"this part is {existing.role}; write down another"))
    part = existing or Part(id=part_id, crew=crew, role=role)
    part.entry = checked.model_dump(mode="json", exclude_none=True)
    part.retired_at = (part.retired_at or timezone.now()) if retired else None
    part.save()
    return part


def out_of_use(crew: Crew) -> list[Tester | Part]:
    """What was taken out of the register, testers first."""
    gone = {"crew": crew, "retired_at__isnull": False}
    return [*Tester.objects.filter(**gone), *Part.objects.filter(**gone)]


@transaction.atomic
def bring_back(crew: Crew, kit_id: UUID) -> Tester | Part:
    """Into use again, as the register knows it. The same again changes nothing."""
    found: Tester | Part | None = Tester.objects.filter(crew=crew, id=kit_id).first()
    found = found or Part.objects.filter(crew=crew, id=kit_id).first()
    if found is None:
        raise NotFoundHere("tester, leads or adapter")
    found.retired_at = None
    found.save()
    return found


@transaction.atomic
def check(
    crew: Crew, author: Author, tester_id: UUID, check_id: UUID, entry: dict[str, Any], at: datetime | None = None
) -> Tester:
    """Keep today's check of a tester. The same id with the same content again changes nothing."""
    tester = tester_of(crew, tester_id)
    checked = parse(CheckEntry, entry).model_dump(mode="json", exclude_none=True)
    if not checked:
        raise Refused(("", "nothing was checked yet"))
    known = {item.id for item in items_for(tester.instrument().kind)}
    strange = sorted(set(checked) - known)
    if strange:
        raise Refused((strange[0], "there is no such thing on this tester"))
    existing = Check.objects.filter(id=check_id).first()
    if existing is None:
        Check.objects.create(
            id=check_id,
            tester=tester,
            entry=checked,
            at=at or timezone.now(),
            by=person_of(author),
            by_name=name_of(author),
        )
    elif (existing.tester_id, existing.entry) != (tester.id, checked):
        raise Refused(("id", "this id already belongs to a check with other content"), status=409)
    return tester


def task_of(practice: str, purpose: str, place: str, system: str) -> Task:
    """What a tester is wanted for. Raises Refused or FormatError for words that there are not."""
    if practice not in PRACTICES:
        raise Refused(("practice", f"must be one of {', '.join(PRACTICES)}"))
    asked = {"purpose": purpose, "place": place, "system": system, "on": timezone.localdate()}
    return parse(TaskEntry, asked).task(PRACTICES[practice])
