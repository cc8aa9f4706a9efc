"""The state of a proof of isolation, replayed from its events: nothing is remembered but the log.

Dead is said only when every source is off and locked and one fit tester, proved before and after within the window,
showed nothing on every pair. Whatever is in doubt counts against it: silence for longer than the place may be left
unattended, a tester that fails once, an alarm of any tester at all.
Procedure: NFPA 70E article 120; EN 50110-1; dead and touch limits as in `supplies.limits`.
"""

from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import datetime, timedelta

from evenprobe.isolation.admission import Admission, Submitted
from evenprobe.isolation.bracketing import Bracketing, Refusal, Slot, Taken
from evenprobe.isolation.log import WITH_DC_SIDE, Event, EventType, IsolationLog, Mode, Pair, pairs_to_test
from evenprobe.isolation.sentences import PROBLEMS
from evenprobe.isolation.standing import Doubt, Problem, SourceState
from evenprobe.limits.isolation import DEAD_VOLTS
from evenprobe.wiring import Terminal


@dataclass
class Replay:
    log: IsolationLog
    sources: dict[str, SourceState] = field(init=False)
    bracketings: dict[str, Bracketing] = field(init=False)
    problems: list[Problem] = field(default_factory=list)
    history: list[Problem] = field(default_factory=list)
    alive: bool = False
    ended: Problem | None = None
    unexplained: dict[Pair, Doubt] = field(default_factory=dict)
    last_shown: dict[Pair, Event] = field(default_factory=dict)
    last: Taken | None = None
    runs_out: datetime = field(init=False)
    known_to_run_out: bool = False
    """Whether it was heard of, before it came, that it runs out then."""
    proved_at: datetime | None = None
    was_proved_at: datetime | None = None
    stated: Event | None = None
    closed: bool = False

    def __post_init__(self) -> None:
        rules = self.log.rules
        self.sources = {s.id: SourceState(s, off=False, locked=False) for s in self.log.sources}
        window = timedelta(minutes=rules.window_min)
        self.bracketings = {name: Bracketing(held, window) for name, held in self.log.testers.items()}
        self.unattended = timedelta(minutes=rules.unattended_min)
        self.runs_out = self.log.at
        self.pairs = pairs_to_test(self.log.terminals)
        self.admission = Admission(self.log)

    # Events

    def take(self, taken: Taken) -> None:
        self.wait_until(taken.event.at)
        self._attend(taken.event)
        if not self.closed:
            _HANDLERS[taken.event.type](self, taken)
        self.last = taken
        self._note_completion(taken.event.at)

    def _attend(self, event: Event) -> None:
        """Somebody is there, which keeps a proof; not one that had run out, as far as was known, before it was told."""
        if self._running() and self.known_to_run_out and event.heard_at > self.runs_out:
            return
        self.runs_out = event.at + self.unattended
        self.known_to_run_out = event.heard_at <= self.runs_out

    def _running(self) -> bool:
        return any(r.has_readings for r in self.bracketings.values())

    def wait_until(self, now: datetime) -> None:
        """Time passes with nobody doing anything that was written down."""
        if self.closed or self.last is None:
            return
        if now > self.runs_out and self._running():
            self._end("left-unattended", self.last.index, minutes=self.log.rules.unattended_min)
        for tester, bracketing in self.bracketings.items():
            for reading in bracketing.waited_too_long(now):
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
        self._end("unlocked", taken.index, source=self._named(taken.event.source))

    def _re_energised(self, taken: Taken) -> None:
        self._change_sources(taken.event, off=False, locked=False)
        self._end("re-energised", taken.index, source=self._named(taken.event.source))

    def _source_found(self, taken: Taken) -> None:
        found = taken.event.found
        assert found is not None
        self.sources[found.id] = SourceState(found, off=False, locked=False)
        for bracketing in self.bracketings.values():
            bracketing.drop_readings()

    def _proved(self, taken: Taken) -> None:
        event, tester = taken.event, taken.event.tester or ""
        if self._unfit(taken):
            return
        too_low = self.admission.too_low(event)
        if too_low is not None:
            self._failed(taken, too_low)
            return
        others = [r for name, r in self.bracketings.items() if name != tester and r.waiting]
        if others:
            waits = others[0].held.name or others[0].held.id
            self._raise(Refusal("tester-changed", PROBLEMS.say("proved-another", waits=waits)), taken.index)
        for reading in self.bracketings[tester].prove(taken):
            self._stale(reading, tester)
        if self.ended is not None:
            self._settle(self.ended)
            self.ended = None

    def _prove_failed(self, taken: Taken) -> None:
        self._failed(taken, Refusal("prove-failed", PROBLEMS.say("prove-failed")))

    def _tested(self, taken: Taken) -> None:
        event, tester = taken.event, taken.event.tester or ""
        self.last_shown[event.pair] = event
        if event.seen >= self.log.touch_volts:
            self._voltage_present(taken)
            return
        if event.seen > DEAD_VOLTS or event.at_least:
            self._voltage_unexplained(taken)
            return
        doubt = self.unexplained.get(event.pair)
        refusal = self.admission.why_not(Submitted(event, self.modes(), self.isolated(), doubt, self.bracketings))
        if refusal is not None:
            self._raise(refusal, taken.index)
            return
        if doubt is not None:
            same_tester = doubt.tester in (tester, "") and doubt.mode in self.bracketings[tester].modes_of(event)
            if not event.low_impedance or not same_tester:
                return
            self._settle(doubt.problem)
            del self.unexplained[event.pair]
        self.bracketings[tester].read(taken)

    def _screened(self, taken: Taken) -> None:
        if not taken.event.alarm:
            return
        self._end("screen-alarm", taken.index, always=True)

    def _handed_over(self, taken: Taken) -> None:
        self._end("handed-over", taken.index)

    def _stated(self, taken: Taken) -> None:
        self.stated = taken.event

    def _closed(self, _taken: Taken) -> None:
        self.closed = True

    def _nothing(self, _taken: Taken) -> None:
        """Somebody left or came back: it is the time between that matters."""

    # What readings show

    def _voltage_present(self, taken: Taken) -> None:
        event = taken.event
        self._raise(self._shows("voltage-present", event), taken.index)
        self.alive = True
        for doubt in self.unexplained.values():
            self._settle(doubt.problem)
        self.unexplained.clear()
        for bracketing in self.bracketings.values():
            bracketing.drop_readings()

    def _voltage_unexplained(self, taken: Taken) -> None:
        event, tester = taken.event, taken.event.tester or ""
        for bracketing in self.bracketings.values():
            bracketing.drop(event.pair)
        earlier = self.unexplained.get(event.pair)
        if earlier is not None:
            self._settle(earlier.problem)
        problem = self._raise(self._shows("voltage-unexplained", event), taken.index)
        by = tester if self.admission.fitness(event).fit else ""
        self.unexplained[event.pair] = Doubt(problem, self._points(event), by, event.mode)

    def _shows(self, code: str, event: Event) -> Refusal:
        between = self.log.between(*self._points(event))
        return Refusal(code, PROBLEMS.say(code, seen=event.seen, between=between))

    @staticmethod
    def _points(event: Event) -> tuple[Terminal, Terminal]:
        assert event.from_ is not None
        assert event.to is not None
        return event.from_, event.to

    def _failed(self, taken: Taken, why: Refusal) -> None:
        bracketing = self.bracketings[taken.event.tester or ""]
        if not bracketing.has_readings:
            bracketing.drop_all()
            if not self._unfit(taken):
                self._raise(why, taken.index)
            return
        self._void(why, taken.index)

    def _unfit(self, taken: Taken) -> bool:
        why = self.admission.unfit(taken.event)
        if why is not None:
            self._raise(why, taken.index)
        return why is not None

    # Keeping book

    def _raise(self, why: Refusal, event: int) -> Problem:
        problem = Problem(why.code, why.said, event, why.reasons)
        self.problems.append(problem)
        return problem

    def _settle(self, problem: Problem) -> None:
        self.problems.remove(problem)
        self.history.append(problem)

    def _stale(self, reading: Taken, tester: str) -> None:
        minutes = self.log.rules.window_min
        name = self.log.testers[tester].name or tester
        said = PROBLEMS.say("proof-too-late", tester=name, minutes=minutes)
        self._raise(Refusal("proof-stale", said), reading.index)

    def _end(self, code: str, event: int, *, always: bool = False, **about: object) -> None:
        self._void(Refusal(code, PROBLEMS.say(code, **about)), event, always=always)

    def _void(self, why: Refusal, event: int, *, always: bool = False) -> None:
        """Whatever was proved or read so far counts no more. Void where there was something to void."""
        something = self._running()
        for bracketing in self.bracketings.values():
            bracketing.drop_all()
        if something and self.ended is None:
            self.ended = self._raise(why, event)
        elif something or always:
            self._raise(why, event)

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

    def complete(self) -> Bracketing | None:
        """The tester that has every pair between two proofs, if nothing speaks against it."""
        if self.alive or self.ended or self.unexplained or not self.isolated():
            return None
        whole = [r for r in self.bracketings.values() if all(slot in r.covered for slot in self.slots())]
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

    def active(self) -> tuple[str, Bracketing] | None:
        """The tester that is furthest, if any was proved."""
        begun = [(name, r) for name, r in self.bracketings.items() if r.begun]
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
