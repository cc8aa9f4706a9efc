"""What a device without a line kept for a while: in its place in time, and nothing that ended is brought back by it."""

from dataclasses import replace
from datetime import timedelta

import numpy as np
import pytest
from bench.proofs import good_log, spoilt
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from evenprobe.formats.isolation import EventEntry
from evenprobe.isolation import State, StepKind, isolation
from tests.core.proofs import SINGLE, at, event, good_round, isolating, log, proof, readings

DEAD = [*isolating(), *good_round(SINGLE)]
seeds = st.integers(0, 2**32 - 1)


def told(events, minutes):
    return [replace(e, told_at=at(minutes)) for e in events]


def here(minutes, told_minutes=None):
    return replace(event(minutes, "returned"), told_at=None if told_minutes is None else at(told_minutes))


def test_who_was_here_keeps_a_proof_that_still_ran_when_it_was_told():
    assert isolation(log(DEAD, here(30, 35), now=40)).expires_at == at(60)
    assert isolation(log(DEAD, here(30), now=40)).expires_at == at(60)


def test_who_was_here_does_not_bring_back_what_had_run_out_before_it_was_told():
    found = isolation(log(DEAD, here(30, 40), now=41))
    assert found.state is State.VOID
    assert [p.code for p in found.problems] == ["left-unattended"]


def test_a_proof_made_without_a_line_counts_when_all_of_it_is_told():
    found = isolation(log(told(DEAD, 30), now=31))
    assert (found.state, found.proved_at, found.expires_at) == (State.PROVED_DEAD, at(6), at(36))
    assert isolation(log(told(DEAD, 50), now=51)).state is State.VOID


def test_a_voltage_told_late_ends_what_was_proved_meanwhile():
    alive = replace(readings(SINGLE, 10, volts=230.0)[0], told_at=at(20))
    assert isolation(log(DEAD, alive, now=21)).state is State.ENERGISED


@given(seeds, st.floats(0, 90))
@settings(max_examples=300, deadline=None)
def test_nothing_is_dead_for_having_been_told_later(seed, minutes):
    rng = np.random.default_rng(seed)
    whole = spoilt(good_log(rng), rng)
    keeps = rng.random(len(whole.events)) < 0.5
    late = [
        replace(e, told_at=min(e.at + timedelta(minutes=minutes), whole.at)) if keep else e
        for e, keep in zip(whole.events, keeps, strict=True)
    ]
    if isolation(replace(whole, events=tuple(late))).state is State.PROVED_DEAD:
        assert isolation(whole).state is State.PROVED_DEAD


def test_nothing_is_told_before_it_happens():
    with pytest.raises(ValidationError, match="before it happens"):
        EventEntry(type="returned", at=at(5), told_at=at(4))


def test_what_is_ahead_is_every_step_left_in_its_order():
    ahead = [step.kind for step in isolation(log(isolating()[:1])).ahead]
    tests = [StepKind.TEST] * 3
    assert ahead == [StepKind.LOCK, StepKind.PROVE, *tests, StepKind.PROVE_AGAIN]
    half = isolation(log(isolating(), proof(2), readings(SINGLE)[:2]))
    assert [step.kind for step in half.ahead] == [StepKind.TEST, StepKind.PROVE_AGAIN]
    assert [step.kind for step in isolation(log(DEAD)).ahead] == [StepKind.STATE]


@given(seeds)
@settings(max_examples=100, deadline=None)
def test_the_next_step_is_the_first_of_those_ahead(seed):
    rng = np.random.default_rng(seed)
    found = isolation(spoilt(good_log(rng), rng))
    assert found.next_step is found.ahead[0]
