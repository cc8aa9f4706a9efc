"""What a sheet refuses, by name and place; and that nothing of it is kept, nor anything that was there lost."""

from uuid import uuid4

import pytest

from sheets.models import SheetEntry
from tests.server.on_sheets import DISCHARGED, OUT, lines, put, put_test
from tests.server.test_proofs import prove_dead


def begin(person, place, sheet=None, **more):
    body = {"circuit": place["circuit"], "proof": place["proof"], "wiring": "ordinary", "ring": False, **more}
    return person.put(f"/sheets/{sheet or uuid4()}", body)


def refused(answer, path, text, status=422):
    assert answer.status_code == status, answer.content
    problem = answer.json()["problems"][0]
    assert (problem["path"], text in problem["text"]) == (path, True), problem


@pytest.mark.parametrize(
    ("said", "path", "text"),
    [
        ({"wiring": "wireless"}, "wiring", "must be"),
        ({"ring": True}, "ring", "no ring circuits in North America"),
        ({"temperature_c": 200}, "temperature_c", "between -40 and 90"),
    ],
)
def test_a_sheet_that_cannot_be_is_not_begun(anna, bench_kit, said, path, text):
    before = len(anna.get("/sheets").json()["sheets"])
    refused(begin(anna, bench_kit, **said), path, text)
    assert len(anna.get("/sheets").json()["sheets"]) == before


def test_a_proof_of_another_site_is_none_for_this_circuit(anna, bench_kit):
    site, supply, board, circuit = (str(uuid4()) for _ in range(4))
    anna.put(f"/sites/{site}", {"name": "Tidewell Cottage", "practice": "british"})
    anna.put(f"/supplies/{supply}", {"site": site, "name": "Mains", "system": "230", "earthing": "TN-S"})
    anna.put(f"/boards/{board}", {"supply": supply, "name": "Hall"})
    anna.put(f"/circuits/{circuit}", {"board": board, "name": "Ring", "rating_a": 32})
    refused(begin(anna, bench_kit, circuit=circuit), "proof", "another site")
    assert begin(anna, bench_kit, circuit=circuit, proof=None, ring=True).status_code == 200


def test_an_id_stays_with_its_sheet(anna, bench_kit):
    other = str(uuid4())
    anna.put(f"/circuits/{other}", {"board": bench_kit["board"], "name": "Lights", "rating_a": 15})
    refused(begin(anna, bench_kit, bench_kit["sheet"], circuit=other), "id", "another sheet", status=409)


@pytest.mark.parametrize(
    ("entry", "path", "text"),
    [
        ({"type": "left", "line": "no such line", "reason": "the customer needs it"}, "line", "no such line"),
        ({"type": "looked", "item": "smell", "good": True}, "item", "must be"),
        ({"type": "looked", "item": "burnt", "good": "yes"}, "good", "must be"),
        ({"type": "sung"}, "type", "must be"),
        ({"type": "leads", "null_ohm": -1}, "null_ohm", "at least 0"),
        ({"type": "looked", "item": "burnt", "good": True, "photo": str(uuid4())}, "photo", "no such picture"),
    ],
)
def test_an_entry_that_makes_no_sense_is_named_and_not_kept(anna, bench_kit, entry, path, text):
    before = SheetEntry.objects.count()
    refused(put(anna, bench_kit, entry), path, text)
    assert SheetEntry.objects.count() == before


def test_what_is_corrected_must_be_there_and_not_corrected_already(anna, bench_kit):
    prove_dead(anna, bench_kit)
    put(anna, bench_kit, OUT)
    first, second = str(uuid4()), str(uuid4())
    line = next(iter(lines(anna, bench_kit)))
    assert put_test(anna, bench_kit, line, "low_ohm", first, measured_ohm=0.2).status_code == 200
    unknown = put_test(anna, bench_kit, line, "low_ohm", supersedes=str(uuid4()), measured_ohm=0.3)
    refused(unknown, "supersedes", "no such entry")
    assert put_test(anna, bench_kit, line, "low_ohm", second, supersedes=first, measured_ohm=0.3).status_code == 200
    refused(
        put_test(anna, bench_kit, line, "low_ohm", supersedes=first, measured_ohm=0.4),
        "supersedes",
        "already",
        status=409,
    )
    assert lines(anna, bench_kit)[line]["taken"]["shown"] == "0.3 Ω"


def test_the_same_id_with_another_tester_or_another_number_is_another_entry(anna, bench_kit):
    prove_dead(anna, bench_kit)
    line, entry = next(iter(lines(anna, bench_kit))), str(uuid4())
    for _ in range(3):
        assert put_test(anna, bench_kit, line, "low_ohm", entry, measured_ohm=0.2).status_code == 200
    refused(put_test(anna, bench_kit, line, "low_ohm", entry, measured_ohm=0.25), "id", "", status=409)
    refused(put_test(anna, bench_kit, line, "insulation", entry, measured_ohm=0.2), "id", "", status=409)
    refused(put(anna, bench_kit, DISCHARGED, entry), "id", "", status=409)
    assert SheetEntry.objects.filter(id=entry).count() == 1


def test_a_ring_is_drawn_outlet_by_outlet_as_it_was_read(anna, bench_kit):
    site, supply, board, circuit, sheet = (str(uuid4()) for _ in range(5))
    anna.put(f"/sites/{site}", {"name": "Tidewell Cottage", "practice": "british"})
    anna.put(f"/supplies/{supply}", {"site": site, "name": "Mains", "system": "230", "earthing": "TN-S"})
    anna.put(f"/boards/{board}", {"supply": supply, "name": "Hall"})
    anna.put(f"/circuits/{circuit}", {"board": board, "name": "Kitchen ring", "rating_a": 32, "conductor": "2.5 mm2"})
    outlets = [str(uuid4()) for _ in range(3)]
    for number, outlet in enumerate(outlets):
        body = {"circuit": circuit, "name": f"Socket {number + 1}", "kind": "outlet", "terminals": ["L", "N", "PE"]}
        assert anna.put(f"/points/{outlet}", body).status_code == 200
    assert begin(anna, bench_kit, sheet, circuit=circuit, proof=None, ring=True).status_code == 200
    cottage = {**bench_kit, "sheet": sheet}
    read = [
        {"id": o, "label": f"Socket {i + 1}", "r1_rn": ohms, "r1_r2": 0.32}
        for i, (o, ohms) in enumerate(zip(outlets, (0.24, 0.25, 0.9), strict=True))
    ]
    answer = put_test(anna, cottage, "ring", "low_ohm", r1=0.48, rn=0.49, r2=0.8, points=read)
    assert answer.status_code == 200, answer.content
    bars = answer.json()["ring_bars"]
    assert [(bar["outlet"], bar["pair"], bar["ohms"]) for bar in bars][::2] == [
        ("Socket 1", "r1_rn", 0.24),
        ("Socket 2", "r1_rn", 0.25),
        ("Socket 3", "r1_rn", 0.9),
    ]
    assert [bar["outlet"] for bar in bars if bar["poor_joint"]] == ["Socket 3", "Socket 3"]
    assert all(0 < bar["up"] <= 1 for bar in bars)
    taken = lines(anna, cottage)["ring"]["taken"]["outcome"]
    assert taken["result"] == "fail"
    assert "Socket 3: one pair reads high" in taken["text"]
