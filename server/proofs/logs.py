"""Between the record and the isolation format: a proof as the core reads it, and what the core says of it."""

from datetime import datetime, timedelta
from functools import lru_cache
from itertools import zip_longest
from typing import Any

from evenprobe.formats import IsolationFile, parse
from evenprobe.formats.answers.isolation import NextOut
from evenprobe.isolation import State, isolation
from kit.faults import as_known
from kit.names import named
from proofs.models import Proof, ProofEvent
from proofs.shapes import HISTORY, StateOut


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


def log_of(proof: Proof, now: datetime, until: datetime | None = None) -> dict[str, Any]:
    """The proof as an isolation log at `now`, with what happened `until` then if a time is given.

    A tester whose leads, rating or state changed on the way is another tester to the log, as `id/2`. What a check
    found of its battery, self-check or lead resistance does not make it another; the worst found is what counts.
    What came from a file is as the file has it.
    """
    if proof.file is not None:
        return dict(proof.file)
    events = [e for e in proof.events.all() if until is None or e.at <= until]
    states: dict[str, list[dict[str, Any]]] = {}
    entries = [_event(event, states) for event in events]
    return {
        **frame_of(proof, max([now, *(e.at for e in events)])),
        "testers": [{"id": named(t, n), **held} for t, found in states.items() for n, held in enumerate(found)],
        "events": entries,
    }


_AT_ONCE = timedelta(minutes=1)
"""What a device kept no longer than this was told as it happened."""


def _event(event: ProofEvent, states: dict[str, list[dict[str, Any]]]) -> dict[str, Any]:
    entry = {"at": event.at.isoformat(), "type": event.type, **event.entry, "by": event.by_name}
    if event.recorded_at - event.at > _AT_ONCE:
        entry["told_at"] = event.recorded_at.isoformat()
    if event.tester is not None:
        tester = str(event.tester.id)
        held = as_known(event.held, event.tester, event.at)
        entry["tester"] = named(tester, _state(held, states.setdefault(tester, [])))
    return entry


_OF_THE_DAY: dict[str, tuple[Any, ...]] = {
    "battery": ("low", "ok"),
    "self_check": (False, True),
    "fuse": ("blown", "ok"),
}
"""What a check finds, the worst first."""


def _state(held: dict[str, Any], states: list[dict[str, Any]]) -> int:
    """Which of the tester's states this is, a new one being added; each keeps the worst a check found."""
    for index, state in enumerate(states):
        if _lasting(state) == _lasting(held):
            for key, worst_first in _OF_THE_DAY.items():
                known = [value for value in worst_first if value in (state.get(key), held.get(key))]
                if known:
                    state[key] = known[0]
            return index
    states.append(dict(held))
    return len(states) - 1


def _lasting(held: dict[str, Any]) -> dict[str, Any]:
    leads = {key: value for key, value in (held.get("leads") or {}).items() if key != "ohm"}
    return {**{key: value for key, value in held.items() if key not in _OF_THE_DAY}, "leads": leads}


def dead_at(proof: Proof, at: datetime) -> bool:
    """Whether it was proved dead at a time, by what had happened until then. What came from a file proves nothing."""
    if proof.brought_at is not None:
        return False
    return any(start <= at < end for start, end in _dead_spans(_Told(proof)))


def was_dead_since(proof: Proof, since: datetime, until: datetime) -> bool:
    """Whether it was proved dead at some time between two. What came from a file proves nothing."""
    if proof.brought_at is not None:
        return False
    return any(start <= until and end > since for start, end in _dead_spans(_Told(proof)))


class _Told:
    """A proof as it was told so far: equal to one of the same events, by testers that are as suspect.

    One event more, however late, makes it another.
    """

    def __init__(self, proof: Proof) -> None:
        self.proof = proof
        suspects = {e.tester_id: e.tester.suspect_from for e in proof.events.all() if e.tester}
        self._events = (proof.id, *((e.number, e.at) for e in proof.events.all()), tuple(suspects.items()))

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Told) and self._events == other._events

    def __hash__(self) -> int:
        return hash(self._events)


@lru_cache(maxsize=256)
def _dead_spans(told: _Told) -> tuple[tuple[datetime, datetime], ...]:
    """From when to when it was proved dead. Between two events a proof can only run out."""
    proof, spans = told.proof, []
    times = [e.at for e in proof.events.all()]
    for start, end in zip_longest(times, times[1:]):
        found = isolation(parse(IsolationFile, log_of(proof, start, until=start)).log())
        if found.state is State.PROVED_DEAD and found.expires_at is not None:
            runs_out = found.expires_at
            spans.append((start, runs_out if end is None else min(end, runs_out)))
    return tuple(spans)


def state_of(proof: Proof, now: datetime) -> StateOut:
    """What `evenprobe isolate` says of the proof at `now`; of what came from a file, that it is history."""
    if proof.brought_at is not None:
        return _as_history(proof)
    found = isolation(parse(IsolationFile, log_of(proof, now)).log())
    return StateOut.of(found).model_copy(update={"ahead": [NextOut.of(step) for step in found.ahead[1:]]})


BEGIN_YOUR_OWN = "this came from a file and proves nothing here; begin a proof of your own"


def _as_history(proof: Proof) -> StateOut:
    """`was`: how it stood by the file, at the file's own time, or when the last thing happened."""
    last = proof.events.last()
    log = parse(IsolationFile, log_of(proof, last.at if last else proof.begun_at)).log()
    found = StateOut.of(isolation(log))
    nothing: dict[str, Any] = dict.fromkeys(NextOut.model_fields)
    nothing |= {"step": "nothing", "text": BEGIN_YOUR_OWN}
    changed = {"state": HISTORY, "was": found.state, "next": NextOut(**nothing)}
    return found.model_copy(update={**changed, "missing": [], "expires_at": None, "prove_again_by": None})
