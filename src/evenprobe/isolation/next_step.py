"""The next step of a proof of isolation and those after it, in the order of the work.

Sources off and locked; what nobody explains; the tester proved, every pair, proved again; the statement.
"""

from collections.abc import Iterator, Mapping
from dataclasses import replace

from evenprobe.isolation.bracketing import Bracketing
from evenprobe.isolation.log import IsolationLog, Mode, Pair
from evenprobe.isolation.sentences import STEPS
from evenprobe.isolation.standing import CLOSED, Doubt, Isolation, State, Step, StepKind

_LAST = {StepKind.NOTHING, StepKind.FIND_SOURCE, StepKind.STATE, StepKind.KEEP}
"""What comes after these depends on what comes of them."""


def steps_ahead(
    log: IsolationLog, so_far: Isolation, bracketings: Mapping[str, Bracketing], doubts: Mapping[Pair, Doubt]
) -> tuple[Step, ...]:
    """What to do next, and after it if all goes well; each with the tester where it has to be a certain one."""
    ahead: list[Step] = []
    for step in _steps(log, so_far, bracketings, doubts):
        ahead.append(step if step.tester else replace(step, tester=so_far.tester))
        if step.kind in _LAST:
            break
    return tuple(ahead)


def _steps(
    log: IsolationLog, so_far: Isolation, bracketings: Mapping[str, Bracketing], doubts: Mapping[Pair, Doubt]
) -> Iterator[Step]:
    if so_far.state is State.CLOSED:
        yield CLOSED
    alive = any(p.code == "voltage-present" for p in so_far.problems)
    if alive and all(state.off for state in so_far.sources):
        yield Step(StepKind.FIND_SOURCE, STEPS.say("find-source"))
    for state in so_far.sources:
        if not state.off:
            yield Step(StepKind.SWITCH_OFF, STEPS.say("switch-off", source=state.source.label), source=state.source.id)
        if not state.locked:
            yield Step(StepKind.LOCK, STEPS.say("lock", source=state.source.label), source=state.source.id)
    if so_far.state is State.PROVED_DEAD:
        if so_far.stated_at is None:
            yield Step(StepKind.STATE, STEPS.say("state"))
        yield Step(StepKind.KEEP, STEPS.say("keep"))
    for doubt in doubts.values():
        yield from _answering(log, doubt, doubt.tester or so_far.tester, bracketings)
    yield from _readings(log, so_far, bracketings.get(so_far.tester or ""))


def _answering(
    log: IsolationLog, doubt: Doubt, tester: str | None, bracketings: Mapping[str, Bracketing]
) -> Iterator[Step]:
    """Low impedance on the pair, with the tester that has to, proved first."""
    if tester is None or not bracketings[tester].proved_within(log.at, doubt.mode):
        yield Step(StepKind.PROVE, STEPS.say("prove"), mode=doubt.mode, tester=tester)
    said = STEPS.say("low-impedance", between=log.between(*doubt.points))
    yield Step(StepKind.LOW_IMPEDANCE, said, pair=doubt.points, mode=doubt.mode, tester=tester)


def _readings(log: IsolationLog, so_far: Isolation, active: Bracketing | None) -> Iterator[Step]:
    """All pairs on AC, then all on DC where that is wanted, so that a meter is set and proved but once for each."""
    untested = [m for m in so_far.missing if m.code == "pair-not-tested"]
    waiting: set[Mode] = {mode for _, mode in active.waiting} if active else set()
    mode: Mode = "dc" if (untested or waiting) and all(m.mode == "dc" for m in untested) else "ac"
    if mode == "dc" and "ac" in waiting:
        yield Step(StepKind.PROVE_AGAIN, STEPS.say("prove-again"), mode="ac")
    if active is None or (untested and not active.proved_within(log.at, mode)):
        kind, key = (StepKind.PROVE_AGAIN, "prove-once-more") if waiting else (StepKind.PROVE, "prove")
        yield Step(kind, STEPS.say(key), mode=mode)
    for missing in untested:
        if missing.pair is not None and missing.mode in (None, mode):
            yield Step(
                StepKind.TEST, STEPS.say("test", between=log.between(*missing.pair)), pair=missing.pair, mode=mode
            )
    yield Step(StepKind.PROVE_AGAIN, STEPS.say("prove-again"), mode=mode)
