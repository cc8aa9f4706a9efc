"""The next step is always the way on: whoever follows it arrives, whatever happened before."""

from dataclasses import replace
from datetime import timedelta

import numpy as np
from bench.proofs import TESTERS, good_log, is_proved, spoilt
from hypothesis import given, settings
from hypothesis import strategies as st

from evenprobe.isolation import Event, EventType, Source, SourceKind, State, StepKind, isolation

MOST_STEPS = 60
seeds = st.integers(0, 2**32 - 1)


def done(step, log, tester, at):
    """The step as a person would do it, and what is recorded."""
    measuring, reference = step.pair or (None, None)
    match step.kind:
        case StepKind.FIND_SOURCE:
            return Event(at, EventType.OFF, source=log.sources[0].id)
        case StepKind.SWITCH_OFF:
            return Event(at, EventType.OFF, source=step.source)
        case StepKind.LOCK:
            return Event(at, EventType.LOCKED, source=step.source)
        case StepKind.PROVE | StepKind.PROVE_AGAIN:
            return Event(at, EventType.PROVED, tester=tester, volts=239.0, mode=step.mode or "ac")
        case StepKind.TEST:
            return Event(at, EventType.TESTED, tester=tester, from_=measuring, to=reference, volts=0.0, mode=step.mode)
        case StepKind.LOW_IMPEDANCE:
            low = {"low_impedance": True, "mode": step.mode}
            return Event(at, EventType.TESTED, tester=tester, from_=measuring, to=reference, volts=0.2, **low)


def follow(log, tester):
    """Do what is said next, half a minute each, until it is to be stated, or was. Returns the log as it then is."""
    at = log.at
    for _ in range(MOST_STEPS):
        log = replace(log, at=at)
        step = isolation(log).next_step
        if step.kind in (StepKind.STATE, StepKind.KEEP):
            return log
        at += timedelta(seconds=30)
        log = replace(log, events=(*log.events, done(step, log, step.tester or tester, at)), at=at)
    raise AssertionError(f"no way on from {isolation(log)}")


@given(seeds)
@settings(max_examples=60, deadline=None)
def test_from_nothing_the_next_step_leads_to_a_whole_proof(seed):
    log = good_log(np.random.default_rng(seed))
    tester = next(e.tester for e in log.events if e.tester)
    arrived = follow(replace(log, events=(), at=log.events[0].at), tester)
    assert isolation(arrived).state is State.PROVED_DEAD
    assert is_proved(arrived)


@given(seeds)
@settings(max_examples=60, deadline=None)
def test_where_something_has_a_dc_side_it_leads_through_both(seed):
    log = good_log(np.random.default_rng(seed))
    tester = next(e.tester for e in log.events if e.tester)
    solar = Source("solar", "roof", SourceKind.SOLAR)
    arrived = follow(replace(log, sources=(*log.sources, solar), events=(), at=log.events[0].at), tester)
    read = {(e.pair, e.mode) for e in arrived.events if e.type is EventType.TESTED}
    assert len(read) == len({pair for pair, _ in read}) * (2 if tester == "m" else 1)


@given(seeds)
@settings(max_examples=400, deadline=None)
def test_whatever_happened_the_way_back_is_shown(seed):
    rng = np.random.default_rng(seed)
    log = good_log(rng)
    tester = next(e.tester for e in log.events if e.tester)
    fit = {t.id: t for t in TESTERS if t.id in ("t", "u", tester)}
    spoiled = spoilt(log, rng)
    kept = tuple(e for e in spoiled.events if e.tester is None or e.tester in fit)
    arrived = follow(replace(spoiled, events=kept), tester)
    assert isolation(arrived).state is State.PROVED_DEAD
    assert is_proved(arrived)
