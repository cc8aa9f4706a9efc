"""Hunts through the API: the intake, halving, marks, taking back, contradictions, a retry, and what cannot be."""

from uuid import UUID, uuid4

import pytest

from hunts.models import Hunt, HuntEvent
from sites.models import Circuit, Site
from sites.services import put_circuit, put_point
from tests.server.conftest import member


@pytest.fixture
def run(place):
    """Six boxes in cable order on a circuit of their own, and the hunt's id."""
    crew = Site.objects.get(id=place["site"]).crew
    circuit = put_circuit(crew, uuid4(), UUID(place["board"]), "Bench heaters", 20, "12 AWG")
    where = [(f"Box {number}", "junction", ["L", "N", "PE"], 8.0 * number) for number in range(1, 7)]
    boxes = [str(put_point(crew, uuid4(), circuit.id, *each).id) for each in where]
    return {**place, "circuit": str(circuit.id), "boxes": boxes, "hunt": str(uuid4())}


def begin(person, run, happened="trips-at-once", kind="short", **more):
    return person.put(f"/hunts/{run['hunt']}", {"circuit": run["circuit"], "happened": happened, "kind": kind, **more})


def tell(person, run, kind, event_id=None, **entry):
    return person.put(f"/hunts/{run['hunt']}/events/{event_id or uuid4()}", {"kind": kind, "entry": entry})


def test_what_happened_chooses_the_hunt(anna, run):
    told = anna.get(f"/sites/{run['site']}/hunts/intake").json()
    hunts = {row["id"]: [hunt["id"] for hunt in row["hunts"]] for row in told["happened"]}
    assert hunts["trips-at-once"] == ["tripped-device", "short"]
    assert (hunts["dead"], hunts["flicker"]) == (["open", "protective-outlet"], ["poor-joint", "open"])
    assert all(hunts.values())
    assert "GFCI" in next(row["first"] for row in told["happened"] if row["id"] == "dead")
    refused = begin(anna, run, "dead", "short")
    assert (refused.status_code, refused.json()["problems"][0]["path"]) == (422, "kind")


def test_a_short_is_halved_by_what_is_offered_and_ends_mended(anna, run):
    found = begin(anna, run, done_last="hung a shelf").json()
    assert (found["run"]["answer"]["next"]["at"], found["run"]["next_title"]) == ("board", "measure at the panel")
    assert found["told"] == {"done_last": "hung a shelf"}
    assert [point["name"] for point in found["run"]["points"]][:3] == ["the panel", "Box 1", "Box 2"]
    truth = 4
    while found["state"] == "hunting":
        at = found["run"]["answer"]["next"]["at"]
        number = -1 if at == "board" else run["boxes"].index(at)
        wanted = ("the joint shows", "onward side") if number < truth else ("feed side",)
        if number == truth:
            wanted = ("in this box",)
        outcome = next(o for o in found["run"]["answer"]["next"]["outcomes"] if o["when"] in wanted)
        assert [a["when"] for a in found["run"]["ahead"]] == [
            o["when"] for o in found["run"]["answer"]["next"]["outcomes"]
        ]
        found = tell(anna, run, "seen", **outcome["seen"]).json()
    assert (found["state"], found["said"]) == ("found", "Box 5")
    assert len(found["seen"]) <= 5
    assert "mend it" in found["steps"][0]
    mended = tell(anna, run, "mended", note="screw through the cable").json()
    assert (mended["state"], mended["last"]["text"]) == ("mended", "mended")
    assert tell(anna, run, "taken-back", event=mended["last"]["event"]).json()["state"] == "found"
    tell(anna, run, "mended")
    assert tell(anna, run, "closed").json()["state"] == "closed"


def test_shares_steps_and_the_way_two_steps_ahead_are_shown(anna, run):
    begin(anna, run)
    found = tell(anna, run, "seen", at="board", onward=True).json()
    assert sum(p["share"] + p["cable_share"] for p in found["run"]["points"]) == pytest.approx(1.0, abs=0.01)
    assert found["run"]["saved_minutes"] > 0
    assert "prove dead" in found["steps"][0]
    assert {step["when"] for step in found["run"]["ahead"]} == {"feed side", "onward side", "in this box"}
    onward = next(step for step in found["run"]["ahead"] if step["when"] == "onward side")
    after = tell(anna, run, "seen", at=found["run"]["answer"]["next"]["at"], feed=False, onward=True).json()
    assert onward["then"] == after["run"]["next_title"]
    assert [(a["when"], a["then"]) for a in onward["after"]] == [(a["when"], a["then"]) for a in after["run"]["ahead"]]
    assert after["run"]["standing_at"] == found["run"]["answer"]["next"]["at"]
    assert found["run"]["points"][0]["saw"] == ["shows onward"]
    assert found["proof"] is None


def test_the_proof_of_the_circuit_stands_beside_it(anna, run, proof):
    own = {**run, "circuit": proof["circuit"]}
    found = begin(anna, own).json()
    assert found["proof"] == proof["proof"]
    assert begin(anna, {**run, "hunt": str(uuid4())}).json()["proof"] is None


def test_a_mark_makes_a_box_likelier_and_the_last_counts(anna, run):
    begin(anna, run)
    before = tell(anna, run, "seen", at="board", onward=True).json()["run"]["points"][3]["share"]
    burnt = tell(anna, run, "marked", point=run["boxes"][2], box="burnt", hidden=True).json()["run"]["points"][3]
    assert burnt["share"] > 2 * before
    assert (burnt["box_mark"], burnt["hidden"]) == ("burnt", True)
    renewed = tell(anna, run, "marked", point=run["boxes"][2], box="renewed").json()["run"]["points"][3]
    assert renewed["share"] < before


def test_what_contradicts_is_kept_and_said_and_one_tap_takes_it_back(anna, run):
    begin(anna, run)
    tell(anna, run, "seen", at="board", onward=True)
    tell(anna, run, "seen", at=run["boxes"][3], feed=False, onward=True)
    event = str(uuid4())
    found = tell(anna, run, "seen", event, at=run["boxes"][1], feed=True, onward=False).json()
    assert (found["state"], found["run"]["answer"]["next"]) == ("contradictory", None)
    assert "Box 4 and what showed at Box 2" in found["said"]
    assert [seen["contradicts"] for seen in found["seen"]] == [False, True, True]
    back = tell(anna, run, "taken-back", event=event).json()
    assert (back["state"], len(back["seen"])) == ("hunting", 2)
    assert tell(anna, run, "taken-back", event=event).status_code == 422
    assert HuntEvent.objects.count() == 4


def test_an_open_is_halved_by_presence(anna, run):
    begin(anna, run, "dead", "open", between=["L", "N"])
    found = tell(anna, run, "seen", at=run["boxes"][5], live=False).json()
    while found["run"]["answer"]["next"]["do"] == "probe":
        at = run["boxes"].index(found["run"]["answer"]["next"]["at"])
        found = tell(anna, run, "seen", at=run["boxes"][at], live=at < 2).json()
    assert {p["name"] for p in found["run"]["points"] if p["share"] > 0} == {"Box 2", "Box 3"}
    assert tell(anna, run, "seen", at=run["boxes"][2], here=True).json()["said"] == "Box 3"


def test_volts_under_a_load_show_the_joint(anna, run):
    begin(anna, run, "flicker", "poor-joint")
    far = {"at": run["boxes"][5], "volts": {"N-PE": 9.0}, "load_a": 10}
    joint = tell(anna, run, "seen", **far).json()["run"]["answer"]["joints"][0]
    assert joint["conductor"] == "N"
    assert joint["watts"] > 40
    found = anna.get(f"/hunts/{run['hunt']}").json()
    assert "W of heat at 10 A" in found["run"]["joints"][0]
    assert found["seen"][0]["text"] == "Box 6: N to G 9 V at 10 A"


@pytest.mark.parametrize(
    ("kind", "entry", "path"),
    [
        ("seen", {"at": "board", "live": True}, "entry.live"),
        ("seen", {"at": "nowhere", "onward": True}, "entry.at"),
        ("seen", {"onward": True}, "entry.at"),
        ("seen", {"at": "board", "onward": "yes"}, "entry.onward"),
        ("marked", {"point": "nowhere", "box": "burnt"}, "entry.point"),
        ("taken-back", {"event": "nothing"}, "entry.event"),
        ("mended", {"note": 5}, "entry.note"),
        ("danced", {}, "kind"),
    ],
)
def test_what_cannot_be_is_refused_and_nothing_is_written(anna, run, kind, entry, path):
    begin(anna, run)
    refused = tell(anna, run, kind, **entry)
    assert refused.status_code == 422
    assert path in refused.json()["problems"][0]["path"]
    assert not HuntEvent.objects.exists()


def test_a_mark_is_of_the_list(anna, run):
    begin(anna, run)
    for wrong in ({"box": "haunted"}, {"colour": "red"}, {"hidden": "yes"}):
        assert tell(anna, run, "marked", point=run["boxes"][0], **wrong).status_code == 422


def test_a_circuit_without_points_is_no_run(anna, run):
    circuit = str(uuid4())
    anna.put(f"/circuits/{circuit}", {"board": run["board"], "name": "Nothing on it"})
    refused = begin(anna, {**run, "circuit": circuit})
    assert (refused.status_code, refused.json()["problems"][0]["path"]) == (422, "circuit")


def test_a_retry_is_the_same_hunt_and_the_same_event(anna, run):
    event = str(uuid4())
    assert begin(anna, run).json()["id"] == begin(anna, run).json()["id"]
    for _ in range(2):
        assert tell(anna, run, "seen", event, at="board", onward=True).status_code == 200
    assert (Hunt.objects.count(), HuntEvent.objects.count()) == (1, 1)
    assert begin(anna, run, "dead", "open").status_code == 409
    assert tell(anna, run, "seen", event, at="board", onward=False).status_code == 409


def test_two_at_one_hunt_see_what_each_other_saw(anna, client_class, run):
    begin(anna, run)
    tell(anna, run, "seen", at="board", onward=True)
    tell(member(client_class(), "ours"), run, "seen", at=run["boxes"][2], feed=False, onward=True)
    found = anna.get(f"/hunts/{run['hunt']}").json()
    texts = [seen["text"] for seen in found["seen"]]
    assert texts == ["the panel: shows onward", "Box 3: feed side clear, shows onward"]
    assert found["run"]["answer"]["energise_up_to"] == run["boxes"][2]
    assert anna.get("/hunts").json()[0]["state"] == "hunting"


def test_a_hunt_stands_on_today_until_it_is_closed(anna, run):
    begin(anna, run)
    assert [line["title"] for line in anna.get("/today").json()["hunts"]] == ["Bench heaters"]
    tell(anna, run, "closed", note="customer renews the run")
    assert anna.get("/today").json()["hunts"] == []


def test_points_taken_out_of_use_or_moved_leave_a_hunt_as_it_began(anna, run, place):
    begin(anna, run)
    anna.put(f"/places/point/{run['boxes'][5]}/retired", {"retired": True})
    moved = {"circuit": place["circuit"], "name": "Box 5, moved", "kind": "junction", "terminals": ["L", "N", "PE"]}
    assert anna.put(f"/points/{run['boxes'][4]}", moved).status_code == 200
    names = [point["name"] for point in anna.get(f"/hunts/{run['hunt']}").json()["run"]["points"]]
    assert names[1:] == ["Box 1", "Box 2", "Box 3", "Box 4", "Box 5, moved", "Box 6"]


def test_what_it_is_measured_between_is_the_usual_where_nobody_says(anna, run):
    assert begin(anna, run, "dead", "open").json()["run"]["between"] == ["L", "N"]
    other = {**run, "hunt": str(uuid4())}
    assert begin(anna, other, between=["N", "PE"]).json()["steps"][1].endswith("test N to G on them.")


def test_advice_names_places_as_people_do(anna, run):
    begin(anna, run, "dead", "open")
    found = tell(anna, run, "seen", at="board", live=False).json()
    assert (found["state"], found["run"]["advice"]) == (
        "clear",
        "It is dead where the run begins: look at the device and at what feeds it, not along the run.",
    )


def test_volts_of_a_hunt_are_readings_at_the_bench_once(anna, run):
    begin(anna, run, "flicker", "poor-joint")
    event, far = str(uuid4()), run["boxes"][5]
    entry = {"at": far, "volts": {"L-N": 112.0, "N-PE": 4.5}, "load_a": 10, "load_at": far}
    for _ in range(2):
        tell(anna, run, "seen", event, **entry)
    tell(anna, run, "seen", at="board", volts={"L-N": 121.0}, load_a=10, load_at=far)
    tell(anna, run, "seen", at=run["boxes"][2], volts={"N-PE": 1.0}, load_a=10, load_at=far)
    bench = anna.get(f"/points/{far}/bench").json()
    found = {(r["entry"]["from"], r["entry"]["to"]): r["entry"] for r in bench["readings"]}
    assert {pair: r["value"] for pair, r in found.items()} == {("L", "N"): 112.0, ("N", "PE"): 4.5}
    assert {r["load_here_a"] for r in found.values()} == {10}
    [near] = anna.get(f"/points/{run['boxes'][2]}/bench").json()["readings"]
    assert near["entry"]["load_elsewhere_a"] == 10
    tell(anna, run, "taken-back", event=event)
    left = anna.get(f"/points/{far}/bench").json()["readings"]
    assert [r["status"] for r in left if r["entry"]] == ["withdrawn", "withdrawn"]


def test_volts_tell_whether_a_box_is_live_and_what_tells_nothing_is_named(anna, run):
    begin(anna, run, "dead", "open")
    found = tell(anna, run, "seen", at=run["boxes"][5], volts={"L-N": 0.6, "L-PE": 119.0}).json()
    assert found["seen"][0]["text"] == "Box 6: dead, H to N 0.6 V, H to G 119 V"
    assert len(anna.get(f"/points/{run['boxes'][5]}/bench").json()["readings"]) == 2
    tell(anna, run, "seen", at=run["boxes"][0], volts={"L-N": 118.0})
    assert anna.get(f"/hunts/{run['hunt']}").json()["run"]["points"][1]["saw"] == ["live, H to N 118 V"]
    refused = tell(anna, run, "seen", at=run["boxes"][2], volts={"L-N": 51.0})
    assert (refused.status_code, refused.json()["problems"][0]["path"]) == (422, "entry.volts.L-N")
    assert "neither live nor dead" in refused.json()["problems"][0]["text"]


def test_what_was_noticed_stands_on_the_circuit_until_its_hunt_is_closed(anna, run):
    begin(anna, run)
    assert Circuit.objects.get(id=run["circuit"]).noticed == ["trips-at-once"]
    tell(anna, run, "closed")
    assert Circuit.objects.get(id=run["circuit"]).noticed == []


def test_a_tester_of_another_crew_is_none(anna, run):
    begin(anna, run, "dead", "open")
    body = {"kind": "seen", "entry": {"at": run["boxes"][5], "live": False}, "tester": str(uuid4())}
    assert anna.put(f"/hunts/{run['hunt']}/events/{uuid4()}", body).status_code == 404


def test_what_was_noticed_orders_what_the_bench_says_and_no_list_waits_for_it(anna, place, monkeypatch):
    def likelihood():
        found = anna.get(f"/points/{place['point']}/bench").json()["interpretation"]
        return {each["id"]: each["likelihood"] for each in found["conditions"]}["live-casing"], found["verdict"]

    before, verdict = likelihood()
    anna.get("/sites")
    begun = {"circuit": place["circuit"], "happened": "tingle", "kind": "tingle"}
    assert anna.put(f"/hunts/{uuid4()}", begun).status_code == 200
    after = likelihood()
    assert (after[0] > 2 * before, after[1]) == (True, verdict)
    monkeypatch.setattr("readings.questions.interpret", lambda *_, **__: pytest.fail("asked again"))
    assert anna.get("/sites").status_code == 200
    exported = anna.get(f"/sites/{place['site']}/survey").json()
    assert exported["points"][0]["noticed"] == ["tingle"]
