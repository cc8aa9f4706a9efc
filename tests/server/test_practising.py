"""Practice through the API: a case in a sandbox of its own, what acts lead to, the debrief, and that nothing enters
the record."""

import json
from datetime import timedelta
from uuid import uuid4

import pytest
from django.contrib.auth import get_user_model
from django.utils import timezone

from crews.models import Membership, Role
from evenprobe.formats.case import shipped
from practising.models import CaseDebrief, Practised, PractisedAct
from readings.models import Reading
from tests.server.conftest import Person, member
from tests.server.practice import KETTLE, PAIRS, begun


@pytest.fixture
def kettle(anna):
    return begun(anna)


def test_a_case_opens_with_its_point_and_its_testers_and_keeps_what_is_hidden(kettle):
    found = kettle.get("/practised").json()
    assert found["title"] == "The kettle stays cold"
    assert list(kettle.testers) == ["meter"]
    assert "hidden" not in json.dumps(found)
    bench = kettle.get(f"/points/{kettle.point}/bench").json()
    assert bench["interpretation"]["verdict"] == "untested"
    assert bench["terminals"] == ["L", "N", "PE"]


def test_a_tap_shows_what_the_tester_shows_and_records_nothing(kettle):
    shown = kettle.shows({"quantity": "voltage", "mode": "ac", "from": "L", "to": "PE"}).json()
    assert 110 < shown["entry"]["value"] < 130
    assert shown["entry"]["source"] == "captured"
    assert shown["said"].endswith(" V")
    assert not Reading.objects.exists()


@pytest.mark.parametrize(
    ("entry", "path"),
    [
        ({"quantity": "voltage", "from": "L"}, "to"),
        ({"quantity": "voltage", "from": "L", "to": "L3"}, "to"),
        ({"quantity": "warmth", "from": "L", "to": "N"}, "quantity"),
        ({"quantity": "frequency"}, "entry"),
    ],
)
def test_what_cannot_be_shown_is_named(kettle, entry, path):
    answer = kettle.shows(entry)
    assert answer.status_code == 422
    assert path in [problem["path"] for problem in answer.json()["problems"]]


def test_what_was_read_and_concluded_is_looked_back_on(kettle):
    for pair in PAIRS:
        assert kettle.records(*pair).status_code == 200
    kettle.does("concluded", conditions=["open-neutral", "line-earth-swapped"])
    found = kettle.get("/practised/debrief").json()
    assert found["hidden"] == "Neutral open along the run"
    assert [t["what"] for t in found["taken"]] == ["H to N", "H to G", "N to G"]
    assert "Correct" in found["taken"][0]["struck_out"]
    assert found["planner"]
    assert found["slips"] == 0
    assert found["dangers"] == []
    again = kettle.get("/practised/debrief").json()
    assert again == found
    assert CaseDebrief.objects.count() == 1


@pytest.mark.parametrize("uncovered", ["shown", "touched"])
def test_nothing_is_concluded_of_a_reading_until_it_is_asked_for_or_the_case_is_over(kettle, uncovered):
    kettle.records("L", "N")
    found = kettle.get(f"/points/{kettle.point}/bench").json()
    assert (found["covered"], found["interpretation"]["verdict"]) == (True, "untested")
    assert found["interpretation"]["conditions"] == found["interpretation"]["next_tests"] == []
    assert kettle.does(uncovered).status_code == 200
    found = kettle.get(f"/points/{kettle.point}/bench").json()
    assert (found["covered"], found["interpretation"]["verdict"]) == (False, "danger")
    assert found["interpretation"]["conditions"]


def test_what_does_not_count_is_said_while_nothing_is_concluded(kettle):
    hertz = {"quantity": "frequency", "from": "L", "to": "N", "value": 50.0}
    about = {"entry": hertz, "tester": kettle.testers["meter"]}
    found = kettle.put(f"/points/{kettle.point}/readings/{uuid4()}", about).json()
    assert found["covered"]
    assert [one["reading"] for one in found["interpretation"]["not_counted"]] == [found["readings"][-1]["id"]]


def test_a_number_written_down_that_was_not_shown_is_a_slip(kettle):
    kettle.records("L", "PE", value=12.0)
    kettle.does("concluded", conditions=["open-neutral"])
    [taken] = kettle.get("/practised/debrief").json()["taken"]
    assert "the display had 1" in taken["slip"]


def test_a_conclusion_that_nothing_led_to_is_called_a_guess(kettle):
    kettle.records("L", "N")
    kettle.does("concluded", conditions=["open-neutral"])
    found = kettle.get("/practised/debrief").json()
    assert found["conclusion"] == "guessed"
    assert not found["mastered"]


def test_ohms_on_a_live_circuit_blow_the_fuse_and_the_meter_is_dark(kettle):
    ohms = {"quantity": "resistance", "from": "L", "to": "PE"}
    found = kettle.does("probed", entry=ohms, tester=kettle.testers["meter"]).json()
    assert found["blown"] == [kettle.testers["meter"]]
    assert found["dangers"][0]["danger"] == "blown"
    assert kettle.shows(ohms).json() == {"said": "", "entry": None, "typed": ""}
    assert not found["over"]


def test_ohms_on_a_circuit_that_is_off_are_only_ohms(kettle):
    kettle.does("off")
    ohms = {"quantity": "resistance", "from": "L", "to": "PE"}
    found = kettle.does("probed", entry=ohms, tester=kettle.testers["meter"]).json()
    assert found["blown"] == []
    assert kettle.shows(ohms).json()["entry"]["unit"] == "ohm"


def test_nothing_is_measured_with_a_tester_that_is_not_at_hand(kettle):
    volts = {"quantity": "voltage", "mode": "ac", "from": "L", "to": "PE"}
    for tester in (None, str(uuid4())):
        answer = kettle.post("/practised/shown", {"entry": volts, "tester": tester})
        assert [problem["path"] for problem in answer.json()["problems"]] == ["tester"]


def test_what_is_off_shows_nothing(kettle):
    kettle.does("off")
    volts = {"quantity": "voltage", "mode": "ac", "from": "L", "to": "PE"}
    assert kettle.shows(volts).json()["entry"]["value"] < 2


@pytest.mark.parametrize(("first", "danger"), [((), "touched-live"), (("off", "locked"), "touched-unproved")])
def test_touching_too_early_ends_the_case(kettle, first, danger):
    for doing in first:
        kettle.does(doing)
    found = kettle.does("touched").json()
    assert found["over"]
    assert found["dangers"][-1]["danger"] == danger
    assert found["ended"]
    assert kettle.does("off").status_code == 422
    assert kettle.get("/practised/debrief").json()["conclusion"] == "ended"


def test_what_is_locked_off_is_not_switched_on(kettle):
    kettle.does("off")
    kettle.does("locked")
    assert "lock" in kettle.does("on").json()["problems"][0]["text"]
    kettle.does("unlocked")
    assert kettle.does("on").json()["device"] == "closed"


def test_a_lock_on_what_is_on_is_a_danger(kettle):
    assert kettle.does("locked").json()["dangers"][0]["danger"] == "live-lock"


def test_three_hints_and_then_a_reading(kettle):
    hints = [kettle.does("hint").json()["hints"][-1] for _ in range(3)]
    assert hints[0].startswith("Nothing that counts")
    assert hints[1].startswith("The reading that decides: H to N")
    assert hints[2].startswith("Why: ")
    assert kettle.does("hint").status_code == 422
    kettle.records("L", "N")
    assert kettle.does("hint").status_code == 200


def test_the_same_act_twice_is_one(kettle):
    act = uuid4()
    for _ in range(2):
        assert kettle.put(f"/practised/acts/{act}", {"doing": "off"}).status_code == 200
    assert PractisedAct.objects.count() == 1
    assert kettle.put(f"/practised/acts/{act}", {"doing": "on"}).status_code == 409


def test_the_same_case_twice_is_one(anna):
    case = uuid4()
    for _ in range(2):
        assert anna.put(f"/practice/{case}", {"name": KETTLE}).status_code == 200
    assert Practised.objects.count() == 1


def test_nothing_practised_enters_the_record(anna, place):
    asked = ("/record", "/sites", "/testers", "/today", "/proofs", "/rounds", "/hunts", "/sheets", "/search?text=tea")
    before = [anna.get(path).json() for path in asked]
    kettle = begun(anna)
    for pair in PAIRS:
        kettle.records(*pair)
    kettle.does("concluded", conditions=["open-neutral"])
    assert kettle.get("/practised/debrief").status_code == 200
    assert [anna.get(path).json() for path in asked] == before
    assert anna.get(f"/points/{kettle.point}/bench").status_code == 404


def test_nothing_of_the_record_is_seen_or_changed_in_a_case(anna, place, kettle):
    assert kettle.get(f"/points/{place['point']}/bench").status_code == 404
    assert kettle.get(f"/sites/{place['site']}").status_code == 404
    assert len(kettle.get("/sites").json()) == 1
    for path in ("/people", "/record", "/visits", "/search?text=a", "/own", f"/photos/{uuid4()}", "/sign-offs"):
        assert kettle.get(path).status_code == 404, path
    assert kettle.put(f"/testers/{kettle.testers['meter']}", {"kind": "multimeter", "proved": True}).status_code == 404


def test_no_file_leaves_a_case_that_could_come_into_a_record(kettle):
    [site] = kettle.get("/sites").json()
    for path in (f"/points/{kettle.point}/survey", *(f"/sites/{site['id']}/{of}" for of in ("survey", "record"))):
        assert kettle.get(path).status_code == 404, path


def test_a_case_is_its_own_person_s(anna, kettle, stranger):
    theirs = Person(stranger.client)
    assert theirs.client.get(f"/practice/{kettle.case}/api/practised").status_code == 404
    assert theirs.client.get(f"/practice/{kettle.case}/api/points/{kettle.point}/bench").status_code == 404
    assert theirs.put(f"/practice/{kettle.case}", {"name": KETTLE}).status_code == 409
    assert theirs.get("/practice").json()["went_through"] == []
    assert theirs.get("/practised").status_code == 404
    kettle.client.logout()
    assert kettle.get("/practised").status_code == 401


def test_a_guest_practises_nothing(client_class, place):
    guest = member(client_class(), "ours", role=Role.GUEST, site=place["site"], until=timezone.localdate())
    assert guest.get("/practice").status_code == 403
    assert guest.put(f"/practice/{uuid4()}", {"name": KETTLE}).status_code == 403


def test_what_was_missed_comes_back_first_and_the_crew_s_keeper_sees_it(anna, client_class):
    apprentice = member(client_class(), "ours", role=Role.APPRENTICE)
    listed = apprentice.get("/practice").json()
    assert len(listed["cases"]) == len(shipped())
    assert listed["learners"] == []
    lamp = begun(apprentice, "lamp-says-right")
    lamp.does("touched")
    lamp.get("/practised/debrief")
    listed = apprentice.get("/practice").json()
    assert listed["next"] == "lamp-says-right"
    assert listed["went_through"][0]["conclusion"] == "ended"
    [learner] = anna.get("/practice").json()["learners"]
    assert learner["cases"] == 1
    assert [each["mastered"] for each in learner["learnt"]["about"]] == [False]


def test_a_clock_that_is_off_puts_no_reading_before_its_case(kettle):
    volts = {"quantity": "voltage", "mode": "ac", "from": "L", "to": "N", "value": 0.0}
    early = (timezone.now() - timedelta(hours=1)).isoformat()
    body = {"entry": volts, "tester": kettle.testers["meter"], "taken_at": early}
    assert kettle.put(f"/points/{kettle.point}/readings/{uuid4()}", body).status_code == 200
    kettle.does("concluded", conditions=["open-neutral"])
    assert kettle.get("/practised/debrief").status_code == 200


def test_whoever_has_no_crew_any_more_goes_on_with_no_case(anna, kettle):
    Membership.objects.update(left_at=timezone.now() - timedelta(days=1))
    assert kettle.get("/practised").status_code == 403


@pytest.mark.parametrize("doing", ["", "flown", 7, None, "PROBED"])
def test_what_cannot_be_done_is_named(kettle, doing):
    answer = kettle.does(doing)
    assert answer.status_code == 422
    assert "doing" in answer.json()["problems"][0]["path"]


@pytest.mark.parametrize(
    "entry", [{}, {"quantity": None}, {"quantity": ["voltage"]}, {"quantity": "voltage", "from": 3}]
)
def test_probes_put_on_nothing_are_named(kettle, entry):
    assert kettle.does("probed", entry=entry, tester=kettle.testers["meter"]).status_code == 422
    assert kettle.shows(entry).status_code == 422
    assert not PractisedAct.objects.exists()


def test_a_reading_with_no_tester_of_the_case_confirms_nothing(kettle):
    volts = {"quantity": "voltage", "mode": "ac", "from": "L", "to": "N", "value": 0.0}
    assert kettle.put(f"/points/{kettle.point}/readings/{uuid4()}", {"entry": volts}).status_code == 200
    kettle.does("concluded", conditions=["open-neutral"])
    [taken] = kettle.get("/practised/debrief").json()["taken"]
    assert not taken["counted"]
    assert taken["struck_out"] == []


def test_two_of_a_crew_with_one_name_are_two_learners(anna, client_class):
    for _ in range(2):
        learner = member(client_class(), "ours", role=Role.APPRENTICE)
        user = get_user_model().objects.get(pk=learner.get("/session").json()["account"])
        user.first_name = "Ben"
        user.save()
        begun(learner)
    assert [each["name"] for each in anna.get("/practice").json()["learners"]] == ["Ben", "Ben"]
