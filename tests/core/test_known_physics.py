"""The solved installation against what every electrician knows of circuits, over many points and conditions."""

from dataclasses import replace
from itertools import combinations, pairwise

import numpy as np
import pytest
from bench.draws import CLAMP, FLAT, LOW_OHM, METER, STEPPED, points, several_lines

from evenprobe.conditions import CONDITIONS
from evenprobe.installation.modes import AS_FOUND
from evenprobe.interpretation.ensemble import Ensemble
from evenprobe.quantities import CURRENT, RESISTANCE, TRIP, VOLTAGE, Alarm, Direct, Evidence, Measurement, weigh
from evenprobe.quantities.probes import potential
from evenprobe.simulation import HiddenPoint, TesterErrors
from evenprobe.testers import TYPED
from evenprobe.wiring import CircuitFacts, Terminal, conductor_named
from evenprobe.wiring.points import BOARD_END
from tests.core.installations import continental, outlet, several

POINTS = [points()[i] for i in (0, 7, 14, 21)] + several_lines()[::5]
LINE, NEUTRAL, EARTH, REFERENCE = Terminal.L, Terminal.N, Terminal.PE, Terminal.REF


@pytest.fixture(scope="module", params=range(len(POINTS)), ids=lambda i: " ".join(POINTS[i].terminals))
def drawn(request):
    return Ensemble(POINTS[request.param], 16)


def volts(ensemble, one, other, **how):
    return ensemble.predicted(Measurement(VOLTAGE, one, other, **{"instrument": TYPED, **how}))


def sound(ensemble, shown):
    return shown[ensemble.block_of(CONDITIONS["correct"])]


def test_three_voltages_of_three_contacts_close_a_triangle(drawn):
    contacts = [t for t in drawn.point.terminals if t is not REFERENCE][:4]
    for a, b, c in combinations(contacts, 3):
        ab, bc, ac = volts(drawn, a, b), volts(drawn, b, c), volts(drawn, a, c)
        loaded = 0.03 * np.maximum(np.maximum(ab, bc), ac) + 0.5  # the meter itself loads what floats
        near = np.minimum.reduce(
            [volts(drawn, x, y, input="low-z", instrument=METER) for x, y in ((a, b), (b, c), (a, c))]
        )
        stiff = near > 0.97 * np.minimum(np.minimum(ab, bc), ac)
        assert (ab <= bc + ac + loaded)[stiff].all()
        assert (bc <= ab + ac + loaded)[stiff].all()
        assert (ac <= ab + bc + loaded)[stiff].all()


def test_no_contact_of_a_sound_point_is_further_from_earth_than_its_source(drawn):
    highest = sound(drawn, drawn.installation.source_volts(drawn.values, drawn.blocks)).max()
    phasors = max(abs(drawn.point.system.phasor(line)) for line in drawn.point.lines)
    for terminal in drawn.point.terminals:
        assert sound(drawn, potential(terminal, drawn.solved(AS_FOUND))).max() < 1.06 * highest * max(1.0, phasors)


def test_low_impedance_shows_no_more_than_high(drawn):
    """Through a resistor the volts of a passive network behind a source only fall."""
    for one, other in combinations([t for t in drawn.point.terminals if t is not REFERENCE], 2):
        high = volts(drawn, one, other, instrument=METER)
        low = volts(drawn, one, other, instrument=METER, input="low-z")
        assert (low <= high * 1.02 + 0.1).all(), (one, other)


def test_a_ghost_collapses_on_low_impedance_and_a_supply_does_not():
    ensemble = Ensemble(outlet(), 64)
    rows = ensemble.block_of(CONDITIONS["open-earth"])
    pair = {"one": LINE, "other": EARTH, "instrument": METER}
    assert volts(ensemble, **pair)[rows].max() > 40
    assert volts(ensemble, **pair, input="low-z")[rows].max() < 10
    correct = ensemble.block_of(CONDITIONS["correct"])
    assert np.allclose(volts(ensemble, **pair)[correct], volts(ensemble, **pair, input="low-z")[correct], rtol=0.02)


@pytest.mark.parametrize("point", [outlet(), continental()], ids=["120", "230"])
def test_a_load_takes_volts_in_proportion_and_the_neutral_rises_by_its_share(point):
    """Ohm's law round the loop: twice the load, near twice the drop; what the neutral rises by the line cannot."""
    ensemble = Ensemble(point, 32)
    idle = sound(ensemble, volts(ensemble, LINE, NEUTRAL))
    drops = [idle - sound(ensemble, volts(ensemble, LINE, NEUTRAL, load_here_a=a)) for a in (2.0, 4.0, 8.0)]
    assert (drops[0] > 0).all()
    for less, more in pairwise(drops):
        assert np.allclose(more / less, 2.0, rtol=0.12)
    before, after = (sound(ensemble, volts(ensemble, NEUTRAL, EARTH, load_here_a=a)) for a in (None, 8.0))
    assert (np.abs(after - before) < drops[2]).all()
    assert (after + before > 0.15 * drops[2]).all(), "whichever way it hung before"


def test_with_the_source_everything_alternating_rises_alike():
    ensemble = Ensemble(outlet(), 16)
    faulty = CONDITIONS["open-earth"]
    rows = ensemble.block_of(faulty)
    factor = np.full(16, 1.02)
    moved = ensemble.installation.with_source(ensemble.cube[rows], faulty, factor)
    after = type(ensemble).__mro__[1](ensemble.installation, moved, [(faulty, slice(0, 16))])
    before = ensemble.installation.source_volts(ensemble.values, ensemble.blocks)[rows]
    grown = after.installation.source_volts(after.values, after.blocks) / before
    for pair in ((LINE, NEUTRAL), (LINE, EARTH)):
        m = Measurement(VOLTAGE, *pair)
        assert np.allclose(after.predicted(m) / ensemble.predicted(m)[rows], grown, rtol=1e-6)


@pytest.mark.parametrize(("size", "metres"), [("12 AWG", 22), ("12 AWG", 44), ("6 AWG", 22)])
def test_end_to_end_a_conductor_has_the_ohms_of_its_size_and_length(size, metres):
    point = outlet(circuit=CircuitFacts(20, conductor_named(size), metres))
    ensemble = Ensemble(point, 64)
    shown = sound(ensemble, ensemble.predicted(Measurement(RESISTANCE, LINE, BOARD_END[LINE], LOW_OHM, device="open")))
    alone = conductor_named(size).ohms(metres)
    assert shown.min() > 0.85 * alone
    assert shown.max() < 1.3 * alone + 0.25  # splices on the way and the probes' own touch
    assert shown.min() < 1.1 * alone + 0.05


def test_a_longer_run_of_thinner_wire_never_has_fewer_ohms():
    of = {}
    for size in ("14 AWG", "12 AWG", "10 AWG"):
        for metres in (10, 30):
            ensemble = Ensemble(outlet(circuit=CircuitFacts(20, conductor_named(size), metres)), 32)
            m = Measurement(RESISTANCE, LINE, BOARD_END[LINE], LOW_OHM, device="open")
            of[size, metres] = np.median(sound(ensemble, ensemble.predicted(m)))
    assert of["14 AWG", 30] > of["12 AWG", 30] > of["10 AWG", 30]
    assert all(of[size, 30] > of[size, 10] for size in ("14 AWG", "12 AWG", "10 AWG"))


def test_ohms_are_the_same_whichever_probe_is_where_and_over_range_where_nothing_joins():
    ensemble = Ensemble(outlet(), 32)
    there = Measurement(RESISTANCE, NEUTRAL, EARTH, METER, device="open")
    back = Measurement(RESISTANCE, EARTH, NEUTRAL, METER, device="open")
    assert np.allclose(ensemble.predicted(there), ensemble.predicted(back), rtol=1e-9)
    joined, open_ = (ensemble.block_of(CONDITIONS[c]) for c in ("correct", "open-earth"))
    assert ensemble.predicted(there)[joined].max() < 5
    assert ensemble.predicted(there)[open_].min() > 1e5


def test_a_trip_tester_drives_its_current_where_the_earth_leads_back_and_none_where_it_does_not():
    ensemble = Ensemble(outlet(circuit=CircuitFacts(20, conductor_named("12 AWG"), 22, residual_ma=5)), 32)
    shown = ensemble.predicted(Measurement(TRIP, LINE, EARTH, TYPED, test_ma=6.0))
    sound_, open_ = (ensemble.block_of(CONDITIONS[c]) for c in ("correct", "open-earth"))
    assert shown[sound_].min() > 0.9 * 6e-3
    assert shown[open_].max() < 1e-3


def test_what_a_clamp_shows_at_the_board_is_what_the_load_takes():
    """Kirchhoff: a load of so many amperes is in the line and in the neutral, and not in the earth."""
    ensemble = Ensemble(outlet(), 32)
    amperes = {
        end: [
            sound(ensemble, ensemble.predicted(Measurement(CURRENT, BOARD_END[end], None, CLAMP, load_here_a=load)))
            for load in (None, 8.0)
        ]
        for end in (LINE, NEUTRAL, EARTH)
    }
    idle, loaded = amperes[LINE]
    assert (np.abs(loaded - 8.0) < idle + 2.0).all(), "at nine tenths of nominal it takes less"
    assert (loaded < idle + 8.6).all()
    assert np.allclose(amperes[NEUTRAL], amperes[LINE], rtol=0.02, atol=0.05)
    assert np.max(amperes[EARTH]) < 0.5


@pytest.mark.parametrize("condition", ["correct", "neutral-open-at-source"])
def test_two_legs_add_up_to_what_is_between_them(condition):
    """The legs are opposite, so their volts to the neutral add; where it is lost it hangs off their straight line."""
    point = several("L1 L2 N PE")
    ensemble = Ensemble(point, 32)
    rows = ensemble.block_of(CONDITIONS[condition])
    between = volts(ensemble, Terminal.L1, Terminal.L2)[rows]
    summed = (volts(ensemble, Terminal.L1, NEUTRAL) + volts(ensemble, Terminal.L2, NEUTRAL))[rows]
    assert (summed > 0.99 * between).all()
    if condition == "correct":
        assert np.allclose(summed, between, rtol=0.02)
    else:
        assert np.ptp(volts(ensemble, Terminal.L1, NEUTRAL)[rows]) > 40, "it may hang anywhere"


def test_a_star_has_root_three_between_its_lines_and_a_lost_neutral_shares_it_out():
    ensemble = Ensemble(several("L1 L2 L3 N PE", "230/400"), 32)
    between = sound(ensemble, volts(ensemble, Terminal.L1, Terminal.L2))
    to_neutral = sound(ensemble, volts(ensemble, Terminal.L1, NEUTRAL))
    assert np.allclose(between / to_neutral, np.sqrt(3), rtol=0.1)
    assert np.mean(between / to_neutral) == pytest.approx(np.sqrt(3), rel=0.02)
    rows = ensemble.block_of(CONDITIONS["neutral-open-at-source"])
    legs = [volts(ensemble, line, NEUTRAL)[rows] for line in ensemble.point.lines]
    assert np.max(legs, axis=0).max() > 1.15 * to_neutral.max(), "somebody gets too much"
    assert np.min(legs, axis=0).min() < 0.85 * to_neutral.min(), "and somebody too little"


@pytest.mark.parametrize("tester", [METER, STEPPED, CLAMP, LOW_OHM, FLAT], ids=lambda t: t.id)
@pytest.mark.parametrize("number", range(len(POINTS)))
def test_what_a_tester_reads_of_a_truth_never_strikes_that_truth_out(number, tester):
    """Of every quantity it has and every way it can be held here: the truth is within what its reading allows."""
    point, rng = POINTS[number], np.random.default_rng([number, 5])
    for condition in [c for c, _ in Ensemble(point, 1).blocks][::3]:
        hidden, errors = HiddenPoint(point, condition, rng), TesterErrors(rng)
        for quantity in (VOLTAGE, RESISTANCE, CURRENT):
            for measurement in list(quantity.setups(point, tester))[::2]:
                for found in weigh(hidden.read("r", measurement, errors), point):
                    if isinstance(found, Evidence):
                        true = float(hidden.samples.predicted(found.measurement)[0])
                        low, high = found.interval
                        assert low - 1e-6 <= min(true, 1e9) <= high + 1e-6, (condition.id, measurement)
                    assert not isinstance(found, Direct), "nothing here is direct"
                    assert tester.proved is not False or not isinstance(found, Evidence)
                    assert not isinstance(found, Alarm) or measurement.of_metal_to_reference


def test_what_a_load_takes_between_the_board_and_the_point_is_the_run_s():
    """Ohm: the same load lowers the point by more than the board, by its amperes times both wires of the run.

    What an ohmmeter shows of a wire has the contacts of its probes in it.
    """
    ensemble = Ensemble(outlet(), 64)
    alone = {"nothing_else_on": True, "instrument": METER}
    at_board = BOARD_END[LINE], BOARD_END[NEUTRAL]
    lost = [
        sound(ensemble, volts(ensemble, *ends, **alone) - volts(ensemble, *ends, load_here_a=10.0, **alone))
        for ends in (at_board, (LINE, NEUTRAL))
    ]
    run = lost[1] - lost[0]
    assert (run > 0).all()
    ohms = sound(ensemble, ensemble.predicted(Measurement(RESISTANCE, LINE, BOARD_END[LINE], LOW_OHM, device="open")))
    assert np.median(run / (10.0 * 2 * ohms)) == pytest.approx(0.85, abs=0.2)


def test_volts_at_the_board_tell_a_poor_joint_along_the_run_from_a_poor_supply():
    ensemble = Ensemble(outlet(), 64)
    loaded = {"nothing_else_on": True, "load_here_a": 10.0, "instrument": METER}
    for condition, lost_before in (("high-resistance-line", False), ("neutral-lost-at-source", True)):
        rows = ensemble.block_of(CONDITIONS[condition])
        at_board = volts(ensemble, BOARD_END[LINE], BOARD_END[NEUTRAL], **loaded)[rows]
        bare = volts(ensemble, BOARD_END[LINE], BOARD_END[NEUTRAL], nothing_else_on=True, instrument=METER)[rows]
        assert bool(np.median(bare - at_board) > 10.0) is lost_before


@pytest.mark.parametrize("other", [EARTH, NEUTRAL])
def test_two_conductors_joined_at_the_board_read_as_both_end_to_end(other):
    """R1 + R2 and R1 + RN of IEC 60364-6: no long lead, and as each by itself but for what hangs across them."""
    ensemble = Ensemble(outlet(), 64)
    dead = {"device": "open", "neutral": "lifted"}
    each = [Measurement(RESISTANCE, end, BOARD_END[end], LOW_OHM, **dead) for end in (LINE, other)]
    joined = Measurement(RESISTANCE, LINE, other, LOW_OHM, far_ends="joined", **dead)
    summed = sum(sound(ensemble, ensemble.predicted(m)) for m in each)
    both = sound(ensemble, ensemble.predicted(joined))
    assert (both < summed + 0.1).all()
    assert np.median(both / summed) == pytest.approx(0.95, abs=0.15)
    unplugged = replace(joined, nothing_else_on=True)
    alone = sound(ensemble, ensemble.predicted(unplugged))
    assert (alone >= both - 1e-6).all(), "equipment lies across what is measured"
    assert np.abs(summed - alone).max() < 0.07, "but for the touch of two probes and the link at the board"
    false_earth = ensemble.block_of(CONDITIONS["earth-from-neutral"])
    if other is EARTH:
        assert np.median(ensemble.predicted(joined)[false_earth]) > 100, "made of a neutral that is lifted"
