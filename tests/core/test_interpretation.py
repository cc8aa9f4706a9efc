"""What readings can still mean: statements of the trade, and the promises of elimination."""

from dataclasses import replace

import numpy as np
import pytest
from bench.draws import draw, points

from evenprobe.interpretation import Ensemble, JudgementResult, Verdict, at_once, interpret
from evenprobe.interpretation.samples import Samples
from evenprobe.quantities import (
    LAMPS,
    PRESENCE,
    RESISTANCE,
    VOLTAGE,
    Evidence,
    Measurement,
    Reading,
    confining,
    weigh,
)
from evenprobe.testers import Instrument, kinds
from evenprobe.wiring import PointKind, Terminal
from tests.core.installations import continental, ohms, outlet, read, standing, volts

HEALTHY = (volts("L-N", 120.4), volts("L-PE", 120.5), volts("N-PE", 0.1))
DETECTOR = Instrument("d", kinds.NON_CONTACT, proved=True)


def presence(terminal, alarm, detector=DETECTOR):
    return Reading("detector", Measurement(PRESENCE, Terminal(terminal), None, detector), alarm=alarm)


def test_nothing_measured_is_untested_and_the_first_test_is_offered():
    result = read(outlet())
    assert result.verdict is Verdict.UNTESTED
    assert result.next_tests


def test_three_healthy_voltages_do_not_clear_a_reversed_false_earth():
    result = read(outlet(), *HEALTHY)
    assert result.verdict is Verdict.UNCONFIRMED
    assert standing(result) >= {
        "correct",
        "earth-from-neutral",
        "earth-from-neutral-swapped",
        "neutral-earth-swapped",
        "high-resistance-earth",
    }
    offered = {frozenset((t.measurement.from_, t.measurement.to)) for t in result.next_tests}
    assert frozenset((Terminal.PE, Terminal.REF)) in offered


def test_the_order_of_readings_does_not_matter():
    forwards, backwards = read(outlet(), *HEALTHY), read(outlet(), *reversed(HEALTHY))
    assert standing(forwards) == standing(backwards)


def test_metal_at_line_voltage_is_danger_whatever_else_fits():
    result = read(outlet(), *HEALTHY, volts("PE-REF", 119.9))
    assert result.verdict is Verdict.DANGER
    assert standing(result) == {"earth-from-neutral-swapped", "neutral-lost-at-source"}
    assert read(outlet(), volts("PE-REF", 62.0)).verdict is Verdict.DANGER


def test_earth_at_zero_leaves_the_false_earth_standing_but_not_reversed():
    left = standing(read(outlet(), *HEALTHY, volts("PE-REF", 0.1)))
    assert "earth-from-neutral" in left
    assert "earth-from-neutral-swapped" not in left


def test_resistance_of_the_run_removes_the_poor_earth_joint_and_on_a_long_run_the_false_earth():
    run = 2 * 22 * 0.005211
    left = standing(read(outlet(), *HEALTHY, volts("PE-REF", 0.1), ohms("N-PE", round(run + 0.2, 1))))
    assert "high-resistance-earth" not in left
    long_run = outlet(circuit=type(outlet().circuit)(20, outlet().circuit.conductor, 90))
    left = standing(read(long_run, *HEALTHY, ohms("N-PE", 0.9)))
    assert not left & {"earth-from-neutral", "earth-from-neutral-swapped", "high-resistance-earth"}


def test_a_load_elsewhere_removes_the_false_earth_and_leaves_the_neutral_earth_swap_unlikely():
    """The swap lies a volt below L to PE, which is what a supply moves by between two readings."""
    loaded = {"load_elsewhere_a": 12.0}
    readings = (volts("L-N", 117.6, **loaded), volts("L-PE", 119.0, **loaded), volts("N-PE", 1.4, **loaded))
    result = read(outlet(), *HEALTHY, *readings, volts("PE-REF", 0.1, **loaded))
    assert "correct" in standing(result)
    assert "earth-from-neutral" not in standing(result)
    swapped = next(o for o in result.conditions if o.condition.id == "neutral-earth-swapped")
    assert swapped.likelihood < 0.001


def test_line_and_neutral_swapped_is_a_hazard_on_a_polarised_plug_and_nothing_on_another():
    swapped = read(outlet(), volts("L-N", 121), volts("L-PE", 0.2), volts("N-PE", 121))
    assert "correct" not in standing(swapped)
    assert swapped.verdict in (Verdict.HAZARD, Verdict.DANGER)
    unpolarised = read(continental(), volts("L-N", 231), volts("L-PE", 0.2), volts("N-PE", 231))
    assert "correct" in standing(unpolarised)
    fixed = read(continental(kind=PointKind.FIXED), volts("L-N", 231), volts("L-PE", 0.2), volts("N-PE", 231))
    assert "correct" not in standing(fixed)


def test_half_voltage_that_collapses_is_an_open_earth_or_an_unbonded_source():
    floating = (volts("L-N", 119), volts("L-PE", 61), volts("N-PE", 57))
    collapsed = (volts("L-PE", 0.4, input="low-z"), volts("N-PE", 0.4, input="low-z"))
    result = read(outlet(system="standalone-120"), *floating, *collapsed)
    assert standing(result) >= {"open-earth", "line-neutral-swapped-open-earth", "source-not-bonded"}
    assert not any(o.severity.is_fine for o in result.conditions if o.standing)


def test_a_poor_neutral_shows_under_load():
    loaded = {"load_here_a": 10.0}
    readings = (volts("L-N", 104, **loaded), volts("L-PE", 118.6, **loaded), volts("N-PE", 14.5, **loaded))
    result = read(outlet(), volts("L-N", 120.4), *readings)
    assert "high-resistance-neutral" in standing(result)
    assert not standing(result) & {"correct", "high-resistance-line", "earth-from-neutral"}


def test_contradictory_readings_name_those_whose_removal_helps():
    three = (volts("L-N", 118.3), volts("L-PE", 0.3), volts("N-PE", 0.4))
    result = read(outlet(), *three)
    assert result.verdict is Verdict.CONTRADICTORY
    assert set(result.retake) == {r.id for r in three}
    for left_out in three:
        assert read(outlet(), *(r for r in three if r is not left_out)).verdict is not Verdict.CONTRADICTORY


def test_what_a_joint_and_a_load_explain_is_not_contradictory():
    """118, 118 and 60 V: a poor or open neutral with something switched on before the third."""
    found = read(outlet(), volts("L-N", 118), volts("L-PE", 118), volts("N-PE", 60))
    assert found.verdict is Verdict.HAZARD
    assert "open-neutral" in standing(found)


def test_a_fallen_condition_keeps_a_reason_that_excludes_it():
    result = read(outlet(), *HEALTHY)
    for outcome in result.conditions:
        if not outcome.standing:
            (reason,) = outcome.reasons
            low, high = reason.would_show
            assert not low <= reason.seen <= high


def test_an_alarm_at_the_earth_is_danger_until_a_contact_reading_answers_it():
    alarmed = read(outlet(), *HEALTHY, presence("PE", alarm=True))
    assert alarmed.verdict is Verdict.DANGER
    assert {o.condition.id for o in alarmed.conditions if o.strained} >= {"correct", "earth-from-neutral"}
    answered = read(outlet(), *HEALTHY, presence("PE", alarm=True), volts("PE-REF", 0.1))
    assert answered.verdict is Verdict.UNCONFIRMED
    assert "unexplained" in answered.summary


def test_silence_strikes_nothing_out_and_of_a_proved_detector_only_ranks():
    before, after = read(outlet(), *HEALTHY), read(outlet(), *HEALTHY, presence("PE", alarm=False))
    assert standing(before) == standing(after)
    rank = {o.condition.id: o.likelihood for o in after.conditions}
    was = {o.condition.id: o.likelihood for o in before.conditions}
    assert rank["earth-from-neutral-swapped"] < was["earth-from-neutral-swapped"]
    unproved = Instrument("d", kinds.NON_CONTACT)
    assert after.not_counted[0].reading == "detector"
    assert standing(read(outlet(), *HEALTHY, presence("PE", alarm=False, detector=unproved))) == standing(before)


def test_an_unproved_meter_may_alarm_and_clears_nothing():
    dropped = Instrument("m", kinds.MULTIMETER, proved=False)
    quiet = read(outlet(), *HEALTHY, volts("PE-REF", 0.0, instrument=dropped))
    assert "earth-from-neutral-swapped" in standing(quiet)
    assert quiet.not_counted
    assert read(outlet(), *HEALTHY, volts("PE-REF", 118.0, instrument=dropped)).verdict is Verdict.DANGER


def test_a_dc_range_that_shows_nothing_says_nothing_of_ac():
    zero = volts("L-N", 0.0)
    result = read(outlet(), Reading(zero.id, replace(zero.measurement, dc=True), value=0.0))
    assert result.verdict is Verdict.UNTESTED
    assert "DC" in result.not_counted[0].why


def test_a_step_counts_by_what_is_lit_and_what_is_dark():
    stepped = Instrument("t", kinds.TWO_POLE, proved=True)
    measurement = Measurement(VOLTAGE, Terminal.L, Terminal.PE, stepped)
    result = read(outlet(), Reading("steps", measurement, at_least=50, below=120))
    assert "no-supply" not in standing(result)
    assert "correct" in standing(result)
    dead = read(outlet(), Reading("steps", measurement, below=12))
    assert "correct" not in standing(dead)


def test_a_lit_lamp_counts_and_a_dark_one_does_not():
    lamps = Instrument("lamps", kinds.LAMP_TESTER)
    pattern = Measurement(LAMPS, None, None, lamps)
    dark = read(outlet(), Reading("p", pattern, lit={"L-N": False, "L-PE": False, "N-PE": False}))
    assert "correct" in standing(dark)
    lit = read(outlet(), Reading("p", pattern, lit={"L-N": True, "L-PE": True, "N-PE": False}))
    assert not standing(lit) & {"no-supply", "open-line", "line-neutral-swapped"}
    assert {"correct", "earth-from-neutral-swapped"} <= standing(lit)


@pytest.mark.parametrize(
    ("value", "result"),
    [(119.6, JudgementResult.PASS), (99.0, JudgementResult.FAIL), (108.4, JudgementResult.BORDERLINE)],
)
def test_a_limit_inside_the_readings_interval_is_borderline(value, result):
    (judgement,) = read(outlet(), volts("L-N", value)).judgements
    assert judgement.limit.id == "voltage.band"
    assert judgement.result is result


def test_tolerable_but_not_preferred_is_said():
    (judgement,) = read(outlet(), volts("L-N", 105.9)).judgements
    assert judgement.result is JudgementResult.FAIL
    assert "tolerable" in judgement.text


def test_ohms_with_the_device_closed_are_kept_and_not_counted():
    measurement = Measurement(RESISTANCE, Terminal.N, Terminal.PE, device="closed")
    result = read(outlet(), *HEALTHY, Reading("live ohms", measurement, value=0.2))
    assert [n.reading for n in result.not_counted] == ["live ohms"]


def test_likelihoods_of_what_stands_sum_to_one():
    result = read(outlet(), *HEALTHY)
    assert sum(o.likelihood for o in result.conditions) == pytest.approx(1)
    assert result.conditions[-1].likelihood == 0


def test_stories_differ_in_where_the_conductors_sit():
    first, second = read(outlet(), *HEALTHY).stories[:2]
    assert first.potentials[Terminal.PE][1] < 10
    assert second.potentials[Terminal.PE][1] > 100


NOISE_A = 0.2
"""Of a difference over so small a step, where amperes are volts along a stretch of conductor of a floating supply."""


def predictions(samples, evidence, others):
    """With so much else on along the run as a mode says."""
    found = []
    for e in evidence:
        mode = e.quantity.mode(e.measurement)
        solved = samples.solved(mode._replace(others=others or mode.others))
        found.append(e.quantity.shown(e.measurement, solved, samples.installation.point))
    return np.stack(found)


@pytest.mark.parametrize(
    ("point", "loading"), [*((point, None) for point in range(0, 62, 6)), (2, 1), (24, 0), (30, 2), (48, 3), (54, 1)]
)
def test_slopes_of_readings_are_what_moving_each_unknown_does(point, loading):
    """The network's own sensitivities against plain differences, over every condition and kind of reading."""
    facts = points()[point]
    ensemble, drawn = Ensemble(facts, 4), draw(facts, np.random.default_rng([3, point, 1]))
    evidence = [w for r in drawn.readings for w in weigh(r, facts) if isinstance(w, Evidence)]
    cube = np.clip(ensemble.cube, 0.1, 0.9)
    samples = Samples(ensemble.installation, cube, ensemble.blocks, with_slopes=True)
    loadings = ensemble.installation.loadings
    others = "" if loading is None else loadings[loading % len(loadings)]
    slopes, before = samples.slopes(evidence, others), predictions(samples, evidence, others)
    tolerance = np.array([e.tolerance for e in evidence])[:, None]
    noise = np.array([NOISE_A * (e.quantity.unit == "A") for e in evidence])[:, None]
    for axis, name in enumerate(ensemble.installation.unknowns.names):
        moved = cube.copy()
        moved[:, axis] += 1e-4
        after = predictions(Samples(ensemble.installation, moved, ensemble.blocks), evidence, others)
        difference = (after - before) / 1e-4
        off = np.abs(slopes[:, :, axis].T - difference) / (tolerance + np.abs(difference) + 1e-4 * before + noise)
        assert off.max() < 0.25, name  # one missing altogether is off by 1; near nothing a magnitude bends


@pytest.mark.parametrize("point", range(0, len(points()), 8))
def test_the_truth_is_never_struck_out_no_danger_cleared_and_no_verdict_said_too_soon(point):
    """A sample of what the benchmark does ten thousand times."""
    facts = points()[point]
    for number in range(12):
        drawn = draw(facts, np.random.default_rng([1, point, number]))
        first, result = at_once(facts, drawn.readings), interpret(facts, drawn.readings)
        assert first is None or first.verdict is result.verdict
        assert drawn.is_held(result.conditions), f"{drawn.truth.id} fell in draw {number}"
        if drawn.truth.severity_at(facts).can_hurt and not drawn.slight:
            assert result.verdict not in (Verdict.SAFE, Verdict.CORRECT)


def test_twice_the_samples_change_no_verdict():
    chains = (HEALTHY, (*HEALTHY, volts("PE-REF", 119.9)), (*HEALTHY, volts("PE-REF", 0.1), ohms("N-PE", 0.3)))
    for readings in chains:
        one, two = (interpret(outlet(), readings, samples=n) for n in (1024, 2048))
        assert one.verdict == two.verdict
        assert standing(one) == standing(two)


def test_a_reading_taken_again_and_again_confines_no_less_than_all_of_them():
    weighed = [weigh(volts("L-N", v, id=f"r{i}"), outlet())[0] for i, v in enumerate((119.8, 120.1, 119.9, 120.0))]
    assert [e.reading.value for e in confining(weighed)] == [119.8, 120.1]
    swapped = weigh(volts("N-L", 120.0, id="swapped"), outlet())[0]
    assert len(confining([*weighed, swapped])) == 2
    loaded = weigh(volts("L-N", 118.0, id="loaded", load_here_a=10.0), outlet())[0]
    assert loaded in confining([*weighed, loaded])
    slip = weigh(volts("L-N", 12.0, id="slip"), outlet())[0]
    assert {e.reading.value for e in confining([*weighed, slip])} == {12.0, 120.1}


def test_of_two_readings_at_odds_either_may_be_the_slip_and_no_other():
    result = read(outlet(), *HEALTHY, volts("L-N", 300.0, id="again"))
    assert result.verdict is Verdict.CONTRADICTORY
    assert "again" in result.retake
