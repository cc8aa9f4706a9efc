"""Every route with somebody else's data, and with nobody signed in."""

import json
from uuid import uuid4

import pytest

from project.api import api
from tests.server.conftest import NAMED, VAN
from tests.server.requests import ROUTES, entry, record, whole_body


@pytest.mark.parametrize(("method", "path", "body"), ROUTES)
def test_no_route_shows_or_changes_another_crew_s(anna, stranger, request, method, path, body):
    place = request.getfixturevalue("signed" if "{visit}" in path or "{signed}" in path else "sheet")
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
    anna.put(f"/hunts/{proof['hunt']}", {"circuit": proof["circuit"], "happened": "dead", "kind": "open"})
    for path in ("/sites", "/testers", "/parts", "/proofs", "/rounds", "/hunts", "/equipment", "/outlets"):
        assert stranger.get(path).json() == []
        assert len(anna.get(path).json()) == 1
    counted, listed = (
        ("sites", "testers", "measured", "points_not_safe", "points_old"),
        ("visits", "proofs", "hunts", "rounds", "points", "kit"),
    )
    assert stranger.get("/today").json() == dict.fromkeys(counted, 0) | {name: [] for name in listed}
    today = anna.get("/today").json()
    assert [today[name] for name in counted] == [1, 1, 1, 1, 0]
    assert [len(today[name]) for name in listed] == [0, 1, 1, 1, 1, 0]
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
        "hunts",
        "visits",
        "sign-offs",
        "search",
        "tables/readings",
        "equipment",
        "outlets",
        "today",
        "rules",
        "meters",
        "kit/out-of-use",
        "record",
        "standing/not-safe",
        "brought",
    ]
    lists = {("get", f"/{name}") for name in named}
    lists.add(("put", "/rules"))
    lists |= {("post", f"/brought/{of}{look}") for of in ("record", "rows/{table}") for look in ("", "/look")}
    elsewhere = (
        *("/people", "/own", "/links", "/seconds"),  # test_roles, test_people and test_own_account
        *("/practice", "/practised"),  # test_practising
    )
    tried = {(method, path.split("{")[0], path.count("/")) for method, path, _ in ROUTES}
    for path, methods in api.get_openapi_schema()["paths"].items():
        for method in methods:
            route = (
                path.removeprefix("/api")
                .replace("tables/{what}", "tables/readings")
                .replace("standing/{what}", "standing/not-safe")
                .replace("drafts/{what}", "drafts/visit")
                .replace("timeline/{scope}", "timeline/point")
                .replace("{what}", "site")
            )
            if (method, route) in open_to_all | lists or route.startswith(elsewhere):
                continue
            assert (method, route.split("{")[0], route.count("/")) in tried, f"{method} {route} is not tried"


@pytest.mark.parametrize(("method", "path", "body"), ROUTES)
def test_every_route_needs_signing_in(db, client, method, path, body):
    ids = dict.fromkeys((*NAMED, "new", "reading"), str(uuid4()))
    call = getattr(client, method)
    arguments = [] if body is None else [json.dumps(body)]
    answer = call(f"/api{path.format(**ids)}", *arguments, content_type="application/json")
    assert answer.status_code == 401
