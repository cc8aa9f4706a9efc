"""A round in practice: each outlet has its own truth, and each is to be known."""

from uuid import uuid4

import pytest

from tests.server.practice import PAIRS, InACase, begun

ROUND = "pier-pads-round"
WRONG = {"east", "west"}


@pytest.fixture
def pads(anna):
    return begun(anna, ROUND)


def outlets(pads):
    return {each["mark"]: each["id"] for each in pads.get("/practised").json()["outlets"]}


def reads(pads, outlet, one, other, tester="meter", **more):
    about = {"quantity": "voltage", "mode": "ac", "from": one, "to": other, **more}
    asked = {"entry": about, "tester": pads.testers[tester], "point": outlet}
    shown = pads.post("/practised/shown", asked)
    assert shown.status_code == 200, shown.content
    body = {"entry": {**about, **shown.json()["entry"]}, "tester": pads.testers[tester]}
    assert pads.put(f"/points/{outlet}/readings/{uuid4()}", body).status_code == 200
    return shown.json()["entry"]["value"]


def test_each_outlet_shows_its_own_truth_in_the_round_that_is_begun_there(pads):
    here = outlets(pads)
    assert list(here) == ["north", "east", "south", "west"]
    volts = {mark: [reads(pads, point, *pair) for pair in PAIRS] for mark, point in here.items()}
    assert volts["north"][1] > 100
    assert volts["east"][1] < 5
    assert volts["east"][2] > 90
    [site] = pads.get("/sites").json()
    [circuit] = pads.get(f"/sites/{site['id']}").json()["supplies"][0]["boards"][0]["circuits"]
    gone = str(uuid4())
    answer = pads.put(
        f"/rounds/{gone}", {"site": site["id"], "circuit": circuit["id"], "tester": pads.testers["meter"]}
    )
    assert answer.status_code == 200, answer.content
    assert {stop["id"] for stop in pads.get(f"/rounds/{gone}").json()["stops"]} == set(here.values())


def test_named_without_readings_it_is_a_guess_and_one_let_pass_is_wrong(anna):
    def concluded(*marks):
        pads = begun(anna, ROUND)
        assert pads.does("concluded", conditions=list(marks)).status_code == 200
        return pads.get("/practised/debrief").json()

    guess = concluded("east", "west")
    assert (guess["conclusion"], guess["mastered"], guess["round"]) == ("guessed", False, True)
    assert guess["said"].startswith(
        "Not right: pier east, pier west, and you named them. But nothing settled pier north"
    )
    passed = concluded("east")
    assert passed["conclusion"] == "wrong"
    assert passed["said"].endswith("You let pier west pass.")
    assert passed["planner"][0]["what"].startswith("pier north: ")


def test_a_point_of_no_round_is_refused_and_a_hint_is_of_the_first_outlet_left_open(pads, anna):
    pair = {"quantity": "voltage", "mode": "ac", "from": "L", "to": "N"}
    asked = {"entry": pair, "tester": pads.testers["meter"], "point": str(uuid4())}
    assert pads.post("/practised/shown", asked).status_code == 422
    assert pads.does("hint").json()["hints"][-1].startswith("Nothing settles pier north yet.")
    assert isinstance(pads, InACase)
