"""Reference earths that people have: what each may clear, and what it takes until it may."""

from itertools import permutations

import numpy as np
import pytest

from evenprobe.conditions import CONDITIONS
from evenprobe.interpretation import Verdict, ensemble_for
from evenprobe.quantities import VOLTAGE, Evidence, Kept, Measurement, weigh_all
from evenprobe.wiring import Terminal
from evenprobe.wiring.references import BAR, OUTLET, PIPEWORK, REFERENCES, ROD, Reference
from tests.core.installations import outlet, read, standing, volts

POINT = outlet()
SOUND = (volts("L-N", 119.8), volts("L-PE", 119.9), volts("N-PE", 0.1))
HALL, LOFT, CELLAR = (Reference(OUTLET, name) for name in ("hall", "loft", "cellar"))
PIPE, BOARD, EARTHED = Reference(PIPEWORK, "boiler"), Reference(BAR), Reference(ROD)


def metal(value, reference, number=""):
    return volts("PE-REF", value, id=f"{reference}{number}", reference=reference)


def counted(*readings):
    return [isinstance(w, Evidence) for w in weigh_all(readings, POINT)]


@pytest.mark.parametrize("kind", REFERENCES.values(), ids=str)
def test_only_what_counts_alone_counts_alone(kind):
    assert counted(metal(0.2, Reference(kind, "here"))) == [kind.alone]


def test_two_outlets_that_agree_strike_out_what_a_rod_does():
    by_two = read(POINT, *SOUND, metal(0.2, HALL), metal(0.3, LOFT))
    by_one = read(POINT, *SOUND, metal(0.2, HALL))
    by_a_rod = read(POINT, *SOUND, metal(0.2, EARTHED))
    assert standing(by_two) == standing(by_a_rod)
    assert standing(by_one) == standing(read(POINT, *SOUND))
    assert [n.reading for n in by_one.not_counted] == [f"{HALL}"]


def test_the_same_outlet_twice_is_one_reference():
    assert counted(metal(0.2, HALL), metal(0.3, HALL, "again")) == [False, False]
    unnamed = Reference(OUTLET)
    assert counted(metal(0.2, unnamed), metal(0.3, unnamed, "again")) == [False, False]


@pytest.mark.parametrize("order", list(permutations(range(3))))
def test_of_three_the_one_that_differs_does_not_count(order):
    readings = [metal(119.0, HALL), metal(0.2, LOFT), metal(0.3, CELLAR)]
    in_order = [readings[i] for i in order]
    assert counted(*in_order) == [i != 0 for i in order]


def test_two_that_differ_leave_both_in_doubt():
    live, quiet = weigh_all([metal(119.0, HALL), metal(0.2, LOFT)], POINT)
    assert not isinstance(live, Evidence)
    assert isinstance(quiet, Kept)
    assert "third" in quiet.why


def test_any_reference_may_raise_an_alarm():
    """The outlet it goes to may be the live one: still nobody touches either."""
    alarmed = read(POINT, *SOUND, metal(119.0, HALL))
    assert alarmed.verdict is Verdict.DANGER
    assert "correct" in standing(alarmed), "and nothing is struck out by it"


def test_agreement_is_of_what_was_measured():
    """Two that agree at one contact say nothing of a third number, which one of them may have wrong."""
    agreed = (metal(0.2, HALL), metal(0.3, LOFT))
    assert counted(*agreed, volts("L-REF", 3.0, reference=HALL)) == [True, True, False]


def shown(condition, reference):
    """Volts (B,) from metalwork to a reference, of every sample of a condition."""
    ensemble = ensemble_for(POINT)
    measurement = Measurement(VOLTAGE, Terminal.PE, Terminal.REF, reference=reference)
    return ensemble.predicted(measurement)[ensemble.block_of(CONDITIONS[condition])]


def test_what_hangs_on_the_bar_rises_with_it():
    """Of a neutral lost at the source a rod shows volts; the bar, and every other outlet, is as high as the metal."""
    assert np.median(shown("neutral-lost-at-source", EARTHED)) > 10.0
    for reference in (BOARD, HALL):
        assert shown("neutral-lost-at-source", reference).max() < 1.0
        assert np.median(shown("live-casing", reference)) > 60.0


@pytest.mark.parametrize("readings", [(metal(0.1, BOARD),), (metal(0.1, HALL), metal(0.2, LOFT))], ids=["bar", "two"])
def test_a_quiet_bar_never_strikes_out_a_neutral_lost_at_the_source(readings):
    assert "neutral-lost-at-source" in standing(read(POINT, *SOUND, *readings))


@pytest.mark.parametrize("value", [0.0, 2.0, 60.0])
def test_pipework_says_at_most(value):
    """Not bonded it is at the mass of earth, and shows what the bar is above it: nothing sound is accused by that."""
    low, high = weigh_all([metal(value, PIPE), metal(value, BOARD)], POINT)[0].interval
    assert low == 0.0
    assert high > value + 3.0


def test_what_two_show_a_sound_one_shows_something_between():
    """One may be an earth that is jumpered to its neutral: a few volts off, and never counted as exact."""
    spans = [w.interval for w in weigh_all([metal(0.2, HALL), metal(3.0, LOFT)], POINT)]
    assert all(low <= 0.2 and high >= 3.0 for low, high in spans)
    exact = weigh_all([metal(0.2, HALL), metal(3.0, EARTHED)], POINT)[1]
    assert exact.interval[0] > 2.0, "and a rod stays what it is"


def test_what_collapses_for_one_tester_bears_nothing_out_for_another():
    """A floating contact shows next to nothing at low impedance to a rod, and to an outlet that floats with it."""
    collapsed = volts("L-REF", 0.2, id="rod", reference=EARTHED, input="low-z")
    floats_too = volts("L-REF", 0.0, id="hall", reference=HALL)
    assert counted(collapsed, floats_too) == [True, False]
