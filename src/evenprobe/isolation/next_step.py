"""The one next step of a proof of death, in the order of the work: sources, proof, pairs, proof again, statement."""

from collections.abc import Iterator, Set
from dataclasses import replace

from evenprobe.isolation.log import IsolationLog, Mode, Pair
from evenprobe.isolation.outcome import Isolation, Missing, State, Step, StepKind
from evenprobe.isolation.round import Round


def next_step(log: IsolationLog, so_far: Isolation, active: Round | None, unexplained: Set[Pair]) -> Step:
    """`unexplained`: pairs that showed more than nothing and less than the touch limit."""
    return replace(next(_steps(log, so_far, active, unexplained)), tester=so_far.tester)


def _steps(log: IsolationLog, so_far: Isolation, active: Round | None, unexplained: Set[Pair]) -> Iterator[Step]:
    if so_far.state is State.CLOSED:
        yield Step(StepKind.NOTHING, "this proof is closed")
    alive = any(p.code == "voltage-present" for p in so_far.problems)
    if alive and all(state.off for state in so_far.sources):
        yield Step(StepKind.FIND_SOURCE, "find what feeds it, add it as a source, switch it off and lock it")
    for state in so_far.sources:
        if not state.off:
            yield Step(StepKind.SWITCH_OFF, f"switch off {state.source.label}", source=state.source.id)
        if not state.locked:
            yield Step(StepKind.LOCK, f"lock and tag {state.source.label}", source=state.source.id)
    if so_far.state is State.PROVED_DEAD:
        if so_far.stated_at is None:
            yield Step(StepKind.STATE, "hold to state it dead, with your name")
        yield Step(StepKind.KEEP, "dead while you stay: return before the clock runs out")
    yield from _readings(log, so_far, active, unexplained)


def _readings(log: IsolationLog, so_far: Isolation, active: Round | None, unexplained: Set[Pair]) -> Iterator[Step]:
    untested = [m for m in so_far.missing if m.code == "pair-not-tested"]
    waiting: set[Mode] = {mode for _, mode in active.waiting} if active else set()
    mode: Mode = "dc" if (untested or waiting) and all(m.mode == "dc" for m in untested) else "ac"
    if mode == "dc" and "ac" in waiting:
        yield Step(StepKind.PROVE_AGAIN, "prove the same tester again", mode="ac")
    untested = [m for m in untested if m.mode in (None, mode)]
    if active is None or (untested and not active.proved_within(log.at, mode)):
        kind, what = (StepKind.PROVE_AGAIN, "again ") if waiting else (StepKind.PROVE, "")
        yield Step(kind, f"prove the tester {what}on a known source", mode=mode)
    for missing in _unexplained_first(untested, unexplained):
        assert missing.pair is not None
        points = log.between(*missing.pair)
        if frozenset(missing.pair) in unexplained:
            text = f"repeat {points} on low impedance, same tester"
            yield Step(StepKind.LOW_IMPEDANCE, text, pair=missing.pair, mode=missing.mode or "ac")
        yield Step(StepKind.TEST, f"test {points}", pair=missing.pair, mode=missing.mode or "ac")
    yield Step(StepKind.PROVE_AGAIN, "prove the same tester again", mode=mode)


def _unexplained_first(untested: list[Missing], unexplained: Set[Pair]) -> list[Missing]:
    return sorted(untested, key=lambda m: m.pair is None or frozenset(m.pair) not in unexplained)
