"""Whatever happens in a log, dead is said only of a whole proof; and a whole proof needs each of its events."""

from dataclasses import replace
from datetime import timedelta

import numpy as np
from bench.proofs import good_log, is_proved, spoilt
from hypothesis import given, settings
from hypothesis import strategies as st

from evenprobe.isolation import State, isolation

seeds = st.integers(0, 2**32 - 1)


@given(seeds)
@settings(max_examples=400, deadline=None)
def test_dead_is_said_only_of_a_whole_proof(seed):
    rng = np.random.default_rng(seed)
    log = spoilt(good_log(rng), rng)
    if isolation(log).state is State.PROVED_DEAD:
        assert is_proved(log)


@given(seeds)
@settings(max_examples=60, deadline=None)
def test_a_whole_proof_needs_each_of_its_events(seed):
    log = good_log(np.random.default_rng(seed))
    log = replace(log, at=log.events[-1].at)
    assert isolation(log).state is State.PROVED_DEAD
    assert is_proved(log)
    for index in range(len(log.events)):
        without = log.events[:index] + log.events[index + 1 :]
        assert isolation(replace(log, events=without)).state is not State.PROVED_DEAD
        assert not is_proved(replace(log, events=without))


@given(seeds)
@settings(max_examples=100, deadline=None)
def test_no_proof_outlives_being_left_alone(seed):
    rng = np.random.default_rng(seed)
    log = spoilt(good_log(rng), rng)
    assert isolation(replace(log, at=log.at + timedelta(hours=2))).state is not State.PROVED_DEAD
