"""Beginning a sheet and putting things down on it. Append-only; a retry is the same entry, not a second."""

from datetime import datetime, timedelta
from typing import Any
from uuid import UUID, uuid5

from django.db import transaction
from django.db.models import QuerySet
from django.utils import timezone

from base.problems import NotFoundHere, Refused
from crews.models import Crew
from crews.rights import Act
from crews.second import by_whom
from crews.services import Author, name_of, person_of
from evenprobe.deadtests.completing import in_own_unit, whole_test
from evenprobe.deadtests.energising import SHORTEST_REASON, in_the_way
from evenprobe.formats import FormatError, parse
from evenprobe.formats.sheet import SheetEntryFile
from evenprobe.limits.dead_tests import INSULATION_KINDS
from evenprobe.practices import PRACTICES
from kit.hands import in_hand
from kit.models import Tester
from kit.services import tester_of
from photos.services import photo_of
from proofs.logs import BEGIN_YOUR_OWN
from proofs.models import Proof
from proofs.services import proof_of, record_event
from sheets.completing import checked
from sheets.models import Sheet, SheetEntry
from sheets.records import SheetView, with_record
from sites.models import Circuit
from sites.services import find

_WIRINGS = ("ordinary", *INSULATION_KINDS)
STILL_HERE_AFTER = timedelta(minutes=3)
"""Working on the sheet is being there; the proof hears of it when nothing else happened for so long."""


def sheets_of(crew: Crew) -> QuerySet[Sheet]:
    """With all that is read off them, the latest first."""
    return with_record(Sheet.objects.filter(circuit__board__supply__site__crew=crew))


def sheet_of(crew: Crew, sheet_id: UUID) -> Sheet:
    sheet = sheets_of(crew).filter(id=sheet_id).first()
    if sheet is None:
        raise NotFoundHere("sheet")
    return sheet


@transaction.atomic
def begin(
    crew: Crew,
    author: Author,
    sheet_id: UUID,
    circuit_id: UUID,
    proof_id: UUID | None,
    wiring: str,
    ring: bool,
    temperature_c: float | None,
    at: datetime | None = None,
) -> Sheet:
    """A sheet for a circuit.

    `proof_id`: a proof of more than the circuit, such as its whole board; the circuit's own
    proofs are known. The same id again changes only what it relies on: that proof, and how it is wired.
    """
    circuit = find(crew, Circuit, circuit_id)
    proof = proof_of(crew, proof_id) if proof_id else None
    if proof is not None and proof.site_id != circuit.board.supply.site_id:
        raise Refused(("proof", "this proof of isolation is of another site"))
    if proof is not None and proof.brought_at is not None:
        raise Refused(("proof", BEGIN_YOUR_OWN))
    if wiring not in _WIRINGS:
        raise Refused(("wiring", f"must be one of {', '.join(_WIRINGS)}"))
    practice = PRACTICES[circuit.board.supply.site.practice]
    if ring and not practice.ring_circuits:
        raise Refused(("ring", f"there are no ring circuits in {practice.name}"))
    if temperature_c is not None and not -40 <= temperature_c <= 90:
        raise Refused(("temperature_c", f"must be between -40 and 90, not {temperature_c:g}"))
    existing = Sheet.objects.filter(id=sheet_id).first()
    if existing is not None and existing.circuit_id != circuit.id:
        raise Refused(("id", "this id already belongs to another sheet"), status=409)
    sheet = existing or Sheet(
        id=sheet_id, circuit=circuit, begun_at=at or timezone.now(), by=person_of(author), by_name=name_of(author)
    )
    sheet.proof, sheet.wiring, sheet.ring, sheet.temperature_c = proof, wiring, ring, temperature_c
    sheet.save()
    return sheet_of(crew, sheet_id)


@transaction.atomic
def put_down(
    crew: Crew,
    author: Author,
    sheet_id: UUID,
    entry_id: UUID,
    entry: dict[str, Any] | None,
    tester_id: UUID | None = None,
    supersedes: UUID | None = None,
    at: datetime | None = None,
    happened: datetime | None = None,
) -> Sheet:
    """Keep one thing on a sheet; None takes back what it supersedes. The same id and content again changes nothing.

    `happened`: when, by the server's clock, where a device kept it until there was a line; the proof is judged by it.
    `at`: of the demo's past days. Nothing is energised but now.
    """
    sheet = sheet_of(crew, sheet_id)
    tester = tester_of(crew, tester_id) if tester_id else None
    existing = SheetEntry.objects.filter(id=entry_id).first()
    if existing is not None:
        if existing.sheet_id != sheet.id or not _same(existing, entry, tester_id, supersedes):
            raise Refused(("id", "this id already belongs to something else that was put down"), status=409)
        return sheet
    energised = (entry or {}).get("type") == "energised"
    view, when = SheetView(sheet), at or (None if energised else happened) or timezone.now()
    held = in_hand(tester, when) if tester else None
    content = None if entry is None else content_of(view, entry, held)
    if content is None and supersedes is None:
        raise Refused(("supersedes", "is missing: what is taken back?"))
    signed = name_of(author)
    if content is not None and energised:
        _refuse_while_something_is_in_the_way(view, content)
        signed = by_whom(crew, author, Act.ENERGISE, entry_id)
    SheetEntry.objects.create(
        id=entry_id,
        sheet=sheet,
        entry=content,
        tester=tester,
        held=held.model_dump(mode="json", exclude_none=True, exclude={"id"}) if held else None,
        supersedes=_superseded(sheet, supersedes),
        at=when,
        by=person_of(author),
        by_name=signed,
    )
    if view.proof is not None and at is None:
        _tell_the_proof(crew, author, view.proof, entry_id, when, energised=energised)
    return sheet


def _same(existing: SheetEntry, entry: dict[str, Any] | None, tester_id: UUID | None, supersedes: UUID | None) -> bool:
    """Whether it is the one that is there: what was kept knows more of the test, and where it was."""
    kept = existing.entry
    corrected = existing.supersedes.id if existing.supersedes else None
    if (existing.tester_id, corrected) != (tester_id, supersedes):
        return False
    if kept is None or entry is None:
        return kept is entry
    typed, whole = dict(entry), dict(kept)
    test, whole_of_test = typed.pop("test", None) or {}, whole.pop("test", None) or {}
    if isinstance(test, dict) and "unit" in test and isinstance(whole_of_test, dict):
        test = in_own_unit({"kind": whole_of_test.get("kind"), **test})
    if not isinstance(test, dict) or not isinstance(whole_of_test, dict):
        return bool(entry == kept)
    typed = {"point": whole.get("point"), **typed}
    typed = {key: value for key, value in typed.items() if value is not None}
    return bool(typed == whole) and all(whole_of_test.get(key) == value for key, value in test.items())


def content_of(view: SheetView, entry: dict[str, Any], held: Any) -> dict[str, Any]:
    """The entry as it is kept. Problems are named by its own keys."""
    whole = dict(entry)
    if entry.get("type") == "tested":
        typed = entry.get("test")
        if not isinstance(typed, dict):
            raise Refused(("test", "must be an object, in braces"))
        line = view.line(entry.get("line"))
        if entry.get("line") and line is None:
            raise Refused(("line", "no such line on this sheet"))
        tester = held.instrument() if held else None
        full = whole_test(line, typed, null_ohm=view.null_ohm, loads=view.loads, tester=tester)
        test = checked(view.practice, full)
        whole["test"] = test.model_dump(mode="json", by_alias=True, exclude_none=True)
        if line is not None and line.point:
            whole["point"] = line.point
    if entry.get("photo"):
        _own_photo(view, entry["photo"])
    if entry.get("type") == "left" and view.line(entry.get("line")) is None:
        raise Refused(("line", "no such line on this sheet"))
    try:
        kept = parse(SheetEntryFile, {"entry": whole}).entry
    except FormatError as error:
        raise Refused(*((path.removeprefix("entry").lstrip("."), text) for path, text in error.problems)) from None
    content: dict[str, Any] = kept.model_dump(mode="json", by_alias=True, exclude_none=True)
    if "test" in content and isinstance(content["test"], dict):
        content["test"] = {key: value for key, value in content["test"].items() if key != "id"}
    return content


def _own_photo(view: SheetView, name: object) -> None:
    try:
        photo_of(view.site.crew, UUID(str(name)))
    except (ValueError, NotFoundHere):
        raise Refused(("photo", "no such picture in your crew")) from None


def _superseded(sheet: Sheet, supersedes: UUID | None) -> SheetEntry | None:
    if supersedes is None:
        return None
    found = SheetEntry.objects.filter(id=supersedes, sheet=sheet).first()
    if found is None:
        raise Refused(("supersedes", "no such entry on this sheet"))
    if found.entry is None or hasattr(found, "superseded_by"):
        raise Refused(("supersedes", "it was already corrected or taken back"), status=409)
    if found.entry["type"] == "energised":
        raise Refused(("supersedes", "what was energised stays on the record"), status=409)
    return found


def _refuse_while_something_is_in_the_way(view: SheetView, content: dict[str, Any]) -> None:
    found = in_the_way(view.record)
    if found and "reason" not in content:
        said = (("", one.text) for one in found)
        missing = ("reason", f"something is outstanding: say why even so, in {SHORTEST_REASON} letters or more")
        raise Refused(missing, *said, status=409)


def _tell_the_proof(
    crew: Crew, author: Author, proof: Proof, entry_id: UUID, when: datetime, *, energised: bool
) -> None:
    """Energising ends the proof of isolation; anything else on the sheet is somebody being there."""
    if proof.events.filter(type="closed").exists():
        return
    if energised:
        for kind in ("re-energised", "closed"):
            record_event(crew, author, proof.id, uuid5(entry_id, kind), {"type": kind})
        return
    last = proof.events.filter(at__lte=when).last()
    if last is not None and when - last.at > STILL_HERE_AFTER:
        here = uuid5(entry_id, "returned"), {"type": "returned"}
        record_event(crew, author, proof.id, *here, at=when, sent_at=timezone.now())


def held_by(tester: Tester | None) -> Any:
    """What a tester is in the hand now, for a result that is not put down yet."""
    return in_hand(tester, timezone.now()) if tester else None
