"""A case that is to be made dead, as the order of work has it: off and locked, proved, every pair, proved again.

What still feeds it shows by a voltage on what was taken to be off; then it is looked for (EN 50110-1, 6.2.2).
"""

from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from typing import Any

from evenprobe.isolation import Event, EventType, IsolationLog, Source, SourceKind, Step, StepKind, isolation
from evenprobe.planning.work import WORKS, Work
from evenprobe.practising.acts import Doing, Progress, after
from evenprobe.practising.case import Case
from evenprobe.practising.simulated import Simulated
from evenprobe.quantities import VOLTAGE, Measurement, Reading
from evenprobe.testers import Instrument
from evenprobe.testers.fitness import Held
from evenprobe.testers.ratings import Place

_BEGUN = datetime(2026, 1, 1, tzinfo=UTC)
"""Any: only the time between counts."""
_OWN, _OTHER = "own", "other"
_MOST_STEPS = 60
_USUAL = WORKS[Work.ISOLATE]
_AT_A_SOURCE_S, _A_PAIR_S, _PROVING_S = 60 * _USUAL.a_source / 2, 60 * _USUAL.a_pair, 20.0
_LOOKING_S = 180.0
"""For what else feeds it."""
_SECONDS: dict[StepKind, float] = {
    StepKind.FIND_SOURCE: _LOOKING_S,
    StepKind.SWITCH_OFF: _AT_A_SOURCE_S,
    StepKind.LOCK: _AT_A_SOURCE_S,
    StepKind.PROVE: _PROVING_S,
    StepKind.PROVE_AGAIN: _PROVING_S,
    StepKind.TEST: _A_PAIR_S,
    StepKind.LOW_IMPEDANCE: _A_PAIR_S,
}
_AT_THE_BOARD: dict[tuple[StepKind, str], Doing] = {
    (StepKind.FIND_SOURCE, ""): Doing.LOOKED,
    (StepKind.SWITCH_OFF, _OWN): Doing.OFF,
    (StepKind.SWITCH_OFF, _OTHER): Doing.FEED_OFF,
    (StepKind.LOCK, _OWN): Doing.LOCKED,
    (StepKind.LOCK, _OTHER): Doing.FEED_LOCKED,
}


@dataclass(frozen=True)
class WorkStep:
    """One step and what was seen at it. `at_s`: when it was done; `shown`: by the tester, where one was used."""

    step: Step
    at_s: float
    shown: Reading | None


@dataclass(frozen=True)
class MadeDead:
    """`tester`: what it was proved with. `solved`: whether it came to be proved dead."""

    case: Case
    steps: tuple[WorkStep, ...]
    tester: str
    solved: bool

    @property
    def seconds(self) -> float:
        """What it took."""
        return self.steps[-1].at_s if self.steps else 0.0

    @property
    def in_time(self) -> bool:
        return self.solved and self.seconds <= 60 * self.case.minutes


def make_dead(case: Case) -> MadeDead:
    """The case from the switch to the statement, step by step as the proof says, with the first tester that serves.

    Parameters
    ----------
    case : Case
        One that is to be made dead.

    Returns
    -------
    MadeDead
        The same each time.

    Examples
    --------
    >>> from evenprobe.formats.case import shipped
    >>> made = make_dead(shipped()["two-ways-in"].case())
    >>> made.solved, made.in_time, "find" in " ".join(step.step.kind for step in made.steps)
    (True, True, True)
    """
    simulated = Simulated(case)
    shows_volts = [(held, tester) for held, tester in zip(case.held, case.kit, strict=True) if tester.volts()]
    tried = [_with(case, simulated, held, tester) for held, tester in shows_volts]
    return next((made for made in tried if made.solved), tried[0] if tried else MadeDead(case, (), "", solved=False))


def _with(case: Case, simulated: Simulated, held: Held, tester: Instrument) -> MadeDead:
    own = Source(_OWN, "the circuit's own device")
    log = IsolationLog(
        case.point.practice, case.point.system, case.point.terminals, Place.INSTALLATION, (own,), {held.id: held}, (),
        _BEGUN,
    )  # fmt: skip
    done: list[WorkStep] = []
    found, at_s = Progress(), 0.0
    while len(done) < _MOST_STEPS:
        step = isolation(log).next_step
        if step.kind not in _SECONDS:
            return MadeDead(case, tuple(done), held.id, solved=step.kind in (StepKind.STATE, StepKind.KEEP))
        at_s += _SECONDS[step.kind]
        doing = _AT_THE_BOARD.get((step.kind, step.source or ""))
        if doing is not None:
            found = after(found, doing, at_s)
        shown = _shown(case, simulated, step, tester, found, at_s)
        log = _told(case, log, step, held.id, shown, _BEGUN + timedelta(seconds=at_s))
        done.append(WorkStep(step, at_s, shown))
    return MadeDead(case, tuple(done), held.id, solved=False)


def _shown(
    case: Case, simulated: Simulated, step: Step, tester: Instrument, found: Progress, at_s: float
) -> Reading | None:
    if step.kind in (StepKind.PROVE, StepKind.PROVE_AGAIN):
        return simulated.on_a_known_source(tester)
    if step.pair is None:
        return None
    measured = Measurement(VOLTAGE, *step.pair, tester)
    return simulated.shows(measured, device=found.fed(case.other_feed), at=at_s)


def _seen(shown: Reading | None) -> dict[str, Any]:
    return {} if shown is None else {"volts": shown.value, "at_least": shown.at_least, "below": shown.below}


def _told(case: Case, log: IsolationLog, step: Step, tester: str, shown: Reading | None, at: datetime) -> IsolationLog:
    """The log with what was done and seen."""
    log = replace(log, at=at)
    seen = _seen(shown)
    match step.kind:
        case StepKind.FIND_SOURCE if not case.other_feed:
            return log
        case StepKind.FIND_SOURCE:
            other = Source(_OTHER, case.other_feed, SourceKind.SECOND_FEED)
            event = Event(at, EventType.SOURCE_FOUND, source=_OTHER, found=other)
        case StepKind.SWITCH_OFF:
            event = Event(at, EventType.OFF, source=step.source)
        case StepKind.LOCK:
            event = Event(at, EventType.LOCKED, source=step.source)
        case StepKind.PROVE | StepKind.PROVE_AGAIN:
            event = Event(at, EventType.PROVED, tester=tester, mode=step.mode or "ac", **seen)
        case _:
            measuring, reference = step.pair or (None, None)
            low = step.kind is StepKind.LOW_IMPEDANCE
            event = Event(
                at, EventType.TESTED, tester=tester, from_=measuring, to=reference, mode=step.mode or "ac",
                low_impedance=low, **seen,
            )  # fmt: skip
    return replace(log, events=(*log.events, event))
