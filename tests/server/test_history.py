"""Every change of structure is kept with who, when, before and after, and shown on the line of time."""

import json
from uuid import uuid4

import pytest

from history.models import Change
from tests.server.requests import entry, record


def changes(person, scope, of):
    happened = person.get(f"/timeline/{scope}/{of}?kind=change").json()["happened"]
    return [(one["text"], one["how"]) for one in happened]


def supply(place, **about):
    return {"site": place["site"], "name": "Service", "system": "120/240", "earthing": "TN-C-S", **about}


def test_a_supply_that_is_changed_says_what_it_was_and_by_whom(anna, place):
    assert anna.put(f"/supplies/{place['supply']}", supply(place, earthing="TT")).status_code == 200
    [latest, *earlier] = anna.get(f"/timeline/site/{place['site']}?kind=change").json()["happened"]
    assert (latest["text"], latest["how"]) == ("Supply Service: earthing TT", "before: earthing TN-C-S")
    assert latest["by"] == anna.get("/session").json()["name"]
    assert len(earlier) == 5, "site, supply, board, circuit and point were new"


def test_the_same_again_is_no_change(anna, place):
    before = Change.objects.count()
    for _ in range(2):
        anna.put(f"/supplies/{place['supply']}", supply(place))
    assert Change.objects.count() == before


def test_out_of_use_and_back_and_moved_are_said_in_words(anna, place):
    other = str(uuid4())
    anna.put(f"/boards/{other}", {"supply": place["supply"], "name": "P"})
    circuit = {"board": other, "name": "Workshop", "rating_a": 16, "conductor": "12 AWG"}
    anna.put(f"/circuits/{place['circuit']}", circuit)
    for retired in (True, False):
        anna.put(f"/places/circuit/{place['circuit']}/retired", {"retired": retired})
    assert [text for text, _ in changes(anna, "circuit", place["circuit"])] == [
        "Circuit Workshop: back in use",
        "Circuit Workshop: taken out of use",
        "Circuit Workshop: on P, device 16 A",
        "Circuit Workshop: new",
    ]


def test_a_new_name_is_said_of_the_old_one(anna, place):
    anna.put(f"/boards/{place['board']}", {"supply": place["supply"], "name": "W2"})
    assert changes(anna, "site", place["site"])[0] == ("Board W: now called W2", "")


def test_kit_rules_and_people_are_of_the_crew_s_line(anna, place):
    anna.put(f"/testers/{place['tester']}", {"label": "M2", "kind": "multimeter", "proved": False})
    anna.put("/rules", {"unattended_min": 20})
    texts = [text for text, _ in changes(anna, "crew", uuid4())]
    assert texts[0] == "Rules of a proof of isolation: left alone at most 20 min"
    assert changes(anna, "tester", place["tester"])[0][0].startswith("Tester M2: ")


def test_nobody_sees_another_crew_s_changes(anna, stranger, place):
    assert changes(anna, "crew", uuid4())
    assert changes(stranger, "crew", uuid4()) == []


def test_what_is_refused_leaves_no_trace(anna, place):
    before = Change.objects.count()
    assert anna.put(f"/supplies/{place['supply']}", supply(place, earthing="XX")).status_code == 422
    assert anna.put(f"/points/{place['point']}", {"circuit": place["circuit"], "name": ""}).status_code == 422
    assert Change.objects.count() == before


def effects(person, what, of, body):
    answer = person.post(f"/{what}/{of}/effects", body)
    assert answer.status_code == 200, answer.content
    return answer.json()


@pytest.fixture
def measured(anna, place):
    """An outlet proved correct but for its loop: earthing TN, with readings that a TT supply explains otherwise."""
    for pair, value in ((("L", "N"), 119.8), (("L", "PE"), 119.6), (("N", "PE"), 0.3)):
        record(anna, place, entry(value, pair), tester=place["tester"])
    return place


def test_what_a_change_would_make_of_verdicts_is_said_before_it_is_saved(anna, measured):
    before = anna.get(f"/points/{measured['point']}/bench").json()["interpretation"]
    told = effects(anna, "supplies", measured["supply"], supply(measured, system="480Y/277"))
    assert told["measured"] == 1
    [point] = told["points"]
    assert (point["id"], point["before"]) == (measured["point"], before["verdict"])
    assert point["after"] != point["before"]
    assert anna.get(f"/points/{measured['point']}/bench").json()["interpretation"] == before, "nothing was saved"
    assert Change.objects.filter(what="supply").count() == 1
    anna.put(f"/supplies/{measured['supply']}", supply(measured, system="480Y/277"))
    assert anna.get(f"/points/{measured['point']}/bench").json()["interpretation"]["verdict"] == point["after"]


def test_a_name_changes_no_verdict_and_nothing_is_interpreted_for_it(anna, measured, monkeypatch):
    monkeypatch.setattr("readings.effects.interpretation_of", lambda *_: pytest.fail("it was interpreted"))
    told = effects(anna, "supplies", measured["supply"], supply(measured, name="Main"))
    assert told == {"measured": 0, "points": []}


def test_of_a_circuit_and_a_point_too(anna, measured):
    circuit = {"board": measured["board"], "name": "Workshop", "rating_a": 20, "conductor": "12 AWG"}
    assert effects(anna, "circuits", measured["circuit"], circuit)["measured"] == 0
    assert effects(anna, "circuits", measured["circuit"], {**circuit, "conductor": "6 AWG"})["measured"] == 1
    point = {
        "circuit": measured["circuit"], "name": "Outlet 1", "kind": "outlet",
        "terminals": ["L", "N", "PE"], "length_m": 40,
    }  # fmt: skip
    assert effects(anna, "points", measured["point"], point)["measured"] == 1
    answer = anna.post(f"/points/{measured['point']}/effects", {**point, "terminals": ["L", "N"]})
    assert answer.status_code == 422
    assert json.loads(answer.content)["problems"][0]["path"] == "terminals"


def test_of_another_crew_s_nothing_is_said(stranger, measured):
    for what, body in (("supplies", supply(measured)), ("circuits", {"board": measured["board"], "name": "x"})):
        of = measured["supply" if what == "supplies" else "circuit"]
        assert stranger.post(f"/{what}/{of}/effects", body).status_code == 404
