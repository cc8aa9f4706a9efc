"""One tester's part in a round of prove, test, prove: which readings are bracketed by two good proofs.

A reading counts when the same tester, on the same function and range, was proved no longer than the window before
it and no longer than the window after it (NFPA 70E 120.5; EN 50110-1, 6.2.3; the window is a house rule).
"""

from dataclasses import dataclass, field
from datetime import datetime, timedelta

from evenprobe.isolation.log import Event, Mode, Pair
from evenprobe.isolation.sentences import PROBLEMS
from evenprobe.sentences import Sentence
from evenprobe.testers.fitness import Held

Slot = tuple[Pair, Mode]


@dataclass(frozen=True)
class Refusal:
    """Why something is not admitted. `reasons`: kit codes, where a tester is unfit."""

    code: str
    said: Sentence
    reasons: tuple[str, ...] = ()


@dataclass(frozen=True)
class Taken:
    """An event with its place in the log."""

    index: int
    event: Event


@dataclass
class Bracketing:
    """`waiting`: readings since the last proof; `covered`: reading and the proof after it, by slot."""

    held: Held
    window: timedelta
    proofs: dict[Mode, Taken] = field(default_factory=dict)
    waiting: dict[Slot, tuple[Taken, Taken]] = field(default_factory=dict)
    covered: dict[Slot, tuple[Taken, Taken, Taken]] = field(default_factory=dict)

    @property
    def has_readings(self) -> bool:
        return bool(self.waiting or self.covered)

    @property
    def begun(self) -> bool:
        return bool(self.proofs) or self.has_readings

    def modes_of(self, event: Event) -> tuple[Mode, ...]:
        return ("ac", "dc") if self.held.kind.tells_direct else (event.mode,)

    def prove(self, proof: Taken) -> list[Taken]:
        """A good proof covers what waits on its function, and starts the next stretch. Returns what waited too long."""
        stale = []
        for mode in self.modes_of(proof.event):
            for slot, (before, reading) in list(self.waiting.items()):
                if slot[1] != mode or not _same_range(reading.event, proof.event):
                    continue
                del self.waiting[slot]
                if proof.event.at - reading.event.at > self.window:
                    stale.append(reading)
                else:
                    self.covered[slot] = before, reading, proof
            self.proofs[mode] = proof
        return list(dict.fromkeys(stale))

    def why_not(self, event: Event) -> Refusal | None:
        """Why a reading now would not count; None when it would."""
        proof = self.proofs.get(self.modes_of(event)[0])
        if proof is None and self.proofs:
            return Refusal("function-changed", PROBLEMS.say("function-changed"))
        if proof is None:
            return Refusal("not-proved-before", PROBLEMS.say("not-proved-before"))
        if not _same_range(proof.event, event):
            return Refusal("range-changed", PROBLEMS.say("range-changed", proved=proof.event.range, read=event.range))
        if event.at - proof.event.at > self.window:
            minutes = self.window.total_seconds() / 60
            return Refusal("proof-stale", PROBLEMS.say("proof-too-early", minutes=minutes))
        return None

    def read(self, reading: Taken) -> None:
        for mode in self.modes_of(reading.event):
            slot = reading.event.pair, mode
            self.waiting[slot] = self.proofs[mode], reading

    def drop(self, pair: Pair) -> None:
        for readings in (self.waiting, self.covered):
            for slot in [s for s in readings if s[0] == pair]:
                del readings[slot]

    def drop_readings(self) -> None:
        self.waiting.clear()
        self.covered.clear()

    def drop_all(self) -> None:
        self.drop_readings()
        self.proofs.clear()

    def waited_too_long(self, now: datetime) -> list[Taken]:
        """Readings no proof can cover any more; they are let go."""
        late = {slot: r for slot, (_, r) in self.waiting.items() if now - r.event.at > self.window}
        for slot in late:
            del self.waiting[slot]
        return list(dict.fromkeys(late.values()))

    def proved_within(self, now: datetime, mode: Mode) -> bool:
        proof = self.proofs.get(mode)
        return proof is not None and now - proof.event.at <= self.window


def _same_range(one: Event, other: Event) -> bool:
    """Where both say which range, it must be one and the same."""
    return not one.range or not other.range or one.range == other.range
