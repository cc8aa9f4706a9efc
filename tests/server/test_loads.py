"""Currents, known loads and walks with a detector, as the Bench gives them."""

from uuid import uuid4

import pytest


def put(person, place, entry, tester=None):
    return person.put(f"/points/{place['point']}/readings/{uuid4()}", {"entry": entry, "tester": tester})


def volts(one, other, value, **more):
    return {"quantity": "voltage", "mode": "ac", "from": one, "to": other, "value": value, "unit": "V", **more}


@pytest.fixture
def clamp(anna):
    tester = str(uuid4())
    body = {"label": "C1", "kind": "clamp", "proved": True, "category": "III", "rated_v": 600}
    assert anna.put(f"/testers/{tester}", body).status_code == 200
    return tester


def test_the_poor_joint_under_a_load_is_named_and_drawn(anna, place):
    for before, after in ((("L", "N", 120.0), 111.0), (("L", "PE", 120.0), 119.0), (("N", "PE", 0.0), 8.0)):
        put(anna, place, volts(*before))
        bench = put(anna, place, volts(*before[:2], after, load_here_a=10)).json()
    loop = bench["loads"]["loops"][0]
    assert loop["pair"] == ["L", "N"]
    assert {part["terminal"]: part["poor"] for part in loop["parts"]} == {"L": False, "N": True}
    assert "poor joint is in the neutral" in loop["text"]
    assert loop["drop_passes"] is False
    for drawn in (loop, *loop["parts"]):
        assert all(0 <= share <= 1 for share in (*drawn["bar"]["reads"], *drawn["bar"]["passes"], drawn["bar"]["at"]))


def test_a_start_is_held_against_the_device_s_curve(anna, place, clamp):
    reading = {"quantity": "current", "from": "L", "value": 12.0, "max": 70.0, "unit": "A"}
    bench = put(anna, place, reading, clamp).json()
    assert bench["loads"]["draws"][0]["outcome"]["result"] == "note"
    circuit = {"board": place["board"], "name": "Workshop", "rating_a": 20, "curve": "B"}
    assert anna.put(f"/circuits/{place['circuit']}", circuit).status_code == 200
    bench = anna.get(f"/points/{place['point']}/bench").json()
    assert bench["loads"]["draws"][0]["outcome"]["result"] == "fail"
    assert bench["curve"] == "B"
    assert anna.put(f"/circuits/{place['circuit']}", {**circuit, "curve": "Q"}).status_code == 422
    survey = anna.get(f"/sites/{place['site']}/survey").json()
    assert survey["points"][0]["circuit"]["curve"] == "B"
    again = str(uuid4())
    assert anna.put(f"/sites/{again}/survey", {"name": "Copy", "survey": survey}).status_code == 200
    copied = anna.get(f"/sites/{again}").json()["supplies"][0]["boards"][0]["circuits"][0]
    assert copied["curve"] == "B"


def test_a_clamp_at_the_board_is_evidence_and_round_two_it_is_kept(anna, place, clamp):
    for pair in (("L", "N", 119.8), ("L", "PE", 119.9), ("N", "PE", 0.1)):
        put(anna, place, volts(*pair))
    at_board = {"quantity": "current", "from": "BOARD-PE", "value": 9.7, "unit": "A", "load_here_a": 10}
    bench = put(anna, place, at_board, clamp).json()
    standing = {c["id"] for c in bench["interpretation"]["conditions"] if c["standing"]}
    assert standing == {"neutral-earth-swapped", "neutral-earth-joined-on-run"}
    both = {"quantity": "current", "from": "BOARD-L", "to": "BOARD-N", "value": 0.0, "unit": "A"}
    bench = put(anna, place, both, clamp).json()
    assert any("cancel" in n["why"] for n in bench["interpretation"]["not_counted"])
    turned = {"quantity": "current", "from": "L", "value": 95.0, "unit": "A", "turns": 10}
    bench = put(anna, place, turned, clamp).json()
    shares = [d["outcome"]["computed"]["share_percent"] for d in bench["loads"]["draws"] if d["outcome"]]
    assert shares == [47.5]


@pytest.mark.parametrize(
    ("entry", "path"),
    [
        ({"quantity": "current", "from": "L", "value": 9.0, "max": 3.0}, "max"),
        ({"quantity": "current", "from": "L", "value": 9.0, "min": 12.0}, "min"),
        ({"quantity": "current", "from": "L"}, "value"),
        ({"quantity": "current", "from": "L", "value": 9.0, "turns": 0}, "turns"),
        (volts("L", "N", 120.0, max=130.0), "max"),
        ({"quantity": "presence", "from": "L", "sweep": [{"m": 2, "alarm": True}]}, "sweep"),
    ],
)
def test_a_current_or_a_walk_that_makes_no_sense_is_refused_with_where(anna, place, entry, path):
    answer = put(anna, place, entry)
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["path"] == path


def test_a_walk_with_a_detector_says_where_the_alarm_ends(anna, place):
    walk = [{"m": 2.0 * n, "alarm": n < 3} for n in range(6)]
    bench = put(anna, place, {"quantity": "presence", "from": "L", "sweep": walk}).json()
    found = bench["sweeps"][0]
    assert "ends between 13 and 20 ft (4 and 6 m)" in found["text"]
    assert [s["across"] for s in found["stations"]] == [0, 0.2, 0.4, 0.6, 0.8, 1]
    assert bench["interpretation"]["verdict"] == "untested"
    survey = anna.get(f"/points/{place['point']}/survey").json()
    assert survey["points"][0]["readings"][0]["sweep"] == walk
