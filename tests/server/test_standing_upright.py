"""One bad record takes no list down, a failure has a reference, a busy database says so, imports hold nobody up."""

import json
import logging
import sqlite3
import threading
from uuid import uuid4

import pytest
from django.db import OperationalError, connection

from base import failures, trying_again
from kit.models import Tester
from proofs.models import Proof
from readings.models import Reading
from sites.models import Point
from tests.server.requests import entry, record
from tests.tampering import tampering

LISTS = (
    "/today",
    "/proofs",
    "/rounds",
    "/hunts",
    "/sites",
    "/sites/{site}",
    "/sheets",
    "/testers",
    "/outlets",
    "/equipment",
)


def whole_again(person, place):
    return {path: person.get(path.format(**place)) for path in LISTS}


def test_a_round_whose_only_outlet_moved_to_another_room_is_shown_without_stops(anna, place):
    room = {"circuit": place["circuit"], "name": "Outlet 1", "kind": "outlet", "terminals": ["L", "N", "PE"]}
    anna.put(f"/points/{place['point']}", {**room, "room": "Workshop"})
    address = f"/rounds/{place['round']}"
    assert anna.put(address, {"site": place["site"], "room": "Workshop"}).status_code == 200
    anna.put(f"/points/{place['point']}", {**room, "room": "Pier"})
    for path, answer in whole_again(anna, place).items():
        assert answer.status_code == 200, path
    shown = anna.get(address).json()
    assert (shown["outlets"], shown["left"], shown["stops"], shown["next"]) == (0, 0, [], None)
    assert shown["worst"] == "untested"
    assert [r["id"] for r in anna.get("/today").json()["rounds"]] == [place["round"]]


def test_a_round_whose_circuit_moved_to_another_site_is_shown_without_stops(anna, place):
    address = f"/rounds/{place['round']}"
    assert anna.put(address, {"site": place["site"], "circuit": place["circuit"]}).status_code == 200
    site, supply, board = (str(uuid4()) for _ in range(3))
    anna.put(f"/sites/{site}", {"name": "Fennwick", "practice": "north-america"})
    anna.put(f"/supplies/{supply}", {"site": site, "name": "s", "system": "120/240", "earthing": "TN-C-S"})
    anna.put(f"/boards/{board}", {"supply": supply, "name": "b"})
    moved = anna.put(f"/circuits/{place['circuit']}", {"board": board, "name": "Workshop", "rating_a": 20})
    assert moved.status_code == 200
    assert anna.get(address).json()["outlets"] == 0
    for path, answer in whole_again(anna, place).items():
        assert answer.status_code == 200, path


def spoil_tester(place):
    Tester.objects.filter(id=place["tester"]).update(entry={"kind": "abacus"})


def spoil_point(place):
    Point.objects.filter(id=place["point"]).update(terminals=["L", "L", "Q"])


def spoil_reading(place):
    with tampering(Reading) as readings:
        readings.filter(point_id=place["point"]).update(entry={"quantity": "smell"})


def spoil_proof(place):
    with tampering(Proof) as proofs:
        proofs.filter(id=place["proof"]).update(terminals=[], system="nothing")


@pytest.mark.parametrize("spoil", [spoil_tester, spoil_point, spoil_reading, spoil_proof])
def test_one_record_that_cannot_be_shown_takes_no_list_down(anna, sheet, spoil, caplog):
    record(anna, sheet, entry(119.8))
    other, circuit = str(uuid4()), str(uuid4())
    anna.put(f"/circuits/{circuit}", {"board": sheet["board"], "name": "Pier", "rating_a": 20})
    point = {"circuit": circuit, "name": "Outlet 2", "kind": "outlet", "terminals": ["L", "N", "PE"]}
    anna.put(f"/points/{other}", point)
    anna.put(f"/rounds/{sheet['round']}", {"site": sheet["site"], "circuit": sheet["circuit"]})
    before = {path: answer.json() for path, answer in whole_again(anna, sheet).items()}
    spoil(sheet)
    with caplog.at_level(logging.ERROR, "evenprobe"):
        after = whole_again(anna, sheet)
    said = []
    for path, answer in after.items():
        assert answer.status_code == 200, (path, answer.content[:300])
        if isinstance(before[path], list):
            assert len(answer.json()) == len(before[path]), path
        said += [word for word in answer.content.decode().split('"') if "Cannot be shown, reference" in word]
    assert said
    references = {record.reference for record in caplog.records}
    assert all(any(reference in text for reference in references) for text in said)
    assert all(r.exc_info for r in caplog.records if r.name == "evenprobe")
    assert anna.get(f"/points/{other}/bench").status_code == 200


def test_an_unforeseen_failure_is_json_with_a_reference_that_is_in_the_log(anna, place, monkeypatch, caplog):
    monkeypatch.setattr("readings.api.bench_out", lambda *_, **_how: 1 / 0)
    anna.client.raise_request_exception = False
    with caplog.at_level(logging.ERROR, "evenprobe"):
        answers = [anna.put(f"/points/{place['point']}/readings/{uuid4()}", {"entry": entry(1.0)}) for _ in range(2)]
    assert [a.status_code for a in answers] == [500, 500]
    text = answers[0].json()["problems"][0]["text"]
    reference = caplog.records[0].reference
    assert reference in text
    [to_stderr] = [handler for handler in logging.getLogger().handlers if handler.name == "stderr"]
    logged = json.loads(to_stderr.format(caplog.records[0]))
    assert (logged["level"], logged["reference"]) == ("ERROR", reference)
    assert "ZeroDivisionError" in logged["exc_info"]
    assert "ZeroDivisionError" in caplog.text
    assert Reading.objects.count() == 2, "what was recorded before it failed is kept"


def test_a_failure_outside_the_routes_has_a_reference_too(anna, monkeypatch, caplog, settings):
    def fails(*_args):
        raise ValueError("in a middleware")

    monkeypatch.setattr("django.contrib.sessions.middleware.SessionMiddleware.process_response", fails)
    anna.client.raise_request_exception = False
    answer = anna.get("/session")
    assert answer.status_code == 500
    assert "reference" in answer.json()["problems"][0]["text"]
    assert "in a middleware" in caplog.text


def test_a_locked_database_is_tried_again_and_then_said_in_words(anna, place, monkeypatch):
    tries = []

    def locked(*_args, **_kwargs):
        tries.append(1)
        raise OperationalError("database is locked")

    monkeypatch.setattr("overviews.site.put_site", locked)
    monkeypatch.setattr(trying_again, "WAIT_S", 0.0)
    answer = anna.put(f"/sites/{place['site']}", {"name": "x", "practice": "north-america"})
    assert (answer.status_code, answer["Retry-After"]) == (503, "1")
    assert "send it again" in answer.json()["problems"][0]["text"]
    assert len(tries) == trying_again.TRIES


def test_a_database_that_is_free_again_in_time_is_written_as_if_nothing_had_been(anna, place, monkeypatch):
    from sites.services import put_site

    tries = []

    def locked_once(*args, **kwargs):
        tries.append(1)
        if len(tries) == 1:
            raise OperationalError("database is locked")
        return put_site(*args, **kwargs)

    monkeypatch.setattr("overviews.site.put_site", locked_once)
    assert anna.put(f"/sites/{place['site']}", {"name": "Later", "practice": "north-america"}).status_code == 200
    assert anna.get(f"/sites/{place['site']}").json()["name"] == "Later"


def test_another_failure_of_the_database_is_no_lock():
    assert failures.is_locked(OperationalError("database is locked"))
    assert not failures.is_locked(OperationalError("disk I/O error"))
    assert not failures.is_locked(ValueError("locked"))


@pytest.mark.sqlite
@pytest.mark.django_db(transaction=True)
def test_what_is_acknowledged_is_on_the_disk(settings):
    with connection.cursor() as cursor:
        for pragma, value in (("synchronous", 2), ("foreign_keys", 1)):
            cursor.execute(f"PRAGMA {pragma}")
            assert cursor.fetchone()[0] == value, pragma


def big(points):
    return {
        "format": "even-probe/survey", "version": 1, "practice": "north-america",
        "supply": {"system": "120/240", "earthing": "TN-C-S"}, "instruments": [{"id": "m1", "kind": "multimeter"}],
        "points": [
            {
                "id": f"p{n}", "kind": "outlet", "terminals": ["L", "N", "PE"], "circuit": {"label": f"C{n // 10}"},
                "readings": [{**entry(119.0 + n % 3), "id": f"r{n}", "instrument": "m1"}],
            }
            for n in range(points)
        ],
    }  # fmt: skip


@pytest.mark.django_db(transaction=True)
def test_an_import_holds_nobody_elses_write_up(anna, place, client_class, monkeypatch):
    """Between any two of its steps somebody else's write goes through, which one long transaction would refuse."""
    from readings import importing

    batches, statuses = importing._batches, []

    def write():
        client = client_class()
        client.cookies = anna.client.cookies
        path = f"/api/points/{place['point']}/withdrawals/{uuid4()}"
        body = {"reading": str(uuid4())}
        statuses.append(client.put(path, body, content_type="application/json").status_code)
        connection.close()

    def with_a_write_between(rows):
        for batch in batches(rows):
            writer = threading.Thread(target=write)
            writer.start()
            writer.join()
            yield batch

    monkeypatch.setattr(importing, "_batches", with_a_write_between)
    answer = anna.put(f"/sites/{uuid4()}/survey", {"name": "Big", "survey": big(600)})
    assert answer.status_code == 200, answer.content
    assert Point.objects.count() == 601
    assert len(statuses) > 5
    assert not [status for status in statuses if status >= 500], "a write had to wait for the import"


def test_an_import_cut_off_half_way_is_finished_by_bringing_it_again(anna, place, monkeypatch):
    from readings import importing

    site, survey, written = str(uuid4()), big(600), []
    write = importing._write

    def killed(model, rows):
        written.append(model)
        if written.count(Reading) == 2:
            raise sqlite3.ProgrammingError("killed")
        write(model, rows)

    monkeypatch.setattr(importing, "_write", killed)
    anna.client.raise_request_exception = False
    assert anna.put(f"/sites/{site}/survey", {"name": "Big", "survey": survey}).status_code == 500
    assert 0 < Reading.objects.count() < 600
    monkeypatch.setattr(importing, "_write", write)
    for _ in range(2):
        assert anna.put(f"/sites/{site}/survey", {"name": "Big", "survey": survey}).status_code == 200
        assert (Point.objects.count(), Reading.objects.count()) == (601, 600)


def test_a_file_that_is_refused_at_its_last_reading_writes_nothing(anna, place):
    site, survey = str(uuid4()), big(3)
    assert anna.put(f"/sites/{site}/survey", {"name": "Big", "survey": survey}).status_code == 200
    again = big(4)
    again["points"][2]["readings"][0]["value"] = 55.0
    answer = anna.put(f"/sites/{site}/survey", {"survey": again})
    assert answer.status_code == 409
    assert answer.json()["problems"][0]["path"] == "points[2].readings[0].id"
    assert Point.objects.count() == 4


def test_an_imports_own_corrections_and_withdrawals_come_after_what_they_are_of(anna, place):
    survey = big(1)
    survey["points"][0]["readings"] = [
        {**entry(119.0), "id": "b", "supersedes": "a"},
        {**entry(240.0), "id": "a"},
        {**entry(118.0), "id": "c", "withdrawn": True},
    ]
    site = str(uuid4())
    for _ in range(2):
        assert anna.put(f"/sites/{site}/survey", {"survey": survey}).status_code == 200
        assert Reading.objects.count() == 4
    twice = {
        **survey["points"][0],
        "readings": [*survey["points"][0]["readings"], {**entry(1.0), "id": "d", "supersedes": "a"}],
    }
    answer = anna.put(f"/sites/{site}/survey", {"survey": {**survey, "points": [twice]}})
    assert answer.status_code == 409
    assert answer.json()["problems"][0]["path"] == "points[0].readings[3].supersedes"
