"""What a reading would make of the verdict, told while it is typed: nothing is kept."""

from uuid import uuid4

from django.db import connection
from django.test.utils import CaptureQueriesContext

from readings.models import Reading
from tests.server.requests import entry, record

NOT_CERTAIN = {"verdict": None, "summary": ""}


def judged(client, place, value, ends=("L", "N"), **more):
    path = f"/points/{place['point']}/judge"
    return client.post(path, {"entry": entry(value, ends), "tester": place["tester"], **more})


def test_the_verdict_while_typing_is_the_one_that_recording_gives_and_nothing_is_kept(anna, place):
    for value, ends in ((119.9, ("L", "N")), (3.1, ("N", "PE")), (61.0, ("L", "PE"))):
        with CaptureQueriesContext(connection) as asked:
            told = judged(anna, place, value, ends).json()
        assert {query["sql"].split()[0] for query in asked} == {"SELECT"}
        there = Reading.objects.count()
        found = record(anna, place, entry(value, ends), tester=place["tester"], verdict_first=True).json()
        assert Reading.objects.count() == there + 1, "recording it is what adds it"
        verdict, summary = (found["interpretation"][name] for name in ("verdict", "summary"))
        assert told == ({"verdict": verdict, "summary": summary} if found["to_follow"] else NOT_CERTAIN)


def test_a_correction_is_judged_without_what_it_corrects(anna, place):
    mistyped = str(uuid4())
    record(anna, place, entry(240.0), mistyped, tester=place["tester"])
    told = judged(anna, place, 120.0, supersedes=mistyped).json()
    alone = record(anna, place, entry(120.0), tester=place["tester"], supersedes=mistyped, verdict_first=True).json()
    assert told["verdict"] == alone["interpretation"]["verdict"]
    assert judged(anna, place, 120.0, supersedes=mistyped).status_code == 409


def test_what_cannot_be_recorded_is_not_judged_and_says_why(anna, place):
    refused = judged(anna, place, 120.0, ("L", "L"))
    assert refused.status_code == 422
    assert refused.json()["problems"] == record(anna, place, entry(120.0, ("L", "L"))).json()["problems"]
    assert judged(anna, place, 120.0, supersedes=str(uuid4())).status_code == 422
    assert not Reading.objects.exists()
