"""Neutrals that are joined to the earth on the run, borrowed or shared: what shows them, and what strikes them out."""

from dataclasses import replace

import numpy as np
import pytest

from evenprobe.conditions import CONDITIONS
from evenprobe.interpretation import Verdict, ensemble_for
from evenprobe.interpretation.ensemble import Ensemble
from evenprobe.quantities import LOAD_HELD, RESIDUAL_CURRENT, RESISTANCE, TRIP, VOLTAGE, Measurement, Reading
from evenprobe.testers import Instrument, kinds
from evenprobe.wiring import CircuitFacts, Terminal, conductor_named
from tests.core.installations import outlet, read, standing, volts

CLAMP = Instrument("c1", kinds.CLAMP, proved=True)
LOW_OHM = Instrument("low-ohm", kinds.LOW_OHM, proved=True)
PROTECTED = outlet(circuit=CircuitFacts(20, conductor_named("12 AWG"), 22, residual_ma=5))
SOUND = (volts("L-N", 119.8), volts("L-PE", 119.9), volts("N-PE", 0.1))
NEUTRALS = {"neutral-earth-joined-on-run", "borrowed-neutral"}
ALL_CLAMPED = Measurement(RESIDUAL_CURRENT, None, None, CLAMP, load_here_a=10.0)
HELD = Measurement(LOAD_HELD, None, None, load_here_a=10.0)
PRESSED = Measurement(TRIP, Terminal.L, Terminal.PE, test_ma=6.0)
LIFTED = Measurement(RESISTANCE, Terminal.N, Terminal.PE, LOW_OHM, device="open", neutral="lifted")


def missing(condition, measurement, point=PROTECTED):
    """Amperes (B,) that every sample of a condition shows."""
    ensemble = ensemble_for(point)
    return ensemble.predicted(measurement)[ensemble.block_of(CONDITIONS[condition])]


def test_a_sound_load_comes_back_and_one_on_a_borrowed_neutral_does_not():
    """Kirchhoff: what is on between the line and another circuit's neutral is missing at the device, all of it."""
    assert missing("correct", ALL_CLAMPED).max() < 0.01
    assert missing("borrowed-neutral", ALL_CLAMPED).min() > 5.0
    assert missing("neutral-earth-swapped", ALL_CLAMPED).min() > 5.0


def test_what_another_circuit_sends_back_by_a_shared_neutral_is_missing_there():
    shared = missing("shared-neutral", ALL_CLAMPED)
    assert shared.min() < 0.01, "with nothing on there"
    assert shared.max() > 10.0


def test_a_load_goes_back_by_both_where_neutral_and_earth_are_joined():
    by_the_earth = missing("neutral-earth-joined-on-run", ALL_CLAMPED)
    assert np.median(by_the_earth) > 1.0
    assert by_the_earth.max() < 20.0


def test_what_a_device_is_missing_is_nothing_where_it_sees_nothing():
    assert missing("residual-device-fails", HELD).max() == 0.0
    assert missing("borrowed-neutral", HELD).min() > 5.0
    assert missing("residual-device-fails", PRESSED).max() == 0.0


def test_a_press_drives_its_current_past_a_device_whatever_else_is_missing_already():
    pressed = missing("correct", PRESSED)
    assert pressed.min() > 5e-3
    under_load = missing("neutral-earth-swapped", replace(PRESSED, load_here_a=10.0))
    assert under_load.max() < 1.5e-3, "from the line to the neutral's wire, which comes back by the device"
    assert np.median(missing("neutral-earth-joined-on-run", PRESSED)) < 0.8 * np.median(pressed)


def test_another_line_s_load_raises_a_shared_neutral_with_the_circuit_off():
    ensemble = Ensemble(outlet(), 64)
    off = ensemble.predicted(Measurement(VOLTAGE, Terminal.N, Terminal.PE, device="open"))
    shared, sound = (off[ensemble.block_of(CONDITIONS[c])] for c in ("shared-neutral", "correct"))
    assert shared.max() > 0.5 > sound.max()


@pytest.mark.parametrize(
    ("deciding", "left"),
    [
        ((Reading("pressed", PRESSED, tripped=True), Reading("held", HELD, tripped=False)), set()),
        ((Reading("lifted", LIFTED, over_range=True),), set()),
        ((Reading("all", ALL_CLAMPED, value=0.0),), {"neutral-earth-joined-on-run"}),
    ],
    ids=["held", "lifted", "clamped, which does not see a link next to the board"],
)
def test_each_of_these_alone_strikes_them_out(deciding, left):
    assert standing(read(PROTECTED, *SOUND)) >= NEUTRALS
    found = standing(read(PROTECTED, *SOUND, *deciding))
    assert "correct" in found
    assert NEUTRALS & found == left


def test_a_device_nobody_has_seen_trip_clears_nothing_by_staying_in():
    """It may be one that never trips: then a swapped neutral holds any load."""
    held = Reading("held", HELD, tripped=False)
    before, after = read(PROTECTED, *SOUND), read(PROTECTED, *SOUND, held)
    assert standing(after) == standing(before)
    assert "nobody has seen this GFCI trip yet" in after.not_counted[0].why


@pytest.mark.parametrize(
    "reading",
    [
        Reading("all", replace(ALL_CLAMPED, device="open"), value=0.0),
        Reading("held", replace(HELD, device="open"), tripped=False),
        Reading("press", replace(PRESSED, device="open"), tripped=False),
        Reading("press", replace(PRESSED, device="open"), tripped=True),
    ],
    ids=["all clamped", "held", "did not trip", "tripped"],
)
def test_with_the_device_open_nothing_flows_and_nothing_is_cleared(reading):
    """A clamp that shows 0 A round a circuit that is off says nothing of where its load comes back."""
    pressed = Reading("before", PRESSED, tripped=True)
    before, after = read(PROTECTED, *SOUND, pressed), read(PROTECTED, *SOUND, pressed, reading)
    assert standing(after) == standing(before)
    assert [n.reading for n in after.not_counted] == [reading.id]


def test_ohms_from_the_lifted_neutral_to_earth_show_it_is_joined_or_borrowed():
    found = read(PROTECTED, *SOUND, Reading("lifted", LIFTED, value=0.2))
    assert standing(found) >= NEUTRALS
    assert "correct" not in standing(found)


def test_amperes_that_do_not_come_back_name_what_takes_them():
    found = read(PROTECTED, *SOUND, Reading("all", ALL_CLAMPED, value=9.9))
    assert {"borrowed-neutral", "neutral-earth-swapped"} <= standing(found)
    assert "correct" not in standing(found)
    assert found.verdict is Verdict.UNCONFIRMED, "a shared neutral with so much on it is no fault"
