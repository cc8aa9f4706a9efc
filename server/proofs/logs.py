"""Between the record and the isolation format: a proof as the core reads it, and what the core says of it."""

from datetime import datetime
from typing import Any

from evenprobe.formats import IsolationFile, isolation_answer, parse
from evenprobe.isolation import isolation
from kit.names import named
from proofs.models import Proof, ProofEvent


def frame_of(proof: Proof, at: datetime) -> dict[str, Any]:
    """The isolation log of a proof to which nothing has happened yet."""
    return {
        "format": "even-probe/isolation",
        "version": 1,
        "practice": proof.site.practice,
        "at": at.isoformat(),
        "supply": {"system": proof.system, "earthing": proof.earthing},
        "terminals": proof.terminals,
        "place": proof.place,
        "wet": proof.wet,
        "label": proof.name,
        "sources": proof.sources,
        "rules": proof.rules,
    }


def log_of(proof: Proof, now: datetime) -> dict[str, Any]:
    """The proof as an isolation log at `now`.

    A tester whose leads, rating or state changed on the way is another tester to the log, as `id/2`.
    """
    events = list(proof.events.all())
    states: dict[str, list[dict[str, Any]]] = {}
    entries = [_event(event, states) for event in events]
    return {
        **frame_of(proof, max([now, *(e.at for e in events)])),
        "testers": [{"id": named(t, n), **held} for t, found in states.items() for n, held in enumerate(found)],
        "events": entries,
    }


def _event(event: ProofEvent, states: dict[str, list[dict[str, Any]]]) -> dict[str, Any]:
    entry = {"at": event.at.isoformat(), "type": event.type, **event.entry, "by": event.by_name}
    if event.tester_id is not None:
        tester = str(event.tester_id)
        found = states.setdefault(tester, [])
        if event.held not in found:
            found.append(event.held)
        entry["tester"] = named(tester, found.index(event.held))
    return entry


def state_of(proof: Proof, now: datetime) -> dict[str, Any]:
    """What `evenprobe isolate` says of the proof at `now`."""
    return isolation_answer(isolation(parse(IsolationFile, log_of(proof, now)).log()))
