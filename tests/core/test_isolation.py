"""A proof of isolation is complete or visibly not: each rule of prove, test, prove, one at a time."""

from dataclasses import replace

import pytest

from evenprobe.isolation import HouseRules, State, StepKind, isolation, pairs_to_test
from evenprobe.testers import kinds
from tests.core.proofs import (
    FEED,
    SINGLE,
    SOLAR,
    SPLIT,
    THREE_PHASE,
    T,
    at,
    codes,
    event,
    good_round,
    isolating,
    log,
    proof,
    reading,
    readings,
)

L_N, L_PE, N_PE = (T.L, T.N), (T.L, T.PE), (T.N, T.PE)
DEAD = [*isolating(), *good_round(SINGLE)]


def state_after(*events, **more):
    return isolation(log(*events, **more)).state


@pytest.mark.parametrize(("terminals", "pairs"), [(SINGLE, 3), (SPLIT, 6), (THREE_PHASE, 10)])
def test_every_unordered_pair_is_tested(terminals, pairs):
    assert len(pairs_to_test(terminals)) == pairs
    assert len({frozenset(p) for p in pairs_to_test(terminals)}) == pairs


def test_a_casing_is_tested_to_earth_and_not_to_every_conductor():
    assert pairs_to_test((*SINGLE, T.CASE))[3:] == ((T.CASE, T.PE),)
    assert pairs_to_test((T.L, T.N, T.CASE))[1:] == ((T.CASE, T.REF),)


@pytest.mark.parametrize(
    ("terminals", "system", "practice", "tester"),
    [
        (SINGLE, "230", "british", "t"),
        (SPLIT, "120/240", "north-america", "m"),
        (THREE_PHASE, "230/400", "continental", "t"),
        ((*SINGLE, T.CASE), "120", "north-america", "m"),
    ],
)
def test_prove_every_pair_prove_is_dead(terminals, system, practice, tester):
    found = isolation(
        log(isolating(), good_round(terminals, tester=tester), terminals=terminals, system=system, practice=practice)
    )
    assert (found.state, found.missing, found.problems) == (State.PROVED_DEAD, (), ())
    assert found.proved_at == at(6)
    assert found.expires_at == at(36)
    assert found.next_step.kind is StepKind.STATE
    assert all(p.done and p.volts == 0 for p in found.pairs)


def test_the_steps_are_asked_for_in_the_order_of_the_work():
    steps = [isolation(log(DEAD[:n], now=5)).next_step.kind for n in range(len(DEAD))]
    assert steps == [
        StepKind.SWITCH_OFF, StepKind.LOCK, StepKind.PROVE,
        StepKind.TEST, StepKind.TEST, StepKind.TEST, StepKind.PROVE_AGAIN,
    ]  # fmt: skip


def test_nothing_recorded_is_energised_and_off_and_locked_is_isolated():
    assert state_after() is State.ENERGISED
    assert state_after(isolating()) is State.ISOLATED
    assert state_after(isolating()[:1]) is State.PROVING


def test_a_good_log_without_any_one_of_its_events_is_not_dead():
    for index in range(len(DEAD)):
        assert state_after(DEAD[:index] + DEAD[index + 1 :]) is not State.PROVED_DEAD


def test_the_tester_is_proved_on_the_function_it_reads_with():
    on_dc = [proof(2, "m", mode="dc"), *readings(SINGLE, tester="m"), proof(6, "m", mode="dc")]
    found = isolation(log(isolating(), on_dc, practice="north-america"))
    assert found.state is State.PROVING
    assert "function-changed" in codes(found)


def test_a_dc_range_says_nothing_of_an_ac_conductor():
    found = isolation(log(isolating(), good_round(SINGLE, tester="m", mode="dc"), practice="north-america"))
    assert found.state is not State.PROVED_DEAD
    assert "wrong-function" in codes(found)


def test_a_meter_is_proved_on_the_range_it_reads_with():
    set_to = [proof(2, "m", range="600"), *readings(SINGLE, tester="m", range="200"), proof(6, "m", range="600")]
    found = isolation(log(isolating(), set_to, practice="north-america"))
    assert found.state is not State.PROVED_DEAD
    assert "range-changed" in codes(found)


def test_where_solar_reaches_dc_is_tested_too():
    sources = (FEED, SOLAR)
    on_ac = [*isolating(), *isolating("s3"), *good_round(SINGLE, tester="m")]
    found = isolation(log(on_ac, sources=sources, practice="north-america"))
    assert {m.mode for m in found.missing if m.code == "pair-not-tested"} == {"dc"}
    assert (found.next_step.kind, found.next_step.mode) == (StepKind.PROVE, "dc")
    found = isolation(log(on_ac[:-1], sources=sources, practice="north-america"))
    assert (found.next_step.kind, found.next_step.mode) == (StepKind.PROVE_AGAIN, "ac")
    both = [*on_ac, *good_round(SINGLE, minutes=7, tester="m", mode="dc")]
    assert state_after(both, sources=sources, practice="north-america") is State.PROVED_DEAD
    assert state_after([*isolating(), *isolating("s3"), *good_round(SINGLE)], sources=sources) is State.PROVED_DEAD


def test_a_proof_that_shows_nothing_is_no_proof():
    found = isolation(log(isolating(), proof(2, volts=0.3), readings(SINGLE), proof(6)))
    assert found.state is not State.PROVED_DEAD
    assert "prove-failed" in codes(found)
    weak = replace(proof(2, volts=61.0), against="known-live")
    assert state_after(isolating(), weak, readings(SINGLE), proof(6)) is not State.PROVED_DEAD


@pytest.mark.parametrize("practice", ["british", "continental"])
def test_a_multimeter_proves_dead_only_where_the_practice_or_a_reasoned_rule_accepts_it(practice):
    events = [*isolating(), *good_round(SINGLE, tester="m")]
    found = isolation(log(events, practice=practice))
    assert found.state is State.ISOLATED
    assert found.problems[0].reasons == ("wrong-kind",)
    rules = HouseRules(dead_kinds=(kinds.MULTIMETER,), reason="van stock until Friday")
    found = isolation(log(events, practice=practice, rules=rules))
    assert found.state is State.PROVED_DEAD
    assert found.loosened == ("a multimeter is accepted to prove dead",)
    assert found.reason == "van stock until Friday"


def test_a_detector_clears_nothing_and_its_alarm_ends_a_proof():
    events = [*isolating(), *good_round(SINGLE, tester="d")]
    assert state_after(events, practice="north-america") is State.ISOLATED
    assert state_after(DEAD, event(7, "screened", tester="d", alarm=False)) is State.PROVED_DEAD
    found = isolation(log(DEAD, event(7, "screened", tester="d", alarm=True)))
    assert found.state is State.VOID
    assert "screen-alarm" in codes(found)


def test_an_unfit_tester_still_raises_the_alarm():
    found = isolation(log(isolating(), reading(3, L_N, "d", volts=230.0)))
    assert found.state is State.ENERGISED
    assert "voltage-present" in codes(found)


def test_readings_count_only_within_the_window_of_both_proofs():
    late_reading = [proof(2), *readings(SINGLE, 12.5), proof(14)]
    found = isolation(log(isolating(), late_reading))
    assert found.state is State.PROVING
    assert "proof-stale" in codes(found)
    late_proof = [proof(2), *readings(SINGLE, 3), proof(13.5)]
    found = isolation(log(isolating(), late_proof))
    assert (found.state, len([p for p in found.problems if p.code == "proof-stale"])) == (State.PROVING, 3)
    assert not any(p.done for p in found.pairs)


def test_waiting_readings_say_until_when_and_then_want_testing_again():
    waiting = [*isolating(), proof(2), *readings(SINGLE, 3)]
    assert isolation(log(waiting, now=9)).prove_again_by == at(13)
    found = isolation(log(waiting, now=13.5))
    assert {"proof-stale", "pair-not-tested"} <= codes(found)


def test_same_tester_throughout():
    found = isolation(log(isolating(), proof(2), readings(SINGLE), proof(6, "o")))
    assert found.state is State.PROVING
    assert {"tester-changed", "not-proved-after"} <= codes(found)
    found = isolation(log(isolating(), proof(2), readings(SINGLE, tester="o"), proof(6)))
    assert "tester-changed" in codes(found)
    assert "pair-not-tested" in codes(found)


def test_two_testers_do_not_share_the_pairs():
    shared = [
        proof(2),
        reading(3, L_N),
        proof(4),
        proof(4, "o"),
        reading(5, L_PE, "o"),
        reading(5, N_PE, "o"),
        proof(6, "o"),
    ]
    assert state_after(isolating(), shared) is State.PROVING


def test_readings_before_isolation_are_kept_and_do_not_count():
    found = isolation(log(proof(0), readings(SINGLE, 1), isolating(minutes=2), proof(6)))
    assert found.state is not State.PROVED_DEAD
    assert "tested-before-isolation" in codes(found)
    assert found.pairs[0].volts == 0.0


def test_the_tester_may_be_proved_on_the_source_before_it_is_switched_off():
    live = replace(proof(0, volts=231.0), against="known-live")
    assert state_after(live, isolating(minutes=1), readings(SINGLE, 2), proof(5)) is State.PROVED_DEAD
