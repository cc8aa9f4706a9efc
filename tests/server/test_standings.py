"""How points stand, kept beside them: never what was before something changed, and the same as is made anew."""

from datetime import UTC, datetime, timedelta
from uuid import uuid4

import pytest
from django.core.management import call_command
from django.db import connection
from django.db.models import F

from evenprobe.interpretation import Verdict
from readings.changes import count_changes, not_counted, stop_counting
from readings.models import PointStanding
from readings.point_view import PointView, with_record
from readings.standings import _keep, _made, old_ones, settle, short_of, stands_as
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
