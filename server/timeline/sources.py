"""Where the line of time is read from: a row a table, with its way to each scope and its words."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from django.db.models import QuerySet

from brought.models import BroughtFile
from evenprobe.formats import ReadingEntry, parse
from evenprobe.formats.said import how_said, reading_said
from evenprobe.practices import PRACTICES
from history.models import Change
from history.words import said
from hunts.models import Hunt, HuntEvent
from hunts.presenters.lines import view_of as hunt_view
from kit.models import Check, TesterFault
from photos.models import PhotoOn
from proofs.models import Proof, ProofEvent
from proofs.words import event_in_words
from readings.models import Reading
from readings.surveys import counts, source_of, status_of, tester_said
from rounds.models import RoundEvent
from sheets.models import SheetEntry
from sheets.records import SheetView
from sheets.words import in_words
from signoffs.models import SignOff
from sites.models import Point
from timeline.shapes import Happened
from visits.models import VisitEvent


@dataclass(frozen=True)
class Source:
    """`at`: the column of when. `ways`: by scope the column that holds its id. `shown`: a row in words."""

    kind: str
    rows: Callable[[], QuerySet[Any]]
    ways: Mapping[str, str]
    shown: Callable[[Any], Happened]
    at: str = "at"


def _brought_file(row: BroughtFile) -> Happened:
    return Happened(
        id=row.id, kind="file", at=row.at, by=row.by_name, where=row.name, text=f"A file was brought in: {row.what}",
        how=f"SHA-256 {row.sha256}", place="files", of=row.id,
    )  # fmt: skip


def _change(row: Change) -> Happened:
    text, how = said(row)
    place, of = ("tester", UUID(row.of)) if row.what == "tester" else ("site", row.site or row.id)
    return Happened(
        id=row.id, kind="change", at=row.at, by=row.by_name, where="", text=text, how=how,
        place=place if row.site or row.what == "tester" else "change", of=of,
    )  # fmt: skip


def _where(point: Point) -> str:
    return f"{point.name}, {point.circuit.name}, {point.circuit.board.supply.site.name}"


def _reading(row: Reading) -> Happened:
    practice = PRACTICES[row.point.circuit.board.supply.site.practice]
    if row.entry is None:
        text, how, source = "Withdrawn", "", ""
    else:
        entry = parse(ReadingEntry, row.entry)
        text = reading_said(entry, practice)
        how, source = how_said(entry, practice), source_of(row)
    status = "" if row.entry is None or counts(row) else status_of(row)
    return Happened(
        id=row.id, kind="reading", at=row.taken_at, by=row.by_name, where=_where(row.point), text=text, how=how,
        tester=tester_said(row), source=source, status=status, place="point", of=row.point_id,
    )  # fmt: skip


def _sheet_entry(row: SheetEntry) -> Happened:
    circuit = row.sheet.circuit
    return Happened(
        id=row.id, kind="dead-test", at=row.at, by=row.by_name,
        where=f"{circuit.name}, {circuit.board.supply.site.name}",
        text=in_words(SheetView(row.sheet), row), tester=str(row.tester) if row.tester else "",
        status="taken back" if hasattr(row, "superseded_by") else "", place="sheet", of=row.sheet_id,
    )  # fmt: skip


def _proof_event(row: ProofEvent) -> Happened:
    proof = row.proof
    return Happened(
        id=row.id, kind="isolation", at=row.at, by=row.by_name, where=f"{proof.name}, {proof.site.name}",
        text=event_in_words(row), how=row.entry.get("note", ""), tester=str(row.tester) if row.tester else "",
        place="proof", of=proof.id,
    )  # fmt: skip


def _brought_proof(row: Proof) -> Happened:
    assert row.brought_at is not None
    return Happened(
        id=row.id, kind="isolation", at=row.brought_at, by=row.by_name, where=f"{row.name}, {row.site.name}",
        text="A proof of isolation came from a file: history, it proves nothing here",
        source=f"file {row.file_hash[:12]}", place="proof", of=row.id,
    )  # fmt: skip


def _hunt_event(row: HuntEvent) -> Happened:
    texts = _hunt_texts(row.hunt)
    return Happened(
        id=row.id, kind="hunt", at=row.at, by=row.by_name, where=f"{row.hunt}, {row.hunt.site.name}",
        text=texts.get(str(row.id), str(row.get_kind_display())),
        tester=str(row.tester) if row.tester else "", place="hunt", of=row.hunt_id,
    )  # fmt: skip


def _hunt_texts(hunt: Hunt) -> dict[str, str]:
    """Of what was seen on a hunt, by the event; of one that cannot be read, none."""
    known: dict[str, str] | None = getattr(hunt, "_texts", None)
    if known is None:
        known = {str(seen.event): seen.text for seen in hunt_view(hunt).shown().seen}
        hunt._texts = known  # type: ignore[attr-defined]
    return known


_ROUND = {"skipped": "Skipped", "pressed": "Test button pressed", "reset": "Reset"}


def _round_event(row: RoundEvent) -> Happened:
    tripped = row.entry.get("tripped")
    text = ("The device tripped" if tripped else "The device did not trip") if tripped is not None else _ROUND[row.kind]
    return Happened(
        id=row.id, kind="round", at=row.at, by=row.by_name, where=_where(row.point), text=text,
        how=row.entry.get("reason", ""), place="round", of=row.round_id,
    )  # fmt: skip


_VISIT = {
    "planned": "Planned anew", "begun": "Visit begun", "closed": "Visit closed", "left-open": "Left open: {what}",
    "put-right": "Put right", "noted": "Note: {what}",
}  # fmt: skip


def _visit_event(row: VisitEvent) -> Happened:
    return Happened(
        id=row.id, kind="visit", at=row.at, by=row.by_name, where=f"{row.visit.site.name}: {row.visit.why}",
        text=_VISIT[row.kind].format(what=row.entry.get("what", "")), place="visit", of=row.visit_id,
    )  # fmt: skip


def _check(row: Check) -> Happened:
    said = ", ".join(f"{item.replace('_', ' ')} {found}" for item, found in row.entry.items())
    return Happened(
        id=row.id, kind="check", at=row.at, by=row.by_name, where=str(row.tester), text=f"Checked: {said}",
        place="tester", of=row.tester_id,
    )  # fmt: skip


def _fault(row: TesterFault) -> Happened:
    text = f"Found faulty: {row.what}" if row.since else f"Found good: {row.what}"
    how = f"suspect since {row.since:%Y-%m-%d %H:%M} UTC" if row.since else ""
    return Happened(
        id=row.id, kind="fault", at=row.at, by=row.by_name, where=str(row.tester), text=text, how=how,
        place="tester", of=row.tester_id,
    )  # fmt: skip


def _sign_off(row: SignOff) -> Happened:
    return Happened(
        id=row.id, kind="sign-off", at=row.signed_at, by=row.by_name, where=f"{row.name}, {row.site.name}",
        text=f"Signed off, number {row.number}", place="sign-off", of=row.id,
    )  # fmt: skip


def _photo(row: PhotoOn) -> Happened:
    where = row.point or row.circuit or row.site or row.tester
    return Happened(
        id=row.id, kind="photo", at=row.at, by=row.by_name, where=str(where), text=row.note or "Photo",
        photos=[row.photo_id], place=row.on, of=row.of,
    )  # fmt: skip


_SITE = "circuit__board__supply__site"
SOURCES: tuple[Source, ...] = (
    Source(
        "reading",
        lambda: Reading.objects.select_related(f"point__{_SITE}", "tester", "superseded_by"),
        {
            "point": "point_id", "circuit": "point__circuit_id", "site": f"point__{_SITE}_id", "tester": "tester_id",
            "crew": f"point__{_SITE}__crew_id",
        },
        _reading,
        at="taken_at",
    ),
    Source(
        "dead-test",
        lambda: SheetEntry.objects.select_related(f"sheet__{_SITE}", "tester", "superseded_by").prefetch_related(
            "sheet__circuit__points"
        ),
        {
            "point": "entry__point", "circuit": "sheet__circuit_id", "site": f"sheet__{_SITE}_id",
            "tester": "tester_id", "crew": f"sheet__{_SITE}__crew_id",
        },
        _sheet_entry,
    ),
    Source(
        "isolation",
        lambda: ProofEvent.objects.select_related("proof__site", "tester"),
        {
            "circuit": "proof__circuit_id", "site": "proof__site_id", "tester": "tester_id",
            "crew": "proof__site__crew_id",
        },
        _proof_event,
    ),
    Source(
        "isolation",
        lambda: Proof.objects.exclude(brought_at=None).select_related("site"),
        {"site": "site_id", "crew": "site__crew_id"},
        _brought_proof,
        at="brought_at",
    ),
    Source(
        "hunt",
        lambda: HuntEvent.objects.select_related(
            "hunt__site", "hunt__circuit", "hunt__board", "tester"
        ).prefetch_related("hunt__events", "hunt__board__circuits__points"),
        {
            "point": "entry__at", "circuit": "hunt__circuit_id", "site": "hunt__site_id", "tester": "tester_id",
            "crew": "hunt__site__crew_id",
        },
        _hunt_event,
    ),
    Source(
        "round",
        lambda: RoundEvent.objects.select_related(f"point__{_SITE}"),
        {
            "point": "point_id", "circuit": "point__circuit_id", "site": f"point__{_SITE}_id",
            "crew": f"point__{_SITE}__crew_id",
        },
        _round_event,
    ),
    Source(
        "visit",
        lambda: VisitEvent.objects.select_related("visit__site"),
        {"site": "visit__site_id", "crew": "visit__site__crew_id"},
        _visit_event,
    ),
    Source(
        "check",
        lambda: Check.objects.select_related("tester"),
        {"tester": "tester_id", "crew": "tester__crew_id"},
        _check,
    ),
    Source(
        "fault",
        lambda: TesterFault.objects.select_related("tester"),
        {"tester": "tester_id", "crew": "tester__crew_id"},
        _fault,
    ),
    Source(
        "photo",
        lambda: PhotoOn.objects.filter(on__in=("site", "circuit", "point", "tester", "visit")).select_related(
            "point", "circuit", "site", "tester"
        ),
        {
            "point": "point_id", "circuit": "circuit_id", "site": "site_id", "tester": "tester_id",
            "crew": "photo__crew_id",
        },
        _photo,
    ),
    Source(
        "sign-off",
        lambda: SignOff.objects.defer("content").select_related("site"),
        {"site": "site_id", "crew": "crew_id"},
        _sign_off,
        at="signed_at",
    ),
    Source(
        "change",
        Change.objects.all,
        {"site": "site", "point": "of", "circuit": "of", "tester": "of", "crew": "crew_id"},
        _change,
    ),
    Source("file", BroughtFile.objects.all, {"crew": "crew_id"}, _brought_file),
)  # fmt: skip
