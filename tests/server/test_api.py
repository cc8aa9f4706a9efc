"""The server through its API: recording, correcting, retrying, and nobody else's data."""

import json
from uuid import uuid4

import pytest

from readings.models import Reading
from tests.server.conftest import PASSWORD
from tests.server.requests import entry, filled, record


def test_signing_in_and_out(anna, client_class):
    from django.contrib.auth import get_user_model

    newcomer = client_class()
    name = get_user_model().objects.get().username
    body = {"username": name, "password": "wrong"}
    assert newcomer.get("/api/session").status_code == 401
    refused = newcomer.post("/api/session", json.dumps(body), content_type="application/json")
    assert refused.status_code == 403
    body["password"] = PASSWORD
    session = newcomer.post("/api/session", json.dumps(body), content_type="application/json").json()
    assert (session["crew"], session["account"]) == ("ours", get_user_model().objects.get().pk)
    assert newcomer.get("/api/session").json() == session
    assert newcomer.get("/api/sites").status_code == 200
    assert newcomer.delete("/api/session").status_code == 204
    assert newcomer.get("/api/sites").status_code == 401


def test_a_write_without_the_page_s_own_token_is_refused(anna, client_class):
    from django.contrib.auth import get_user_model

    forged = client_class(enforce_csrf_checks=True)
    forged.force_login(get_user_model().objects.get())
    body = json.dumps({"name": "x", "practice": "british"})
    assert forged.put(f"/api/sites/{uuid4()}", body, content_type="application/json").status_code == 403


def test_three_readings_are_unconfirmed_and_the_deciding_one_is_danger(anna, place):
    for value, pair in ((119.8, ("L", "N")), (119.9, ("L", "PE")), (0.1, ("N", "PE"))):
        answer = record(anna, place, entry(value, pair), tester=place["tester"])
        assert answer.status_code == 200, answer.content
    bench = answer.json()
    assert bench["interpretation"]["verdict"] == "unconfirmed"
    assert any({t["from"], t["to"]} == {"PE", "REF"} for t in bench["interpretation"]["next_tests"])
    bench = record(anna, place, entry(119.4, ("PE", "REF"))).json()
    assert bench["interpretation"]["verdict"] == "danger"
    tree = anna.get(f"/sites/{place['site']}").json()
    assert tree["supplies"][0]["boards"][0]["circuits"][0]["points"][0]["verdict"] == "danger"


def test_a_residual_current_device_is_recorded_with_the_circuit_and_a_trip_counts(anna, place):
    circuit = {"board": place["board"], "name": "Workshop outlets", "rating_a": 20, "residual_ma": 6}
    assert anna.put(f"/circuits/{place['circuit']}", circuit).status_code == 200
    assert anna.put(f"/circuits/{place['circuit']}", {**circuit, "residual_ma": -1}).status_code == 422
    bench = anna.get(f"/points/{place['point']}/bench").json()
    assert bench["residual_ma"] == 6
    assert "may trip the 6 mA device" in bench["may_trip"][place["tester"]]
    answer = record(anna, place, {"quantity": "trip", "value": True, "test_ma": 6})
    fallen = {c["id"] for c in answer.json()["interpretation"]["conditions"] if not c["standing"]}
    assert {"open-earth", "earth-from-neutral", "residual-device-fails"} <= fallen
    assert record(anna, place, {"quantity": "trip", "value": "yes"}).status_code == 422
    survey = anna.get(f"/points/{place['point']}/survey").json()
    assert survey["points"][0]["circuit"]["residual_ma"] == 6


def test_which_tester_sees_what_is_said_of_the_point_as_it_stands(anna, place):
    for value, pair in ((119.8, ("L", "N")), (119.9, ("L", "PE")), (0.1, ("N", "PE"))):
        record(anna, place, entry(value, pair))
    meter = anna.get(f"/points/{place['point']}/capabilities/{place['tester']}").json()
    assert "earth-from-neutral-swapped" in {c["id"] for c in meter["can"]}
    plug = str(uuid4())
    anna.put(f"/testers/{plug}", {"label": "Plug tester", "kind": "lamp-tester"})
    lamps = anna.get(f"/points/{place['point']}/capabilities/{plug}").json()
    assert lamps["can"] == []
    assert "earth-from-neutral-swapped" in {c["id"] for c in lamps["cannot"]}
    assert lamps["blind_to"]


def test_a_retry_is_the_same_reading_and_other_content_is_refused(anna, place):
    one = uuid4()
    assert record(anna, place, entry(119.8), one).status_code == 200
    assert record(anna, place, entry(119.8), one).status_code == 200
    assert Reading.objects.count() == 1
    clash = record(anna, place, entry(118.0), one)
    assert clash.status_code == 409
    assert clash.json()["problems"][0]["path"] == "id"
    assert Reading.objects.get().entry["value"] == 119.8


def test_a_correction_supersedes_and_both_stay(anna, place):
    slip, right = uuid4(), uuid4()
    record(anna, place, entry(11.98), slip)
    bench = record(anna, place, entry(119.8), right, supersedes=str(slip)).json()
    assert [r["status"] for r in bench["readings"]] == ["corrected", "counts"]
    assert record(anna, place, entry(120.0), supersedes=str(slip)).status_code == 409
    assert record(anna, place, entry(120.0), supersedes=str(uuid4())).status_code == 422


def test_a_withdrawn_reading_is_kept_and_does_not_count(anna, place):
    one = uuid4()
    record(anna, place, entry(240.0), one)
    withdrawal = f"/points/{place['point']}/withdrawals/{uuid4()}"
    for _ in range(2):
        bench = anna.put(withdrawal, {"reading": str(one)}).json()
    assert [r["status"] for r in bench["readings"]] == ["withdrawn"]
    assert bench["interpretation"]["verdict"] == "untested"


def test_a_reading_can_be_neither_edited_nor_deleted(anna, place):
    record(anna, place, entry(119.8))
    reading = Reading.objects.get()
    with pytest.raises(RuntimeError):
        reading.save()
    with pytest.raises(RuntimeError):
        reading.delete()


@pytest.mark.parametrize(
    ("content", "path"),
    [
        (entry("12O"), "value"),
        (entry(""), "value"),
        (entry(-4.0), "value"),
        (entry(10.0) | {"unit": "kV"}, "value"),
        (entry(10.0) | {"unit": "ohm"}, "unit"),
        (entry(1.0, ("L", "L")), "to"),
        (entry(1.0, ("L", "N9")), "to"),
        (entry(1.0) | {"load_here_a": "ten"}, "load_here_a"),
        ({}, "quantity"),
    ],
)
def test_bad_readings_are_named_and_nothing_is_recorded(anna, place, content, path):
    answer = record(anna, place, content, tester=place["tester"])
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["path"] == path
    assert not Reading.objects.exists()


def test_a_point_keeps_the_terminals_its_readings_were_taken_at(anna, place):
    record(anna, place, entry(0.1, ("N", "PE")))
    body = {"circuit": place["circuit"], "name": "Outlet 1", "kind": "outlet", "terminals": ["L", "N"]}
    answer = anna.put(f"/points/{place['point']}", body)
    assert answer.json()["problems"] == [{"path": "terminals", "text": "readings were taken at PE; keep it"}]


def test_a_reading_of_a_conductor_end_to_end_keeps_its_contact_and_no_more(anna, place):
    ohms = {"quantity": "resistance", "from": "PE", "to": "BOARD-PE", "value": 0.2, "unit": "ohm", "device": "open"}
    assert record(anna, place, ohms).status_code == 200
    body = {"circuit": place["circuit"], "name": "Outlet 1, by the door", "kind": "outlet"}
    assert anna.put(f"/points/{place['point']}", {**body, "terminals": ["L", "N", "PE"]}).status_code == 200
    answer = anna.put(f"/points/{place['point']}", {**body, "terminals": ["L", "N"]})
    assert answer.json()["problems"] == [{"path": "terminals", "text": "readings were taken at PE; keep it"}]


@pytest.mark.parametrize(
    ("path", "body", "wrong"),
    [
        ("/sites/{new}", {"name": " ", "practice": "british"}, "name"),
        ("/sites/{new}", {"name": "x", "practice": "martian"}, "practice"),
        ("/supplies/{new}", {"site": "{site}", "name": "x", "system": "230", "earthing": "TN-S"}, "system"),
        ("/supplies/{new}", {"site": "{site}", "name": "x", "system": "120", "earthing": "TX"}, "earthing"),
        ("/circuits/{new}", {"board": "{board}", "name": "x", "conductor": "13 AWG"}, "conductor"),
        ("/circuits/{new}", {"board": "{board}", "name": "x", "rating_a": "many"}, "rating_a"),
        ("/points/{new}", {"circuit": "{circuit}", "name": "x", "kind": "outlet", "terminals": ["L"]}, "terminals"),
    ],
)
def test_bad_forms_are_named_by_field(anna, place, path, body, wrong):
    fill = {**place, "new": str(uuid4())}
    answer = anna.put(path.format(**fill), json.loads(filled(body, fill)))
    assert answer.status_code == 422, answer.content
    assert answer.json()["problems"][0]["path"] == wrong


def test_a_site_leaves_and_comes_back_as_a_survey_file(anna, place, stranger):
    slip = uuid4()
    record(anna, place, entry(11.98), slip)
    record(anna, place, entry(119.8), supersedes=str(slip), tester=place["tester"])
    survey = anna.get(f"/sites/{place['site']}/survey").json()
    assert [("supersedes" in r) for r in survey["points"][0]["readings"]] == [False, True]

    elsewhere = str(uuid4())
    for _ in range(2):
        answer = stranger.put(f"/sites/{elsewhere}/survey", {"survey": survey})
        assert answer.status_code == 200, answer.content
    tree = stranger.get(f"/sites/{elsewhere}").json()
    point = tree["supplies"][0]["boards"][0]["circuits"][0]["points"][0]
    assert (point["name"], tree["name"]) == ("Outlet 1", "Larkspur Hill")
    bench = stranger.get(f"/points/{point['id']}/bench").json()
    assert [r["status"] for r in bench["readings"]] == ["corrected", "counts"]
    assert bench["readings"][1]["tester_label"] == "M2"

    again = anna.put(f"/sites/{place['site']}/survey", {"survey": survey})
    assert again.status_code == 200
    assert len(anna.get(f"/points/{place['point']}/bench").json()["readings"]) == 2
    assert len(anna.get(f"/points/{place['point']}/survey").json()["points"]) == 1


OF_EVERY_KIND = (
    entry(0.2, ("PE", "REF"), reference="outlet", reference_at="Hall"),
    entry(0.3, ("PE", "REF"), reference="pipework", reference_at="Boiler"),
    entry(120.4, ("BOARD-L", "BOARD-N"), load_here_a=10.0, nothing_else_on=True),
    {"quantity": "load-held", "value": True, "load_here_a": 10.0},
    {"quantity": "residual-current", "value": 0.0, "unit": "A", "load_here_a": 10.0},
    {
        "quantity": "resistance",
        "from": "L",
        "to": "PE",
        "value": 0.6,
        "unit": "ohm",
        "device": "open",
        "far_ends": "joined",
    },
    {"quantity": "loop", "from": "L", "to": "PE", "value": 0.4, "unit": "ohm"},
    {"quantity": "trip", "value": True, "test_ma": 6.0, "ms": 24.0},
    entry(40.0, ("L", "N")) | {"mode": "dc", "value": -40.0},
)


def test_readings_of_every_kind_leave_in_a_file_and_come_back_as_they_were(anna, place, stranger):
    for content in OF_EVERY_KIND:
        assert record(anna, place, content).status_code == 200, content
    survey = anna.get(f"/sites/{place['site']}/survey").json()
    taken = survey["points"][0]["readings"]
    elsewhere = uuid4()
    assert stranger.put(f"/sites/{elsewhere}/survey", {"survey": survey}).status_code == 200
    again = stranger.get(f"/sites/{elsewhere}/survey").json()["points"][0]["readings"]
    for readings in (taken, again):
        kept = zip(readings, OF_EVERY_KIND, strict=True)
        assert [{key: reading.get(key) for key in content} for reading, content in kept] == list(OF_EVERY_KIND)
    assert [{**reading, "id": ""} for reading in again] == [{**reading, "id": ""} for reading in taken]


def test_a_bad_survey_file_is_named_by_path_and_changes_nothing(anna, place):
    survey = anna.get(f"/sites/{place['site']}/survey").json()
    survey["points"][0]["readings"] = [{**entry(120.0), "unitt": "V"}]
    new = str(uuid4())
    answer = anna.put(f"/sites/{new}/survey", {"survey": survey})
    assert answer.json()["problems"][0]["path"] == "points[0].readings[0].unitt"
    assert anna.get(f"/sites/{new}").status_code == 404


def test_corrections_come_in_whatever_order_the_file_has_them_in(anna, place):
    survey = anna.get(f"/sites/{place['site']}/survey").json()
    pair = [{**entry(119.8), "id": "right", "supersedes": "slip"}, {**entry(11.98), "id": "slip"}]
    survey["points"][0]["readings"] = pair
    assert anna.put(f"/sites/{place['site']}/survey", {"survey": survey}).status_code == 200
    bench = anna.get(f"/points/{place['point']}/bench").json()
    assert sorted(r["status"] for r in bench["readings"]) == ["corrected", "counts"]
    survey["points"][0]["readings"] = [{**entry(1.0), "id": "a", "supersedes": "a"}]
    answer = anna.put(f"/sites/{place['site']}/survey", {"survey": survey})
    assert answer.json()["problems"][0]["path"] == "points[0].readings[0].supersedes"
