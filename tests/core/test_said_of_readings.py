"""Readings in words, as a report has them: the contacts in the practice's letters, the figure, the circumstances."""

import pytest

from evenprobe.entries import parse
from evenprobe.formats import ReadingEntry
from evenprobe.formats.said import how_said, limit_said, seen_said, where_said
from evenprobe.limits.titles import title_of
from evenprobe.practices import PRACTICES
from evenprobe.quantities import QUANTITIES

VOLTS = {"quantity": "voltage", "mode": "ac", "from": "L", "to": "N", "value": 120, "unit": "V"}
CASES = [
    (VOLTS, "H to N", "120.0 V", ""),
    (
        {**VOLTS, "value": 0.35, "input": "low-z", "load_here_a": 10},
        "H to N",
        "0.35 V",
        "10 A load here, low impedance",
    ),
    ({**VOLTS, "value": 4.0, "mode": "dc"}, "H to N", "4.0 V", "DC"),
    ({"quantity": "voltage", "from": "L", "to": "PE", "at_least": 50, "below": 120}, "H to G", "50 to 120 V", ""),
    ({"quantity": "voltage", "from": "L", "to": "PE", "below": 12}, "H to G", "under 12 V", ""),
    (
        {"quantity": "resistance", "from": "BOARD-PE", "to": "BOARD-N", "over_range": True, "neutral": "lifted"},
        "Resistance G to N at the board",
        "over range Ω",
        "neutral disconnected at the board",
    ),
    ({"quantity": "presence", "from": "L", "value": False}, "Presence at H", "silent", ""),
    ({"quantity": "lamps", "value": {"L-N": True, "L-PE": True, "N-PE": False}}, None, "lit L-N, L-PE", ""),
    ({"quantity": "lamps", "value": {"L-N": False}}, None, "all dark", ""),
    ({"quantity": "trip", "test_ma": 30, "value": True, "ms": 24}, None, "tripped", "after 24 ms, 30 mA"),
    (
        {"quantity": "insulation", "from": "L", "to": "PE", "value": 48, "unit": "Mohm", "test_v": 500},
        "Insulation H to G",
        "48 MΩ",
        "tested at 500 V",
    ),
    (
        {"quantity": "current", "from": "L", "value": 9.5, "max": 41, "unit": "A", "turns": 10},
        "Current at H",
        "9.5 A, up to 41 A",
        "10 turns through the clamp",
    ),
]


@pytest.mark.parametrize(("entry", "where", "seen", "how"), CASES)
def test_a_reading_is_said_as_it_was_taken(entry, where, seen, how):
    practice, reading = PRACTICES["north-america"], parse(ReadingEntry, entry)
    if where is not None:
        assert where_said(reading.quantity, reading.from_, reading.to, practice) == where
    assert seen_said(reading) == seen
    assert how_said(reading, practice) == how


@pytest.mark.parametrize("practice", PRACTICES.values(), ids=str)
@pytest.mark.parametrize("quantity", QUANTITIES.values(), ids=str)
def test_no_quantity_is_without_words(practice, quantity):
    said = where_said(quantity, "L", "PE", practice)
    assert said
    assert "{" not in said


def test_a_limit_is_said_with_its_unit():
    assert limit_said(0.0, float("inf"), "ohm") == "more than the range"
    assert title_of("insulation.least") == "Insulation resistance"
