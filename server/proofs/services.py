"""Beginning a proof of isolation and recording what happens. Append-only; a retry is the same event, not a second."""

from collections.abc import Sequence
from datetime import datetime
from typing import Any
from uuid import UUID

from django.db import transaction
from django.utils import timezone

from base.clocks import by_our_clock
from base.problems import NotFoundHere, Refused
from crews.models import Crew
from crews.rights import Act
from crews.second import by_whom
from crews.services import Author, name_of, person_of
from evenprobe.entries import FieldError
from evenprobe.formats import FormatError, IsolationFile, parse
from evenprobe.formats.isolation import RulesEntry
from evenprobe.isolation import QUESTIONS
from evenprobe.practices import PRACTICES
from history.noting import note
from kit.hands import in_hand
from kit.models import Part, Tester
from kit.services import part_of, tester_of
from proofs.logs import BEGIN_YOUR_OWN, frame_of, state_of
from proofs.models import Proof, ProofEvent
from sites.models import Circuit, Supply
from sites.services import find

FIELDS_OF_AN_EVENT = {"at", "told_at", "type", "tester", "by"}
"""What is a column of its own; the rest of an event is its entry."""


def proof_of(crew: Crew, proof_id: UUID) -> Proof:
    proof = Proof.objects.filter(site__crew=crew, id=proof_id).select_related("site", "circuit").first()
    if proof is None:
        raise NotFoundHere("proof")
    return proof


@transaction.atomic
def begin(crew: Crew, author: Author, proof_id: UUID, supply_id: UUID, circuit_id: UUID | None, data: Any) -> Proof:
    """Set down what is to be dead and every source. The same id with the same content again changes nothing."""
    supply = find(crew, Supply, supply_id)
    circuit = find(crew, Circuit, circuit_id) if circuit_id else None
    if circuit is not None and circuit.board.supply_id != supply.id:
        raise Refused(("circuit", "this circuit hangs on another supply"))
    content = {
        "name": _name(data["name"]),
        "what": _one_of("what", data["what"], Proof.What.values),
        "system": supply.system,
        "earthing": supply.earthing,
        "terminals": data["terminals"],
        "place": data["place"],
        "wet": data["wet"],
        "sources": data["sources"],
        "asked": _all_asked(data["asked"], data["sources"]),
    }
    existing = Proof.objects.filter(id=proof_id).first()
    if existing is not None:
        own = existing.site.crew_id == crew.id
        if not own or existing.brought_at or any(getattr(existing, key) != value for key, value in content.items()):
            raise Refused(("id", "this id already belongs to another proof"), status=409)
        return existing
    proof = Proof(
        id=proof_id,
        site=supply.site,
        circuit=circuit,
        rules=crew.rules,
        begun_at=timezone.now(),
        by=person_of(author),
        by_name=name_of(author),
        **content,
    )
    parse(IsolationFile, frame_of(proof, proof.begun_at))
    proof.save()
    return proof


@transaction.atomic
def record_event(
    crew: Crew,
    author: Author,
    proof_id: UUID,
    event_id: UUID,
    entry: dict[str, Any],
    tester_id: UUID | None = None,
    leads_id: UUID | None = None,
    adapters: Sequence[UUID] = (),
    at: datetime | None = None,
    sent_at: datetime | None = None,
) -> Proof:
    """Keep one event. The same id with the same content again changes nothing; other content is refused."""
    proof = proof_of(crew, proof_id)
    if proof.brought_at is not None:
        raise Refused(("", BEGIN_YOUR_OWN), status=409)
    now = timezone.now()
    tester = tester_of(crew, tester_id) if tester_id else None
    existing = ProofEvent.objects.filter(id=event_id).first()
    when = existing.at if existing is not None else _not_before_its_source(proof, entry, by_our_clock(now, at, sent_at))
    held = _held(crew, tester, leads_id, adapters, when)
    event_type, content = _checked(proof, entry, held, when, name_of(author))
    if existing is not None:
        same = (existing.proof_id, existing.type, existing.entry) == (proof.id, event_type, content)
        if not same or existing.tester_id != tester_id:
            raise Refused(("id", "this id already belongs to an event with other content"), status=409)
        return proof
    signed = name_of(author)
    if event_type == "stated":
        _refuse_an_untrue_statement(proof, when)
        signed = by_whom(crew, author, Act.STATE_DEAD, event_id)
    ProofEvent.objects.create(
        id=event_id,
        proof=proof,
        type=event_type,
        entry=content,
        tester=tester,
        held=held,
        at=when,
        device_at=at,
        by=person_of(author),
        by_name=signed,
    )
    return proof


def _not_before_its_source(proof: Proof, entry: dict[str, Any], when: datetime) -> datetime:
    """What is done to a source cannot come before it was found, whatever a device says."""
    found = [e.at for e in proof.events.filter(type="source-found") if e.entry["source"] == entry.get("source")]
    return max([when, *found])


def _held(
    crew: Crew, tester: Tester | None, leads_id: UUID | None, adapters: Sequence[UUID], at: datetime
) -> dict[str, Any] | None:
    """The tester, its leads and adapters as they are in the hand, as the kit format has them."""
    if tester is None:
        return None
    leads = part_of(crew, leads_id, Part.Role.LEADS) if leads_id else None
    parts = [part_of(crew, a, Part.Role.ADAPTER) for a in adapters]
    return in_hand(tester, at, leads, parts).model_dump(mode="json", exclude_none=True, exclude={"id", "proved"})


def _checked(
    proof: Proof, entry: dict[str, Any], held: dict[str, Any] | None, at: datetime, by: str
) -> tuple[str, dict[str, Any]]:
    """Type and content as the format writes them. Problems are named by the event's own keys."""
    full = {**entry, "at": at.isoformat(), "by": by}
    log = frame_of(proof, at)
    found = [e.entry for e in proof.events.filter(type="source-found")]
    log["sources"] = log["sources"] + [{"id": e["source"], "label": e["label"]} for e in found]
    log["testers"] = [{"id": "held", **held}] if held else []
    if held:
        full["tester"] = "held"
    log["events"] = [full]
    try:
        checked = parse(IsolationFile, log).events[0]
    except FormatError as error:
        raise Refused(*((path.removeprefix("events[0]").lstrip("."), text) for path, text in error.problems)) from None
    content = checked.model_dump(mode="json", by_alias=True, exclude_none=True, exclude=FIELDS_OF_AN_EVENT)
    return str(checked.type), content


def _refuse_an_untrue_statement(proof: Proof, at: datetime) -> None:
    found = state_of(proof, at)
    if found.state != "proved-dead":
        why = [*(p.text for p in found.problems), *(m.text for m in found.missing)] or ["it is closed"]
        raise Refused(("type", f"it is not proved dead: {'; '.join(why)}"), status=409)


@transaction.atomic
def put_rules(crew: Crew, data: dict[str, Any]) -> Crew:
    """The crew's own rules for the proofs begun from now on; those that run keep the rules they were begun with."""
    entry = parse(RulesEntry, data)
    used = set(crew.sites.values_list("practice", flat=True)) or set(PRACTICES)
    for practice in sorted(used):
        try:
            entry.check(PRACTICES[practice])
        except FieldError as error:
            raise Refused((error.field, str(error))) from None
    before = RulesEntry.model_validate(crew.rules)
    crew.rules = entry.model_dump(mode="json", exclude_defaults=True)
    crew.save()
    note(
        crew, "rules", crew.id, "of a proof of isolation", before.model_dump(mode="json"), entry.model_dump(mode="json")
    )
    return crew


def _name(name: str) -> str:
    name = name.strip()
    if not name:
        raise Refused(("name", "needs a name: what is isolated"))
    if len(name) > 120:
        raise Refused(("name", "is longer than 120 characters"))
    return name


def _one_of(key: str, value: str, allowed: Sequence[str]) -> str:
    if value not in allowed:
        raise Refused((key, f"must be one of {', '.join(allowed)}"))
    return value


def _all_asked(asked: dict[str, bool], sources: list[dict[str, Any]]) -> dict[str, bool]:
    """Every question answered, and a source for each yes."""
    kinds = {source.get("kind") for source in sources}
    problems = []
    for question in QUESTIONS:
        answer = asked.get(question.kind)
        if answer is None:
            problems.append((f"asked.{question.kind}", f"not answered: {question.asks}"))
        elif answer and question.kind not in kinds:
            problems.append((f"asked.{question.kind}", "yes, but no such source is named"))
    if problems:
        raise Refused(*problems)
    return {str(q.kind): asked[q.kind] for q in QUESTIONS}
