"""The line of time and the search: everything on record, with who, with what, and why it does not stand."""

from datetime import UTC, datetime, timedelta
from urllib.parse import parse_qs
from uuid import uuid4

import pytest

from readings.models import Reading
from tests.server.on_sheets import fill
from tests.server.requests import entry, record
from tests.server.test_proofs import prove_dead


@pytest.fixture
def busy(anna, bench_kit):
    prove_dead(anna, bench_kit)
    fill(anna, bench_kit)
    record(anna, bench_kit, entry(119.8), tester=bench_kit["tester"])
    anna.put(f"/testers/{bench_kit['tester']}/checks/{uuid4()}", {"entry": {"battery": "good"}})
    return bench_kit


def line(person, scope, of, **asked):
    query = "&".join(f"{key}={value}" for key, value in asked.items())
    answer = person.get(f"/timeline/{scope}/{of}?{query}")
    assert answer.status_code == 200, answer.content
    return answer.json()


def kinds(found):
    return {one["kind"] for one in found["happened"]}


def test_each_scope_holds_what_happened_there(anna, busy):
    assert kinds(line(anna, "point", busy["point"])) == {"reading", "dead-test", "change"}
    assert kinds(line(anna, "circuit", busy["circuit"])) == {"reading", "dead-test", "isolation", "change"}
    assert kinds(line(anna, "tester", busy["tester"])) == {"reading", "isolation", "check", "change"}
    assert kinds(line(anna, "crew", uuid4())) == {"reading", "dead-test", "isolation", "check", "change"}


def test_a_reading_is_told_with_its_tester_its_source_and_by_whom(anna, place):
    captured = entry(119.8, source="captured", input="low-z")
    record(anna, place, captured, tester=place["tester"])
    [one] = line(anna, "point", place["point"], kind="reading")["happened"]
    assert (one["text"], one["how"]) == ("H to N 119.8 V", "low impedance")
    assert (one["tester"], one["source"], one["status"]) == ("M2", "captured", "")
    assert one["by"]


def test_what_was_corrected_or_withdrawn_stays_and_says_so(anna, place):
    first, second = str(uuid4()), str(uuid4())
    record(anna, place, entry(11.98), first)
    record(anna, place, entry(119.8), second, supersedes=first)
    anna.put(f"/points/{place['point']}/withdrawals/{uuid4()}", {"reading": second})
    found = line(anna, "point", place["point"], kind="reading")["happened"]
    assert [(one["text"], one["status"]) for one in found] == [
        ("Withdrawn", ""), ("H to N 119.8 V", "withdrawn"), ("H to N 11.98 V", "corrected"),
    ]  # fmt: skip


def test_pages_follow_one_another_and_leave_nothing_out(anna, place):
    """Many of them at the very same moment."""
    at = datetime(2026, 11, 24, 9, 0, tzinfo=UTC)
    rows = [
        Reading(
            id=uuid4(),
            point_id=place["point"],
            entry=entry(100 + n),
            taken_at=at + timedelta(minutes=n // 25),
            by_name="A",
        )
        for n in range(170)
    ]
    Reading.objects.bulk_create(rows)
    seen, before = [], None
    for _ in range(10):
        found = line(
            anna, "point", place["point"], kind="reading", **({"before": before.replace("+", "%2B")} if before else {})
        )
        seen += [one["id"] for one in found["happened"]]
        before = found["before"]
        if before is None:
            break
    assert sorted(seen) == sorted(str(row.id) for row in rows)


def test_filters_leave_only_what_was_asked_for(anna, busy):
    assert kinds(line(anna, "site", busy["site"], kind="reading")) == {"reading"}
    by = line(anna, "site", busy["site"], tester=busy["tester"])
    assert kinds(by) == {"reading", "isolation"}
    assert all(one["tester"] == "M2" for one in by["happened"])
    today, old = datetime.now(UTC).date(), "2020-01-01"
    assert line(anna, "site", busy["site"], since=today, until=today)["happened"]
    assert line(anna, "site", busy["site"], since=old, until=old)["happened"] == []
    name = line(anna, "site", busy["site"])["people"][0]
    assert {one["by"] for one in line(anna, "site", busy["site"], by=name)["happened"]} == {name}
    assert line(anna, "site", busy["site"], by="Nobody")["happened"] == []


@pytest.mark.parametrize(
    ("typed", "name", "place_of"),
    [
        ("larksp", "Larkspur Hill", "site"),
        ("works", "Workshop", "circuit"),
        ("outlet 1", "Outlet 1", "point"),
        ("M2", "M2", "tester"),
        ("k-07", "K-07", "proof"),
        ("2026-11-24", "2026-11-24", "crew"),
    ],
)
def test_whatever_has_a_name_is_found_by_it(anna, busy, typed, name, place_of):
    found = anna.get(f"/search?q={typed}").json()
    assert (name, place_of) in {(one["name"], one["place"]) for one in found}


def test_a_person_is_found_and_leads_to_what_they_did(anna, busy):
    name = line(anna, "crew", uuid4())["people"][0]
    [one] = [f for f in anna.get(f"/search?q={name}").json() if f["what"].endswith("person")]
    assert parse_qs(one["query"]) == {"by": [name]}


def test_nothing_of_another_crew_is_found(stranger, busy):
    for typed in ("larksp", "outlet", "M2", "K-07", "ours"):
        assert stranger.get(f"/search?q={typed}").json() == []
    assert line(stranger, "crew", busy["site"])["happened"] == []


def test_nothing_typed_finds_nothing(anna, busy):
    assert anna.get("/search?q=%20").json() == []
