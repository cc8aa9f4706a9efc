"""What is put down on a sheet: once, corrected, slipped, from a file, and from visit to visit."""

import base64
from datetime import timedelta
from uuid import uuid4

import pytest
from django.utils import timezone

from photos.models import Photo
from proofs.models import ProofEvent
from sheets.models import SheetEntry
from tests.server.conftest import PICTURE
from tests.server.on_sheets import (
    OUT,
    codes,
    fill,
    lines,
    put,
    put_test,
)
from tests.server.test_proofs import prove_dead
from tests.tampering import tampering


def test_a_retry_is_the_same_entry_and_other_content_is_refused(anna, bench_kit):
    place, one = bench_kit, str(uuid4())
    for _ in range(2):
        answer = put_test(anna, place, "insulation L-N", "insulation", one, measured_mohm=300)
        assert answer.status_code == 200, answer.content
    assert SheetEntry.objects.count() == 1
    assert put_test(anna, place, "insulation L-N", "insulation", one, measured_mohm=301).status_code == 409
    assert put_test(anna, place, "insulation L-PE", "insulation", one, measured_mohm=300).status_code == 409


def test_what_was_typed_in_kilohms_is_kept_in_ohms_and_a_retry_of_it_is_the_same(anna, bench_kit):
    place, one = bench_kit, str(uuid4())
    for _ in range(2):
        answer = put_test(anna, place, "apart L-N", "low_ohm", one, measured_ohm=2.2, unit="kohm")
        assert answer.status_code == 200, answer.content
    assert SheetEntry.objects.get().entry["test"]["measured_ohm"] == pytest.approx(2200)
    wrong = put_test(anna, place, "apart L-N", "low_ohm", measured_ohm=2.2, unit="furlong")
    assert wrong.json()["problems"][0]["path"] == "unit"


def test_a_correction_and_what_is_taken_back_stay_in_the_log(anna, bench_kit):
    place, slip, right = bench_kit, str(uuid4()), str(uuid4())
    put_test(anna, place, "insulation L-N", "insulation", slip, measured_mohm=3)
    answer = put_test(anna, place, "insulation L-N", "insulation", right, supersedes=slip, measured_mohm=300)
    assert [e["status"] for e in answer.json()["entries"]] == ["taken back", "counts"]
    assert put_test(anna, place, "insulation L-N", "insulation", supersedes=slip, measured_mohm=1).status_code == 409
    answer = put(anna, place, None, supersedes=right)
    assert [e["says"] for e in answer.json()["entries"]][-1] == "Taken back"
    assert lines(anna, place)["insulation L-N"]["taken"] is None
    assert put(anna, place, None).status_code == 422
    for call in (SheetEntry.objects.first().save, SheetEntry.objects.first().delete):
        with pytest.raises(RuntimeError):
            call()


def test_a_number_a_thousand_times_off_is_asked_about_and_believed_when_it_stands(anna, bench_kit):
    place, one = bench_kit, str(uuid4())
    prove_dead(anna, place)
    put(anna, place, OUT)
    line = next(iter(lines(anna, place)))
    answer = put_test(anna, place, line, "low_ohm", one, measured_ohm=120)
    taken = answer.json()["lines"][0]["taken"]
    assert "120 mΩ" in taken["outcome"]["question"] == taken["doubt"]
    answer = put(anna, place, {"type": "believed", "test": one})
    assert answer.json()["lines"][0]["taken"]["doubt"] == ""


@pytest.mark.parametrize(
    ("entry", "path"),
    [
        ({"type": "looked", "item": "ceiling", "good": True}, "item"),
        ({"type": "looked", "item": "burnt"}, "good"),
        ({"type": "looked", "item": "burnt", "good": False, "photo": "nowhere"}, "photo"),
        ({"type": "leads", "null_ohm": -0.1}, "null_ohm"),
        ({"type": "loads", "loads": "out", "neutral": "lifted"}, "loads"),
        ({"type": "tested", "line": "nowhere", "test": {}}, "line"),
        ({"type": "tested", "line": "device", "test": "good"}, "test"),
        ({"type": "tested", "line": "device", "test": {}}, "closed_ohm"),
        ({"type": "tested", "line": "device", "test": {"closed_ohms": 1}}, "closed_ohms"),
        ({"type": "left", "line": "device", "reason": "no"}, "reason"),
        ({"type": "sat down"}, "type"),
        ({}, "type"),
    ],
)
def test_a_slip_is_named_and_nothing_is_kept(anna, bench_kit, entry, path):
    answer = put(anna, bench_kit, entry)
    assert answer.status_code == 422, answer.content
    assert path in answer.json()["problems"][0]["path"]
    assert SheetEntry.objects.count() == 0


def test_a_photo_is_kept_beside_what_was_seen(anna, stranger, bench_kit):
    place = bench_kit
    looked = {"type": "looked", "item": "burnt", "good": False, "photo": place["photo"]}
    answer = put(anna, place, looked)
    assert next(x for x in answer.json()["look"] if x["id"] == "burnt")["photo"] == place["photo"]
    assert "seen" in codes(answer)
    picture = anna.get(f"/photos/{place['photo']}")
    assert (picture["content-type"], picture.content) == ("image/png", base64.b64decode(PICTURE))
    assert anna.put(f"/photos/{place['photo']}", {"image": PICTURE}).status_code == 200
    assert anna.put(f"/photos/{uuid4()}", {"image": "not a picture"}).status_code == 422
    assert anna.put(f"/photos/{uuid4()}", {"image": base64.b64encode(b"GIF89a").decode()}).status_code == 422
    assert Photo.objects.count() == 1
    assert put(stranger, place, looked).status_code == 404


def test_the_tests_leave_as_a_file_and_come_back_once(anna, bench_kit):
    place = bench_kit
    fill(anna, place)
    file = anna.get(f"/sheets/{place['sheet']}/tests").json()
    assert {t["kind"] for t in file["tests"]} == {"continuity", "separation", "closed-contact", "insulation"}
    count = SheetEntry.objects.count()
    assert anna.put(f"/sheets/{place['sheet']}/tests", {"tests": file}).status_code == 200
    assert SheetEntry.objects.count() == count
    other = str(uuid4())
    anna.put(f"/sheets/{other}", {"circuit": place["circuit"]})
    for _ in range(2):
        answer = anna.put(f"/sheets/{other}/tests", {"tests": file})
    assert all(line["taken"] for line in answer.json()["lines"])
    assert len(answer.json()["entries"]) == len(file["tests"])
    bad = {**file, "tests": [{**file["tests"][0], "measured_ohm": -1}]}
    refused = anna.put(f"/sheets/{other}/tests", {"tests": bad})
    assert refused.json()["problems"][0]["path"] == "tests[0].measured_ohm"


def test_a_file_is_nobodys_being_there_and_keeps_no_proof_alive(anna, bench_kit, monkeypatch):
    monkeypatch.setattr("sheets.services.STILL_HERE_AFTER", timedelta(days=-1))
    place = bench_kit
    fill(anna, place)
    events = ProofEvent.objects.count()
    tests = [
        {**t, "id": f"other {n}"} for n, t in enumerate(anna.get(f"/sheets/{place['sheet']}/tests").json()["tests"])
    ]
    undated = [{key: value for key, value in t.items() if key not in ("at", "by")} for t in tests]
    file = {"format": "even-probe/tests", "version": 1, "practice": "north-america", "tests": undated}
    before = SheetEntry.objects.count()
    answer = anna.put(f"/sheets/{place['sheet']}/tests", {"tests": file})
    assert answer.status_code == 200, answer.content
    assert SheetEntry.objects.count() == before + len(undated)
    assert ProofEvent.objects.count() == events


def test_insulation_is_followed_from_visit_to_visit(anna, bench_kit):
    place = bench_kit
    put_test(anna, place, "insulation L-PE", "insulation", measured_mohm=120)
    later = {**place, "sheet": str(uuid4())}
    anna.put(f"/sheets/{later['sheet']}", {"circuit": place["circuit"], "temperature_c": 20})
    assert lines(anna, later)["insulation L-PE"]["preset"]["previous_mohm_20c"] == pytest.approx(120)
    answer = put_test(anna, later, "insulation L-PE", "insulation", measured_mohm=40).json()
    taken = next(x for x in answer["lines"] if x["id"] == "insulation L-PE")["taken"]
    assert (taken["outcome"]["result"], taken["outcome"]["computed"]["trend"]) == (
        "note",
        pytest.approx(0.333, abs=1e-3),
    )
    history = answer["history"][0]
    assert ([m["halved"] for m in history["marks"]], history["halved"]) == ([False, True], True)
    assert history["marks"][0]["up"] > history["marks"][1]["up"] > history["limit_up"]
    assert anna.get("/sheets").json()["sheets"][0]["halved"] is True


def test_working_on_the_sheet_is_being_there(anna, bench_kit):
    place = bench_kit
    prove_dead(anna, place)
    put(anna, place, OUT)
    assert not ProofEvent.objects.filter(type="returned").exists()
    with tampering(ProofEvent) as events:
        events.update(at=timezone.now() - timedelta(minutes=5))
    put(anna, place, OUT)
    assert ProofEvent.objects.filter(type="returned").count() == 1


def test_how_a_sheet_may_be_begun(anna, bench_kit):
    place = bench_kit
    wrong = [
        ({"wiring": "damp"}, "wiring"),
        ({"ring": True}, "ring"),
        ({"temperature_c": 400}, "temperature_c"),
    ]
    for more, path in wrong:
        answer = anna.put(f"/sheets/{uuid4()}", {"circuit": place["circuit"], **more})
        assert (answer.status_code, answer.json()["problems"][0]["path"]) == (422, path)
    answer = anna.put(f"/sheets/{place['sheet']}", {"circuit": place["circuit"], "wiring": "surge-protected"})
    assert answer.json()["test_v"] == 250
    assert answer.json()["proof"]["id"] == place["proof"]


def test_parts_are_advised_on_and_judged_alone(anna):
    reference = anna.get("/reference/sheets").json()
    for check in reference["checks"]:
        figures = dict.fromkeys(check["needs"], 230.0)
        advice = anna.post("/advise", {"check": check["id"], "figures": figures})
        assert advice.status_code == 200
        assert advice.json()["range_says"]
    assert anna.post("/advise", {"check": "toaster"}).status_code == 404
    heater = {"kind": "element", "rated_v": 230, "rated_w": 2000, "measured_ohm": 26.4}
    answer = anna.post("/judge", {"practice": "british", "test": heater})
    assert answer.json()["outcome"]["result"] == "pass"
    assert anna.post("/judge", {"practice": "martian", "test": heater}).status_code == 422
    assert anna.post("/judge", {"practice": "british", "test": {"kind": "toaster"}}).status_code == 422
