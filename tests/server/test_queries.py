"""What a request asks of the database: few questions, and as few for a long list as for a short one."""

from unittest.mock import patch
from uuid import uuid4

import pytest
from django.db import connection
from django.test.utils import CaptureQueriesContext

from crews.models import Crew
from evenprobe.formats import parse, survey
from readings import services
from readings.point_view import view_of
from readings.standings import old_ones, settle
from tests.server.conftest import proof_body
from tests.server.on_sheets import fill
from tests.server.requests import ROUTES, entry, record, whole_body
from tests.server.test_proofs import prove_dead

AT_MOST = 15
LISTS = (
    "/sites",
    "/testers",
    "/parts",
    "/proofs",
    "/sheets",
    "/rounds",
    "/hunts",
    "/visits",
    "/sign-offs",
    "/search?q=Work",
    "/equipment",
    "/outlets",
    "/today",
    "/meters",
)


@pytest.fixture
def well_known(anna, bench_kit, signed):
    """A place with readings, a proof that was proved dead, and a sheet that was filled in."""
    prove_dead(anna, bench_kit)
    fill(anna, bench_kit)
    reading = str(uuid4())
    record(anna, bench_kit, entry(119.8), reading)
    return {**bench_kit, "reading": reading, "new": str(uuid4())}


def asked(person, method, path, *body):
    """How many questions, those that begin and end a transaction apart.

    What changed before is made again before, and what changes on the way beside it, as where interpreters run.
    """
    settle(old_ones())
    with patch("readings.settling.settle"), CaptureQueriesContext(connection) as found:
        answer = getattr(person, method)(path, *body)
    assert answer.status_code < 500, answer.content
    return len([q for q in found.captured_queries if "SAVEPOINT" not in q["sql"]])


MORE = {
    "/today": 32,
    "/visits": 18,
    "/search?q=Work": 16,
    "get /timeline/site/{site}": 30,
    "get /timeline/circuit/{circuit}": 25,
    "get /timeline/tester/{tester}": 25,
    "get /visits/{visit}": 20,
    "put /visits/{visit}": 25,
    "put /visits/{new}": 25,
    "put /visits/{visit}/events/{new}": 25,
    "get /drafts/visit/{visit}": 20,
    "get /drafts/visit/{visit}/report": 20,
    "put /sign-offs/{new}": 20,
    "put /testers/{tester}/faults/{new}": 18,
    "put /sites/{site}/survey": 25,
    "get /sites/{site}/record": 80,
    "put /supplies/{supply}": 20,
    "put /boards/{board}": 20,
    "put /circuits/{circuit}": 20,
    "put /points/{point}": 20,
    "put /points/{point}/filed": 22,
    "put /outlets/{new}": 26,
    "put /rounds/{round}": 20,
    "put /rounds/{round}/events/{new}": 22,
    "put /sheets/{sheet}/entries/{new}": 22,
}
"""Where several things are asked about at once, every table leaves, or something is written and all of it shown."""


def test_a_request_asks_little(anna, well_known):
    file = anna.get(f"/sites/{well_known['site']}/survey").json()
    too_many = {}
    for method, path, body in ROUTES:
        given = {**well_known, "new": str(uuid4())}
        bodies = [] if body is None else [whole_body(body, given, file)]
        count = asked(anna, method, path.format(**given), *bodies)
        if count > MORE.get(f"{method} {path}", AT_MOST):
            too_many[f"{method} {path}"] = count
    for path in LISTS:
        count = asked(anna, "get", path)
        if count > MORE.get(path, AT_MOST):
            too_many[path] = count
    assert not too_many


def test_a_list_of_more_asks_no_more(anna, well_known):
    """Another outlet on another circuit, with a reading, a proof, a sheet, a round and a tester of its own."""
    anna.put(f"/sheets/{well_known['sheet']}", {"circuit": well_known["circuit"], "proof": well_known["proof"]})
    pages = (
        *LISTS,
        f"/sites/{well_known['site']}",
        f"/points/{well_known['point']}/bench",
        f"/visits/{well_known['visit']}",
    )
    before = {path: asked(anna, "get", path) for path in pages}
    other = well_known | {name: str(uuid4()) for name in ("circuit", "point", "proof", "sheet", "round", "tester")}
    outlet = {"circuit": other["circuit"], "name": "Outlet 2", "kind": "outlet", "terminals": ["L", "N", "PE"]}
    for path, body in (
        (f"/circuits/{other['circuit']}", {"board": other["board"], "name": "Pier", "rating_a": 20}),
        (f"/points/{other['point']}", outlet),
        (f"/testers/{other['tester']}", {"label": "M3", "kind": "multimeter", "proved": True, "rated_v": 600}),
        (f"/testers/{other['tester']}/checks/{uuid4()}", {"entry": {"battery": "good"}}),
        (f"/proofs/{other['proof']}", proof_body(other)),
        (f"/sheets/{other['sheet']}", {"circuit": other["circuit"], "proof": other["proof"]}),
        (f"/sheets/{other['sheet']}/entries/{uuid4()}", {"entry": {"type": "looked", "item": "burnt", "good": True}}),
        (f"/rounds/{other['round']}", {"site": other["site"], "circuit": other["circuit"], "tester": other["tester"]}),
        (f"/points/{other['point']}/readings/{uuid4()}", {"entry": entry(119.8), "tester": other["tester"]}),
    ):
        answer = anna.put(path, body)
        assert answer.status_code == 200, answer.content
    assert {path: asked(anna, "get", path) for path in pages} == before


def test_each_reading_is_parsed_once(anna, well_known, monkeypatch):
    """The new one at the door, those there are from the record, and none again for what is asked of the point."""
    record(anna, well_known, entry(0.3, ("N", "PE")))
    parsed = []

    def noted(model, data):
        parsed.append(data.get("id"))
        return parse(model, data)

    monkeypatch.setattr(survey, "parse", noted)
    new = str(uuid4())
    assert record(anna, well_known, entry(119.7, ("L", "PE")), new).status_code == 200
    assert new in parsed
    assert len(parsed) == len(set(parsed))
    bench = anna.get(f"/points/{well_known['point']}/bench").json()
    assert set(parsed) == {one["id"] for one in (*bench["readings"], *bench["dead_tests"])}


def test_what_was_just_recorded_is_seen_as_it_is_when_looked_up_anew(anna, well_known):
    """A correction and a withdrawal too: the view a reading was added to is the view there is of the record."""
    crew = Crew.objects.get()
    point, first, second, third = well_known["point"], *(uuid4() for _ in range(3))
    user = crew.memberships.get().user
    steps = (
        lambda: services.record(crew, user, point, first, entry(11.9), well_known["tester"]),
        lambda: services.record(crew, user, point, second, entry(119.9), supersedes=first),
        lambda: services.record(crew, user, point, third, entry(3.0, ("N", "PE"))),
        lambda: services.withdraw(crew, user, point, uuid4(), third),
    )
    for step in steps:
        view = step()
        anew = view_of(crew, point)
        assert view.content == anew.content
        assert view.readings == anew.readings
        assert [row.id for row in view.rows] == [row.id for row in anew.rows]
