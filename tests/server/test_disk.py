"""A full, read-only or locked disk: said in words, nothing lost or half written, and reads go on."""

import threading
import time
from uuid import uuid4

import pytest
from django.core.cache import caches
from django.db import OperationalError, connection

from base import trying_again
from readings.models import Reading
from tests.server.requests import entry, record

pytestmark = pytest.mark.django_db(transaction=True)


ONLY_READS = {
    "sqlite": ("PRAGMA query_only=1", "PRAGMA query_only=0"),
    "postgresql": ("SET default_transaction_read_only = on", "SET default_transaction_read_only = off"),
}


def told(statement):
    """The database's answer, if it gives one."""
    with connection.cursor() as cursor:
        cursor.execute(statement)
        return cursor.fetchone() if cursor.description else None


def still_read(person, place):
    for path in ("/sites", f"/points/{place['point']}/bench", "/today", "/session"):
        assert person.get(path).status_code == 200, path


@pytest.mark.sqlite
def test_a_full_disk_is_507_nothing_is_half_written_and_reads_go_on(anna, place):
    anna.client.raise_request_exception = False
    told("VACUUM")
    [pages] = told("PRAGMA page_count")
    told(f"PRAGMA max_page_count={pages}")
    try:
        for _ in range(200):
            answer = record(anna, place, entry(119.8, note="x" * 400))
            if answer.status_code != 200:
                break
        assert answer.status_code == 507, answer.content
        assert "disk is full" in answer.json()["problems"][0]["text"]
        kept = Reading.objects.count()
        still_read(anna, place)
    finally:
        told("PRAGMA max_page_count=1073741823")
    assert Reading.objects.count() == kept
    assert record(anna, place, entry(119.8)).status_code == 200


def test_a_database_that_may_not_be_written_is_said_so_and_reads_go_on(anna, place):
    anna.client.raise_request_exception = False
    still_read(anna, place)
    only_reads, writes_again = ONLY_READS[connection.vendor]
    told(only_reads)
    try:
        answer = record(anna, place, entry(119.8))
        assert answer.status_code == 503
        assert "cannot write to its disk" in answer.json()["problems"][0]["text"]
        still_read(anna, place)
    finally:
        told(writes_again)
    assert not Reading.objects.exists()


def test_no_room_for_a_kept_answer_stops_no_answer(anna, place, monkeypatch):
    record(anna, place, entry(119.8))

    def full(*_args, **_kwargs):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr("django.core.cache.backends.filebased.FileBasedCache.set", full)
    caches["default"].clear()
    still_read(anna, place)


@pytest.mark.sqlite
def test_a_database_that_another_holds_for_ten_seconds_is_busy_in_words_and_reads_go_on(anna, place, monkeypatch):
    """Longer than one waits: said with when to come again; then it is written once."""
    held, let_go = threading.Event(), threading.Event()

    def hold():
        try:
            with connection.cursor() as cursor:
                cursor.execute("BEGIN IMMEDIATE")
                held.set()
                let_go.wait(60)
                cursor.execute("ROLLBACK")
        finally:
            connection.close()

    monkeypatch.setattr(trying_again, "WAIT_S", 0.05)
    holder = threading.Thread(target=hold)
    holder.start()
    assert held.wait(30)
    try:
        began, reading = time.monotonic(), str(uuid4())
        still_read(anna, place)
        assert time.monotonic() - began < 5, "reads wait for nobody"
        answer = record(anna, place, entry(119.8), reading)
        assert (answer.status_code, answer["Retry-After"]) == (503, "1")
        assert time.monotonic() - began > 8
    finally:
        let_go.set()
        holder.join()
    for _ in range(2):
        assert record(anna, place, entry(119.8), reading).status_code == 200
    assert Reading.objects.count() == 1


def test_what_is_no_fault_of_the_disk_stays_a_failure():
    from base.failures import _said_of_the_disk

    assert _said_of_the_disk(OperationalError("no such table: x")) is None
    assert _said_of_the_disk(ValueError("disk is full")) is None
    assert _said_of_the_disk(OperationalError("database or disk is full"))[0] == 507
