"""Proofs of isolation through the API: complete, void, retried, at odds with the clock, seen by two."""

from datetime import datetime, timedelta
from uuid import uuid4

import pytest
from django.utils import timezone

from proofs.logs import dead_at
from proofs.models import Proof, ProofEvent
from tests.server.conftest import ASKED, proof_body

PAIRS = (("L", "N"), ("L", "PE"), ("N", "PE"))
OFF, LOCKED = {"type": "off", "source": "s1"}, {"type": "locked", "source": "s1", "lock": "K-07", "tag": True}
PROVED = {"type": "proved", "against": "proving-unit", "shows_v": 239.0, "mode": "ac", "range": "auto"}


def shows(pair, volts=0.0, **more):
    return {"type": "tested", "from": pair[0], "to": pair[1], "shows_v": volts, "mode": "ac", "range": "auto", **more}


def send(person, place, entry, event_id=None, **more):
    body = {"entry": entry, **more}
    if entry["type"] in ("proved", "prove-failed", "tested"):
        body.setdefault("tester", place["tester"])
    return person.put(f"/proofs/{place['proof']}/events/{event_id or uuid4()}", body)


def state(answer):
    assert answer.status_code == 200, answer.content
    return answer.json()["state"]["state"]


def prove_dead(person, place):
    for entry in (OFF, LOCKED, PROVED, *map(shows, PAIRS), PROVED):
        answer = send(person, place, entry)
    return answer


def test_a_proof_from_off_to_stated(anna, proof):
    answer = anna.get(f"/proofs/{proof['proof']}").json()
    assert (answer["state"]["state"], answer["state"]["next"]["step"]) == ("energised", "switch-off")
    assert answer["testers"][0]["fit"]
    assert state(prove_dead(anna, proof)) == "proved-dead"
    answer = send(anna, proof, {"type": "stated"})
    assert answer.json()["state"]["stated_by"] == answer.json()["events"][-1]["by"] != ""
    line = anna.get("/proofs").json()[0]
    assert (line["state"], line["name"]) == ("proved-dead", "Workshop outlets")
    ends, warned = (datetime.fromisoformat(line[key]) for key in ("expires_at", "warn_at"))
    assert ends - warned == timedelta(minutes=5)
    log = anna.get(f"/proofs/{proof['proof']}/log").json()
    assert [e["type"] for e in log["events"]] == ["off", "locked", "proved", *["tested"] * 3, "proved", "stated"]


def test_a_statement_that_is_not_true_is_refused_with_what_is_missing(anna, proof):
    send(anna, proof, OFF)
    answer = send(anna, proof, {"type": "stated"})
    assert answer.status_code == 409
    assert "lock and tag board W" in answer.json()["problems"][0]["text"]
    assert ProofEvent.objects.count() == 1


def test_a_repeated_send_is_one_event_and_other_content_is_refused(anna, proof):
    one = uuid4()
    for _ in range(3):
        assert send(anna, proof, OFF, one).status_code == 200
    assert ProofEvent.objects.count() == 1
    assert send(anna, proof, LOCKED, one).status_code == 409
    again = anna.put(f"/proofs/{proof['proof']}", proof_body(proof))
    assert again.status_code == 200
    assert anna.put(f"/proofs/{proof['proof']}", proof_body(proof, wet=True)).status_code == 409
    assert Proof.objects.count() == 1


def test_an_event_is_neither_edited_nor_deleted(anna, proof):
    send(anna, proof, OFF)
    event = ProofEvent.objects.get()
    with pytest.raises(RuntimeError):
        event.save()
    with pytest.raises(RuntimeError):
        event.delete()


def test_two_of_the_crew_see_the_same(anna, proof, client_class):
    from tests.server.conftest import member

    ben = member(client_class(), "ours")
    prove_dead(anna, proof)
    assert ben.get(f"/proofs/{proof['proof']}").json()["state"]["state"] == "proved-dead"
    assert state(send(ben, proof, {"type": "handed-over"})) == "void"
    seen = anna.get(f"/proofs/{proof['proof']}").json()
    assert seen["state"]["problems"][0]["code"] == "handed-over"
    assert seen["events"][-1]["by"] != seen["events"][0]["by"]


@pytest.mark.parametrize(
    ("entry", "path"),
    [
        (shows(("L", "N"), "O.0"), "shows_v"),
        (shows(("L", "N"), -3.0), "shows_v"),
        (shows(("L", "N"), 99999.0), "shows_v"),
        (shows(("L", "L"), 0.0), "to"),
        (shows(("L", "L2"), 0.0), "to"),
        ({"type": "off", "source": "s7"}, "source"),
        ({"type": "nonsense"}, "type"),
        ({**PROVED, "shows_v": None}, "shows_v"),
        ({**OFF, "colour": "red"}, "colour"),
    ],
)
def test_bad_events_are_named_and_nothing_is_kept(anna, proof, entry, path):
    answer = send(anna, proof, entry)
    assert answer.status_code == 422, answer.content
    assert answer.json()["problems"][0]["path"] == path
    assert not ProofEvent.objects.exists()


@pytest.mark.parametrize(
    ("changes", "path"),
    [
        ({"name": "  "}, "name"),
        ({"what": "house"}, "what"),
        ({"terminals": ["L"]}, "terminals"),
        ({"sources": []}, "sources"),
        ({"place": "roof"}, "place"),
        ({"asked": {**ASKED, "solar": True}}, "asked.solar"),
        ({"asked": {k: v for k, v in ASKED.items() if k != "control"}}, "asked.control"),
    ],
)
def test_a_proof_begins_only_with_every_source_asked_for(anna, place, changes, path):
    answer = anna.put(f"/proofs/{place['proof']}", {**proof_body(place), **changes})
    assert answer.status_code == 422, answer.content
    assert answer.json()["problems"][0]["path"] == path


def test_only_how_long_ago_is_believed_of_a_device_s_clock(anna, proof):
    wrong = timezone.now() - timedelta(days=300)
    answer = send(anna, proof, OFF, at=(wrong - timedelta(minutes=4)).isoformat(), sent_at=wrong.isoformat())
    event = ProofEvent.objects.get()
    assert timedelta(minutes=3.9) < timezone.now() - event.at < timedelta(minutes=4.2)
    assert "min slow" in answer.json()["clock"]
    ahead = timezone.now() + timedelta(days=1)
    send(anna, proof, LOCKED, at=(ahead + timedelta(minutes=9)).isoformat(), sent_at=ahead.isoformat())
    assert ProofEvent.objects.order_by("number").last().at <= timezone.now()


def test_a_time_without_its_offset_is_refused(anna, proof):
    answer = send(anna, proof, OFF, at="2026-11-25T09:00:00", sent_at="2026-11-25T09:00:01")
    assert [p["path"] for p in answer.json()["problems"]] == ["at", "sent_at"]


def test_what_arrives_late_takes_its_place_in_time(anna, proof):
    now = timezone.now()
    send(anna, proof, LOCKED)
    send(anna, proof, OFF, at=(now - timedelta(minutes=2)).isoformat(), sent_at=now.isoformat())
    assert [e["type"] for e in anna.get(f"/proofs/{proof['proof']}").json()["events"]] == ["off", "locked"]


def test_what_is_ahead_is_told_for_a_device_that_loses_the_line(anna, proof):
    found = send(anna, proof, OFF).json()["state"]
    steps = [found["next"], *found["ahead"]]
    assert [s["step"] for s in steps] == ["lock", "prove", "test", "test", "test", "prove-again"]
    assert [(s["from"], s["to"]) for s in steps[2:5]] == list(PAIRS)


def test_what_is_done_to_a_source_never_comes_before_it_was_found(anna, proof):
    found = {"type": "source-found", "source": "s2", "label": "control feed", "kind": "control"}
    send(anna, proof, found)
    now = timezone.now()
    late = {"at": (now - timedelta(minutes=20)).isoformat(), "sent_at": now.isoformat()}
    answer = send(anna, proof, {"type": "off", "source": "s2"}, **late)
    assert answer.status_code == 200
    assert answer.json()["state"]["sources"][1]["off"]
    assert send(anna, proof, found).status_code == 422


def test_a_second_feed_found_alive_and_the_way_back(anna, proof):
    for entry in (OFF, LOCKED, PROVED):
        send(anna, proof, entry)
    answer = send(anna, proof, shows(("L", "N"), 118.0))
    assert state(answer) == "energised"
    assert answer.json()["state"]["next"]["step"] == "find-source"
    send(anna, proof, {"type": "source-found", "source": "s2", "label": "control feed", "kind": "control"})
    send(anna, proof, {"type": "off", "source": "s2"})
    send(anna, proof, {"type": "locked", "source": "s2", "lock": "K-11"})
    for entry in (*map(shows, PAIRS), PROVED):
        answer = send(anna, proof, entry)
    assert state(answer) == "proved-dead"


def test_an_unfit_tester_is_recorded_and_counts_for_nothing(anna, proof):
    plug = str(uuid4())
    anna.put(f"/testers/{plug}", {"label": "P1", "kind": "digital-plug-tester", "category": "II", "rated_v": 300})
    send(anna, proof, OFF)
    send(anna, proof, LOCKED)
    answer = send(anna, proof, shows(("L", "N")), tester=plug)
    event = answer.json()["events"][-1]
    assert not event["counts"]
    assert "cannot confirm safe here" in event["why"][0]


def test_a_tester_taken_out_of_the_register_keeps_its_readings_and_clears_nothing_more(anna, proof):
    for entry in (OFF, LOCKED, PROVED, *map(shows, PAIRS)):
        send(anna, proof, entry)
    body = {"label": "M2", "kind": "multimeter", "category": "III", "rated_v": 600, "usual_leads": proof["leads"]}
    anna.put(f"/testers/{proof['tester']}", {**body, "retired": True})
    assert anna.get("/testers").json() == []
    answer = send(anna, proof, PROVED)
    assert state(answer) == "proving"
    assert "taken out of the register" in answer.json()["events"][-1]["why"][0]
    assert [e["type"] for e in answer.json()["events"]].count("tested") == 3


def test_a_tester_that_changes_on_the_way_is_another_tester(anna, proof):
    for entry in (OFF, LOCKED, PROVED, *map(shows, PAIRS)):
        send(anna, proof, entry)
    other = str(uuid4())
    anna.put(
        f"/parts/{other}", {"role": "leads", "label": "Leads B", "category": "IV", "rated_v": 1000, "tip_covers": True}
    )
    answer = send(anna, proof, PROVED, leads=other)
    assert state(answer) == "proving"
    assert "tester-changed" in {p["code"] for p in answer.json()["state"]["problems"]}


def test_the_crew_s_rules_hold_for_proofs_begun_after_them(anna, place):
    assert anna.put("/rules", {"unattended_min": 60}).status_code == 422
    refused = anna.put("/rules", {"dead_kinds": ["non-contact"], "reason": "no"})
    assert refused.json()["problems"][0]["path"] == "dead_kinds[0]"
    assert anna.put("/rules", {"dead_kinds": ["two-pole"]}).status_code == 200
    answer = anna.put(f"/proofs/{place['proof']}", proof_body(place)).json()
    assert not answer["testers"][0]["fit"]
    assert anna.put("/rules", {"unattended_min": 45, "reason": "lone worker calls in"}).status_code == 200
    assert anna.get(f"/proofs/{place['proof']}").json()["unattended_min"] == 30
    second = str(uuid4())
    answer = anna.put(f"/proofs/{second}", proof_body(place)).json()
    assert (answer["unattended_min"], answer["state"]["reason"]) == (45, "lone worker calls in")
    assert "no longer valid after 45 min away, not 30" in answer["state"]["loosened"]


def from_elsewhere(anna, proof, **change):
    """A log as another crew's server would have saved it: of a proof nobody here has on record."""
    log = anna.get(f"/proofs/{proof['proof']}/log").json()
    return {**log, "label": "Somewhere else", **change}


def test_what_comes_from_a_file_is_history_and_never_runs(anna, proof, stranger):
    prove_dead(anna, proof)
    log = from_elsewhere(anna, proof)
    new = str(uuid4())
    answer = anna.put(f"/proofs/{new}/log", {"supply": proof["supply"], "log": log})
    assert state(answer) == "history"
    brought = answer.json()
    assert (brought["state"]["was"], brought["state"]["expires_at"]) == ("proved-dead", None)
    assert brought["by"].startswith("ours-")
    assert brought["brought_at"] is not None
    assert [e["type"] for e in brought["events"]] == [e["type"] for e in log["events"]]
    saved = anna.get(f"/proofs/{new}/log").json()
    assert [e["at"] for e in saved["events"]] == [e["at"].replace("+00:00", "Z") for e in log["events"]]
    today = anna.get("/today").json()["proofs"]
    assert [p["id"] for p in today] == [proof["proof"]]
    line = next(p for p in anna.get("/proofs").json() if p["id"] == new)
    assert (line["state"], line["expires_at"], line["by"]) == ("history", None, brought["by"])
    assert stranger.put(f"/proofs/{uuid4()}/log", {"supply": proof["supply"], "log": log}).status_code == 404
    assert stranger.get(f"/proofs/{new}").status_code == 404


def test_the_same_file_twice_is_once_whoever_brings_it_and_under_whatever_id(anna, proof):
    prove_dead(anna, proof)
    log = from_elsewhere(anna, proof)
    first = anna.put(f"/proofs/{uuid4()}/log", {"supply": proof["supply"], "log": log}).json()
    again = anna.put(f"/proofs/{uuid4()}/log", {"supply": proof["supply"], "log": log}).json()
    round_trip = anna.put(
        f"/proofs/{uuid4()}/log", {"supply": proof["supply"], "log": anna.get(f"/proofs/{first['id']}/log").json()}
    ).json()
    assert first["id"] == again["id"] == round_trip["id"]
    assert Proof.objects.count() == 2


def test_a_forged_log_proves_nothing_names_nobody_and_writes_no_tester_down(anna, proof):
    prove_dead(anna, proof)
    log = from_elsewhere(anna, proof)
    log["testers"] = [{**log["testers"][0], "id": "invented", "label": "Invented"}]
    for event in log["events"]:
        event["by"] = "Somebody Else"
        if "tester" in event:
            event["tester"] = "invented"
    kit = anna.get("/testers").json()
    brought = anna.put(f"/proofs/{uuid4()}/log", {"supply": proof["supply"], "log": log}).json()
    assert anna.get("/testers").json() == kit
    assert brought["state"]["state"] == "history"
    assert {e["by"] for e in brought["events"]} == {"Somebody Else"}
    assert {e["tester_label"] for e in brought["events"] if e["type"] == "proved"} == {"Invented"}
    assert ProofEvent.objects.filter(proof_id=brought["id"]).count() == 0


def test_no_file_is_added_to_a_proof_that_is_on_record_and_its_own_log_does_not_double_it(anna, proof):
    prove_dead(anna, proof)
    before = anna.get(f"/proofs/{proof['proof']}").json()["events"]
    own = anna.get(f"/proofs/{proof['proof']}/log").json()
    for address, log in ((proof["proof"], own), (uuid4(), own), (proof["proof"], from_elsewhere(anna, proof))):
        answer = anna.put(f"/proofs/{address}/log", {"supply": proof["supply"], "log": log})
        assert answer.status_code == 409, answer.content
    shorter = {**own, "events": own["events"][:4]}
    assert anna.put(f"/proofs/{uuid4()}/log", {"supply": proof["supply"], "log": shorter}).status_code == 409
    assert anna.get(f"/proofs/{proof['proof']}").json()["events"] == before
    assert Proof.objects.count() == 1


def test_nothing_happens_to_history_and_nothing_rests_on_it(anna, proof):
    prove_dead(anna, proof)
    log = from_elsewhere(anna, proof)
    brought = anna.put(f"/proofs/{uuid4()}/log", {"supply": proof["supply"], "log": log}).json()["id"]
    answer = anna.put(f"/proofs/{brought}/events/{uuid4()}", {"entry": {"type": "stated"}})
    assert answer.status_code == 409
    assert "begin a proof of your own" in answer.json()["problems"][0]["text"]
    sheet = {"circuit": proof["circuit"], "proof": brought}
    assert anna.put(f"/sheets/{uuid4()}", sheet).status_code == 422
    assert not dead_at(Proof.objects.get(id=brought), timezone.now())


@pytest.mark.parametrize(
    ("change", "path"),
    [
        ({"practice": "british"}, "practice"),
        ({"supply": {"system": "120"}}, "supply.system"),
        ({"at": "2096-01-01T00:00:00+00:00"}, "at"),
        ({"events": [{"type": "off"}]}, "events[0].at"),
        ({"sources": []}, "sources"),
        ({"colour": "red"}, "colour"),
    ],
)
def test_a_bad_log_is_named_by_path_and_changes_nothing(anna, proof, change, path):
    log = anna.get(f"/proofs/{proof['proof']}/log").json()
    answer = anna.put(f"/proofs/{uuid4()}/log", {"supply": proof["supply"], "log": {**log, **change}})
    assert answer.status_code == 422, answer.content
    assert answer.json()["problems"][0]["path"] == path
    assert Proof.objects.count() == 1
