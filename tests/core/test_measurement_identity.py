"""What makes two measurements the same: every field but who measured and which probe was where."""

from dataclasses import fields, replace

import numpy as np
import pytest
from bench.draws import METER, draw, several_lines

from evenprobe.conditions import conditions_for
from evenprobe.interpretation import JudgementResult, Verdict, interpret
from evenprobe.interpretation.next_measurement.candidates import same_test
from evenprobe.loads import loops
from evenprobe.quantities import RESISTANCE, TRIP, VOLTAGE, Measurement, confining, weigh
from evenprobe.simulation import HiddenPoint, TesterErrors
from evenprobe.testers import Instrument, kinds
from evenprobe.wiring import Terminal
from evenprobe.wiring.references import OUTLET, Reference
from tests.core.installations import outlet, read, several, standing, volts

L1, L2, N, PE = Terminal.L1, Terminal.L2, Terminal.N, Terminal.PE
LOADED = Measurement(VOLTAGE, L1, N, load_here_a=9.0, load_between=(L1, N))
OTHERWISE = {
    "quantity": RESISTANCE,
    "from_": L2,
    "to": PE,
    "instrument": Instrument("another", kinds.CLAMP),
    "input": "low-z",
    "load_here_a": 10.0,
    "load_elsewhere_a": 4.0,
    "load_between": (L2, N),
    "nothing_else_on": True,
    "device": "open",
    "neutral": "lifted",
    "far_ends": "joined",
    "test_ma": 30.0,
    "dc": True,
    "reference": Reference(OUTLET, "hall"),
}
"""Another value of every field of a measurement."""
NOT_WHAT_BUT_WHO = {"instrument"}


def test_every_field_of_a_measurement_is_thought_of():
    assert {f.name for f in fields(Measurement)} == set(OTHERWISE)


@pytest.mark.parametrize("field", sorted(OTHERWISE))
def test_a_measurement_that_differs_in_one_field_is_another(field):
    other = replace(LOADED, **{field: OTHERWISE[field]})
    assert (other.setup() == LOADED.setup()) is (field in NOT_WHAT_BUT_WHO)
    assert other.setup(field) == LOADED.setup(field) or field in ("from_", "to")


def test_which_probe_is_where_makes_no_difference_and_a_load_is_between_two_contacts_in_any_order():
    assert replace(LOADED, from_=N, to=L1, load_between=(N, L1)).setup() == LOADED.setup()


def test_between_what_no_load_is_makes_no_difference():
    unloaded = replace(LOADED, load_here_a=None)
    assert unloaded.setup() == replace(unloaded, load_between=(L2, N)).setup()


def test_two_readings_under_different_known_loads_are_both_evidence():
    here = {"load_here_a": 9.0, "instrument": METER}
    first = volts("L1-N", 118.0, id="a", load_between=(L1, N), **here)
    second = volts("L1-N", 121.5, id="b", load_between=(L2, N), **here)
    evidence = [w for r in (first, second) for w in weigh(r, several("L1 L2 N PE"))]
    assert len(confining(evidence)) == 2


def test_a_poor_neutral_of_two_lines_is_not_lost_under_loads_between_different_contacts():
    point = several("L1 L2 N PE")
    truth = next(c for c in conditions_for(point) if c.id == "high-resistance-neutral")
    for seed in range(4):
        rng = np.random.default_rng(seed)
        hidden, errors = HiddenPoint(point, truth, rng), TesterErrors(rng)
        readings = []
        for number, (pair, between) in enumerate([((L1, N), None), ((L1, N), (L1, N)), ((L1, N), (L2, N))]):
            how = {"load_here_a": 15.0, "load_between": between} if between else {}
            taken = Measurement(VOLTAGE, *pair, METER, **how)
            readings.append(hidden.read(f"r{number}", taken, errors))
        result = interpret(point, readings)
        assert truth.id in standing(result), (seed, [r.value for r in readings])


def test_two_trip_tests_with_different_currents_are_not_at_odds():
    point = outlet()
    six, thirty = (Measurement(TRIP, None, None, METER, test_ma=ma) for ma in (6.0, 30.0))
    assert six.setup() != thirty.setup()
    assert same_test(six, point) != same_test(thirty, point)


def test_a_dc_reading_is_not_the_ac_reading_that_is_wanted_next():
    ac = Measurement(VOLTAGE, Terminal.L, N)
    assert same_test(replace(ac, dc=True), outlet()) != same_test(ac, outlet())


def test_a_load_nobody_placed_is_the_one_it_is_taken_to_be():
    point = several("L1 L2 N PE")
    unsaid = Measurement(VOLTAGE, L1, N, load_here_a=9.0)
    assert same_test(unsaid, point) == same_test(replace(unsaid, load_between=(N, L1), load_here_a=5.0), point)
    assert same_test(unsaid, point) != same_test(replace(unsaid, load_between=(L2, N)), point)


def test_a_drop_is_judged_only_of_the_pair_the_load_is_between():
    point = several("L1 L2 N PE")
    before = volts("L1-N", 121.0, id="before")
    own = volts("L1-N", 110.0, id="own", load_here_a=20.0, load_between=(L1, N))
    others = volts("L1-N", 110.0, id="other", load_here_a=20.0, load_between=(L2, N))
    judged = {j.reading: j.result for j in read(point, before, own, others).judgements if j.limit.id == "voltage.drop"}
    assert judged == {"own": JudgementResult.FAIL}


def test_a_loop_takes_a_part_under_its_own_load_only():
    point = several("L1 L2 N PE")
    how = {"load_here_a": 20.0}
    taken = [
        volts("L1-N", 121.0, id="a"),
        volts("N-PE", 0.2, id="b"),
        volts("L1-N", 117.0, id="c", load_between=(L1, N), **how),
        volts("N-PE", 9.0, id="d", load_between=(L2, N), **how),
    ]
    (loop,) = loops(point, taken)
    assert [part.terminal for part in loop.parts] == []
    (with_it,) = loops(point, [*taken, volts("N-PE", 2.0, id="e", load_between=(N, L1), **how)])
    assert [part.terminal for part in with_it.parts] == [N]


def test_the_bench_draws_known_loads_between_any_two_live_contacts_and_dc_readings():
    point = several_lines()[0]
    drawn = [draw(point, np.random.default_rng(seed)) for seed in range(200)]
    measured = [r.measurement for d in drawn for r in d.readings]
    assert {frozenset(m.load_between) for m in measured if m.load_between} == {
        frozenset({L1, L2}), frozenset({L1, N}), frozenset({L2, N})
    }  # fmt: skip
    assert any(m.dc for m in measured)
    shown = [d for d in drawn if d.direct_on_metal]
    assert shown
    assert all(interpret(point, d.readings).verdict is Verdict.DANGER for d in shown[:2])
