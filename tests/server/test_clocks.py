"""When something happened that a device tells of later, whatever its clock says and however long the way here was."""

import copy
from datetime import UTC, datetime, timedelta
from functools import reduce
from uuid import uuid4

from hypothesis import given
from hypothesis import strategies as st

from base.clocks import by_our_clock
from tests.server.on_sheets import fill
from tests.server.requests import entry, record

NOON = datetime(2026, 11, 24, 12, 0, tzinfo=UTC)
seconds = st.floats(0, 20).map(lambda s: timedelta(seconds=s))


@given(st.lists(st.tuples(seconds, seconds), min_size=2, max_size=8), st.floats(-35, 35))
def test_what_is_sent_in_order_stays_in_order_on_a_slow_line(events, off_s):
    """Each happens some time after the one before, and is sent when that is there; the way here takes its time."""
    off, happened, arrived, placed = timedelta(seconds=off_s), NOON, NOON, []
    for apart, on_its_way in events:
        happened += apart
        sent = max(happened, arrived)
        arrived = sent + on_its_way
        placed.append(by_our_clock(arrived, happened + off, sent + off))
    assert placed == sorted(placed)
    assert all(when <= arrived for when in placed)


@given(st.floats(-1e7, 1e7), seconds)
def test_of_a_clock_that_is_off_only_how_long_ago_is_believed(off_s, waited):
    off = timedelta(seconds=off_s)
    placed = by_our_clock(NOON, NOON + off - waited, NOON + off)
    assert abs(placed - (NOON - waited)) <= timedelta(seconds=60)
    assert placed <= NOON


def test_what_makes_no_sense_happened_now():
    day = timedelta(days=1)
    for at, sent in ((None, NOON), (NOON, None), (NOON + 2 * day, NOON + day), (NOON - 3 * day, NOON)):
        assert by_our_clock(NOON, at, sent) == NOON


def ahead(file, *path):
    """The same file with one time of it a quarter of an hour from now."""
    changed = copy.deepcopy(file)
    holder = reduce(lambda held, key: held[key], path[:-1], changed)
    holder[path[-1]] = (datetime.now(UTC) + timedelta(minutes=15)).isoformat()
    return changed


def test_nothing_that_is_still_to_come_is_brought_in_by_a_file(anna, bench_kit):
    sheet = bench_kit
    record(anna, sheet, entry(119.8))
    fill(anna, sheet)
    survey = anna.get(f"/sites/{sheet['site']}/survey").json()
    tests = anna.get(f"/sheets/{sheet['sheet']}/tests").json()
    log = anna.get(f"/proofs/{sheet['proof']}/log").json()
    files = (
        (f"/sites/{uuid4()}/survey", {"survey": ahead(survey, "points", 0, "readings", 0, "at")}),
        (f"/sheets/{sheet['sheet']}/tests", {"tests": ahead(tests, "tests", 0, "at")}),
        (f"/proofs/{uuid4()}/log", {"supply": sheet["supply"], "log": ahead(log, "at")}),
    )
    before = anna.get("/sites").json(), anna.get(f"/sheets/{sheet['sheet']}").json()["entries"]
    for path, body in files:
        answer = anna.put(path, body)
        assert answer.status_code == 422, (path, answer.content)
        [problem] = answer.json()["problems"]
        assert problem["path"].endswith("at"), problem
        assert "is still to come" in problem["text"], problem
    assert (anna.get("/sites").json(), anna.get(f"/sheets/{sheet['sheet']}").json()["entries"]) == before
