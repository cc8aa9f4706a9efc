"""Visits: planned, walked and closed; what is done is what the record shows, and what is open stays listed."""

from uuid import uuid4

import pytest

from tests.server.conftest import proof_body
from tests.server.requests import entry, record
from tests.server.test_proofs import prove_dead

WHY = "Lights flicker when the drill runs"


def body(place, **changes):
    return {
        "site": place["site"],
        "why": WHY,
        "planned_for": "2026-12-01",
        "circuits": [place["circuit"]],
        "works": ["dead-tests", "live-tests"],
        **changes,
    }


@pytest.fixture
def visit(anna, place):
    answer = anna.put(f"/visits/{place['visit']}", body(place))
    assert answer.status_code == 200, answer.content
    return place


def told(person, visit, kind, event_id=None, **more):
    path = f"/visits/{visit['visit']}/events/{event_id or uuid4()}"
    answer = person.put(path, {"kind": kind, "entry": more})
    assert answer.status_code == 200, answer.content
    return answer.json()


def isolate(person, place):
    assert person.put(f"/proofs/{place['proof']}", proof_body(place)).status_code == 200
    prove_dead(person, place)


def states(shown):
    return [(step["work"], step["state"]) for step in shown["plan"]]


def test_a_plan_has_its_order_what_to_bring_and_who_goes_dark(anna, visit):
    shown = anna.get(f"/visits/{visit['visit']}").json()
    assert shown["state"] == "planned"
    assert [step["work"] for step in shown["plan"]] == ["isolate", "dead-tests", "live-tests"]
    assert {one["purpose"]: [t["label"] for t in one["fit"]] for one in shown["bring"]}["Prove dead"] == ["M2"]
    assert any(one["purpose"] == "Insulation" and one["fit"] == [] for one in shown["bring"])
    assert [one["places"] for one in shown["warn"]] == [["Outlet 1"]]
    assert shown["next"]["place"] == "new-proof"


def test_nothing_done_before_a_visit_began_is_done_on_it(anna, visit):
    record(anna, visit, entry(119.8))
    assert states(told(anna, visit, "begun")) == [("isolate", "left"), ("dead-tests", "left"), ("live-tests", "left")]


def test_what_is_done_is_what_the_record_shows(anna, visit):
    told(anna, visit, "begun")
    record(anna, visit, entry(119.8))
    shown = anna.get(f"/visits/{visit['visit']}").json()
    live = shown["plan"][2]
    assert (live["state"], live["said"], live["of"]) == ("under-way", "1 of 1 measured, 1 not safe", visit["point"])
    isolate(anna, visit)
    shown = anna.get(f"/visits/{visit['visit']}").json()
    assert states(shown)[0] == ("isolate", "done")
    assert shown["next"]["place"] == "new-sheet"
    anna.put(f"/sheets/{visit['sheet']}", {"circuit": visit["circuit"], "temperature_c": 20})
    shown = anna.get(f"/visits/{visit['visit']}").json()
    assert shown["plan"][1]["state"] == "under-way"
    assert shown["plan"][1]["said"].split(" ")[1] == "outstanding:"
    assert "Demo" not in shown["people"]


def test_what_is_left_open_stays_listed_until_it_is_put_right(anna, visit):
    told(anna, visit, "begun")
    isolate(anna, visit)
    left = str(uuid4())
    shown = told(anna, visit, "left-open", left, what="Cover of the box in the workshop")
    texts = [one["text"] for one in shown["still_open"]]
    assert "Cover of the box in the workshop" in texts
    assert any("locks on: K-07" in text for text in texts)
    closed = told(anna, visit, "closed")
    assert (closed["state"], closed["open"]) == ("closed", 1), "what the visit itself left open"
    again = told(anna, visit, "put-right", event=left)
    assert again["open"] == 0
    begun = told(anna, visit, "begun")
    assert (begun["state"], begun["open"]) == ("begun", 1), "the lock is still on, whoever looks"


def test_today_has_visits_in_hand_first_and_closed_ones_no_more(anna, visit):
    other = {**visit, "visit": str(uuid4())}
    assert anna.put(f"/visits/{other['visit']}", body(visit, planned_for="2026-11-01")).status_code == 200
    told(anna, visit, "begun")
    lines = anna.get("/today").json()["visits"]
    assert [line["id"] for line in lines] == [visit["visit"], other["visit"]]
    told(anna, visit, "closed")
    assert [line["id"] for line in anna.get("/today").json()["visits"]] == [other["visit"]]
    assert len(anna.get("/visits").json()) == 2


def test_a_retry_is_the_same_visit_and_the_same_event(anna, visit):
    assert anna.put(f"/visits/{visit['visit']}", body(visit)).status_code == 200
    assert anna.put(f"/visits/{visit['visit']}", body(visit, why="Other")).status_code == 409
    event = str(uuid4())
    told(anna, visit, "noted", event, what="Owner wants a quote for the grinder")
    assert len(told(anna, visit, "noted", event, what="Owner wants a quote for the grinder")["notes"]) == 1
    path = f"/visits/{visit['visit']}/events/{event}"
    assert anna.put(path, {"kind": "noted", "entry": {"what": "Else"}}).status_code == 409


def test_a_new_plan_follows_the_old_one_and_both_stay(anna, visit):
    shown = told(anna, visit, "planned", circuits=[visit["circuit"]], works=["live-tests"])
    assert [step["work"] for step in shown["plan"]] == ["live-tests"]


@pytest.mark.parametrize(
    ("changes", "path"),
    [
        ({"why": " "}, "why"),
        ({"circuits": []}, "circuits"),
        ({"works": []}, "works"),
        ({"works": ["dance"]}, "works"),
        ({"circuits": [str(uuid4())]}, "circuits[0]"),
    ],
)
def test_what_is_wrong_with_a_plan_is_named_and_nothing_is_written(anna, place, changes, path):
    answer = anna.put(f"/visits/{uuid4()}", body(place, **changes))
    assert answer.status_code in (404, 422), answer.content
    assert answer.json()["problems"][0]["path"] == path
    assert anna.get("/visits").json() == []


@pytest.mark.parametrize(
    ("kind", "more", "path"),
    [
        ("left-open", {}, "entry.what"),
        ("put-right", {"event": str(uuid4())}, "entry.event"),
        ("planned", {"circuits": ["x"], "works": ["live-tests"]}, "entry.circuits"),
        ("danced", {}, "kind"),
    ],
)
def test_an_event_that_says_nothing_is_refused(anna, visit, kind, more, path):
    answer = anna.put(f"/visits/{visit['visit']}/events/{uuid4()}", {"kind": kind, "entry": more})
    assert answer.status_code == 422, answer.content
    assert answer.json()["problems"][0]["path"] == path


def test_what_can_be_planned_says_when_it_was_last_tested(anna, place):
    [before] = anna.get(f"/sites/{place['site']}/plannable").json()
    assert (before["last_tested"], before["worst"], before["safe"]) == (None, "untested", False)
    record(anna, place, entry(119.8))
    [after] = anna.get(f"/sites/{place['site']}/plannable").json()
    assert after["last_tested"] is not None
