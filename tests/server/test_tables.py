"""Tables: what a spreadsheet opens says what the record says, and is never a formula."""

import csv
import io
from uuid import uuid4

import pytest

from tests.server.on_sheets import fill
from tests.server.requests import entry, record
from tests.server.test_proofs import prove_dead


def table(person, path):
    answer = person.get(path)
    assert answer.status_code == 200
    assert answer.streaming
    assert answer["Content-Type"] == "text/csv; charset=utf-8"
    text = b"".join(answer.streaming_content).decode("utf-8-sig")
    return list(csv.DictReader(io.StringIO(text, newline="")))


def test_a_reading_is_a_row_in_plain_units_with_whether_it_stands(anna, place):
    first, second = str(uuid4()), str(uuid4())
    record(anna, place, entry(11.98), first)
    record(anna, place, entry(119.8, input="low-z", load_here_a=10), second, supersedes=first, tester=place["tester"])
    kilo = {"quantity": "resistance", "from": "N", "to": "PE", "value": 1.2, "unit": "kohm", "device": "open"}
    record(anna, place, kilo)
    rows = table(anna, f"/sites/{place['site']}/tables/readings")
    assert [row["status"] for row in rows] == ["corrected", "counts", "counts"]
    assert rows[1]["corrects"] == first
    assert (rows[1]["value [V]"], rows[1]["input"], rows[1]["load here [A]"]) == ("119.8", "low-z", "10")
    assert (rows[2]["value [ohm]"], rows[2]["value [V]"]) == ("1200", "")
    assert {row["point"] for row in rows} == {"Outlet 1"}
    assert rows[1]["tester"] == "M2"


def test_lamps_detectors_and_walks_are_said_in_words(anna, place):
    alarm = {"quantity": "presence", "from": "L", "value": True}
    walk = {"quantity": "presence", "from": "L", "sweep": [{"m": 0, "alarm": True}, {"m": 2.5, "alarm": False}]}
    lamps = {"quantity": "lamps", "value": {"L-N": True, "L-PE": True, "N-PE": False}}
    for one in (alarm, walk, lamps):
        assert record(anna, place, one).status_code == 200
    rows = table(anna, "/tables/readings")
    assert [(row["answer"], row["walked [m]"]) for row in rows] == [("yes", ""), ("", "0! 2.5"), ("L-N L-PE", "")]


def test_circuits_dead_tests_and_kit_have_their_tables(anna, bench_kit):
    prove_dead(anna, bench_kit)
    fill(anna, bench_kit)
    [point] = table(anna, f"/sites/{bench_kit['site']}/tables/circuits")
    assert (point["circuit"], point["rating [A]"], point["contacts"]) == ("Workshop", "20", "L N PE")
    tests = table(anna, "/tables/dead-tests")
    assert {row["result"] for row in tests} == {"pass"}
    assert any(row["limit"].startswith("at least 1 M") for row in tests)
    kit = table(anna, "/tables/kit")
    assert {row["label"]: row["kind"] for row in kit if row["kind"] == "leads"} == {"Leads A": "leads"}
    assert {row["label"] for row in kit if row["kind"] != "leads"} == {"M2", "low_ohm", "insulation"}


@pytest.mark.parametrize("formula", ['=HYPERLINK("http://x","y")', "+1", "-1+2", "@SUM(A1)", "\t=1"])
def test_no_text_leaves_as_a_formula(anna, place, formula):
    name = {"circuit": place["circuit"], "name": f"{formula} ", "kind": "outlet", "terminals": ["L", "N", "PE"]}
    answer = anna.put(f"/points/{place['point']}", name)
    if answer.status_code == 200:
        [row] = table(anna, "/tables/circuits")
        assert not row["point"].startswith(("=", "+", "-", "@", "\t"))


def test_a_measured_minus_stays_a_number(anna, place):
    record(anna, place, entry(-12.5, ("N", "PE"), mode="dc"))
    [row] = table(anna, "/tables/readings")
    assert row["value [V]"] == "-12.5"
