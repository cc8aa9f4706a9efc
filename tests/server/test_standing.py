"""Points by how they stand: what is not safe, what failed, what was not tested since a day."""

from uuid import uuid4

from tests.server.on_sheets import fill, lines, put_test
from tests.server.requests import entry, record
from tests.server.test_proofs import prove_dead


def names(person, path):
    answer = person.get(path)
    assert answer.status_code == 200, answer.content
    return [(one["name"], one["verdict"]) for one in answer.json()["points"]]


def test_the_worst_stands_first_and_the_rest_is_not_there(anna, place, stranger):
    other = str(uuid4())
    outlet = {"circuit": place["circuit"], "name": "Outlet 2", "kind": "outlet", "terminals": ["L", "N", "PE"]}
    anna.put(f"/points/{other}", outlet)
    record(anna, {"point": other}, entry(119.9, ("PE", "REF")), tester=place["tester"])
    assert names(anna, "/standing/not-safe") == [("Outlet 2", "danger"), ("Outlet 1", "untested")]
    assert names(anna, "/standing/not-tested") == [("Outlet 1", "untested")]
    assert names(anna, "/standing/not-tested?since=2099-01-01") == [("Outlet 2", "danger"), ("Outlet 1", "untested")]
    assert names(anna, "/standing/failed") == []
    assert names(stranger, "/standing/not-safe") == []
    assert anna.get("/standing/moon").status_code == 422
    assert anna.get("/standing/not-tested?since=yesterday").status_code == 422


def test_a_dead_test_that_failed_is_named(anna, bench_kit):
    prove_dead(anna, bench_kit)
    fill(anna, bench_kit)
    assert names(anna, "/standing/failed") == []
    line = next(one for one in lines(anna, bench_kit).values() if one["kind"] == "insulation")
    poor = {"measured_mohm": 0.02, "supersedes": line["taken"]["id"]}
    answer = put_test(anna, bench_kit, line["id"], "insulation", **poor)
    assert answer.status_code == 200, answer.content
    [failed] = anna.get("/standing/failed").json()["points"]
    assert "nsulation" in failed["failed"][0]
