"""Rounds through the API: progress, skipping, resuming, presser and watcher, and a retry of each."""

from uuid import uuid4

import pytest

from readings.models import Reading
from rounds.models import Round, RoundEvent

PLUG_TESTER = {
    "label": "Plug tester",
    "kind": "digital-plug-tester",
    "proved": True,
    "test_ma": 7,
    "category": "III",
    "rated_v": 300,
}
READINGS = (("L", "N", 119.8), ("L", "PE", 119.9), ("N", "PE", 0.1))


def volts(one, other, value):
    return {"quantity": "voltage", "mode": "ac", "from": one, "to": other, "value": value, "unit": "V"}


def quick_check(person, point, tester=None):
    for one, other, value in READINGS:
        path = f"/points/{point}/readings/{uuid4()}"
        assert person.put(path, {"entry": volts(one, other, value), "tester": tester}).status_code == 200


@pytest.fixture
def outlets(anna, place):
    """The circuit's outlets, three more in the workshop, one of another circuit there, and a junction."""
    other = str(uuid4())
    anna.put(f"/circuits/{other}", {"board": place["board"], "name": "Bench lamp", "residual_ma": 6})
    found = [place["point"]]
    for name, circuit, kind in (
        ("Outlet 2", place["circuit"], "outlet"),
        ("Outlet 3", place["circuit"], "outlet"),
        ("Junction", place["circuit"], "junction"),
        ("Bench outlet", other, "outlet"),
    ):
        point = str(uuid4())
        body = {"circuit": circuit, "name": name, "kind": kind, "terminals": ["L", "N", "PE"], "room": "Workshop"}
        assert anna.put(f"/points/{point}", body).status_code == 200
        found.append(point)
    return found


def begin(person, place, **what):
    return person.put(f"/rounds/{place['round']}", {"site": place["site"], **what})


def event(person, place, point, kind, event_id=None, **more):
    return person.put(f"/rounds/{place['round']}/events/{event_id or uuid4()}", {"point": point, "kind": kind, **more})


def test_a_round_of_a_circuit_goes_on_where_it_was_left(anna, place, outlets):
    quick_check(anna, outlets[0], place["tester"])
    found = begin(anna, place, circuit=place["circuit"], tester=place["tester"]).json()
    assert [stop["name"] for stop in found["stops"]] == ["Outlet 1", "Outlet 2", "Outlet 3"]
    assert (found["left"], found["next"]) == (3, outlets[0]), "what was read before the round is not of it"
    quick_check(anna, outlets[0], place["tester"])
    event(anna, place, outlets[1], "skipped", reason="locked store, key on Monday")
    found = begin(anna, place, circuit=place["circuit"], tester=place["tester"]).json()
    assert [stop["state"] for stop in found["stops"]] == ["quick", "skipped", "left"]
    assert found["stops"][1]["reason"] == "locked store, key on Monday"
    assert (found["done"], found["full"], found["skipped"], found["left"]) == (1, 0, 1, 1)
    assert found["next"] == outlets[2]
    quick_check(anna, outlets[1], place["tester"])
    quick_check(anna, outlets[2], place["tester"])
    found = anna.get(f"/rounds/{place['round']}").json()
    assert (found["done"], found["skipped"], found["next"]) == (3, 0, None)
    assert anna.get("/today").json()["rounds"] == []


def test_a_danger_found_makes_the_check_a_full_one(anna, place, outlets):
    begin(anna, place, circuit=place["circuit"])
    quick_check(anna, outlets[0])
    anna.put(f"/points/{outlets[0]}/readings/{uuid4()}", {"entry": volts("PE", "REF", 119.4)})
    stop = anna.get(f"/rounds/{place['round']}").json()["stops"][0]
    assert (stop["state"], stop["verdict"]) == ("full", "danger")
    assert anna.get("/rounds").json()[0]["worst"] == "danger"


def test_a_reading_taken_back_or_of_a_tester_not_proved_is_no_quick_check(anna, place, outlets):
    begin(anna, place, circuit=place["circuit"])
    broken = str(uuid4())
    anna.put(f"/testers/{broken}", {"label": "M5", "kind": "multimeter", "proved": False})
    quick_check(anna, outlets[0], broken)
    assert anna.get(f"/rounds/{place['round']}").json()["stops"][0]["state"] == "begun"
    quick_check(anna, outlets[0])
    stop = anna.get(f"/rounds/{place['round']}").json()["stops"][0]
    assert stop["state"] == "quick"
    taken = stop["quick"][0]["reading"]
    anna.put(f"/points/{outlets[0]}/withdrawals/{uuid4()}", {"reading": taken})
    assert anna.get(f"/rounds/{place['round']}").json()["stops"][0]["state"] == "begun"


def test_why_an_unfit_tester_s_readings_make_no_quick_check_is_said(anna, place, outlets):
    damaged = str(uuid4())
    body = {"label": "M6", "kind": "multimeter", "proved": True, "category": "II", "rated_v": 300, "damage": True}
    anna.put(f"/testers/{damaged}", body)
    begin(anna, place, circuit=place["circuit"], tester=damaged)
    quick_check(anna, outlets[0], damaged)
    stop = anna.get(f"/rounds/{place['round']}").json()["stops"][0]
    assert stop["state"] == "begun"
    assert "damage" in stop["unfit"]


def test_a_round_of_a_room_crosses_circuits(anna, place, outlets):
    found = begin(anna, place, room="Workshop").json()
    assert [stop["name"] for stop in found["stops"]] == ["Outlet 2", "Outlet 3", "Bench outlet"]
    assert found["goes_dark"] == []


@pytest.mark.parametrize(
    ("what", "path"),
    [({}, "circuit"), ({"room": "Cellar"}, "room"), ({"circuit": "{circuit}", "room": "Workshop"}, "circuit")],
)
def test_a_round_of_nothing_is_refused_with_where(anna, place, outlets, what, path):
    answer = begin(anna, place, **{key: value.format(**place) for key, value in what.items()})
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["path"] == path
    assert Round.objects.count() == 0


def test_one_presses_and_another_watches_the_board(anna, place, outlets):
    plug = str(uuid4())
    anna.put(f"/testers/{plug}", PLUG_TESTER)
    circuit = {"board": place["board"], "name": "Workshop", "rating_a": 20, "residual_ma": 6}
    anna.put(f"/circuits/{place['circuit']}", circuit)
    found = begin(anna, place, circuit=place["circuit"], tester=plug).json()
    assert [q["quantity"] for q in found["stops"][0]["quick"]] == [*["voltage"] * 3, "trip"]
    assert found["goes_dark"] == ["Outlet 1", "Outlet 2", "Outlet 3", "Junction"]
    quick_check(anna, outlets[0], plug)
    assert anna.get(f"/rounds/{place['round']}").json()["stops"][0]["state"] == "begun"
    assert event(anna, place, outlets[0], "pressed").json()["press"]["state"] == "pressed"
    seen = uuid4()
    for _ in range(2):
        found = event(anna, place, outlets[0], "watched", seen, tripped=True, reason="the main one went").json()
    assert (found["press"]["state"], found["press"]["name"]) == ("dark", "Outlet 1")
    assert (found["stops"][0]["state"], found["stops"][0]["unfit"]) == ("quick", "")
    trip = Reading.objects.get(id=seen)
    assert trip.entry == {"quantity": "trip", "value": True, "test_ma": 7, "note": "the main one went"}
    assert event(anna, place, outlets[0], "reset").json()["press"] is None
    clash = event(anna, place, outlets[0], "watched", seen, tripped=False)
    assert clash.status_code == 409
    assert RoundEvent.objects.count() == 3


@pytest.mark.parametrize(
    ("body", "path"),
    [
        ({"kind": "skipped", "reason": " x "}, "reason"),
        ({"kind": "watched"}, "tripped"),
        ({"kind": "thrown"}, "kind"),
    ],
)
def test_an_event_that_says_too_little_is_refused_and_nothing_is_kept(anna, place, outlets, body, path):
    begin(anna, place, circuit=place["circuit"])
    answer = event(anna, place, outlets[0], **body)
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["path"] == path
    assert event(anna, place, outlets[4], "pressed").json()["problems"][0]["path"] == "point"
    assert RoundEvent.objects.count() == 0


def test_no_event_is_edited_or_deleted(anna, place, outlets):
    begin(anna, place, circuit=place["circuit"])
    event(anna, place, outlets[0], "pressed")
    kept = RoundEvent.objects.get()
    with pytest.raises(RuntimeError):
        kept.save()
    with pytest.raises(RuntimeError):
        kept.delete()
