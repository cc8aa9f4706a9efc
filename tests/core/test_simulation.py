"""Hidden points read with full tester error: what is written down is always within what the error allows."""

from collections import Counter

import numpy as np
import pytest
from bench.draws import DETECTOR, FLAT, LAMP_TESTER, METER, STEPPED, draw, points
from bench.survival import Count, done_in, line_of

from evenprobe.conditions import conditions_for
from evenprobe.quantities import (
    LAMPS,
    PRESENCE,
    RESISTANCE,
    VOLTAGE,
    Alarm,
    Direct,
    Evidence,
    Kept,
    Measurement,
    weigh,
)
from evenprobe.simulation import HiddenPoint, TesterErrors
from evenprobe.wiring import Terminal
from tests.core.installations import outlet


def hidden(condition, seed, point=None):
    point = point or outlet()
    found = next(c for c in conditions_for(point) if c.id == condition)
    return HiddenPoint(point, found, np.random.default_rng(seed)), TesterErrors(np.random.default_rng(seed))


@pytest.mark.parametrize("seed", range(12))
@pytest.mark.parametrize("tester", [METER, STEPPED])
def test_the_true_volts_lie_within_the_interval_of_what_was_read(seed, tester):
    point, errors = hidden("correct", seed)
    for pair in (("L", "N"), ("L", "PE"), ("N", "PE"), ("PE", "REF")):
        measurement = Measurement(VOLTAGE, Terminal(pair[0]), Terminal(pair[1]), tester)
        (evidence,) = weigh(point.read("r", measurement, errors), outlet())
        true = float(point.samples.predicted(measurement)[0])
        low, high = evidence.interval
        assert low - 1e-6 <= true <= high + 1e-6


@pytest.mark.parametrize("seed", range(12))
def test_the_true_ohms_lie_within_the_interval_of_what_was_read(seed):
    for condition in ("correct", "open-earth", "high-resistance-earth"):
        point, errors = hidden(condition, seed)
        measurement = Measurement(RESISTANCE, Terminal.N, Terminal.PE, METER, device="open")
        reading = point.read("r", measurement, errors)
        (evidence,) = weigh(reading, outlet())
        true = float(point.samples.predicted(measurement)[0])
        assert evidence.interval[0] - 1e-6 <= true <= evidence.interval[1] + 1e-6
        assert reading.over_range == (true > 40e6)


def test_lamps_light_on_a_sound_outlet_and_all_but_one_where_the_earth_is_open():
    assert hidden("correct", 3)[0].read(
        "r", Measurement(LAMPS, None, None, LAMP_TESTER), hidden("correct", 3)[1]
    ).lit == {
        "L-N": True,
        "L-PE": True,
        "N-PE": False,
    }
    point, errors = hidden("open-earth", 3)
    lit = point.read("r", Measurement(LAMPS, None, None, LAMP_TESTER), errors).lit
    assert lit["L-N"]
    assert not lit["L-PE"]


def test_a_detector_alarms_at_a_line_and_not_at_sound_metal():
    point, errors = hidden("correct", 4)
    at = {
        end: point.read("r", Measurement(PRESENCE, end, None, DETECTOR), errors).alarm
        for end in (Terminal.L, Terminal.PE)
    }
    assert at == {Terminal.L: True, Terminal.PE: False}
    with pytest.raises(ValueError, match="non-contact"):
        point.read("r", Measurement(PRESENCE, Terminal.L, None, METER), errors)


def test_random_surveys_use_every_tester_and_every_kind_of_reading():
    seen, weighed = set(), set()
    for index in range(0, len(points()), 5):
        for number in range(12):
            drawn = draw(points()[index], np.random.default_rng([17, index, number]))
            for reading in drawn.readings:
                m = reading.measurement
                seen |= {m.instrument.id, m.quantity, m.device, m.input, m.from_}
                seen |= {"here"} if m.load_here_a else set()
                seen |= {"elsewhere"} if m.load_elsewhere_a else set()
                weighed |= {type(w) for w in weigh(reading, outlet())}
    assert seen >= {METER.id, STEPPED.id, LAMP_TESTER.id, DETECTOR.id, FLAT.id, "here", "elsewhere", "open", "low-z"}
    assert seen >= {VOLTAGE, RESISTANCE, LAMPS, PRESENCE, Terminal.CASE}
    assert weighed == {Evidence, Alarm, Direct, Kept}


def test_what_is_done_of_a_survival_run_is_read_again_as_it_was(tmp_path):
    kept = tmp_path / "run.jsonl"
    parts = {3: Count(2, ["one fell"], [], Counter(safe=1, danger=1)), 5: Count(2, [], [], Counter(unconfirmed=2))}
    kept.write_text("".join(line_of(point, part) for point, part in parts.items()))
    assert done_in(kept) == parts
    assert done_in(tmp_path / "none.jsonl") == {}
