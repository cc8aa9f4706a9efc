"""Dead tests through the API: a sheet from the first look to the gate, and everything that can go wrong with it."""

from uuid import uuid4

import pytest

from proofs.models import ProofEvent
from sheets.models import SheetEntry
from tests.server.on_sheets import ENERGISED, NULLED, OUT, REASON, UNLOCKED, codes, fill, lines, put, put_test
from tests.server.test_proofs import prove_dead, send
from tests.tampering import tampering


def test_a_sheet_from_the_first_look_to_the_gate(anna, bench_kit):
    place = bench_kit
    prove_dead(anna, place)
    answer = fill(anna, place)
    assert codes(answer) == ["lock-on"]
    sheet = answer.json()
    assert all(line["taken"]["outcome"]["result"] == "pass" for line in sheet["lines"])
    assert all(0 <= line["taken"]["bar"]["at"] <= 1 for line in sheet["lines"] if line["taken"]["bar"])
    send(anna, place, UNLOCKED)
    assert codes(anna.get(f"/sheets/{place['sheet']}")) == []
    assert anna.get("/sheets").json()["sheets"][0]["state"] == "clear"
    answer = put(anna, place, ENERGISED)
    assert answer.json()["gate"]["energised"]["reason"] == ""
    proof = anna.get(f"/proofs/{place['proof']}").json()
    assert proof["state"]["state"] == "closed"
    assert [e["type"] for e in proof["events"]][-2:] == ["re-energised", "closed"]
    assert anna.get("/sheets").json()["sheets"][0]["state"] == "energised"


def test_dead_tests_reach_the_bench(anna, bench_kit):
    place = bench_kit
    for pair, volts in ((("L", "N"), 119.8), (("L", "PE"), 119.9), (("N", "PE"), 0.1)):
        entry = {"quantity": "voltage", "mode": "ac", "from": pair[0], "to": pair[1], "value": volts, "unit": "V"}
        anna.put(f"/points/{place['point']}/readings/{uuid4()}", {"entry": entry})
    assert anna.get(f"/points/{place['point']}/bench").json()["interpretation"]["verdict"] == "unconfirmed"
    prove_dead(anna, place)
    fill(anna, place)
    bench = anna.get(f"/points/{place['point']}/bench").json()
    standing = {c["id"] for c in bench["interpretation"]["conditions"] if c["standing"]}
    of_the_source = {"neutral-open-at-source", "neutral-failing-at-source", "source-not-bonded", "shared-neutral"}
    assert standing == {"correct", *of_the_source}, "which no dead test of a circuit can see"
    live = {"quantity": "voltage", "mode": "ac", "from": "L"}
    for seen in (
        {"to": "N", "value": 119.8, "nothing_else_on": True},
        {"to": "N", "value": 117.4, "load_here_a": 12, "nothing_else_on": True},
        {"to": "PE", "value": 119.4, "input": "low-z"},
    ):
        anna.put(f"/points/{place['point']}/readings/{uuid4()}", {"entry": {**live, **seen}})
    bench = anna.get(f"/points/{place['point']}/bench").json()
    assert bench["interpretation"]["verdict"] == "correct"
    assert {t["title"] for t in bench["dead_tests"]} >= {"G to Outlet 1", "H to N"}
    failing = put_test(anna, place, "insulation L-PE", "insulation", measured_mohm=0.2)
    assert "fails" in codes(failing)
    assert anna.get(f"/points/{place['point']}/bench").json()["interpretation"]["verdict"] == "hazard"


def test_a_new_sheet_forgets_what_passed_and_not_what_failed(anna, bench_kit):
    place = bench_kit
    prove_dead(anna, place)
    put(anna, place, OUT)
    put_test(anna, place, "insulation L-N", "insulation", measured_mohm=300)
    put_test(anna, place, "insulation L-PE", "insulation", measured_mohm=0.2)
    later = {**place, "sheet": str(uuid4())}
    anna.put(f"/sheets/{later['sheet']}", {"circuit": place["circuit"]})

    def titles():
        return [t["title"] for t in anna.get(f"/points/{place['point']}/bench").json()["dead_tests"]]

    assert titles() == ["H to G"]
    put(anna, later, OUT)
    put_test(anna, later, "insulation L-PE", "insulation", measured_mohm=210)
    bench = anna.get(f"/points/{place['point']}/bench").json()
    assert [t["entry"]["value"] for t in bench["dead_tests"]] == [210]


def test_what_was_not_proved_dead_is_kept_and_clears_nothing(anna, bench_kit):
    place = bench_kit
    answer = fill(anna, place)
    assert answer.json()["dead"] is False
    warned = {s["id"]: s["warnings"] for s in answer.json()["steps"]}
    assert "Not proved dead" in warned["continuity"][0]
    assert codes(answer).count("does-not-count") == len(answer.json()["lines"])
    assert anna.get(f"/points/{place['point']}/bench").json()["dead_tests"] == []


def test_loads_in_and_the_wrong_voltage_are_said_before_and_do_not_count(anna, bench_kit):
    place = bench_kit
    answer = put(anna, place, {**OUT, "loads": "connected"})
    warnings = next(s["warnings"] for s in answer.json()["steps"] if s["id"] == "insulation")
    assert any("destroys electronics" in w for w in warnings)
    answer = put_test(anna, place, "insulation L-N", "insulation", measured_mohm=300)
    taken = next(x for x in answer.json()["lines"] if x["id"] == "insulation L-N")["taken"]
    assert taken["outcome"]["result"] == "invalid"
    put(anna, place, OUT)
    answer = put_test(anna, place, "insulation L-N", "insulation", measured_mohm=300, test_v=250)
    taken = next(x for x in answer.json()["lines"] if x["id"] == "insulation L-N")["taken"]
    assert (taken["outcome"]["result"], taken["test"]["test_v"]) == ("invalid", 250)
    assert SheetEntry.objects.filter(entry__type="tested").count() == 2


def test_a_result_is_judged_while_it_is_typed_and_nothing_is_kept(anna, bench_kit):
    place = bench_kit
    put(anna, place, NULLED)
    line = next(iter(lines(anna, place)))
    body = {"line": line, "test": {"measured_ohm": 0.21}, "tester": place["low_ohm"]}
    answer = anna.post(f"/sheets/{place['sheet']}/judge", body).json()
    assert answer["outcome"]["computed"]["corrected_ohm"] == pytest.approx(0.11)
    assert answer["test"]["conductor"] == "12 AWG"
    assert "dead" in answer["doubt"]
    assert answer["bar"]["expected"] is not None
    body["test"] = {"measured_ohm": -1}
    refused = anna.post(f"/sheets/{place['sheet']}/judge", body)
    assert (refused.status_code, refused.json()["problems"][0]["path"]) == (422, "measured_ohm")
    body["line"] = "nowhere"
    assert anna.post(f"/sheets/{place['sheet']}/judge", body).status_code == 422
    assert SheetEntry.objects.filter(entry__type="tested").count() == 0


def test_energised_with_something_in_the_way_needs_a_written_reason_that_stays(anna, bench_kit):
    place = bench_kit
    prove_dead(anna, place)
    answer = put(anna, place, ENERGISED)
    assert answer.status_code == 409
    assert len(answer.json()["problems"]) > 5
    assert put(anna, place, {**ENERGISED, "reason": "ok"}).status_code == 422
    one = str(uuid4())
    for _ in range(2):
        answer = put(anna, place, {**ENERGISED, "reason": REASON}, one)
        assert answer.json()["gate"]["energised"]["reason"] == REASON
    assert ProofEvent.objects.filter(type="closed").count() == 1
    assert put(anna, place, None, supersedes=one).status_code == 409


def test_left_knowingly_is_for_what_may_be_left(anna, bench_kit):
    place = bench_kit
    prove_dead(anna, place)
    before = codes(anna.get(f"/sheets/{place['sheet']}"))
    for line in ("insulation L-N", "apart L-N", "device"):
        answer = put(anna, place, {"type": "left", "line": line, "reason": "heaters cannot be taken out today"})
    after = [w["line"] for w in answer.json()["gate"]["in_the_way"]]
    assert len(before) - len(after) == 1
    assert "insulation L-N" not in after
    assert {"apart L-N", "device"} <= set(after)


def test_a_lock_is_taken_off_by_whoever_put_it(anna, stranger, bench_kit):
    place = bench_kit
    prove_dead(anna, place)
    assert "lock-on" in codes(anna.get(f"/sheets/{place['sheet']}"))
    assert anna.get(f"/sheets/{place['sheet']}").json()["gate"]["locks"][0]["own"] is True
    event = send(anna, place, UNLOCKED).json()["events"][-1]["id"]
    with tampering(ProofEvent) as events:
        events.filter(id=event).update(by_name="Somebody else")
    assert "lock-taken-by-another" in codes(anna.get(f"/sheets/{place['sheet']}"))
