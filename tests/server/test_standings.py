"""How points stand, kept beside them: never what was before something changed, and the same as is made anew."""

import json
import time
from datetime import UTC, datetime, timedelta
from uuid import uuid4

import pytest
from bench.crew import new_points
from bench.serving import Person, empty_server
from django.core.management import call_command
from django.db import connection
from django.db.models import F

from evenprobe.interpretation import Verdict
from readings.changes import count_changes, not_counted, stop_counting
from readings.models import PointStanding
from readings.point_view import PointView, with_readings, with_record
from readings.standings import _keep, _made, old_ones, settle, short_of, stands_as
from readings.surveys import survey_in_pieces, survey_of
from sites.models import Point
from tests.server.on_sheets import fill, lines, put_test
from tests.server.requests import entry, record
from tests.server.test_proofs import prove_dead

OUTLET = {"kind": "outlet", "terminals": ["L", "N", "PE"]}
SOUND = (entry(119.8), entry(119.6, ("L", "PE")), entry(0.1, ("N", "PE")), entry(0.1, ("PE", "REF")))


def as_kept(standing):
    return standing.verdict, standing.said, standing.failed, standing.last_tested, standing.unshown


def agree():
    """Every kept answer that is not an old one is what is made of the record now."""
    old = set(old_ones().values_list("pk", flat=True))
    for point in with_record(Point.objects.in_use()):
        if point.pk not in old:
            assert as_kept(point.standing) == as_kept(_made(PointView(point))), point
    return old


def standing_of(place):
    return PointStanding.objects.get(point=place["point"])


@pytest.fixture
def measured(anna, bench_kit):
    prove_dead(anna, bench_kit)
    fill(anna, bench_kit)
    for each in SOUND:
        assert record(anna, bench_kit, each, tester=bench_kit["tester"]).status_code == 200
    settle(old_ones())
    assert not agree()
    return bench_kit


def in_an_hour_ago():
    return (datetime.now(UTC) - timedelta(hours=1)).isoformat()


def insulation_fails(anna, place):
    line = next(one for one in lines(anna, place).values() if one["kind"] == "insulation")
    return put_test(anna, place, line["id"], "insulation", measured_mohm=0.02, supersedes=line["taken"]["id"])


def reading_withdrawn(anna, place):
    rows = anna.get(f"/points/{place['point']}/bench").json()["readings"]
    return anna.put(f"/points/{place['point']}/withdrawals/{uuid4()}", {"reading": rows[0]["id"]})


def tester_faulty(name):
    def found(anna, place):
        return anna.put(f"/testers/{place[name]}/faults/{uuid4()}", {"what": "reads 0", "since": in_an_hour_ago()})

    return found


def supply_is(system, earthing):
    about = {"name": "Service", "system": system, "earthing": earthing}
    return lambda anna, place: anna.put(f"/supplies/{place['supply']}", {"site": place["site"], **about})


CHANGES = {
    "a reading": lambda anna, place: record(anna, place, entry(119.8, ("PE", "REF")), tester=place["tester"]),
    "a reading taken back": reading_withdrawn,
    "a dead test": insulation_fails,
    "a tester of readings found faulty": tester_faulty("tester"),
    "a tester of dead tests found faulty": tester_faulty("insulation"),
    "the supply": supply_is("120/240", "TT"),
    "the circuit": lambda anna, place: anna.put(
        f"/circuits/{place['circuit']}", {"board": place["board"], "name": "Workshop", "rating_a": 6}
    ),
    "how far it is": lambda anna, place: anna.put(
        f"/points/{place['point']}", {"circuit": place["circuit"], "name": "Outlet 1", **OUTLET, "length_m": 70}
    ),
    "the proof's lock taken off": lambda anna, place: anna.put(
        f"/proofs/{place['proof']}/events/{uuid4()}", {"entry": {"type": "unlocked", "source": "s1"}}
    ),
    "another point of the circuit": lambda anna, place: anna.put(
        f"/points/{uuid4()}", {"circuit": place["circuit"], "name": "Outlet 2", **OUTLET}
    ),
}


@pytest.mark.parametrize("change", CHANGES)
def test_what_changed_is_an_old_one_at_once_and_made_again_is_what_the_record_says(anna, measured, change, monkeypatch):
    before = as_kept(standing_of(measured))
    monkeypatch.setattr("readings.settling.settle", lambda *_about, **_more: None)
    answer = CHANGES[change](anna, measured)
    assert answer.status_code == 200, answer.content
    assert str(measured["point"]) in map(str, agree())
    settle(old_ones())
    assert not agree()
    if change == "a reading":
        assert before[0] != as_kept(standing_of(measured))[0] == "danger"


def test_each_change_concerns_the_points_it_is_about_and_no_other(anna, measured):
    elsewhere, other = {**measured, "circuit": str(uuid4()), "point": str(uuid4())}, {"point": str(uuid4())}
    anna.put(f"/circuits/{elsewhere['circuit']}", {"board": measured["board"], "name": "Lights"})
    for ids in (elsewhere, other):
        anna.put(f"/points/{ids['point']}", {"circuit": elsewhere["circuit"], "name": "Lamp", **OUTLET})
    settle(old_ones())
    record(anna, elsewhere, entry(119.8))
    PointStanding.objects.filter(point=elsewhere["point"]).update(made_of=F("changes") - 1)
    assert [str(one.pk) for one in old_ones()] == [elsewhere["point"]]
    settle(old_ones())
    insulation_fails(anna, measured)
    assert [str(one.pk) for one in old_ones()] == [measured["point"]]


def test_what_was_safe_is_not_shown_so_once_something_changed(anna, measured):
    PointStanding.objects.filter(point=measured["point"]).update(verdict="safe", changes=F("changes") + 1)
    said = short_of(standing_of(measured))
    assert said["verdict"] == "untested"
    assert "Treat as live" in said["summary"]
    assert said["old"]
    PointStanding.objects.filter(point=measured["point"]).update(verdict="danger")
    assert short_of(standing_of(measured))["verdict"] == "danger"
    for verdict in Verdict:
        assert not Verdict(stands_as(str(verdict), 3, 4)).is_safe
        assert stands_as(str(verdict), 4, 4) == verdict
        assert stands_as(str(verdict), PointStanding.NEVER, 0) == "untested"


def test_another_core_makes_an_old_one_that_is_shown_as_that(anna, measured):
    PointStanding.objects.filter(point=measured["point"]).update(made_by="another")
    assert "earlier version" in short_of(standing_of(measured))["old"]
    assert old_ones().count() == 1
    [line] = [p for s in anna.get(f"/sites/{measured['site']}").json()["supplies"] for b in s["boards"]
              for c in b["circuits"] for p in c["points"]]  # fmt: skip
    assert line["old"] == ""
    assert not old_ones().exists()


def test_what_changes_while_an_answer_is_made_leaves_it_an_old_one(anna, measured):
    [point] = with_record(Point.objects.filter(pk=measured["point"]))
    view = PointView(point)
    record(anna, measured, entry(119.9, ("PE", "REF")), tester=measured["tester"])
    settle(old_ones())
    newest = standing_of(measured).made_of
    made = _made(view)
    assert made.made_of < newest
    _keep([made])
    assert standing_of(measured).made_of == newest
    assert standing_of(measured).verdict == "danger"


def test_a_point_that_cannot_be_shown_is_said_and_tried_again_when_something_changes(anna, measured, monkeypatch):
    def fails(*_about):
        raise ZeroDivisionError("nobody foresaw it")

    with monkeypatch.context() as broken:
        broken.setattr("readings.standings.interpretation_of", fails)
        PointStanding.objects.update(changes=F("changes") + 1)
        [line] = anna.get("/today").json()["points"]
    assert "reference" in line["unshown"]
    assert not old_ones().exists()
    record(anna, measured, entry(0.2, ("PE", "REF")), tester=measured["tester"])
    settle(old_ones())
    assert standing_of(measured).unshown == ""


@pytest.mark.django_db(transaction=True)
def test_a_table_nobody_counts_is_named_and_a_migration_puts_it_right():
    assert not_counted() == []
    stop_counting(connection.alias)
    assert {"work_reading", "sheets_sheetentry", "proofs_proofevent", "kit_tester"} <= set(not_counted())
    call_command("migrate", verbosity=0)
    assert not_counted() == []
    count_changes(connection.alias)
    assert not_counted() == []


def test_what_a_reading_makes_of_a_point_is_kept_as_it_is_recorded(anna, place):
    record(anna, place, entry(119.9, ("PE", "REF")), tester=place["tester"])
    assert standing_of(place).verdict == "danger"
    assert not old_ones().exists()


def test_what_passed_is_not_said_to_once_something_changed(anna, measured):
    assert short_of(standing_of(measured))["insulation"]["state"] == "pass"
    PointStanding.objects.filter(point=measured["point"]).update(changes=F("changes") + 1)
    said = short_of(standing_of(measured))
    assert (said["insulation"]["state"], said["protection"]["state"]) == ("not-tested", "not-present")


def test_what_changed_is_made_again_before_what_another_core_said(anna, measured):
    other = str(uuid4())
    anna.put(f"/points/{other}", {"circuit": measured["circuit"], "name": "Outlet 0", **OUTLET})
    settle(old_ones())
    PointStanding.objects.update(made_by="another")
    PointStanding.objects.filter(point=other).update(changes=F("changes") + 1)
    assert [str(one.pk) for one in old_ones()] == [other, measured["point"]]
    assert settle(old_ones(), at_most=1) == 1
    assert [str(one.pk) for one in old_ones()] == [measured["point"]]
    assert anna.get("/today").json()["points_old"] == 0


def test_what_cannot_be_read_of_it_takes_no_list_down_and_is_not_safe(anna, measured):
    PointStanding.objects.filter(point=measured["point"]).update(said=None, verdict="danger")
    [line] = anna.get("/today").json()["points"]
    assert "reference" in line["unshown"]
    [line] = anna.get("/standing/not-safe").json()["points"]
    assert "reference" in line["unshown"]
    PointStanding.objects.filter(point=measured["point"]).update(verdict="quite safe")
    assert [site["verdicts"] for site in anna.get("/sites").json()] == [["untested"]]


def test_of_many_points_today_shows_the_worst_and_the_list_goes_on(anna, measured, monkeypatch):
    other = {**measured, "point": str(uuid4())}
    anna.put(f"/points/{other['point']}", {"circuit": measured["circuit"], "name": "Outlet 2", **OUTLET})
    record(anna, other, entry(119.9, ("PE", "REF")), tester=measured["tester"])
    monkeypatch.setattr("overviews.today._POINTS_SHOWN", 1)
    monkeypatch.setattr("overviews.standing._AT_A_TIME", 1)
    today = anna.get("/today").json()
    assert ([one["name"] for one in today["points"]], today["points_not_safe"]) == (["Outlet 2"], 2)
    pages = [anna.get(f"/standing/not-safe?skip={skip}").json() for skip in (0, 1, 2)]
    assert [[one["name"] for one in page["points"]] for page in pages] == [["Outlet 2"], ["Outlet 1"], []]
    assert [page["more"] for page in pages] == [True, False, False]
    assert anna.get("/standing/not-safe?skip=-1").status_code == 422


def test_a_site_s_file_is_the_same_in_pieces(anna, measured, monkeypatch):
    for number in range(3):
        other = {**measured, "point": str(uuid4())}
        anna.put(f"/points/{other['point']}", {"circuit": measured["circuit"], "name": f"Outlet {number}", **OUTLET})
        record(anna, other, entry(119.0 + number), tester=measured["low_ohm"] if number else measured["tester"])
    here = with_readings(Point.objects.filter(circuit=measured["circuit"])).order_by("position", "id")
    site = here[0].stands_at
    whole = survey_of(site, {point: list(point.readings.all()) for point in here}, whole=True, leaving=True)
    for at_a_time in (1, 2, 50):
        monkeypatch.setattr("readings.surveys._POINTS_AT_A_TIME", at_a_time)
        assert json.loads("".join(survey_in_pieces(site, here))) == whole


def test_no_browser_keeps_what_is_on_record(anna, measured):
    for path in ("/today", "/sites", f"/points/{measured['point']}/bench", f"/sites/{measured['site']}/survey"):
        assert "no-store" in anna.get(path)["Cache-Control"], path


@pytest.mark.sqlite
def test_beside_a_server_what_changed_is_made_again_by_itself():
    """The whole of it as it runs: interpreters, what settles beside the server, and tags."""
    with empty_server(8151) as server:
        server.start()
        anna = Person(server, "anna")
        anna.join("Larkspur crew")
        _, points = new_points(anna, "settling", people=1)
        path = f"/points/{points[0][0]}/readings/{uuid4()}"
        anna.send_to("put", path, {"entry": entry(119.9, ("PE", "REF"))}).raise_for_status()
        [danger] = anna.send_to("get", "/today").json()["points"]
        assert (danger["verdict"], danger["old"]) == ("danger", "")
        tag = anna.send_to("get", "/sites").headers["ETag"]
        until = time.monotonic() + 30
        while anna.send_to("get", "/today").json()["points_old"] and time.monotonic() < until:
            time.sleep(0.3)
        assert anna.send_to("get", "/today").json()["points_old"] == 0
        assert anna.send_to("get", "/sites", headers={"If-None-Match": tag}).status_code in (200, 304)
        tag = anna.send_to("get", "/sites").headers["ETag"]
        assert anna.send_to("get", "/sites", headers={"If-None-Match": tag}).status_code == 304
