"""Every route that writes, sent what no form would: refused in words with where, never a server's error."""

from copy import deepcopy
from uuid import uuid4

import pytest

from tests.server.requests import ROUTES, entry, record, whole_body

READING, EVENT = "/points/{point}/readings/{new}", "/proofs/{proof}/events/{new}"
ENTRY, STOP = "/sheets/{sheet}/entries/{new}", "/rounds/{round}/events/{new}"
LAMPS = {"quantity": "lamps", "value": {"L-N": True, "L-PE": True, "N-PE": False}}
TRIP = {"quantity": "trip", "from": "L", "to": "PE", "test_ma": 6, "value": True, "ms": 24}
CLAMPED = {"quantity": "current", "from": "BOARD-L", "value": 9.8, "min": 9.1, "max": 31.0, "unit": "A", "turns": 1}
WALK = {"quantity": "presence", "from": "PE", "sweep": [{"m": 0, "alarm": True}, {"m": 1.5, "alarm": False}]}
STEPS = {"type": "tested", "from": "L", "to": "N", "below": 12, "mode": "ac"}
FOUND = {"type": "source-found", "source": "s2", "label": "control feed", "kind": "control"}
OHMS = {"measured_ohm": 2.2, "unit": "kohm"}
MEGOHMS = {"measured_mohm": 300, "test_v": 500}
HEATER = {"kind": "element", "rated_v": 230, "rated_w": 2000, "measured_ohm": 26.4}
SEEN = {"type": "looked", "item": "burnt", "good": False, "photo": "{photo}"}
DEEPER = [
    *(("put", READING, {"entry": reading}) for reading in (LAMPS, TRIP, CLAMPED, WALK)),
    *(("put", EVENT, {"entry": event, "tester": "{tester}", "ago_s": 4}) for event in (STEPS, FOUND)),
    ("put", EVENT, {"entry": {"type": "locked", "source": "s1", "lock": "K-07", "tag": True}}),
    ("put", ENTRY, {"entry": {"type": "tested", "line": "apart L-N", "test": OHMS}, "tester": "{tester}"}),
    ("put", ENTRY, {"entry": {"type": "tested", "line": "insulation L-N", "test": MEGOHMS}}),
    ("put", ENTRY, {"entry": SEEN}),
    ("post", "/points/{point}/judge", {"entry": LAMPS, "tester": "{tester}"}),
    ("post", "/sheets/{sheet}/judge", {"line": "insulation L-N", "test": MEGOHMS}),
    ("put", STOP, {"point": "{point}", "kind": "skipped", "reason": "behind the loom"}),
    ("put", STOP, {"point": "{point}", "kind": "watched", "tripped": True}),
    ("post", "/judge", {"practice": "british", "test": HEATER}),
    ("post", "/advise", {"check": "element", "figures": {"rated_v": 230, "rated_w": 2000}}),
]
"""What ROUTES does not go into, each as it should be."""
WRITES = [*(row for row in ROUTES if row[2] is not None), *DEEPER]
WHOLE = [None, [], "nothing", 7, True, [{}]]
VALUES = [
    *(None, [], {}, "", " ", "\u0000", "𝟙⃗" * 200, -1, 0, 1e308, 10**400, True, ["L", ["N"]], {"type": {"type": 1}}),
    *("\ud800", "0001-01-01T00:00:00+14:00", "9999-12-31T23:59:59-14:00", 5e-324, 99999),
]
READ_AFTER = (
    *("/sites/{site}", "/points/{point}/bench", "/proofs/{proof}", "/sheets/{sheet}", "/rounds/{round}"),
    *("/testers/{tester}", "/today"),
)


def places(body, path=()):
    """The path to every value of a body, however deep."""
    inner = body.items() if isinstance(body, dict) else enumerate(body) if isinstance(body, list) else ()
    for key, value in inner:
        yield (*path, key)
        yield from places(value, (*path, key))


def holder(body, path):
    for key in path[:-1]:
        body = body[key]
    return body


def spoilt(body):
    """The body whole as something else, then with each value of it in turn replaced, left out or joined by another."""
    yield from WHOLE
    for number, path in enumerate(places(body)):
        for value in VALUES[number % 3 :: 3]:
            changed = deepcopy(body)
            holder(changed, path)[path[-1]] = value
            yield changed
        changed = deepcopy(body)
        del holder(changed, path)[path[-1]]
        yield changed
        if isinstance(path[-1], str):
            changed = deepcopy(body)
            holder(changed, path)[f"{path[-1]}{path[-1]}"] = "more"
            yield changed


@pytest.mark.parametrize(("method", "path", "body"), WRITES, ids=[f"{m} {p} {n}" for n, (m, p, _) in enumerate(WRITES)])
def test_nonsense_is_refused_in_words_and_all_can_still_be_read(anna, sheet, method, path, body):
    reading = str(uuid4())
    record(anna, sheet, entry(119.8), reading)
    survey = anna.get(f"/sites/{sheet['site']}/survey").json()
    fill = {**sheet, "reading": reading}
    anna.client.raise_request_exception = False
    whole = whole_body(body, {**fill, "new": str(uuid4())}, survey)
    if (method, path, body) in DEEPER:
        assert getattr(anna, method)(path.format(**fill, new=uuid4()), whole).status_code == 200
    for changed in spoilt(whole):
        answer = getattr(anna, method)(path.format(**fill, new=uuid4()), changed)
        assert answer.status_code < 500, (changed, answer.content[:300])
        if answer.status_code >= 400:
            assert all(problem["text"] for problem in answer.json()["problems"]), changed
            assert answer.json()["problems"], changed
    for kept in READ_AFTER:
        assert anna.get(kept.format(**fill)).status_code == 200, kept
    readings = anna.get(f"/points/{sheet['point']}/bench").json()["readings"]
    assert reading in {r["id"] for r in readings}
