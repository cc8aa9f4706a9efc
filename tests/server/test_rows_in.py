"""Rows of a spreadsheet: what would come of each is said before it is written, and a bad one holds up no other."""

import json
from uuid import uuid4

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from brought.models import BroughtFile
from exchange.short_writes import write
from readings.models import Reading
from tests.server.files import AT, HEADER, ROWS, bring, row, rows, said, saved
from tests.server.on_sheets import fill
from tests.server.requests import entry, record
from tests.server.test_proofs import prove_dead
from tests.server.test_record_files import verdict


def test_rows_are_looked_at_then_brought_in_and_bringing_them_again_changes_nothing(anna, place):
    looked = bring(anna, "rows/readings", ROWS, look=True)
    assert looked.json()["counts"] == {"new": 1}
    assert not Reading.objects.exists()
    assert not BroughtFile.objects.exists()
    for counted in ({"new": 1}, {"here": 1}):
        answer = bring(anna, "rows/readings", ROWS)
        assert answer.json()["counts"] == counted
    [reading] = anna.get(f"/points/{place['point']}/bench").json()["readings"]
    assert reading["entry"]["value"] == 119.4
    assert "brought in by" in reading["by"]
    [file] = anna.get("/brought").json()
    assert (file["name"], file["what"]) == ("theirs.csv", "readings")


BAD = {
    "value [V]: “119,6” has a comma": row(value="119,6"),
    "value [V]: “0.4 A” is in A": row(value="0.4 A"),
    "value [V]: “=HYPERLINK(1)” is a formula": row(value="=HYPERLINK(1)"),
    "value [V]: “OL” is no number": row(value="OL"),
    "point: there is no point called “Outlet 9”": row(point="Outlet 9"),
    "circuit: no point called “Outlet 1” is on “Pier”": row(circuit="Pier"),
    "point: is missing": row(point=""),
    "quantity: must be one of": row(quantity="vibes"),
    "to: ": row(to="L9"),
    "taken at: is missing": row(at=""),
    "taken at: “24/11/2026” is no time": row(at="24/11/2026"),
    "is still to come": row(at="2099-01-01T00:00:00+00:00"),
    "taken at: “2026-11-24 10:40” says no offset": row(at="2026-11-24 10:40"),
    "cannot be negative": row(value="-5"),
    "has 9 cells under 8 headers": row() + ',"x"',
    "cannot be written down": row(point="Outlet\x01 1"),
}


def test_every_bad_row_says_which_cell_and_why_and_the_others_go_in(anna, place):
    content = rows(*BAD.values(), row(value="119.9"))
    found = said(bring(anna, "rows/readings", content, look=True))
    for number, why in enumerate(BAD, 2):
        assert why in found[number], (why, found[number])
    answer = bring(anna, "rows/readings", content)
    assert answer.json()["counts"] == {"cannot": len(BAD), "new": 1}
    [reading] = anna.get(f"/points/{place['point']}/bench").json()["readings"]
    assert reading["entry"]["value"] == 119.9
    runs = answer.json()["runs"]
    assert [(run["fate"], run["first"], run["last"]) for run in runs] == [
        ("cannot", 2, len(BAD) + 1), ("new", len(BAD) + 2, len(BAD) + 2),
    ]  # fmt: skip


def test_the_same_row_twice_goes_in_once(anna, place):
    content = rows(row(), row(), row(value="119.5"))
    assert said(bring(anna, "rows/readings", content, look=True)) == {3: ": the same as on line 2"}
    assert bring(anna, "rows/readings", content).json()["counts"] == {"new": 2, "twice": 1}
    assert Reading.objects.count() == 2


def test_a_strange_spreadsheet_is_matched_once_and_remembered_by_the_crew_alone(anna, place, stranger):
    header = "Where;When;Shown (mV);Meter;Weather"
    content = rows("Outlet 1;2026-11-24 11:40;119400,5;M2;rain", header=header)
    looked = bring(anna, "rows/readings", content, look=True).json()
    assert looked["missing"] == ["point", "quantity"]
    assert looked["columns"] == {"When": {"column": "taken at", "unit": ""}, "Meter": {"column": "tester", "unit": ""}}
    assert looked["decimal"] == "."
    how = {
        "columns": {
            **looked["columns"],
            "Where": {"column": "point"},
            "Shown (mV)": {"column": "value [V]", "unit": "mV"},
        },
        "fixed": {"quantity": "voltage", "from": "L", "to": "N", "mode": "ac"},
        "decimal": ",",
        "zone": "Europe/Vienna",
    }
    looked = bring(anna, "rows/readings", content, look=True, **how)
    assert looked.json()["counts"] == {"new": 1}, looked.json()["said"]
    assert bring(anna, "rows/readings", content, **how).status_code == 200
    reading = Reading.objects.get()
    assert (reading.entry["value"], reading.taken_at.hour) == (119.4005, 10)
    assert str(reading.tester_id) == place["tester"]
    again = bring(anna, "rows/readings", content, look=True).json()
    assert (again["remembered"], again["counts"], again["zone"]) == (True, {"here": 1}, "Europe/Vienna")
    assert bring(stranger, "rows/readings", content, look=True).json()["remembered"] is False


def test_commas_everywhere_are_proposed_as_decimal_marks(anna, place):
    content = rows(f"{AT};Workshop;Outlet 1;voltage;L;N;ac;119,4", header=HEADER.replace(",", ";"))
    looked = bring(anna, "rows/readings", content, look=True).json()
    assert (looked["decimal"], looked["counts"]) == (",", {"new": 1})
    assert looked["first"][0][-1] == "119.4"


def test_what_comes_in_confirms_only_with_a_tester_of_the_kit_as_it_is_known(anna, place):
    pairs = (("L", "N", 119.8), ("L", "PE", 119.6), ("N", "PE", 0.35))
    header = f"{HEADER},tester"
    for label, expected in (("Somebody's", "untested"), ("m2", "unconfirmed")):
        told = [row(**{"from": a, "to": b, "value": str(v)}) + f',"{label}"' for a, b, v in pairs]
        bring(anna, "rows/readings", rows(*told, header=header))
        assert verdict(anna, place["point"]) == expected
    named = [r["tester_label"] for r in anna.get(f"/points/{place['point']}/bench").json()["readings"]]
    assert named.count("M2") == 3
    table = saved(anna, "/tables/readings").decode()
    assert table.count("Somebody's") == 3


def test_an_alarm_in_a_file_warns_whoever_measured_it(anna, place):
    bring(anna, "rows/readings", rows(row(**{"from": "PE", "to": "REF", "value": "119.9"})))
    assert verdict(anna, place["point"]) == "danger"


def test_corrections_come_in_order_and_only_of_what_is_there(anna, place):
    a, b, c, d, e = (str(uuid4()) for _ in range(5))
    header = f"id,{HEADER},status,corrects"

    def told(own, status="", corrects="", value="119.4"):
        return f"{own},{row(value=value)},{status},{corrects}"

    content = rows(
        told(b, "counts", a, "119.8"), told(a, "corrected", "", "11.98"), told(c, "withdrawn"),
        told(d, "", str(uuid4())), told(e, "corrected"), header=header,
    )  # fmt: skip
    found = said(bring(anna, "rows/readings", content, look=True))
    assert set(found) == {5, 6}
    assert "no such reading" in found[5]
    assert "no row of the file corrects it" in found[6]
    bring(anna, "rows/readings", content)
    bench = anna.get(f"/points/{place['point']}/bench").json()
    assert {r["id"]: r["status"] for r in bench["readings"]} == {a: "corrected", b: "counts", c: "withdrawn"}
    late = rows(told(str(uuid4()), "", a), told(str(uuid4()), "", b), told(str(uuid4()), "", b), header=header)
    found = said(bring(anna, "rows/readings", late, look=True))
    assert "corrected or withdrawn already" in found[2]
    assert len(found) == 2
    circle = rows(told(d, "corrected", e), told(e, "corrected", d), header=header)
    assert "circle" in said(bring(anna, "rows/readings", circle, look=True))[2]


@pytest.mark.parametrize("bad", ["value", "point"])
def test_a_reading_does_not_come_to_count_because_its_correction_could_not_come_in(anna, place, bad):
    """It was 11.98 by a slip; the row that says 119.8 cannot be read, and with it goes what it was to correct."""
    slip, right, again = (str(uuid4()) for _ in range(3))
    header = f"id,{HEADER},status,corrects"
    spoiled = {"value": "11O.8"} if bad == "value" else {"point": "Outlet 9"}
    content = rows(
        f"{slip},{row(value='11.98')},corrected,", f"{right},{row(**spoiled)},corrected,{slip}",
        f"{again},{row(value='119.9')},counts,{right}", f"{uuid4()},{row(value='119.7')},,", header=header,
    )  # fmt: skip
    answer = bring(anna, "rows/readings", content)
    assert answer.json()["counts"] == {"cannot": 3, "new": 1}
    found = said(answer)
    assert "no row of the file corrects it" in found[2]
    assert "no such reading" in found[4]
    [reading] = anna.get(f"/points/{place['point']}/bench").json()["readings"]
    assert reading["entry"]["value"] == 119.7


def test_what_cannot_go_in_takes_the_whole_line_of_corrections_with_it(anna, place):
    a, b, c, d = (str(uuid4()) for _ in range(4))
    header = f"id,{HEADER},status,corrects"
    told = [
        f"{a},{row(value='1')},corrected,", f"{b},{row(value='2')},corrected,{a}",
        f"{c},{row(value='3')},corrected,{b}",
        f"{d},{row(value='4')},,{a}", f"{uuid4()},{row(value='5')},,",
    ]  # fmt: skip
    answer = bring(anna, "rows/readings", rows(*told, header=header))
    assert answer.json()["counts"] == {"cannot": 4, "new": 1}
    assert "line 3 corrects the same" in said(answer)[5]
    assert Reading.objects.count() == 1


def test_nothing_corrects_what_was_withdrawn(anna, place):
    a = str(uuid4())
    header = f"id,{HEADER},status,corrects"
    told = [f"{a},{row()},withdrawn,", f"{uuid4()},{row(value='3')},,{a}"]
    answer = bring(anna, "rows/readings", rows(*told, header=header))
    assert "it was withdrawn" in said(answer)[3]
    assert answer.json()["counts"] == {"new": 1, "cannot": 1}
    [reading] = anna.get(f"/points/{place['point']}/bench").json()["readings"]
    assert reading["status"] == "withdrawn"


def test_what_is_on_record_otherwise_stays(anna, place):
    own = str(uuid4())
    record(anna, place, entry(119.8), own)
    content = rows(f"{own},{row(value='3')}", header=f"id,{HEADER}")
    assert bring(anna, "rows/readings", content).json()["counts"] == {"differs": 1}
    assert Reading.objects.get().entry["value"] == 119.8


def test_places_with_one_name_are_told_apart_or_named(anna, place):
    other = str(uuid4())
    anna.put(f"/circuits/{other}", {"board": place["board"], "name": "Pier", "rating_a": 20})
    outlet = {"circuit": other, "name": "Outlet 1", "kind": "outlet", "terminals": ["L", "N", "PE"]}
    anna.put(f"/points/{uuid4()}", outlet)
    header = HEADER.replace("circuit,", "")
    assert (
        "2 are called"
        in said(bring(anna, "rows/readings", rows(row().replace('"Workshop",', ""), header=header), look=True))[2]
    )
    assert bring(anna, "rows/readings", ROWS, look=True).json()["counts"] == {"new": 1}


def test_how_a_file_is_read_is_checked(anna, place):
    for how, path in (
        ({"columns": {"moon": {"column": "point"}}}, "columns.moon"),
        ({"columns": {"point": {"column": "from file"}}}, "columns.point"),
        ({"columns": {"point": {"column": "point"}, "circuit": {"column": "point"}}}, "columns.circuit"),
        ({"columns": {"point": {"column": "point", "unit": "furlong"}}}, "columns.point"),
        ({"fixed": {"value [V]": "3"}}, "fixed.value [V]"),
        ({"decimal": "x"}, "decimal"),
        ({"zone": "Mars/Olympus"}, "zone"),
        ({"moon": 1}, "moon"),
    ):
        answer = bring(anna, "rows/readings", ROWS, look=True, **how)
        assert (answer.status_code, answer.json()["problems"][0]["path"]) == (422, path)
    assert bring(anna, "rows/readings", ROWS, look=True, site=str(uuid4())).status_code == 404
    assert bring(anna, "rows/moons", ROWS, look=True).status_code in (404, 422)
    assert bring(anna, "rows/readings", "a,b\r\n1,2", look=True).json()["missing"] == ["point", "quantity"]
    refused = bring(anna, "rows/readings", "a,b\r\n1,2")
    assert (refused.status_code, refused.json()["problems"][0]["path"]) == (422, "columns.point")


def test_a_file_that_changed_since_it_was_looked_at_is_looked_at_again(anna, place):
    looked = bring(anna, "rows/readings", ROWS, look=True).json()
    body = {"file": SimpleUploadedFile("x.csv", ROWS.replace("119.4", "3").encode()), "sha256": looked["sha256"]}
    answer = anna.client.post("/api/brought/rows/readings", body)
    assert answer.status_code == 422
    assert "changed meanwhile" in answer.json()["problems"][0]["text"]


@pytest.mark.parametrize("what", ["readings", "circuits", "dead-tests", "kit"])
def test_nothing_goes_to_or_is_seen_of_another_crew(anna, bench_kit, stranger, what):
    prove_dead(anna, bench_kit)
    fill(anna, bench_kit)
    record(anna, bench_kit, entry(119.8))
    table = saved(anna, f"/tables/{what}")
    before = json.loads(saved(anna, "/record"))
    bring(stranger, f"rows/{what}", table)
    bring(stranger, f"rows/{what}", table, site=bench_kit["site"])
    assert json.loads(saved(anna, "/record")) == before
    assert anna.get("/brought").json() == []
    if what in ("readings", "dead-tests"):
        assert "there is no" in next(iter(said(bring(stranger, f"rows/{what}", table, look=True)).values()))


def test_a_survey_file_is_marked_too(anna, place, stranger):
    record(anna, place, entry(119.8))
    survey = anna.get(f"/sites/{place['site']}/survey").json()
    stranger.put(f"/sites/{uuid4()}", {"name": "x", "practice": "north-america"})
    assert stranger.put(f"/sites/{uuid4()}/survey", {"survey": survey}).status_code == 200
    [file] = stranger.get("/brought").json()
    assert (file["what"], len(file["sha256"])) == ("survey", 64)
    [site] = [one for one in stranger.get("/sites").json() if one["name"] == "Larkspur Hill"]
    point = stranger.get(f"/sites/{site['id']}").json()["supplies"][0]["boards"][0]["circuits"][0]["points"][0]
    assert file["sha256"][:8] in stranger.get(f"/points/{point['id']}/bench").json()["readings"][0]["by"]
    assert verdict(stranger, point["id"]) == "untested"


def test_two_who_bring_the_same_at_once_write_it_once(anna, place, monkeypatch):
    def both(waiting):
        waiting = list(waiting)
        write(waiting)
        write(waiting)

    monkeypatch.setattr("exchange.rows.bringing.write", both)
    answer = bring(anna, "rows/readings", ROWS)
    assert answer.status_code == 409
    assert "meanwhile" in answer.json()["problems"][0]["text"]
    monkeypatch.undo()
    assert bring(anna, "rows/readings", ROWS).json()["counts"] == {"here": 1}
    assert Reading.objects.count() == 1
