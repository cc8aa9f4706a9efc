"""A tester found faulty: nothing it took is lost, what leans on it is named, and it confirms nothing any more."""

from datetime import UTC, datetime, timedelta
from uuid import uuid4

import pytest

from tests.server.on_sheets import fill
from tests.server.requests import entry, record
from tests.server.test_proofs import prove_dead

PAIRS = ((("L", "N"), 119.8), (("L", "PE"), 119.6), (("N", "PE"), 0.35))


def ago(minutes):
    return (datetime.now(UTC) - timedelta(minutes=minutes)).isoformat()


def faulty(person, place, since, fault=None, what="reads 0 on every range"):
    body = {"what": what} if since is None else {"what": what, "since": since}
    return person.put(f"/testers/{place['tester']}/faults/{fault or uuid4()}", body)


@pytest.fixture
def measured(anna, proof):
    prove_dead(anna, proof)
    for pair, volts in PAIRS:
        record(anna, proof, entry(volts, pair), tester=proof["tester"])
    return proof


def bench(person, place):
    return person.get(f"/points/{place['point']}/bench").json()


def test_what_it_showed_since_confirms_nothing_and_stays_on_the_record(anna, measured):
    before = bench(anna, measured)["interpretation"]
    assert before["not_counted"] == []
    assert before["verdict"] == "unconfirmed"
    assert faulty(anna, measured, ago(60)).status_code == 200
    after = bench(anna, measured)
    assert len(after["readings"]) == 3
    whys = {one["why"] for one in after["interpretation"]["not_counted"]}
    assert len(after["interpretation"]["not_counted"]) == 3
    assert all("found faulty: reads 0 on every range" in why for why in whys)


def test_an_alarm_it_raised_is_still_one(anna, measured):
    record(anna, measured, entry(118.0, ("PE", "REF")), tester=measured["tester"])
    assert bench(anna, measured)["interpretation"]["verdict"] == "danger"
    faulty(anna, measured, ago(60))
    assert bench(anna, measured)["interpretation"]["verdict"] == "danger"


def test_what_it_showed_before_counts_as_it_did(anna, measured):
    faulty(anna, measured, datetime.now(UTC).isoformat())
    assert bench(anna, measured)["interpretation"]["not_counted"] == []


def test_a_proof_of_isolation_by_it_is_none(anna, measured):
    assert anna.get(f"/proofs/{measured['proof']}").json()["state"]["state"] == "proved-dead"
    faulty(anna, measured, ago(60))
    found = anna.get(f"/proofs/{measured['proof']}").json()["state"]
    assert found["state"] != "proved-dead"
    assert any(problem["code"] == "tester-unfit" for problem in found["problems"])


def test_it_is_fit_for_nothing_until_it_is_found_good_again(anna, measured):
    faulty(anna, measured, ago(60))
    page = anna.get(f"/testers/{measured['tester']}").json()
    assert not any(fit["fit"] for fit in page["fits"])
    assert [one["what"] for one in page["faults"]] == ["reads 0 on every range"]
    back = faulty(anna, measured, None, what="the battery was flat; checked against U1").json()
    assert any(fit["fit"] for fit in back["fits"])
    assert len(back["faults"]) == 2
    assert bench(anna, measured)["interpretation"]["not_counted"] == []


def test_what_leans_on_it_is_told_before_anything_is_changed(anna, bench_kit):
    prove_dead(anna, bench_kit)
    for pair, volts in PAIRS:
        record(anna, bench_kit, entry(volts, pair), tester=bench_kit["tester"])
    fill(anna, bench_kit)
    asked = f"/testers/{bench_kit['tester']}/leaning?since={ago(600).replace('+', '%2B')}"
    found = anna.get(asked).json()
    [point] = found["points"]
    assert (point["name"], point["readings"], point["leans"]) == ("Outlet 1", 3, True)
    assert point["verdict"] != point["without"]
    [proof] = found["proofs"]
    assert (proof["state"], proof["without"]) == ("proved-dead", proof["without"])
    assert proof["without"] != "proved-dead"
    assert bench(anna, bench_kit)["interpretation"]["not_counted"] == []
    assert anna.get(asked).json() == found


def test_a_retry_is_the_same_fault_and_bad_ones_are_named(anna, measured):
    fault, since = str(uuid4()), ago(60)
    faulty(anna, measured, since, fault)
    assert len(faulty(anna, measured, since, fault).json()["faults"]) == 1
    assert faulty(anna, measured, ago(5), fault).status_code == 409
    assert faulty(anna, measured, since, what=" ").json()["problems"][0]["path"] == "what"
    later = (datetime.now(UTC) + timedelta(days=1)).isoformat()
    assert faulty(anna, measured, later).json()["problems"][0]["path"] == "since"
