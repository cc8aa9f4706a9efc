"""What takes a proof of isolation back: voltage, failures, hands off, time; and how it is renewed."""

from dataclasses import replace

import pytest

from evenprobe.isolation import HouseRules, State, StepKind, isolation
from evenprobe.testers.ratings import Category, Rating
from tests.core.proofs import (
    FEED,
    SECOND,
    SINGLE,
    SOLAR,
    TESTERS,
    TWO_POLE,
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


def test_a_failed_second_proof_voids_what_it_should_have_covered():
    found = isolation(log(isolating(), proof(2), readings(SINGLE), event(6, "prove-failed", tester="t")))
    assert found.state is State.VOID
    assert not any(p.done for p in found.pairs)
    again = good_round(SINGLE, 8, "o")
    assert state_after(isolating(), proof(2), readings(SINGLE), event(6, "prove-failed", tester="t"), again) is (
        State.PROVED_DEAD
    )


def test_voltage_stops_everything_until_its_source_is_off():
    alive = [*isolating(), proof(2), reading(3, L_N, volts=118.0)]
    found = isolation(log(alive))
    assert found.state is State.ENERGISED
    assert found.next_step.kind is StepKind.FIND_SOURCE
    assert state_after(alive, readings(SINGLE, 4), proof(6)) is State.ENERGISED
    second = [event(7, "source-found", source="s2", found=SECOND), *isolating("s2", 8)]
    found = isolation(log(alive, second[:1]))
    assert (found.state, found.next_step.source) == (State.ENERGISED, "s2")
    assert state_after(alive, second, good_round(SINGLE, 9)) is State.PROVED_DEAD


def test_a_voltage_read_twice_is_answered_once():
    alive = [*isolating(), proof(2), reading(3, L_N, volts=118.0), reading(3.5, L_PE, volts=118.0)]
    found = isolation(log(alive, event(4, "off", source="s1")))
    assert (found.state, found.problems) == (State.PROVING, ())
    assert state_after(alive, event(4, "off", source="s1"), good_round(SINGLE, 5)) is State.PROVED_DEAD


def test_volts_read_on_dc_are_answered_on_dc():
    ghost = [*isolating(), proof(2, "m", mode="dc"), reading(3, L_N, "m", volts=4.0, mode="dc")]
    found = isolation(log(ghost, practice="north-america"))
    assert (found.next_step.kind, found.next_step.mode) == (StepKind.LOW_IMPEDANCE, "dc")
    on_dc = reading(4, L_N, "m", mode="dc", low_impedance=True)
    assert isolation(log(ghost, on_dc, practice="north-america")).problems == ()


def test_voltage_after_the_proof_takes_it_back():
    found = isolation(log(DEAD, reading(8, L_PE, "m", volts=230.0)))
    assert found.state is State.ENERGISED
    assert found.was_proved_at == at(6)


def test_reversed_dc_leads_are_still_a_voltage():
    assert state_after(isolating(), reading(3, L_N, "m", volts=-380.0, mode="dc")) is State.ENERGISED


def test_wet_halves_the_touch_limit():
    events = [*isolating(), proof(2), reading(3, L_N, volts=30.0)]
    assert "voltage-unexplained" in codes(isolation(log(events)))
    assert "voltage-present" in codes(isolation(log(events, wet=True)))


def test_volts_nobody_explains_want_low_impedance_of_the_same_tester():
    ghost = [*isolating(), proof(2), reading(3, L_N, volts=14.0)]
    found = isolation(log(ghost))
    assert found.next_step.kind is StepKind.LOW_IMPEDANCE
    rest = [reading(4, L_PE), reading(4, N_PE)]
    assert state_after(ghost, rest, reading(5, L_N), proof(6)) is State.PROVING
    other = [proof(5, "o"), reading(5, L_N, "o", low_impedance=True), proof(6, "o")]
    assert state_after(ghost, rest, proof(5), other) is State.PROVING
    found = isolation(log(ghost, rest, reading(5, L_N, low_impedance=True), proof(6)))
    assert (found.state, found.problems) == (State.PROVED_DEAD, ())
    assert [p.code for p in found.history] == ["voltage-unexplained"]


def test_whoever_saw_the_volts_has_to_answer_for_them():
    ghost = [*isolating(), proof(2), reading(2.5, L_PE), reading(3, L_N, "o", volts=14.0)]
    step = isolation(log(ghost)).next_step
    assert (step.kind, step.tester) == (StepKind.PROVE, "o")
    step = isolation(log(ghost, proof(4, "o"))).next_step
    assert (step.kind, step.tester) == (StepKind.LOW_IMPEDANCE, "o")
    answered = [*ghost, proof(4, "o"), reading(5, L_N, "o", low_impedance=True)]
    assert "voltage-unexplained" not in codes(isolation(log(answered)))
    unfit = [*isolating(), proof(2), reading(3, L_N, "d", volts=14.0)]
    step = isolation(log(unfit)).next_step
    assert (step.kind, step.tester) == (StepKind.LOW_IMPEDANCE, "t")


def test_volts_seen_on_ac_are_not_answered_on_dc():
    sources = (FEED, SOLAR)
    off = [*isolating(), *isolating("s3"), proof(2, "m"), proof(2, "m", mode="dc")]
    ghost = [*off, reading(3, L_N, "m", volts=14.0)]
    on_dc = reading(4, L_N, "m", mode="dc", low_impedance=True)
    found = isolation(log(ghost, on_dc, sources=sources, practice="north-america"))
    assert "voltage-unexplained" in codes(found)


def test_dark_lamps_mean_dead_only_from_a_low_enough_step():
    def stepped(below):
        dark = [replace(e, volts=None, below=below) for e in readings(SINGLE)]
        return isolation(log(isolating(), proof(2, volts=230.0), dark, proof(6)))

    assert stepped(12.0).state is State.PROVED_DEAD
    assert stepped(120.0).state is State.PROVING
    assert "step-too-high" in codes(stepped(120.0))
    lit = isolation(log(isolating(), proof(2), replace(reading(3, L_N), volts=None, at_least=12.0, below=50.0)))
    assert "voltage-unexplained" in codes(lit)


@pytest.mark.parametrize(
    ("ending", "code"),
    [
        (event(8, "handed-over"), "handed-over"),
        (event(8, "unlocked", source="s1"), "unlocked"),
        (event(8, "re-energised", source="s1"), "re-energised"),
        (event(8, "prove-failed", tester="t"), "prove-failed"),
    ],
)
def test_what_ends_a_proof_at_once(ending, code):
    found = isolation(log(DEAD, ending))
    assert found.state is State.VOID
    assert code in codes(found)
    assert found.was_proved_at == at(6)
    assert found.proved_at is None


def test_a_place_left_too_long_is_void_and_a_return_in_time_is_not():
    left = [*DEAD, event(10, "left")]
    assert state_after(left, now=39) is State.PROVED_DEAD
    assert isolation(log(left, now=20)).expires_at == at(40)
    found = isolation(log(left, now=41))
    assert (found.state, found.problems[0].code, found.problems[0].event) == (State.VOID, "left-unattended", len(DEAD))
    assert state_after(left, event(30, "returned"), now=55) is State.PROVED_DEAD
    assert state_after(left, event(45, "returned")) is State.VOID


def test_silence_is_as_good_as_having_left():
    assert state_after(DEAD, now=36) is State.PROVED_DEAD
    assert state_after(DEAD, now=37) is State.VOID


def test_a_void_proof_is_renewed_by_a_whole_new_round():
    void = [*DEAD, event(8, "handed-over")]
    assert state_after(void, proof(9)) is State.PROVING
    found = isolation(log(void, good_round(SINGLE, 9)))
    assert (found.state, found.proved_at) == (State.PROVED_DEAD, at(13))
    unlocked = [*DEAD, event(8, "unlocked", source="s1"), *good_round(SINGLE, 9)]
    assert state_after(unlocked) is not State.PROVED_DEAD


def test_a_renewed_proof_is_as_old_as_its_oldest_pair():
    found = isolation(log(DEAD, proof(20), reading(21, L_N), proof(22)))
    assert found.proved_at == at(6)
    assert isolation(log(DEAD, good_round(SINGLE, 20))).proved_at == at(24)


def test_a_source_found_late_reopens_the_proof():
    found = isolation(log(DEAD, event(8, "source-found", source="s2", found=SECOND)))
    assert found.state is State.PROVING
    assert {"source-not-off", "source-not-locked", "pair-not-tested"} <= codes(found)
    assert found.next_step.source == "s2"


def test_a_statement_stands_only_while_the_proof_it_was_made_of_stands():
    stated = [*DEAD, event(7, "stated", by="Anna")]
    found = isolation(log(stated))
    assert (found.stated_by, found.next_step.kind) == ("Anna", StepKind.KEEP)
    assert isolation(log(stated, event(8, "handed-over"), good_round(SINGLE, 9))).stated_by == ""
    assert isolation(log(isolating(), event(7, "stated", by="Anna"))).stated_by == ""


def test_closed_only_after_closed():
    found = isolation(log(DEAD, event(8, "closed"), now=300))
    assert (found.state, found.missing) == (State.CLOSED, ())


def test_the_tester_is_held_to_the_place_and_the_crew_s_own_rating():
    weak = replace(TWO_POLE, rating=Rating(Category.III, 500))
    events = log(DEAD)
    assert isolation(replace(events, testers=TESTERS | {"t": weak})).state is State.PROVED_DEAD
    strict = replace(events, testers=TESTERS | {"t": weak}, rules=HouseRules(least_rating=True))
    assert isolation(strict).problems[0].reasons == ("below-house-rule",)
