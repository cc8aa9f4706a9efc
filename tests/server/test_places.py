"""An outlet measured before it belongs anywhere; places and kit taken out of use and brought back."""

from uuid import uuid4

import pytest

from readings.models import Reading
from sites.models import Point, Site, Supply
from tests.server.requests import entry, record

LOOSE = {"practice": "north-america", "terminals": ["L", "N", "PE"]}


def measure(person, point_id=None, **changes):
    return person.put(f"/loose-outlets/{point_id or uuid4()}", {**LOOSE, **changes})


def bench(person, point):
    return person.get(f"/points/{point}/bench").json()


def retire(person, what, place_id, *, retired=True):
    answer = person.put(f"/places/{what}/{place_id}/retired", {"retired": retired})
    assert answer.status_code == 200, answer.content


@pytest.mark.parametrize(
    ("practice", "terminals", "system"),
    [
        ("north-america", ["L", "N", "PE"], "120"),
        ("north-america", ["L1", "L2", "N", "PE"], "120/240"),
        ("british", ["L", "N", "PE"], "230"),
        ("continental", ["L1", "L2", "L3", "N", "PE"], "230/400"),
    ],
)
def test_an_outlet_is_measured_before_anything_is_on_record(anna, practice, terminals, system):
    point = measure(anna, practice=practice, terminals=terminals).json()["id"]
    found = bench(anna, point)
    assert (found["system"], found["earthing"], found["loose"]) == (system, "TN-S", True)
    assert found["interpretation"]["next_tests"], "the first pair"
    assert record(anna, {"point": point}, entry(119.8, tuple(terminals[:2]))).status_code == 200


def test_every_face_of_every_practice_can_be_measured(anna):
    for practice in anna.get("/reference").json()["practices"]:
        for contacts in practice["outlets"]:
            answer = measure(anna, practice=practice["id"], terminals=contacts.split())
            assert answer.status_code == 200, (practice["id"], contacts, answer.content)


def test_the_same_outlet_again_is_one_and_another_is_not(anna, stranger):
    point = str(uuid4())
    first = measure(anna, point).json()
    assert measure(anna, point).json() == first == {"id": point, "name": "Outlet 1"}
    assert measure(anna).json()["name"] == "Outlet 2"
    assert measure(anna, point, terminals=["L1", "L2", "PE"]).status_code == 409
    assert measure(stranger, point).status_code == 404
    assert Site.objects.count() == 1
    assert Point.objects.count() == 2


def test_contacts_no_supply_has_are_refused(anna):
    answer = measure(anna, terminals=["L3", "CASE"])
    assert [p["path"] for p in answer.json()["problems"]] == ["terminals"]
    assert not Site.objects.exists()


def test_a_loose_outlet_is_filed_with_its_readings_and_judged_by_its_new_supply(anna, place):
    point = measure(anna).json()["id"]
    record(anna, {"point": point}, entry(119.8))
    body = {"circuit": place["circuit"], "name": "By the window"}
    for _ in range(2):
        site = anna.put(f"/points/{point}/filed", body).json()
        assert site["id"] == place["site"]
    found = bench(anna, point)
    assert (found["name"], found["loose"], found["system"]) == ("By the window", False, "120/240")
    assert Reading.objects.get().point_id == Point.objects.get(name="By the window").id
    loose = next(s for s in anna.get("/sites").json() if s["loose"])
    assert loose["verdicts"] == []
    assert anna.get(f"/sites/{loose['id']}").json()["supplies"] == []
    assert Supply.objects.filter(site__loose=True).count() == 1, "out of use, not gone"


def test_a_loose_outlet_is_not_filed_where_its_contacts_have_other_names(anna, place):
    point = measure(anna, practice="british").json()["id"]
    answer = anna.put(f"/points/{point}/filed", {"circuit": place["circuit"], "name": "x"})
    assert [p["path"] for p in answer.json()["problems"]] == ["circuit"]


@pytest.mark.parametrize("what", ["site", "supply", "board", "circuit", "point"])
def test_what_is_out_of_use_is_on_no_list_and_can_be_brought_back(anna, place, what):
    record(anna, place, entry(150.0))
    before = [anna.get(path).json() for path in ("/today", "/outlets", f"/sites/{place['site']}")]
    assert before[0]["points"]
    retire(anna, what, place[what])
    retire(anna, what, place[what])
    today, outlets, site = (anna.get(path).json() for path in ("/today", "/outlets", f"/sites/{place['site']}"))
    assert (today["points"], outlets, today["measured"]) == ([], [], 0)
    if what == "site":
        assert [s["retired"] for s in anna.get("/sites").json()] == [True]
    else:
        assert [(r["what"], r["id"]) for r in site["retired"]] == [(what, place[what])]
    assert bench(anna, place["point"])["readings"], "what was recorded there is still read"
    retire(anna, what, place[what], retired=False)
    assert [anna.get(path).json() for path in ("/today", "/outlets", f"/sites/{place['site']}")] == before


def test_nothing_else_is_a_place(anna, place):
    assert anna.put(f"/places/crew/{place['site']}/retired", {"retired": True}).status_code == 404


def test_a_circuit_out_of_use_gets_no_new_sheet(anna, place):
    assert [c["id"] for c in anna.get("/sheets").json()["circuits"]] == [place["circuit"]]
    retire(anna, "board", place["board"])
    assert anna.get("/sheets").json()["circuits"] == []


def test_kit_taken_out_of_use_is_listed_with_its_crew_and_comes_back_as_it_was(anna, stranger, bench_kit):
    place = bench_kit
    before = {path: anna.get(path).json() for path in ("/testers", "/parts")}
    tester = next(t for t in before["/testers"] if t["id"] == place["tester"])
    anna.put(f"/testers/{place['tester']}", {"label": tester["label"], "kind": tester["kind"], "retired": True})
    leads = {"role": "leads", "label": "Leads A", "category": "III", "rated_v": 1000, "tip_covers": True}
    anna.put(f"/parts/{place['leads']}", {**leads, "retired": True})
    assert [one["id"] for one in anna.get("/kit/out-of-use").json()] == [place["tester"], place["leads"]]
    assert stranger.get("/kit/out-of-use").json() == []
    assert place["tester"] not in [t["id"] for t in anna.get("/testers").json()]
    for kit in (place["tester"], place["leads"], place["leads"]):
        assert anna.put(f"/kit/{kit}/back", {}).status_code == 200
    assert anna.get("/kit/out-of-use").json() == []
    assert [t["id"] for t in anna.get("/testers").json()] == [t["id"] for t in before["/testers"]]
    assert place["leads"] in [p["id"] for p in anna.get("/parts").json()]
