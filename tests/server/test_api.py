"""The server through its API: recording, correcting, retrying, and nobody else's data."""

import json
from datetime import timedelta
from uuid import uuid4

import pytest
from django.core.management import call_command
from django.utils import timezone

from evenprobe.interpretation import Verdict
from evenprobe.testers.fitness import attention
from kit.hands import in_hand
from kit.models import Tester
from project.api import api
from proofs.logs import state_of
from proofs.models import Proof
from readings.interpretations import interpretation_of
from readings.models import Reading
from readings.point_view import PointView
from sites.models import Point, Site
from tests.server.conftest import NAMED, PASSWORD, VAN, proof_body


def entry(value, pair=("L", "N"), **more):
    return {"quantity": "voltage", "mode": "ac", "from": pair[0], "to": pair[1], "value": value, "unit": "V", **more}


def record(person, place, content, reading_id=None, **more):
    path = f"/points/{place['point']}/readings/{reading_id or uuid4()}"
    return person.put(path, {"entry": content, **more})


def test_signing_in_and_out(anna, client_class):
    from django.contrib.auth import get_user_model

    newcomer = client_class()
    name = get_user_model().objects.get().username
    body = {"username": name, "password": "wrong"}
    assert newcomer.get("/api/session").status_code == 401
    refused = newcomer.post("/api/session", json.dumps(body), content_type="application/json")
    assert refused.status_code == 403
    body["password"] = PASSWORD
    assert newcomer.post("/api/session", json.dumps(body), content_type="application/json").json()["crew"] == "ours"
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
    answer = anna.put(path.format(**fill), json.loads(_filled(body, fill)))
    assert answer.status_code == 422, answer.content
    assert answer.json()["problems"][0]["path"] == wrong


def _filled(body, fill):
    text = json.dumps(body)
    for name, value in fill.items():
        text = text.replace(f"{{{name}}}", value)
    return text


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


HOLDING = {"practice": "british", "purpose": "prove-dead", "place": "installation", "system": "230"}
STRANGE = {"supply": {"system": "120"}, "outlet": {"name": "Pitch 4", "terminals": ["L", "N", "PE"]}}
ROUTES = [
    ("get", "/sites/{site}", None),
    ("get", "/sites/{site}/survey", None),
    ("get", "/points/{point}/bench", None),
    ("get", "/points/{point}/survey", None),
    ("get", "/points/{point}/capabilities/{tester}", None),
    ("put", "/testers/{tester}/link", {"address": "TCPIP::127.0.0.1::5025::SOCKET"}),
    ("post", "/points/{point}/live/{tester}", {"function": "volts", "from": "L", "to": "N"}),
    ("put", "/sites/{site}", {"name": "x", "practice": "british"}),
    ("put", "/sites/{site}/survey", {"survey": None}),
    ("put", "/supplies/{supply}", {"site": "{site}", "name": "x", "system": "120", "earthing": "TT"}),
    ("put", "/boards/{board}", {"supply": "{supply}", "name": "x"}),
    ("put", "/circuits/{circuit}", {"board": "{board}", "name": "x"}),
    ("put", "/points/{point}", {"circuit": "{circuit}", "name": "x", "kind": "outlet", "terminals": ["L", "N"]}),
    ("put", "/points/{point}/readings/{new}", {"entry": entry(120.0)}),
    ("put", "/points/{point}/withdrawals/{new}", {"reading": "{reading}"}),
    ("put", "/testers/{tester}", {"label": "x", "kind": "multimeter"}),
    ("put", "/testers/{new}", {"label": "x", "kind": "multimeter", "usual_leads": "{leads}"}),
    ("get", "/testers/{tester}", None),
    ("put", "/testers/{tester}/checks/{new}", {"entry": {"battery": "good"}}),
    ("post", "/testers/{tester}/holding", HOLDING),
    ("put", "/parts/{leads}", {"role": "leads", "label": "x"}),
    ("get", "/proofs/{proof}", None),
    ("get", "/proofs/{proof}/log", None),
    ("put", "/proofs/{proof}/log", {"log": None}),
    ("put", "/proofs/{new}/log", {"log": None}),
    ("put", "/proofs/{proof}", {"proof": None}),
    ("put", "/proofs/{new}", {"proof": None}),
    ("put", "/proofs/{proof}/events/{new}", {"event": None}),
    ("get", "/sheets/{sheet}", None),
    ("put", "/sheets/{sheet}", {"circuit": "{circuit}"}),
    ("put", "/sheets/{new}", {"circuit": "{circuit}"}),
    ("put", "/sheets/{sheet}/entries/{new}", {"entry": {"type": "discharged"}}),
    ("post", "/sheets/{sheet}/judge", {"test": {"kind": "continuity", "measured_ohm": 0.2}}),
    ("get", "/sheets/{sheet}/tests", None),
    ("put", "/sheets/{sheet}/tests", {"tests": {}}),
    ("get", "/rounds/{round}", None),
    ("put", "/rounds/{round}", {"site": "{site}", "circuit": "{circuit}"}),
    ("put", "/rounds/{new}", {"site": "{site}", "room": "Workshop"}),
    ("put", "/rounds/{round}/events/{new}", {"point": "{point}", "kind": "pressed"}),
    ("put", "/equipment/{equipment}", {"label": "x", "lines": 1, "amperes": 1, "volts_to_neutral": 120}),
    ("get", "/points/{point}/plug-in/{equipment}", None),
    ("put", "/outlets/{point}", {**STRANGE, "site": "{site}"}),
    ("put", "/outlets/{new}", {**STRANGE, "site": "{site}"}),
    ("put", "/outlets/{new}", {**STRANGE, "site": "{site}", "new_site": {"name": "x", "practice": "british"}}),
    ("get", "/photos/{photo}", None),
    ("put", "/photos/{photo}", {"image": "iVBORw0KGgoA"}),
]


AN_ISOLATION_LOG = {
    "format": "even-probe/isolation",
    "version": 1,
    "practice": "north-america",
    "at": "2026-11-24T10:00:00+00:00",
    "supply": {"system": "120/240"},
    "terminals": ["L", "N", "PE"],
    "sources": [{"id": "s1", "label": "way 1"}],
}


def whole_body(body, ids, survey):
    """A body of ROUTES filled in; those too long to write there are named by their one key."""
    match body:
        case {"survey": None}:
            return {"survey": survey}
        case {"proof": None}:
            return proof_body(ids)
        case {"log": None}:
            return {"supply": ids["supply"], "log": AN_ISOLATION_LOG}
        case {"event": None}:
            return {"entry": {"type": "off", "source": "s1"}}
    return json.loads(_filled(body, ids))


@pytest.mark.parametrize(("method", "path", "body"), ROUTES)
def test_no_route_shows_or_changes_another_crew_s(anna, stranger, sheet, method, path, body):
    place = sheet
    reading = str(uuid4())
    record(anna, place, entry(119.8), reading)
    survey = anna.get(f"/sites/{place['site']}/survey").json()
    before = anna.get(f"/points/{place['point']}/bench").content
    fill = {**place, "new": str(uuid4()), "reading": reading}
    if body is not None:
        answer = getattr(stranger, method)(path.format(**fill), whole_body(body, fill, survey))
    else:
        answer = stranger.get(path.format(**fill))
    assert answer.status_code in (404, 409), answer.content
    assert b"Larkspur" not in answer.content
    assert anna.get(f"/points/{place['point']}/bench").content == before
    assert anna.get(f"/proofs/{place['proof']}").json()["events"] == []


def test_lists_hold_only_the_crew_s_own(anna, stranger, proof):
    record(anna, proof, entry(119.8))
    anna.put(f"/testers/{proof['tester']}/link", {"address": "TCPIP::127.0.0.1::5025::SOCKET"})
    assert stranger.get("/meters").json() == {"links": []}
    assert len(anna.get("/meters").json()["links"]) == 1
    assert stranger.get("/sheets").json() == {"sheets": [], "together": [], "circuits": []}
    anna.put(f"/rounds/{proof['round']}", {"site": proof["site"], "circuit": proof["circuit"]})
    anna.put(f"/equipment/{proof['equipment']}", VAN)
    for path in ("/sites", "/testers", "/parts", "/proofs", "/rounds", "/equipment", "/outlets"):
        assert stranger.get(path).json() == []
        assert len(anna.get(path).json()) == 1
    assert stranger.get("/today").json() == {"proofs": [], "rounds": [], "points": [], "kit": []}
    assert [len(part) for part in anna.get("/today").json().values()] == [1, 1, 1, 0]
    anna.put("/rules", {"unattended_min": 20})
    assert stranger.get("/rules").json()["unattended_min"] == 30


def test_every_route_is_tried_for_another_crew_s_data():
    """A new route has to be added to ROUTES, or to the few that hold nobody's data."""
    open_to_all = {("get", "/session"), ("post", "/session"), ("delete", "/session")}
    open_to_all |= {("get", f"/reference{of}") for of in ("", "/kit", "/proofs", "/sheets")}
    open_to_all |= {("post", "/judge"), ("post", "/advise")}
    named = [
        "sites",
        "testers",
        "parts",
        "proofs",
        "sheets",
        "rounds",
        "equipment",
        "outlets",
        "today",
        "rules",
        "meters",
    ]
    lists = {("get", f"/{name}") for name in named}
    lists.add(("put", "/rules"))
    tried = {(method, path.split("{")[0], path.count("/")) for method, path, _ in ROUTES}
    for path, methods in api.get_openapi_schema()["paths"].items():
        for method in methods:
            route = path.removeprefix("/api")
            if (method, route) in open_to_all | lists:
                continue
            assert (method, route.split("{")[0], route.count("/")) in tried, f"{method} {route} is not tried"


@pytest.mark.parametrize(("method", "path", "body"), ROUTES)
def test_every_route_needs_signing_in(db, client, method, path, body):
    ids = dict.fromkeys((*NAMED, "new", "reading"), str(uuid4()))
    call = getattr(client, method)
    arguments = [] if body is None else [json.dumps(body)]
    answer = call(f"/api{path.format(**ids)}", *arguments, content_type="application/json")
    assert answer.status_code == 401


def test_the_demo_scenario_shows_every_verdict_and_loads_twice_as_once(db):
    call_command("load_demo")
    call_command("load_demo")
    points = Point.objects.select_related("circuit__board__supply__site")
    verdicts = {interpretation_of(PointView(p)).verdict for p in points}
    assert verdicts == set(Verdict)
    assert Site.objects.get(name__startswith="Larkspur").supplies.all()[0].name == "Split-phase service"


def test_the_demo_scenario_shows_proofs_that_run_and_that_do_not_and_kit_that_needs_a_hand(db):
    call_command("load_demo")
    call_command("load_demo")
    now = timezone.now()
    found = {p.name: state_of(p, now) for p in Proof.objects.all()}
    assert {name: state.state for name, state in found.items()} == {
        "Dome drive": "proved-dead",
        "Loom motor": "proved-dead",
        "Kitchenette counter": "void",
        "Pier pad outlets": "proving",
        "Workshop outlets": "energised",
        "Mill board, insulation round": "closed",
    }
    left = found["Dome drive"].expires_at - now
    assert timedelta(minutes=5) < left <= timedelta(minutes=6)
    assert len(found["Loom motor"].pairs) == 10
    trouble = {f.code for t in Tester.objects.all() for f in attention(in_hand(t, now).held(), timezone.localdate())}
    assert {"calibration-overdue", "tip-covers-off", "battery-unknown", "damaged"} <= trouble
    later = now + timedelta(minutes=10)
    assert state_of(Proof.objects.get(name="Dome drive"), later).state == "void"
