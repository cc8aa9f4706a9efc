"""The whole record as a file: out, in elsewhere, out again and the same; and what comes in so proves nothing yet."""

import json
import threading
from uuid import uuid4

import pytest
from django.apps import apps
from django.db import connection

import evenprobe
from brought.models import BroughtFile
from crews.models import Crew
from evenprobe.signing import canonical, digest
from exchange.record.leaving import record_file
from exchange.record.looking import read_file
from exchange.record.tables import BY_NAME, TABLES
from exchange.short_writes import write
from readings.models import Reading
from sites.models import Site
from sites.services import put_site
from tests.server.conftest import member
from tests.server.files import bring, saved
from tests.server.requests import entry, record
from tests.server.test_proofs import prove_dead
from tests.server.test_sign_offs import sign

SAFE = ((("L", "N"), 119.8), (("L", "PE"), 119.6), (("N", "PE"), 0.35), (("PE", "REF"), 0.1))


def with_hash(data):
    """The file as it would be saved with other content."""
    whole = {key: value for key, value in data.items() if key != "sha256"}
    return canonical({**whole, "sha256": digest(whole)})


def site_of(person):
    [site] = [one for one in person.get("/sites").json() if not one["loose"]]
    return site["id"]


def verdict(person, point):
    return person.get(f"/points/{point}/bench").json()["interpretation"]["verdict"]


def test_every_table_leaves_or_is_this_server_s_own():
    stay = {
        "Crew",
        "Membership",
        "BroughtFile",
        "Link",
        "Matching",
        "User",
        "Group",
        "Permission",
        "ContentType",
        "SignedIn",
        "SignInEvent",
        "SecondPerson",
        "PointStanding",
        "Practised",
        "PractisedAct",
        "CaseDebrief",
        "Changes",
        "OneTimeLink",
        "TOTPDevice",
        "StaticDevice",
        "StaticToken",
    }
    assert {model.__name__ for model in apps.get_models()} - stay == {table.model.__name__ for table in TABLES}


@pytest.mark.parametrize("whole_crew", [False, True])
def test_a_record_brought_in_to_an_empty_crew_is_the_same_record(anna, recorded, stranger, whole_crew):
    sign(anna, recorded)
    file = saved(anna, "/record" if whole_crew else f"/sites/{recorded['site']}/record")
    rows = json.loads(file)["rows"]
    only_of_crew = {"checks", "equipment"}
    assert {name for name, of_it in rows.items() if not of_it} <= (set() if whole_crew else only_of_crew)
    answer = bring(stranger, "record", file, name="anna.json")
    assert answer.status_code == 200, answer.content
    again = saved(stranger, "/record" if whole_crew else f"/sites/{site_of(stranger)}/record")
    assert again == file
    assert evenprobe.verify(again).sound
    before = {table.name: table.model._default_manager.count() for table in TABLES}
    assert bring(stranger, "record", file).status_code == 200
    assert {table.name: table.model._default_manager.count() for table in TABLES} == before
    looked = bring(stranger, "record", file, look=True).json()
    assert all(one["new"] == one["differs"] == 0 for one in looked["counts"])


def test_where_its_ids_are_free_it_keeps_them(anna, recorded):
    file = saved(anna, "/record")
    data = json.loads(file)
    elsewhere = json.loads(json.dumps(data).replace(recorded["site"], str(uuid4())))
    assert elsewhere != data
    looked = bring(anna, "record", with_hash(elsewhere), look=True).json()
    new = {one["table"]: one["new"] for one in looked["counts"] if one["new"]}
    assert new == {"sites": 1}
    assert {one["title"] for one in looked["differing"]} >= {"Supplies", "Proofs of isolation", "Visits"}


def test_its_rows_are_marked_with_who_brought_them_and_the_file_everywhere(anna, recorded, stranger):
    file = saved(anna, f"/sites/{recorded['site']}/record")
    bring(stranger, "record", file, name="anna.json")
    [brought] = stranger.get("/brought").json()
    assert (brought["name"], brought["what"], brought["sha256"]) == ("anna.json", "record", json.loads(file)["sha256"])
    site = stranger.get(f"/sites/{site_of(stranger)}").json()
    mark = f"file {brought['sha256'][:8]}, brought in by {brought['by']}"
    assert site["from_file"] == mark
    point = site["supplies"][0]["boards"][0]["circuits"][0]["points"][0]["id"]
    bench = stranger.get(f"/points/{point}/bench").json()
    assert bench["from_file"] == mark
    assert all(mark in reading["by"] for reading in bench["readings"])
    events = stranger.get(f"/timeline/site/{site['id']}").json()["happened"]
    assert events
    assert all(mark in event["by"] for event in events)
    draft = stranger.get(f"/drafts/site/{site['id']}").json()["content"]
    said = [r["by"] for c in draft["circuits"] for p in c["points"] for r in p["readings"]]
    assert said
    assert all(mark in by for by in said)
    assert all(mark in part["label"] for part in stranger.get("/parts").json())
    mine = anna.get(f"/points/{recorded['point']}/bench").json()
    assert not any("file" in reading["by"] for reading in mine["readings"])


def test_what_it_measured_confirms_nothing_until_its_tester_is_said_to_be_the_crew_s(anna, place, stranger):
    for pair, volts in SAFE:
        more = {"reference": "rod", "reference_at": "yard"} if "REF" in pair else {}
        assert record(anna, place, entry(volts, pair, **more), tester=place["tester"]).status_code == 200
    own = verdict(anna, place["point"])
    bring(stranger, "record", saved(anna, f"/sites/{place['site']}/record"))
    site = stranger.get(f"/sites/{site_of(stranger)}").json()
    point = site["supplies"][0]["boards"][0]["circuits"][0]["points"][0]["id"]
    bench = stranger.get(f"/points/{point}/bench").json()["interpretation"]
    assert bench["verdict"] == "untested"
    assert all("nobody here has said" in one["why"] for one in bench["not_counted"])
    [tester] = stranger.get("/testers").json()
    page = stranger.get(f"/testers/{tester['id']}").json()
    assert page["strange"] is True
    assert any("came from a file" in one["text"].lower() for one in tester["attention"])
    for _ in range(2):
        assert stranger.put(f"/testers/{tester['id']}/ours", {}).status_code == 200
    page = stranger.get(f"/testers/{tester['id']}").json()
    assert (page["strange"], page["taken_over"] != "") == (False, True)
    assert verdict(stranger, point) == own != "untested"


def test_an_alarm_in_it_warns_all_the_same(anna, place, stranger):
    record(anna, place, entry(119.9, ("PE", "REF")), tester=place["tester"])
    bring(stranger, "record", saved(anna, f"/sites/{place['site']}/record"))
    site = stranger.get(f"/sites/{site_of(stranger)}").json()
    point = site["supplies"][0]["boards"][0]["circuits"][0]["points"][0]["id"]
    assert verdict(stranger, point) == "danger" == verdict(anna, place["point"])


def test_a_reading_that_names_no_tester_confirms_nothing_elsewhere(anna, place, stranger):
    for pair, volts in SAFE[:3]:
        record(anna, place, entry(volts, pair))
    assert verdict(anna, place["point"]) != "untested"
    bring(stranger, "record", saved(anna, f"/sites/{place['site']}/record"))
    site = stranger.get(f"/sites/{site_of(stranger)}").json()
    point = site["supplies"][0]["boards"][0]["circuits"][0]["points"][0]["id"]
    assert verdict(stranger, point) == "untested"


def test_a_file_s_word_on_the_crew_s_own_tester_is_not_taken(anna, place):
    """A reading with our meter, said to be proved by whoever wrote the file, is what we know of the meter."""
    anna.put(f"/testers/{place['tester']}", {"label": "M2", "kind": "multimeter", "category": "II", "rated_v": 300})
    record(anna, place, entry(119.8), tester=place["tester"])
    data = json.loads(saved(anna, f"/sites/{place['site']}/record"))
    [row] = data["rows"]["readings"]
    claimed = {"kind": "multimeter", "proved": True, "category": "IV", "rated_v": 1000}
    data["rows"]["readings"].append({**row, "id": str(uuid4()), "held": claimed})
    assert bring(anna, "record", with_hash(data)).status_code == 200
    brought = Reading.objects.exclude(brought=None).get()
    assert (brought.held["category"], brought.held.get("proved")) == ("II", None)


def test_a_proof_in_it_is_history_and_never_runs(anna, bench_kit, stranger):
    prove_dead(anna, bench_kit)
    assert anna.get(f"/proofs/{bench_kit['proof']}").json()["state"]["state"] == "proved-dead"
    bring(stranger, "record", saved(anna, f"/sites/{bench_kit['site']}/record"))
    [line] = stranger.get("/proofs").json()
    assert line["state"] == "history"
    proof = stranger.get(f"/proofs/{line['id']}").json()
    assert len(proof["events"]) == len(anna.get(f"/proofs/{bench_kit['proof']}").json()["events"])
    answer = stranger.put(f"/proofs/{line['id']}/events/{uuid4()}", {"entry": {"type": "stated"}})
    assert answer.status_code == 409
    assert stranger.get("/today").json()["proofs"] == []


def test_a_sign_off_in_it_is_verified_by_its_own_chain_and_ours_goes_on(anna, recorded, stranger):
    signed = sign(anna, recorded).json()
    bring(stranger, "record", saved(anna, f"/sites/{recorded['site']}/record"))
    there = {one["number"]: one for one in stranger.get("/sign-offs").json()}
    theirs = there[signed["number"]]
    file = stranger.get(f"/sign-offs/{theirs['id']}/file").content
    assert file == anna.get(f"/sign-offs/{signed['id']}/file").content
    site = site_of(stranger)
    draft = stranger.get(f"/drafts/site/{site}").json()
    reasons = {one["id"]: "Nobody was home" for one in draft["content"]["not_tested"]}
    body = {"what": "site", "of": site, "typed_name": draft["name"], "whys": reasons}
    own = stranger.put(f"/sign-offs/{uuid4()}", body)
    assert own.status_code == 200, own.content
    assert own.json()["number"] == 1
    assert evenprobe.verify(stranger.get(f"/sign-offs/{own.json()['id']}/file").content).sound
    whole = saved(stranger, f"/sites/{site}/record")
    assert len(json.loads(whole)["chains"]) == 2
    assert evenprobe.verify(whole).sound


WRONG = {
    "readings.taken_at": ("yesterday", "no time"),
    "readings.recorded_at": ("1999-12-31T23:59:59+00:00", "between 2000 and 2099"),
    "sheet_entries.at": ("2099-01-01T00:00:00+00:00", "still to come"),
    "visits.planned_for": ("0001-01-01", "between 2000 and 2099"),
    "readings.point": (str(uuid4()), "not in the file"),
    "readings.entry": ({"quantity": "voltage", "from": "L", "to": "L9", "value": 1.0}, "no terminal"),
    "readings.held": ({"kind": "sundial"}, "must be"),
    "testers.entry": ({"kind": "multimeter", "rated_v": -1.0}, "more than 0"),
    "sites.practice": ("martian", "must be one of"),
    "supplies.system": ("231", "231"),
    "points.kind": ("hole", "must be"),
    "circuits.rating_a": ("twenty", "number"),
    "photos.image": ("bm90IGEgcGljdHVyZQ==", "picture"),
    "proof_events.entry": ({"source": "s9"}, "s9"),
    "sheet_entries.entry": ({"type": "looked", "item": "moon", "good": True}, "must be"),
    "hunt_events.entry": ({"at": "moon"}, ""),
    "visit_events.kind": ("danced", "choice"),
    "round_events.entry": ({"reason": 5}, "round"),
    "sign_offs.content": ("{}", "signed"),
    "checks.at": (None, "no time"),
}


@pytest.mark.parametrize("place_of", WRONG)
def test_one_wrong_cell_is_named_and_nothing_is_written(anna, recorded, stranger, place_of):
    value, why = WRONG[place_of]
    table, key = place_of.split(".")
    data = json.loads(saved(anna, "/record"))
    data["rows"][table][-1][key] = value
    answer = bring(stranger, "record", with_hash(data))
    assert answer.status_code == 422, answer.content
    problem = answer.json()["problems"][0]
    assert problem["path"].startswith(f"rows.{table}[") or table.endswith("_events"), problem
    assert why in problem["text"], problem
    theirs = Crew.objects.get(name="theirs")
    assert not any(one.model._default_manager.filter(**{one.crew: theirs}).exists() for one in TABLES)
    assert not BroughtFile.objects.exists()


def test_a_file_that_was_changed_or_is_none_of_ours_is_refused_whole(anna, place, stranger):
    file = saved(anna, "/record")
    data = json.loads(file)
    for content, why in (
        (file.replace(b"Larkspur", b"Lerkspur"), "changed after it was saved"),
        (with_hash({**data, "rows": {**data["rows"], "moons": []}}), "unknown key"),
        (with_hash({**data, "rows": {}}), "missing"),
        (with_hash({**data, "format": "even-probe/survey"}), "even-probe/record"),
        (b"{", "not JSON"),
        (b"\xff\xfe{", "UTF-8"),
        (b"[]", ""),
        (with_hash({**data, "rows": {**data["rows"], "sites": data["rows"]["sites"] * 2}}), "stands twice"),
    ):
        answer = bring(stranger, "record", content)
        assert answer.status_code == 422, (why, answer.content)
        assert why in answer.json()["problems"][0]["text"], answer.content
    assert stranger.get("/sites").json() == []


def test_killed_half_way_the_same_file_goes_on_where_it_was(anna, recorded, stranger, monkeypatch):
    file = saved(anna, f"/sites/{recorded['site']}/record")
    steps = []

    def killed(rows):
        steps.append(1)
        if len(steps) == 9:
            raise SystemExit
        write(rows)

    monkeypatch.setattr("exchange.record.bringing.write", killed)
    with pytest.raises(SystemExit):
        bring(stranger, "record", file)
    assert Site.objects.filter(crew__name="theirs").exists()
    monkeypatch.setattr("exchange.record.bringing.write", write)
    assert bring(stranger, "record", file).status_code == 200
    assert saved(stranger, f"/sites/{site_of(stranger)}/record") == file


def test_what_is_here_otherwise_stays_and_is_named(anna, place):
    file = saved(anna, f"/sites/{place['site']}/record")
    anna.put(f"/circuits/{place['circuit']}", {"board": place["board"], "name": "Workshop, new name", "rating_a": 16})
    looked = bring(anna, "record", file, look=True).json()
    [differing] = looked["differing"]
    assert (differing["title"], differing["name"], set(differing["keys"])) == (
        "Circuits", "Workshop", {"name", "rating_a", "conductor"},
    )  # fmt: skip
    bring(anna, "record", file)
    names = [c["name"] for c in anna.get(f"/sites/{place['site']}").json()["supplies"][0]["boards"][0]["circuits"]]
    assert names == ["Workshop, new name"]


def test_a_third_crew_has_it_from_the_second_and_it_is_still_the_same(anna, recorded, stranger, client_class):
    file = saved(anna, f"/sites/{recorded['site']}/record")
    bring(stranger, "record", file)
    third = member(client_class(), "third")
    bring(third, "record", saved(stranger, f"/sites/{site_of(stranger)}/record"))
    assert saved(third, f"/sites/{site_of(third)}/record") == file


def test_the_tables_stand_in_an_order_that_holds():
    """A row's references come before it, so that it can be written after them."""
    seen = set()
    for table in TABLES:
        for field in table.fields:
            if field.is_relation and field.related_model is not table.model:
                assert field.related_model in seen, (table.name, field.name)
        seen.add(table.model)
    assert list(BY_NAME) == [table.name for table in TABLES]


@pytest.mark.django_db(transaction=True)
def test_it_is_saved_as_it_was_when_it_began_while_others_write():
    crew, site = Crew.objects.create(name="ours"), uuid4()
    put_site(crew, site, "Larkspur Hill", "north-america")
    pieces = record_file(crew, None)
    begun = [next(pieces) for _ in range(3)]

    def another():
        put_site(crew, uuid4(), "Elsewhere", "british")
        connection.close()

    thread = threading.Thread(target=another)
    thread.start()
    thread.join()
    file = read_file(b"".join([*begun, *pieces]))
    assert [one["name"] for one in file.rows["sites"]] == ["Larkspur Hill"]
    assert Site.objects.count() == 2
