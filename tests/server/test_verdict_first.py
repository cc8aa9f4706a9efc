"""A reading answered by its verdict alone, where that is certain, and the point asked for again for the rest."""

from django.db import connection
from django.test.utils import CaptureQueriesContext

from readings.standings import old_ones, settle
from tests.server.requests import entry, record

READING = "0b0c0a39-6a3c-4a57-9a0e-6b7d5f1f2a11"


def first(client, place, value, ends, **more):
    return record(client, place, entry(value, ends), tester=place["tester"], verdict_first=True, **more).json()


def bench_of(client, place):
    return client.get(f"/points/{place['point']}/bench").json()


def test_the_verdict_comes_first_and_the_rest_when_it_is_asked_for_again(anna, place):
    at_once = first(anna, place, 119.9, ("L", "N"))
    whole = bench_of(anna, place)
    assert (at_once["to_follow"], whole["to_follow"]) == (True, False)
    assert at_once["interpretation"]["verdict"] == whole["interpretation"]["verdict"] == "unconfirmed"
    assert at_once["interpretation"]["conditions"] == []
    assert whole["interpretation"]["conditions"]
    assert [r["id"] for r in at_once["readings"]] == [r["id"] for r in whole["readings"]]


def test_what_lists_say_is_old_until_it_is_made_again_beside_the_server(anna, place):
    first(anna, place, 119.9, ("L", "N"))
    assert old_ones().count() == 1
    settle(old_ones())
    assert not old_ones().exists()


def test_the_rest_is_read_and_nothing_is_written_so_that_it_waits_for_nobody(anna, place):
    first(anna, place, 119.9, ("L", "N"))
    with CaptureQueriesContext(connection) as asked:
        assert not bench_of(anna, place)["to_follow"]
    assert {query["sql"].split()[0] for query in asked} == {"SELECT"}


def test_what_is_known_already_comes_whole_and_sent_twice_is_one_reading(anna, place):
    sent = {"reading_id": READING, "taken_at": "2026-11-24T10:00:00Z"}
    at_once = first(anna, place, 119.9, ("L", "N"), **sent)
    bench_of(anna, place)
    again = first(anna, place, 119.9, ("L", "N"), **sent)
    assert (at_once["to_follow"], again["to_follow"]) == (True, False)
    assert len(again["readings"]) == 1


def test_it_comes_whole_where_the_search_decides_or_nobody_asked_for_less(anna, place):
    whole = record(anna, place, entry(96.1), tester=place["tester"]).json()
    assert not whole["to_follow"]
    assert whole["interpretation"]["next_tests"]
    first(anna, place, 96.0, ("L", "N"))
    decided = first(anna, place, 119.5, ("L", "PE"))
    assert not decided["to_follow"]
    assert decided["interpretation"]["conditions"]
