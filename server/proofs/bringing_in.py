"""An isolation log from a file into the record, as the proof it is. Bringing the same file again changes nothing."""

import json
from datetime import timedelta
from typing import Any
from uuid import UUID, uuid5

from django.db import transaction
from django.utils import timezone

from crews.models import Crew
from crews.services import Author, person_of
from evenprobe.formats import IsolationFile, parse
from evenprobe.formats.isolation import EventEntry
from kit.models import Tester
from kit.services import tester_meant
from project.problems import Refused
from proofs.models import Proof, ProofEvent
from proofs.services import FIELDS_OF_AN_EVENT
from sites.models import Supply
from sites.services import find

AHEAD = timedelta(minutes=2)
"""A file may be this much ahead of the server's clock; further on it would keep a proof alive that nobody keeps."""


@transaction.atomic
def bring_in(crew: Crew, author: Author, proof_id: UUID, supply_id: UUID, data: Any) -> Proof:
    """The proof of a file, on a supply of the crew's. Raises FormatError with the paths of the file."""
    file = parse(IsolationFile, data)
    supply = find(crew, Supply, supply_id)
    if file.practice != supply.site.practice:
        raise Refused(("practice", f"this site is {supply.site.practice}; the file is {file.practice}"))
    if file.supply.system != supply.system:
        raise Refused(("supply.system", f"this supply is {supply.system}; the file is {file.supply.system}"))
    if file.at > timezone.now() + AHEAD:
        raise Refused(("at", f"{file.at.isoformat()} is still to come"))
    proof = _proof(crew, author, proof_id, supply, file)
    testers = {t.id: tester_meant(crew, supply.site_id, t) for t in file.testers}
    held = {t.id: t.model_dump(mode="json", exclude_none=True, exclude={"id", "proved"}) for t in file.testers}
    for index, event in enumerate(file.events):
        _event(author, proof, index, event, testers.get(event.tester or ""), held.get(event.tester or ""))
    return proof


def _proof(crew: Crew, author: Author, proof_id: UUID, supply: Supply, file: IsolationFile) -> Proof:
    content = {
        "site_id": supply.site_id,
        "name": (file.label or "Brought in").strip()[:120] or "Brought in",
        "what": str(Proof.What.CIRCUIT),
        "system": supply.system,
        "earthing": supply.earthing,
        "terminals": [str(t) for t in file.terminals],
        "place": str(file.place),
        "wet": file.wet,
        "sources": [s.model_dump(mode="json") for s in file.sources],
        "rules": file.rules.model_dump(mode="json", exclude_defaults=True),
    }
    existing = Proof.objects.filter(id=proof_id).first()
    if existing is not None:
        own = existing.site.crew_id == crew.id
        if not own or any(getattr(existing, key) != value for key, value in content.items()):
            raise Refused(("id", "this id already belongs to another proof"), status=409)
        return existing
    first = file.events[0].at if file.events else file.at
    return Proof.objects.create(id=proof_id, asked={}, begun_at=first, by=person_of(author), **content)


def _event(
    author: Author, proof: Proof, index: int, event: EventEntry, tester: Tester | None, held: dict[str, Any] | None
) -> None:
    entry = event.model_dump(mode="json", by_alias=True, exclude_none=True, exclude=FIELDS_OF_AN_EVENT)
    event_id = uuid5(proof.id, f"{index} {event.at.isoformat()} {event.type} {json.dumps(entry, sort_keys=True)}")
    ProofEvent.objects.get_or_create(
        id=event_id,
        defaults={
            "proof": proof,
            "type": str(event.type),
            "entry": entry,
            "tester": tester,
            "held": held,
            "at": event.at,
            "by": person_of(author),
            "by_name": (event.by or "")[:160],
        },
    )
