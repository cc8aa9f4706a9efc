"""Hunts in practice: what is shown along them, what comes of what is done, what is told afterwards."""

from uuid import uuid4

import pytest

from tests.server.practice import begun, proved_dead

LOOM, DEW, HALL = "loom-will-not-start", "dew-heaters-trip", "hall-dark-end"


class OnAHunt:
    """Somebody hunting in a case."""

    def __init__(self, person, name):
        self.there = begun(person, name)
        self.hunt = self.there.get("/practised").json()["hunt"]
        run = self.told().get("run") or {"points": []}
        self.places = {point["name"]: point["id"] for point in run["points"]}

    def told(self):
        return self.there.get(f"/hunts/{self.hunt}").json()

    def probes(self, at, function="volts", ends=("L", "N"), **more):
        at = self.places.get(at, at)
        return {"hunt": self.hunt, "at": at, "function": function, "from": ends[0], "to": ends[1], **more}

    def shows(self, at, *how, tester="meter", **more):
        return self.there.shows(self.probes(at, *how, **more), tester)

    def tells(self, tester="meter", **entry):
        entry = {key: self.places.get(value, value) if key == "at" else value for key, value in entry.items()}
        body = {"kind": "seen", "entry": entry, "tester": self.there.testers[tester]}
        return self.there.put(f"/hunts/{self.hunt}/events/{uuid4()}", body)

    def opens(self, box):
        return self.there.does("opened", entry={"at": self.places[box]}).json()

    def concludes(self, *places):
        assert self.there.does("concluded", conditions=places).status_code == 200
        return self.there.get("/practised/debrief").json()


def test_a_chain_is_halved_on_the_displays_and_the_conclusion_follows(anna):
    loom = OnAHunt(anna, LOOM)
    for joint in ("warp stop", "start button", "overload contact"):
        shown = loom.shows(joint).json()["entry"]["value"]
        assert (shown > 200) is (joint == "warp stop")
        assert loom.tells(after=joint, volts=shown).status_code == 200
    found = loom.concludes("overload contact")
    assert (found["conclusion"], found["mastered"], found["certain_after"]) == ("followed", True, 3)
    assert found["economical"]
    assert found["hidden"] == "Overload contact"
    assert [look["what"] for look in found["taken"]] == [
        "After warp stop",
        "After start button",
        "After overload contact",
    ]


def test_a_short_shows_on_the_side_it_is_on_once_the_box_is_open_and_dead(anna):
    dew = OnAHunt(anna, DEW)
    assert dew.there.get("/practised").json()["device"] == "open"
    at_board = dew.shows("board", "ohms", ("L", "PE")).json()
    assert 0 < at_board["entry"]["value"] < 2
    assert dew.shows("board", "ohms", ("L", "N")).json()["entry"] == {
        "over_range": True,
        "unit": "ohm",
        "source": "captured",
    }
    closed = dew.shows("heater box 3", "ohms", ("L", "PE"))
    assert closed.status_code == 422
    assert "open the box first" in closed.content.decode()


def test_a_device_closed_onto_the_fault_trips_again_and_is_told(anna):
    dew = OnAHunt(anna, DEW)
    here = dew.there.does("on").json()
    assert here["device"] == "open"
    assert [met["danger"] for met in here["dangers"]] == ["onto-fault"]
    assert not here["over"]


@pytest.mark.parametrize(
    ("name", "box", "danger"), [(DEW, "heater box 3", "touched-unproved"), (HALL, "piano socket", "touched-live")]
)
def test_a_hand_in_a_box_that_was_not_proved_dead_ends_the_case(anna, name, box, danger):
    case = OnAHunt(anna, name)
    here = case.opens(box)
    assert here["over"]
    assert [met["danger"] for met in here["dangers"]] == [danger]
    found = case.there.get("/practised/debrief").json()
    assert (found["conclusion"], found["mastered"]) == ("ended", False)
    assert any("Opened" in done["said"] for done in found["did"])


def test_volts_at_a_face_follow_the_open_neutral_and_an_unproved_meter_shows_nothing(anna):
    hall = OnAHunt(anna, HALL)

    def value(at, ends, tester):
        return hall.shows(at, "volts", ends, tester=tester).json()["entry"]

    assert value("window socket", ("L", "N"), "two pole")["at_least"] == 230
    assert "at_least" not in value("stage left socket", ("L", "N"), "two pole")
    assert value("stage left socket", ("N", "PE"), "two pole")["at_least"] == 230
    assert value("window socket", ("L", "N"), "old meter")["value"] < 1


def test_what_was_told_otherwise_than_it_was_is_a_slip_and_a_guess_is_a_guess(anna):
    hall = OnAHunt(anna, HALL)
    hall.tells("two pole", at="stage left socket", live=True)
    hall.tells("two pole", at="piano socket", here=True)
    found = hall.concludes("piano socket")
    assert [look["slip"] for look in found["taken"]] == ["it was dead", "the box was not open"]
    assert found["slips"] == 2


def test_opened_after_a_proof_each_side_shows_and_the_cable_is_found(anna):
    dew = OnAHunt(anna, DEW)
    assert proved_dead(dew.there)["state"]["state"] == "proved-dead"
    assert dew.tells(at="board", onward=True).status_code == 200
    for box, sides in (
        ("heater box 3", (False, True)),
        ("heater box 5", (True, False)),
        ("heater box 4", (True, False)),
    ):
        here = dew.opens(box)
        assert not here["over"]
        assert dew.places[box] in here["opened"]
        for side, shows in zip(("feed", "onward"), sides, strict=True):
            shown = dew.shows(box, "ohms", ("L", "PE"), side=side).json()["entry"]
            assert ("over_range" not in shown) is shows
        assert dew.tells(at=box, feed=sides[0], onward=sides[1]).status_code == 200
    found = dew.concludes("to heater box 4")
    assert (found["conclusion"], found["mastered"], found["slips"]) == ("followed", True, 0)
    assert found["hidden"] == "The cable to heater box 4"
    assert found["minutes"] == found["planner_minutes"], "it was gone through as the planner does"
    shared = dew.there.get("/practised/case").json()
    again = begun(anna, "", case=shared).get("/practised").json()
    assert (again["title"], again["hunt"] is None) == ("The dew heaters trip", False)


def test_hints_say_where_it_can_be_and_which_look_decides(anna):
    loom = OnAHunt(anna, LOOM)
    said = [loom.there.does("hint").json()["hints"][-1] for _ in range(3)]
    assert said[0].startswith("It can still be in 7 places")
    assert said[1] == "The look that decides most: measure after warp stop."
    assert said[2].startswith("Why: ")
    assert loom.there.does("hint").status_code == 422
    loom.tells(after="warp stop", volts=229.0)
    assert loom.there.does("hint").json()["hints"][-1].startswith("It can still be in 3 places")


def test_nothing_of_another_hunt_is_reached_from_a_case_and_bad_probes_are_refused(anna, place):
    loom, other = OnAHunt(anna, LOOM), OnAHunt(anna, DEW)
    assert loom.there.get(f"/hunts/{other.hunt}").status_code == 404
    assert anna.get(f"/hunts/{loom.hunt}").status_code == 404
    for wrong, key in (
        ({"at": "nowhere"}, "entry.at"), ({"function": "amps"}, "entry.function"), ({"to": "L"}, "entry.from"),
        ({"side": "left"}, "entry.side"),
    ):  # fmt: skip
        answer = loom.there.shows({**loom.probes("feed"), **wrong})
        assert answer.status_code == 422
        assert [p["path"] for p in answer.json()["problems"]] == [key]
    assert loom.there.does("opened", entry={"at": "nowhere"}).status_code == 422
    assert begun(anna).does("opened", entry={"at": "feed"}).status_code == 422


def test_what_was_met_is_counted_by_case_tester_and_slip(anna):
    loom = OnAHunt(anna, LOOM)
    loom.tells("old meter", after="warp stop", volts=0.0)
    loom.concludes("control fuse")
    dew = OnAHunt(anna, DEW)
    dew.there.does("on")
    dew.opens("heater box 1")
    dew.there.get("/practised/debrief")
    found = anna.get("/practice").json()["learnt"]
    named = {part: {each["name"]: each["mastered"] for each in found[part]} for part in found}
    assert named["about"] == {
        "Hunting a short or a fault to ground": False,
        "Hunting an open element of a control chain": False,
    }
    assert named["testers"] == {"multimeter": False}
    assert set(named["slips"]) == {
        "closed onto a fault", "concluded what it was not", "touched before it was proved dead",
        "written down otherwise than it was",
    }  # fmt: skip
