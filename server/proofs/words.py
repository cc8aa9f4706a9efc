"""An event of a proof in words."""

from evenprobe.entries import parse
from evenprobe.formats.isolation import EventEntry
from evenprobe.formats.said_of_events import event_said
from evenprobe.practices import PRACTICES
from proofs.models import ProofEvent


def event_in_words(row: ProofEvent) -> str:
    proof = row.proof
    entry = parse(EventEntry, {**row.entry, "type": row.type, "at": row.at.isoformat()} | _named_tester(row))
    return event_said(entry, PRACTICES[proof.site.practice], {s["id"]: s["label"] for s in proof.sources})


def _named_tester(row: ProofEvent) -> dict[str, str]:
    return {"tester": str(row.tester_id)} if row.tester_id else {}
