"""The state of a proof of isolation, replayed from its events: nothing is remembered but the log.

Dead is said only when every source is off and locked and one fit tester, proved before and after within the window,
showed nothing on every pair. Whatever is in doubt counts against it: silence for longer than the place may be left
unattended, a tester that fails once, an alarm of any tester at all.
Procedure: NFPA 70E article 120; EN 50110-1; dead and touch limits as in `supplies.limits`.
"""

from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import datetime, timedelta

from evenprobe.isolation.log import WITH_DC_SIDE, Event, EventType, IsolationLog, Mode, Pair, pairs_to_test
from evenprobe.isolation.outcome import Doubt, Problem, SourceState
from evenprobe.isolation.round import Round, Slot, Taken
from evenprobe.limits.isolation import DEAD_STEP_VOLTS, DEAD_VOLTS
from evenprobe.limits.voltages import DRY_TOUCH_VOLTS
from evenprobe.testers.fitness import Fitness, fitness
from evenprobe.wiring import Terminal

KNOWN_LIVE_SHARE = 0.8
"""A known live source shows at least this share of the practice's lowest nominal voltage, or it proves nothing."""
LEAST_DC_LIVE_VOLTS = 10.0
"""The same of a battery."""


@dataclass
class Replay:
    log: IsolationLog
    sources: dict[str, SourceState] = field(init=False)
    rounds: dict[str, Round] = field(init=False)
    problems: list[Problem] = field(default_factory=list)
    history: list[Problem] = field(default_factory=list)
    alive: bool = False
    ended: Problem | None = None
    unexplained: dict[Pair, Doubt] = field(default_factory=dict)
    last_shown: dict[Pair, Event] = field(default_factory=dict)
    last: Taken | None = None
    proved_at: datetime | None = None
    was_proved_at: datetime | None = None
    stated: Event | None = None
    closed: bool = False

    def __post_init__(self) -> None:
        rules = self.log.rules
        self.sources = {s.id: SourceState(s, off=False, locked=False) for s in self.log.sources}
        window = timedelta(minutes=rules.window_min)
        self.rounds = {name: Round(held, window) for name, held in self.log.testers.items()}
        self.unattended = timedelta(minutes=rules.unattended_min)
        self.pairs = pairs_to_test(self.log.terminals)
        lowest = min(system.nominal_volts for system in self.log.practice.systems)
        self.least_live = KNOWN_LIVE_SHARE * lowest

    # Events

    def take(self, taken: Taken) -> None:
        self.wait_until(taken.event.at)
        if not self.closed:
            _HANDLERS[taken.event.type](self, taken)
        self.last = taken
        self._note_completion(taken.event.at)

    def wait_until(self, now: datetime) -> None:
        """Time passes with nobody doing anything that was written down."""
        if self.closed or self.last is None:
            return
        if now - self.last.event.at > self.unattended and any(r.has_readings for r in self.rounds.values()):
            minutes = self.log.rules.unattended_min
            self._end("left-unattended", f"nobody was seen here for more than {minutes:g} min", self.last.index)
        for tester, round_ in self.rounds.items():
            for reading in round_.waited_too_long(now):
                self._stale(reading, tester)

    def _off(self, taken: Taken) -> None:
        self._change_sources(taken.event, off=True)
        for problem in [p for p in self.problems if p.code == "voltage-present"]:
            self._settle(problem)
        self.alive = False

    def _locked(self, taken: Taken) -> None:
        self._change_sources(taken.event, locked=True)

    def _unlocked(self, taken: Taken) -> None:
        self._change_sources(taken.event, locked=False)
        self._end("unlocked", f"the lock was taken off {self._named(taken.event.source)}", taken.index)

    def _re_energised(self, taken: Taken) -> None:
        self._change_sources(taken.event, off=False, locked=False)
        self._end("re-energised", f"{self._named(taken.event.source)} was switched on again", taken.index)

    def _source_found(self, taken: Taken) -> None:
        found = taken.event.found
        assert found is not None
        self.sources[found.id] = SourceState(found, off=False, locked=False)
        for round_ in self.rounds.values():
            round_.drop_readings()

    def _proved(self, taken: Taken) -> None:
        event, tester = taken.event, taken.event.tester or ""
        if self._unfit(taken):
            return
        if event.seen < self._least_proof(event):
            text = f"it showed {event.seen:g} V on a source that should show {self._least_proof(event):g} V or more"
            self._failed(taken, text)
            return
        others = [r for name, r in self.rounds.items() if name != tester and r.waiting]
        if others:
            waits = others[0].held.name or others[0].held.id
            text = f"the readings of {waits} wait for {waits} to be proved again; another tester cannot stand in"
            self._raise("tester-changed", text, taken.index)
        for reading in self.rounds[tester].prove(taken):
            self._stale(reading, tester)
        if self.ended is not None:
            self._settle(self.ended)
            self.ended = None

    def _prove_failed(self, taken: Taken) -> None:
        self._failed(taken, "the tester failed its proof: nothing it showed since counts, and it is not to be used")

    def _tested(self, taken: Taken) -> None:
        event, tester = taken.event, taken.event.tester or ""
        self.last_shown[event.pair] = event
        if event.seen >= self.log.touch_volts:
            self._voltage_present(taken)
            return
        if event.seen > DEAD_VOLTS or event.at_least:
            self._voltage_unexplained(taken)
            return
        if not self._counts(taken):
            return
        doubt = self.unexplained.get(event.pair)
        if doubt is not None:
            same_tester = doubt.tester in (tester, "") and doubt.mode in self.rounds[tester].modes_of(event)
            if not event.low_impedance or not same_tester:
                return
            self._settle(doubt.problem)
            del self.unexplained[event.pair]
        self.rounds[tester].read(taken)

    def _screened(self, taken: Taken) -> None:
        if not taken.event.alarm:
            return
        text = "the detector gave an alarm: treat as live, find why, and test every pair again"
        self._end("screen-alarm", text, taken.index, always=True)

    def _handed_over(self, taken: Taken) -> None:
        self._end("handed-over", "another person took over: they prove it dead themselves", taken.index)

    def _stated(self, taken: Taken) -> None:
        self.stated = taken.event

    def _closed(self, _taken: Taken) -> None:
        self.closed = True

    def _nothing(self, _taken: Taken) -> None:
        """Somebody left or came back: it is the time between that matters."""

    # What readings count for

    def _counts(self, taken: Taken) -> bool:
        """Whether a reading of nothing may count; if not, says why."""
        event, tester = taken.event, taken.event.tester or ""
        if self._unfit(taken):
            return False
        round_ = self.rounds[tester]
        if event.volts is None and (event.below or 0) > min(DEAD_STEP_VOLTS, self.log.touch_volts):
            text = f"no lamp below {event.below:g} V says nothing about what is under it"
            self._raise("step-too-high", text, taken.index)
            return False
        doubt = self.unexplained.get(event.pair)
        wanted = {*self.modes(), doubt.mode} if doubt else set(self.modes())
        if not wanted & set(round_.modes_of(event)):
            self._raise("wrong-function", "a DC range shows 0 on a live AC conductor", taken.index)
            return False
        if not self.isolated():
            text = "taken before every source was off and locked"
            self._raise("tested-before-isolation", text, taken.index)
            return False
        why = round_.why_not(event)
        if why is None:
            return True
        others = [r for r in self.rounds.values() if r is not round_ and r.begun]
        if why[0] == "not-proved-before" and others:
            proved = others[0].held.name or others[0].held.id
            why = "tester-changed", f"{proved} was proved, this is another tester: same tester, same leads throughout"
        self._raise(*why, taken.index)
        return False

    def _voltage_present(self, taken: Taken) -> None:
        event = taken.event
        text = f"{event.seen:g} V from {self.log.between(*self._points(event))}: something still feeds it"
        self._raise("voltage-present", text, taken.index)
        self.alive = True
        for doubt in self.unexplained.values():
            self._settle(doubt.problem)
        self.unexplained.clear()
        for round_ in self.rounds.values():
            round_.drop_readings()

    def _voltage_unexplained(self, taken: Taken) -> None:
        event, tester = taken.event, taken.event.tester or ""
        text = (
            f"{event.seen:g} V from {self.log.between(*self._points(event))} is not nothing: "
            "repeat on low impedance with the same tester, and name the source"
        )
        for round_ in self.rounds.values():
            round_.drop(event.pair)
        earlier = self.unexplained.get(event.pair)
        if earlier is not None:
            self._settle(earlier.problem)
        problem = self._raise("voltage-unexplained", text, taken.index)
        by = tester if self._fitness(taken).fit else ""
        self.unexplained[event.pair] = Doubt(problem, self._points(event), by, event.mode)

    @staticmethod
    def _points(event: Event) -> tuple[Terminal, Terminal]:
        assert event.from_ is not None
        assert event.to is not None
        return event.from_, event.to

    def _failed(self, taken: Taken, text: str) -> None:
        round_ = self.rounds[taken.event.tester or ""]
        if not round_.has_readings:
            round_.drop_all()
            if not self._unfit(taken):
                self._raise("prove-failed", text, taken.index)
            return
        self._end("prove-failed", text, taken.index)

    def _least_proof(self, event: Event) -> float:
        if event.against != "known-live":
            return DRY_TOUCH_VOLTS
        return self.least_live if event.mode == "ac" else LEAST_DC_LIVE_VOLTS

    def _fitness(self, taken: Taken) -> Fitness:
        log = self.log
        task = log.rules.task(log.practice, log.system, log.place, taken.event.at.date())
        return fitness(task, log.testers[taken.event.tester or ""])

    def _unfit(self, taken: Taken) -> bool:
        found = self._fitness(taken)
        if found.fit:
            return False
        held = self.log.testers[taken.event.tester or ""]
        text = f"{held.name or held.id} cannot confirm safe here: {'; '.join(p.text for p in found.problems)}"
        self._raise("tester-unfit", text, taken.index, tuple(p.code for p in found.problems))
        return True

    # Keeping book

    def _raise(self, code: str, text: str, event: int, reasons: tuple[str, ...] = ()) -> Problem:
        problem = Problem(code, text, event, reasons)
        self.problems.append(problem)
        return problem

    def _settle(self, problem: Problem) -> None:
        self.problems.remove(problem)
        self.history.append(problem)

    def _stale(self, reading: Taken, tester: str) -> None:
        minutes = self.log.rules.window_min
        name = self.log.testers[tester].name or tester
        text = f"{name} was not proved again within {minutes:g} min of this reading; test the pair again"
        self._raise("proof-stale", text, reading.index)

    def _end(self, code: str, text: str, event: int, *, always: bool = False) -> None:
        """Whatever was proved or read so far counts no more. Void where there was something to void."""
        something = any(r.has_readings for r in self.rounds.values())
        for round_ in self.rounds.values():
            round_.drop_all()
        if something and self.ended is None:
            self.ended = self._raise(code, text, event)
        elif something or always:
            self._raise(code, text, event)

    def _change_sources(self, event: Event, *, off: bool | None = None, locked: bool | None = None) -> None:
        """None leaves it as it is."""
        for name in [event.source] if event.source is not None else list(self.sources):
            was = self.sources[name]
            self.sources[name] = SourceState(
                was.source,
                was.off if off is None else off,
                was.locked if locked is None else locked,
                event.lock if locked else was.lock,
            )

    def _named(self, source: str | None) -> str:
        return "a source" if source is None else self.sources[source].source.label

    # Where it stands

    def isolated(self) -> bool:
        return all(s.off and s.locked for s in self.sources.values())

    def modes(self) -> tuple[Mode, ...]:
        """DC as well, where something with a DC side reaches the place."""
        direct = any(s.source.kind in WITH_DC_SIDE for s in self.sources.values())
        return ("ac", "dc") if direct else ("ac",)

    def slots(self) -> list[Slot]:
        return [(frozenset(pair), mode) for pair in self.pairs for mode in self.modes()]

    def complete(self) -> Round | None:
        """The tester that has every pair between two proofs, if nothing speaks against it."""
        if self.alive or self.ended or self.unexplained or not self.isolated():
            return None
        whole = [r for r in self.rounds.values() if all(slot in r.covered for slot in self.slots())]
        return whole[0] if whole else None

    def _note_completion(self, now: datetime) -> None:
        complete = self.complete()
        if complete is None:
            self.was_proved_at, self.proved_at = self.proved_at or self.was_proved_at, None
            return
        if self.proved_at is None:
            self.proved_at = now
            for problem in list(self.problems):
                self._settle(problem)
        oldest = min(proof.event.at for _, _, proof in complete.covered.values())
        self.proved_at = max(self.proved_at, oldest)

    def active(self) -> tuple[str, Round] | None:
        """The tester that is furthest, if any was proved."""
        begun = [(name, r) for name, r in self.rounds.items() if r.begun]
        return max(begun, key=lambda named: len(named[1].covered) + len(named[1].waiting), default=None)


_HANDLERS: dict[EventType, Callable[[Replay, Taken], None]] = {
    EventType.OFF: Replay._off,
    EventType.LOCKED: Replay._locked,
    EventType.UNLOCKED: Replay._unlocked,
    EventType.RE_ENERGISED: Replay._re_energised,
    EventType.SOURCE_FOUND: Replay._source_found,
    EventType.PROVED: Replay._proved,
    EventType.PROVE_FAILED: Replay._prove_failed,
    EventType.TESTED: Replay._tested,
    EventType.SCREENED: Replay._screened,
    EventType.HANDED_OVER: Replay._handed_over,
    EventType.STATED: Replay._stated,
    EventType.CLOSED: Replay._closed,
    EventType.LEFT: Replay._nothing,
    EventType.RETURNED: Replay._nothing,
}
