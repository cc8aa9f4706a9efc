"""What happened to a proof of isolation, in words: every sort of event, in the practice's letters."""

import pytest

from evenprobe.entries import parse
from evenprobe.formats.isolation import EventEntry
from evenprobe.formats.said_of_events import event_said
from evenprobe.isolation import EventType
from evenprobe.practices import BRITISH, NORTH_AMERICA

SOURCES = {"s1": "Board W, way 3"}
SHOWN = {"tester": "m", "from": "L", "to": "PE"}
CASES = [
    ({"type": "off", "source": "s1"}, "Board W, way 3: off"),
    ({"type": "locked", "source": "s1"}, "Board W, way 3: locked"),
    ({"type": "locked", "source": "s1", "lock": "K-07"}, "Board W, way 3: locked, K-07"),
    ({"type": "unlocked", "source": "s1"}, "Board W, way 3: lock removed"),
    ({"type": "unlocked"}, "every source: lock removed"),
    ({"type": "re-energised"}, "every source: on again"),
    ({"type": "source-found", "source": "s2", "label": "Roof"}, "Source found: Roof"),
    ({"type": "proved", "tester": "m", "against": "proving-unit", "shows_v": 239}, "Proved on proving unit, 239 V"),
    ({"type": "proved", "tester": "m", "at_least": 120}, "Proved on known source, 120 V lit"),
    ({"type": "prove-failed", "tester": "m"}, "The tester failed its proof"),
    ({"type": "tested", **SHOWN, "shows_v": 0.3}, "L to E: 0.3 V"),
    ({"type": "tested", **SHOWN, "shows_v": 3, "unit": "mV", "input": "low-z"}, "L to E: 3 mV, low impedance"),
    ({"type": "tested", **SHOWN, "shows_v": -2, "mode": "dc"}, "L to E: -2 V, DC"),
    ({"type": "tested", **SHOWN, "below": 12}, "L to E: no lamp lit"),
    ({"type": "screened", "alarm": True}, "Screened: alarm"),
    ({"type": "screened", "alarm": False}, "Screened: silent"),
    ({"type": "stated"}, "Confirmed dead"),
    ({"type": "left"}, "Left"),
    ({"type": "returned"}, "Here"),
    ({"type": "handed-over"}, "Handed over"),
    ({"type": "handed-over", "note": "Bea"}, "Handed over to Bea"),
    ({"type": "closed"}, "Closed"),
]


def event(content):
    return parse(EventEntry, {"at": "2026-11-24T09:00:00+00:00", **content})


@pytest.mark.parametrize(("content", "said"), CASES)
def test_an_event_is_said_as_it_happened(content, said):
    assert event_said(event(content), BRITISH, SOURCES) == said


def test_every_sort_of_event_has_its_words():
    assert {content["type"] for content, _ in CASES} == set(EventType)


def test_contacts_have_the_letters_of_the_practice():
    assert event_said(event({"type": "tested", **SHOWN, "shows_v": 0}), NORTH_AMERICA, {}) == "H to G: 0 V"


def test_a_source_nobody_named_is_said_by_its_id():
    assert event_said(event({"type": "off", "source": "s9"}), BRITISH, {}) == "s9: off"
