"""Circuits, kit and dead tests of a spreadsheet: what is missing is made, and what cannot be is named."""

import csv
import io
from uuid import uuid4

from tests.server.files import ROWS, bring, rows, said, saved
from tests.server.on_sheets import fill
from tests.server.requests import entry, record
from tests.server.test_proofs import prove_dead


def without(table, *columns):
    return [
        {key: value for key, value in one.items() if key not in ("from file", *columns)}
        for one in csv.DictReader(io.StringIO(table.decode("utf-8-sig"), newline=""))
    ]


def test_all_four_tables_of_a_crew_make_the_same_tables_of_another(anna, bench_kit, stranger):
    prove_dead(anna, bench_kit)
    fill(anna, bench_kit)
    for content in (entry(119.8, note='=HYPERLINK("http://x")'), entry(11.9), {"quantity": "frequency", "value": 60}):
        record(anna, bench_kit, content, tester=bench_kit["tester"])
    stranger.put(f"/sites/{uuid4()}", {"name": "Larkspur Hill", "practice": "north-america"})
    for what in ("kit", "circuits", "readings", "dead-tests"):
        table = saved(anna, f"/tables/{what}")
        assert set(bring(anna, f"rows/{what}", table, look=True).json()["counts"]) == {"here"}
        for counted in ("new", "here"):
            answer = bring(stranger, f"rows/{what}", table)
            assert set(answer.json()["counts"]) == {counted}, answer.content
        again = saved(stranger, f"/tables/{what}")
        proof_is_not_in_it = ("does not count because",)
        assert without(again, *proof_is_not_in_it) == without(table, *proof_is_not_in_it)
    sheets = saved(stranger, "/tables/dead-tests").decode()
    assert "does not count because" in sheets
    assert all(one["does not count because"] for one in without(sheets.encode()))
    assert all(one["strange"] for one in stranger.get("/brought").json() if one["what"] == "kit")


WRONG_KIT = {
    "kind: must be one of": '"X1","sundial",""',
    "label: is missing": '"","multimeter",""',
    "rated [V]: must be more than 0": '"X2","multimeter","-5"',
}


def test_kit_that_cannot_be_is_named_and_what_can_is_strange(anna, place):
    content = "label,kind,rated [V]\r\n" + "\r\n".join([*WRONG_KIT.values(), '"X3","multimeter","600"'])
    found = said(bring(anna, "rows/kit", content))
    for number, why in enumerate(WRONG_KIT, 2):
        assert why in found[number], found
    [strange] = [t for t in anna.get("/testers").json() if t["label"] == "X3"]
    assert any("came from a file" in one["text"].lower() for one in strange["attention"])


def test_a_faulty_tester_does_not_come_in_as_a_good_one(anna, place, stranger):
    anna.put(f"/testers/{place['tester']}/faults/{uuid4()}", {"what": "reads low", "since": "2026-11-01T00:00:00Z"})
    bring(stranger, "rows/kit", saved(anna, "/tables/kit"))
    [tester] = stranger.get("/testers").json()
    stranger.put(f"/testers/{tester['id']}/ours", {})
    [tester] = stranger.get("/testers").json()
    assert any("reads low" in one["text"] for one in tester["attention"])


def test_circuits_make_what_is_missing_and_say_what_they_cannot(anna, stranger):
    header = "supply,system,earthing,board,circuit,rating [A],conductor,point,contacts,cable [m]"
    site = str(uuid4())
    stranger.put(f"/sites/{site}", {"name": "Larkspur Hill", "practice": "north-america"})
    content = rows(
        "Service,120/240,TN-C-S,W,Workshop,20,12 AWG,Outlet 1,L N PE,18", "Service,,,W,Workshop,20,12 AWG,Outlet 2,,22",
        "Service,,,W,Pier,20,12 AWG,Outlet 1,L N PE,", "Annex,231,TN-S,W,X,20,,O,,",
        "Service,,,W,Workshop,,,Outlet 3,L Q,",
        "Service,,,W,Workshop,20,12 AWG,Outlet 1,,18", "Barn,,,W,X,20,,O,,", header=header,
    )  # fmt: skip
    found = said(bring(stranger, "rows/circuits", content, site=site))
    assert set(found) == {5, 6, 7, 8}
    assert "231" in found[5]
    assert "contacts: " in found[6]
    assert "line 2" in found[7]
    assert "needs its system and earthing" in found[8]
    boards = stranger.get(f"/sites/{site}").json()["supplies"][0]["boards"]
    circuits = {c["name"]: [p["name"] for p in c["points"]] for c in boards[0]["circuits"]}
    assert circuits == {"Workshop": ["Outlet 1", "Outlet 2"], "Pier": ["Outlet 1"]}
    other = rows("Elsewhere,W,Workshop,Outlet 1", header="site,board,circuit,point")
    assert "go to Larkspur Hill" in said(bring(stranger, "rows/circuits", other, site=site, look=True))[2]
    assert "there is no site called" in said(bring(stranger, "rows/circuits", other, look=True))[2]


def test_rows_that_say_otherwise_of_a_circuit_are_named_and_nothing_they_say_is_lost_unseen(anna, place):
    header = "board,circuit,rating [A],conductor,point"
    content = rows(
        "W,Workshop,16,12 AWG,Outlet 2", "W,Pier,20,,P1", "W,Pier,32,,P2", "W,Workshop,,,Outlet 3", header=header
    )
    found = said(bring(anna, "rows/circuits", content, site=place["site"]))
    assert "says 16.0, and the circuit Workshop has 20.0" in found[2]
    assert "says 32.0, and the circuit Pier has 20.0" in found[4]
    assert set(found) == {2, 4}
    named = rows("Service,230,TN-S,W,Workshop,Outlet 4", header="supply,system,earthing,board,circuit,point")
    assert "the supply Service has 120/240" in said(bring(anna, "rows/circuits", named, site=place["site"]))[2]


def test_nothing_is_hung_on_what_is_out_of_use(anna, place):
    assert anna.put(f"/places/circuit/{place['circuit']}/retired", {"retired": True}).status_code == 200
    content = rows("W,Workshop,Outlet 2", header="board,circuit,point")
    assert "Workshop is out of use here" in said(bring(anna, "rows/circuits", content, site=place["site"]))[2]
    assert "there is no point called" in said(bring(anna, "rows/readings", ROWS, look=True))[2]
