"""The one next step of a proof of isolation, in the order of the work.

Sources off and locked; what nobody explains; the tester proved, every pair, proved again; the statement.
"""

from collections.abc import Iterator, Mapping
from dataclasses import replace

from evenprobe.isolation.log import IsolationLog, Mode, Pair
from evenprobe.isolation.outcome import Doubt, Isolation, State, Step, StepKind
from evenprobe.isolation.round import Round


def next_step(log: IsolationLog, so_far: Isolation, rounds: Mapping[str, Round], doubts: Mapping[Pair, Doubt]) -> Step:
    """What to do next, and with which tester where it has to be a certain one."""
    step = next(_steps(log, so_far, rounds, doubts))
    return step if step.tester else replace(step, tester=so_far.tester)


def _steps(
    log: IsolationLog, so_far: Isolation, rounds: Mapping[str, Round], doubts: Mapping[Pair, Doubt]
) -> Iterator[Step]:
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
    for doubt in doubts.values():
        yield from _answering(log, doubt, doubt.tester or so_far.tester, rounds)
    yield from _readings(log, so_far, rounds.get(so_far.tester or ""))


def _answering(log: IsolationLog, doubt: Doubt, tester: str | None, rounds: Mapping[str, Round]) -> Iterator[Step]:
    """Low impedance on the pair, with the tester that has to, proved first."""
    if tester is None or not rounds[tester].proved_within(log.at, doubt.mode):
        yield Step(StepKind.PROVE, "prove the tester on a known source", mode=doubt.mode, tester=tester)
    text = f"repeat {log.between(*doubt.points)} on low impedance, same tester"
    yield Step(StepKind.LOW_IMPEDANCE, text, pair=doubt.points, mode=doubt.mode, tester=tester)


def _readings(log: IsolationLog, so_far: Isolation, active: Round | None) -> Iterator[Step]:
    """All pairs on AC, then all on DC where that is wanted, so that a meter is set and proved but once for each."""
    untested = [m for m in so_far.missing if m.code == "pair-not-tested"]
    waiting: set[Mode] = {mode for _, mode in active.waiting} if active else set()
    mode: Mode = "dc" if (untested or waiting) and all(m.mode == "dc" for m in untested) else "ac"
    if mode == "dc" and "ac" in waiting:
        yield Step(StepKind.PROVE_AGAIN, "prove the same tester again", mode="ac")
    if active is None or (untested and not active.proved_within(log.at, mode)):
        kind, what = (StepKind.PROVE_AGAIN, "again ") if waiting else (StepKind.PROVE, "")
        yield Step(kind, f"prove the tester {what}on a known source", mode=mode)
    for missing in untested:
        if missing.pair is not None and missing.mode in (None, mode):
            yield Step(StepKind.TEST, f"test {log.between(*missing.pair)}", pair=missing.pair, mode=mode)
    yield Step(StepKind.PROVE_AGAIN, "prove the same tester again", mode=mode)
