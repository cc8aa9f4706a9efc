"""An isolation log from a file: history, kept whole as it came. It never runs, and nothing is ever added to it.

Names in it are text, its testers are none of the kit's, and it proves nothing here: whoever works on the circuit
begins a proof of their own. Bringing the same file again changes nothing.
"""

import hashlib
import json
from typing import Any
from uuid import UUID

from django.db import transaction
from django.utils import timezone

from base.clocks import still_to_come
from base.problems import Refused
from brought.services import file_for, keep
from crews.models import Crew
from crews.services import Author, name_of, person_of
from evenprobe.formats import IsolationFile, parse
from proofs.logs import log_of
from proofs.models import Proof
from sites.models import Supply
from sites.services import find


@transaction.atomic
def bring_in(crew: Crew, author: Author, proof_id: UUID, supply_id: UUID, data: Any) -> Proof:
    """The history a file tells, on a supply of the crew's. Raises FormatError with the paths of the file."""
    file = parse(IsolationFile, data)
    supply = find(crew, Supply, supply_id)
    if file.practice.id != supply.site.practice:
        raise Refused(("practice", f"this site is {supply.site.practice}; the file is {file.practice}"))
    if file.supply.system != supply.system:
        raise Refused(("supply.system", f"this supply is {supply.system}; the file is {file.supply.system}"))
    now = timezone.now()
    for path, at in (("at", file.at), *((f"events[{i}].at", e.at) for i, e in enumerate(file.events))):
        if wrong := still_to_come(at, now):
            raise Refused((path, wrong))
    content = file.model_dump(mode="json", by_alias=True, exclude_none=True)
    fingerprint = hashlib.sha256(json.dumps(content, sort_keys=True).encode()).hexdigest()
    known = Proof.objects.filter(site__crew=crew, file_hash=fingerprint).first()
    if known is not None:
        return known
    if Proof.objects.filter(id=proof_id).exists():
        raise Refused(("id", "this id already belongs to another proof"), status=409)
    own = _own_log(crew, content)
    if own is not None:
        raise Refused(("", f"this is the log of a proof that is on record here: {own.name}"), status=409)
    return Proof.objects.create(
        id=proof_id,
        site=supply.site,
        name=(file.label or "Brought in").strip()[:120] or "Brought in",
        what=str(Proof.What.CIRCUIT),
        system=supply.system,
        earthing=supply.earthing,
        terminals=[str(t) for t in file.terminals],
        place=str(file.place),
        wet=file.wet,
        sources=[s.model_dump(mode="json") for s in file.sources],
        asked={},
        rules=file.rules.model_dump(mode="json", exclude_defaults=True),
        begun_at=file.events[0].at if file.events else file.at,
        file=content,
        file_hash=fingerprint,
        brought_at=now,
        brought=keep(file_for(crew, author, (file.label or "Brought in").strip(), "isolation", fingerprint)),
        by=person_of(author),
        by_name=name_of(author),
    )


def _own_log(crew: Crew, content: dict[str, Any]) -> Proof | None:
    """The crew's own proof whose log this is, as it is now or was when it was saved."""
    told = _happened(content)
    alike = Proof.objects.filter(site__crew=crew, brought_at=None, name=content.get("label", ""))
    for proof in alike if told else ():
        if _happened(log_of(proof, timezone.now()))[: len(told)] == told:
            return proof
    return None


def _happened(log: dict[str, Any]) -> list[tuple[str, str, str | None, str | None]]:
    own = parse(IsolationFile, log)
    return [(e.at.isoformat(), str(e.type), e.source, str(e.from_ or "")) for e in own.events]
