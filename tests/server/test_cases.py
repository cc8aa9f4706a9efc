"""Cases of a file, made of a real point, shared, drawn, and those that are to be made dead."""

from uuid import uuid4

import pytest

from evenprobe.formats.case import shipped
from practising.models import Practised
from proofs.models import ProofEvent
from tests.server.practice import KETTLE, begun, proof_of, proved_dead


@pytest.fixture
def kettle(anna):
    return begun(anna)


@pytest.fixture
def pump(anna):
    """A case to be made dead, that something else feeds too."""
    return begun(anna, "two-ways-in")


def test_a_case_of_a_file_is_checked_and_opened(anna):
    own = shipped()[KETTLE].model_dump(mode="json", by_alias=True, exclude_none=True)
    assert begun(anna, "", case=own).get("/practised").json()["title"] == own["title"]
    wrong = {**own, "hidden": {**own["hidden"], "condition": "gremlin"}}
    answer = anna.put(f"/practice/{uuid4()}", {"case": wrong})
    assert answer.status_code == 422
    assert "hidden.condition" in [p["path"] for p in answer.json()["problems"]]
    assert anna.put(f"/practice/{uuid4()}", {"name": "no-such"}).status_code == 422


def test_a_case_made_of_a_real_point_says_no_name_of_it_and_can_be_practised(anna, place):
    anna.put(
        f"/testers/{uuid4()}", {"kind": "multimeter", "label": "Anna's own", "rated_v": 600, "known_issue": "hers"}
    )
    made = anna.post(f"/points/{place['point']}/case", {"hidden": "open-earth", "title": "No earth", "step": 1})
    assert made.status_code == 200, made.content
    told = anna.get("/sites").json() + anna.get("/testers").json()
    names = {one.get("name") or one["label"] for one in told} | {"Anna's own", "hers"}
    assert not [name for name in names if name in made.content.decode()]
    case = made.json()
    assert case["hidden"]["condition"] == "open-earth"
    assert case["installation"]["points"][0].get("readings", []) == []
    opened = begun(anna, "", case=case)
    assert opened.get("/practised").json()["title"] == "No earth"
    assert opened.shows({"quantity": "voltage", "mode": "ac", "from": "L", "to": "N"}, "multimeter").status_code == 200


@pytest.mark.parametrize(
    ("wrong", "where"),
    [
        ({"hidden": "phase-missing"}, "hidden"),
        ({"step": 9}, "step"),
        ({"title": "  "}, "title"),
        ({"hidden": "x"}, "hidden"),
    ],
)
def test_what_cannot_be_made_a_case_is_named(anna, place, wrong, where):
    told = {"hidden": "open-earth", "title": "No earth", "step": 1, **wrong}
    made = anna.post(f"/points/{place['point']}/case", told)
    assert made.status_code == 422
    assert made.json()["problems"][0]["path"].startswith(where)


def test_a_case_is_shared_only_once_it_is_over(kettle):
    assert kettle.get("/practised/case").status_code == 409
    kettle.does("touched")
    shared = kettle.get("/practised/case").json()
    assert shared["title"] == "The kettle stays cold"


def test_a_case_drawn_is_the_same_for_whoever_says_its_numbers(anna, stranger):
    one, other = (begun(person, "", drawn={"step": 1, "seed": 7}) for person in (anna, stranger))
    ours, theirs = (Practised.objects.get(pk=each.case).case for each in (one, other))
    assert ours == theirs
    answer = anna.put(f"/practice/{uuid4()}", {"drawn": {"step": 5, "seed": 7}})
    assert [problem["path"] for problem in answer.json()["problems"]] == ["step"]


def shown_at(case, pair):
    """Volts that the two-pole has at least between two contacts."""
    entry = {"quantity": "voltage", "mode": "ac", "from": pair[0], "to": pair[1]}
    return case.shows(entry, "two pole").json()["entry"].get("at_least", 0.0)


def test_what_is_off_may_still_be_fed_until_the_other_feed_is_found(pump):
    assert pump.get("/practised").json()["to_be_made_dead"]
    pump.does("off")
    assert shown_at(pump, ("L", "N")) == 230
    assert pump.does("feed-off").status_code == 422
    found = pump.does("looked").json()
    assert found["feed"] == {"name": "the night-light inverter, way 2", "device": "closed", "locked": False}
    pump.does("feed-off")
    assert shown_at(pump, ("L", "N")) == 0
    pump.does("feed-on")
    assert shown_at(pump, ("L", "N")) == 230


def sheet_in(case):
    """A sheet of the case's circuit, and the ids of its lines."""
    [circuit] = case.get("/sheets").json()["circuits"]
    sheet = str(uuid4())
    answer = case.put(f"/sheets/{sheet}", {"circuit": circuit["id"]})
    assert answer.status_code == 200, answer.content
    return sheet, [line["id"] for line in answer.json()["lines"]]


@pytest.fixture
def in_the_dark(anna):
    return begun(anna, "swapped-in-the-dark")


def test_a_dead_test_shows_what_is_between_its_ends_with_the_leads_on_it(in_the_dark):
    in_the_dark.does("off")
    sheet, lines = sheet_in(in_the_dark)
    tips = in_the_dark.shows({"sheet": sheet}, "low ohm").json()
    assert tips["typed"] == "0.18"
    earth = next(name for name in lines if name.startswith("joined PE"))
    shown = in_the_dark.shows({"sheet": sheet, "line": earth}, "low ohm").json()
    bench = {"quantity": "resistance", "from": "PE", "to": "BOARD-PE", "device": "open"}
    alone = in_the_dark.shows(bench, "low ohm").json()
    assert float(shown["typed"]) == pytest.approx(alone["entry"]["value"] + 0.18, abs=0.1)


def test_a_dead_test_on_what_is_live_blows_the_fuse(in_the_dark):
    sheet, lines = sheet_in(in_the_dark)
    assert "apart L-N" in lines
    told = {"sheet": sheet, "line": "apart L-N"}
    found = in_the_dark.does("probed", entry=told, tester=in_the_dark.testers["low ohm"]).json()
    assert [met["danger"] for met in found["dangers"]] == ["blown"]


@pytest.mark.parametrize("test", ["much", [1], {"test_v": "many"}])
def test_what_is_no_test_is_named(in_the_dark, test):
    sheet, _ = sheet_in(in_the_dark)
    answer = in_the_dark.shows({"sheet": sheet, "line": "insulation L-N", "test": test}, "low ohm")
    assert answer.status_code == 422


@pytest.mark.parametrize("told", [{"sheet": "x", "line": "y"}, {"sheet": None, "line": "y"}])
def test_what_is_no_sheet_is_named(in_the_dark, told):
    answer = in_the_dark.shows(told, "low ohm")
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["path"].startswith("entry")


def test_a_feed_that_is_not_there_is_not_found(kettle):
    assert kettle.does("looked").json()["feed"] is None
    assert kettle.does("feed-off").status_code == 422


def test_hands_on_what_something_else_feeds_end_the_case(pump):
    pump.does("off")
    pump.does("locked")
    assert "touched it live" in pump.does("touched").json()["ended"]
    debrief = pump.get("/practised/debrief").json()
    assert (debrief["conclusion"], debrief["mastered"]) == ("ended", False)
    assert "the night-light inverter, way 2" in debrief["said"]
    assert [done["said"] for done in debrief["did"]] == [
        "Switched the circuit off.", "Locked its device.", "Put hands on the conductors.",
    ]  # fmt: skip
    assert debrief["planner"][4]["what"].startswith("Find what feeds it")


def test_a_case_to_be_made_dead_is_not_concluded_otherwise(pump):
    assert pump.does("concluded", conditions=["correct"]).status_code == 422


def test_a_source_that_nobody_found_switches_nothing(pump):
    proof_of(pump, {"type": "off", "source": "s1"}, {"type": "off", "source": "s2"})
    assert shown_at(pump, ("L", "N")) == 230


def test_proved_dead_of_every_feed_hands_end_the_case_well(pump):
    pump.does("looked")
    stood = proved_dead(pump)
    assert stood["state"]["state"] == "proved-dead", stood["state"]
    found = pump.does("touched").json()
    assert (found["over"], found["ended"]) == (True, "")
    debrief = pump.get("/practised/debrief").json()
    assert (debrief["conclusion"], debrief["mastered"]) == ("followed", True)
    assert len(debrief["did"]) == 1 + 4 + 5 + 1


def test_one_source_switched_off_in_a_proof_is_one_source(pump):
    proof_of(pump, {"type": "off", "source": "s1"})
    assert shown_at(pump, ("L", "N")) == 230
    assert ProofEvent.objects.count() == 1
