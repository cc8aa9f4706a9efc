"""Hunts that are not along a run, through the API: guided ones, a control chain, a board that is mapped."""

from itertools import pairwise
from uuid import uuid4

import pytest

from hunts.models import Hunt
from sites.models import Circuit, Point
from tests.server.conftest import PICTURE

OHMS = {"L-PE": "over", "N-PE": "over", "L-N": "over"}
ELEMENTS = [{"id": "fuse", "kind": "fuse"}, {"id": "stop"}, {"id": "limit"}, {"id": "coil", "kind": "coil"}]
CHAIN = {"supply_v": 230.0, "elements": ELEMENTS}


@pytest.fixture
def hunt(anna, place):
    """What begins and tells a hunt, and gives its answer."""
    return Teller(anna, place)


class Teller:
    def __init__(self, person, place):
        self.person, self.place, self.id = person, place, str(uuid4())

    def begin(self, happened, kind, **more):
        on = {"board": self.place["board"]} if kind == "map" else {"circuit": self.place["circuit"]}
        return self.person.put(f"/hunts/{self.id}", {"happened": happened, "kind": kind, **on, **more})

    def tell(self, kind="seen", event_id=None, **entry):
        answer = self.person.put(f"/hunts/{self.id}/events/{event_id or uuid4()}", {"kind": kind, "entry": entry})
        assert answer.status_code == 200, answer.content
        return answer.json()

    def step(self, step, outcome=None, name=None, **figures):
        entry = {"step": step, "outcome": outcome, "name": name, "figures": figures or None}
        return self.tell(**{key: value for key, value in entry.items() if value is not None})


def test_a_tripped_device_leads_to_a_run_to_halve(hunt):
    begun = hunt.begin("trips-at-once", "tripped-device").json()
    assert (begun["guide"]["next"]["step"], begun["run"], begun["chain"]) == ("off", None, None)
    assert begun["hunted"] == "what trips the breaker"
    hunt.step("off", "dead")
    hunt.step("device", "good")
    assert hunt.step("loads", "out")["guide"]["next"]["dead"]
    found = hunt.step("terminals", **{**OHMS, "L-PE": 0.4})
    assert (found["state"], found["said"]) == ("found", "Joined along the run")
    ending = found["guide"]["ending"]
    assert (ending["hunt"], ending["between"]) == ("short", ["L", "PE"])
    assert found["seen"][-1]["text"] == "Measure at the device's outgoing terminals: Joined"
    assert found["guide"]["path"][-1]["said"] == "H to G 0.4 Ω with every load out: joined."
    assert hunt.tell("mended")["state"] == "mended"
    assert hunt.tell("closed")["state"] == "closed"


def test_two_at_one_step_who_saw_different_things_are_told(hunt):
    hunt.begin("trips-at-once", "tripped-device")
    hunt.step("off", "dead")
    hunt.step("device", "good")
    event = str(uuid4())
    found = hunt.tell(event_id=event, step="device", outcome="no-latch")
    assert (found["state"], [seen["contradicts"] for seen in found["seen"]]) == ("contradictory", [False, True, True])
    assert "told twice" in found["said"]
    assert hunt.tell("taken-back", event=event)["guide"]["next"]["step"] == "loads"


def test_what_went_dead_behind_a_protective_outlet_is_put_on_its_points(hunt, anna):
    names = ["Pad 1", "Pad 2", "Pad 3"]
    points = [str(uuid4()) for _ in names]
    for point, name in zip(points, names, strict=True):
        body = {"circuit": hunt.place["circuit"], "name": name, "kind": "outlet", "terminals": ["L", "N", "PE"]}
        anna.put(f"/points/{point}", body)
    begun = hunt.begin("dead", "protective-outlet").json()
    assert set(begun["names"].values()) >= set(names)
    for step, outcome in (("upstream", "tripped"), ("measure", "feed"), ("press-reset", "holds")):
        hunt.step(step, outcome)
    hunt.step("press-test", "out")
    hunt.step("downstream", "live", points[0])
    told = hunt.step("downstream", "dead", points[1])
    assert told["guide"]["next"]["left"].count(points[2]) == 1
    hunt.step("downstream", "dead", points[2])
    assert hunt.step("downstream", "all")["guide"]["next"]["names"] == "The GFCI receptacle is"
    found = hunt.step("label", "labelled", "Workshop door")
    assert (found["state"], found["guide"]["ending"]["name"]) == ("found", "Workshop door")
    behind = {point.name: point.protected_by for point in Point.objects.filter(id__in=points)}
    assert behind == {"Pad 1": "", "Pad 2": "Workshop door", "Pad 3": "Workshop door"}
    site = anna.get(f"/sites/{hunt.place['site']}").json()
    shown = [p for b in site["supplies"][0]["boards"] for c in b["circuits"] for p in c["points"]]
    assert [p["protected_by"] for p in shown if p["name"] == "Pad 2"] == ["Workshop door"]


def test_a_tingle_stays_open_until_a_reading_explains_it(hunt, anna):
    hunt.begin("tingle", "tingle")
    hunt.step("keep-off", "off")
    assert hunt.tell("closed", note="gone")["state"] == "hunting"
    assert [line["state"] for line in anna.get("/today").json()["hunts"]] == ["hunting"]
    hunt.step("to-reference", volts=96.0)
    low = hunt.step("low-impedance", volts=4.0)
    assert low["guide"]["path"][-1]["outcome"] == "collapses"
    hunt.step("unplug", name="Lamp", volts=90.0)
    found = hunt.step("unplug", name="Charger", volts=1.0)
    assert found["guide"]["ending"]["name"] == "Charger"
    assert (found["state"], len(anna.get("/today").json()["hunts"])) == ("found", 1)
    assert hunt.tell("closed")["state"] == "closed"
    assert anna.get("/today").json()["hunts"] == []


def test_a_chain_is_halved_to_what_does_not_let_through(hunt):
    found = hunt.begin("no-pull-in", "chain", chain=CHAIN).json()
    truth = "limit"
    names = ["feed", *(each["id"] for each in ELEMENTS)]
    while found["state"] == "hunting":
        at = found["chain"]["answer"]["next"]["at"]
        found = hunt.tell(after=at, volts=0.3 if names.index(at) >= names.index(truth) else 229.0)
    assert (found["state"], found["said"]) == ("found", truth)
    assert "Operate limit while measuring" in found["chain"]["advice"]
    assert len(found["seen"]) <= 3
    shown = [each["volts"] for each in found["chain"]["elements"] if each["volts"] is not None]
    assert all(before >= behind for before, behind in pairwise(shown))


@pytest.mark.parametrize(
    ("chain", "path"),
    [
        (None, "chain.supply_v"),
        ({"supply_v": -1, "elements": [{"id": "stop"}]}, "chain.supply_v"),
        ({"supply_v": 230, "elements": []}, "chain.elements"),
        ({"supply_v": 230, "elements": [{"id": "a"}, {"id": "a"}]}, "chain.elements[1].id"),
    ],
)
def test_a_chain_that_cannot_be_is_refused_where_it_is_wrong(hunt, chain, path):
    refused = hunt.begin("no-pull-in", "chain", chain=chain)
    assert refused.status_code == 422
    assert any(path in problem["path"] for problem in refused.json()["problems"]), refused.json()
    assert not Hunt.objects.exists()


def test_a_board_is_mapped_round_by_round_and_fills_its_schedule(hunt):
    ways, outlets = [f"Way {n}" for n in range(1, 7)], ["Hall", "Stairs", "Loft"]
    feeds = {"Hall": "Way 2", "Stairs": "Way 5", "Loft": "Way 2"}
    found = hunt.begin("unlabelled", "map", ways=ways, outlets=outlets).json()
    assert (found["title"], found["circuit"]) == (found["board"]["name"], None)
    on_record = {o["id"]: o["name"] for o in found["map"]["outlets"] if o["name"] not in outlets}
    own = str(Circuit.objects.get().name)
    while found["map"]["round"] is not None:
        here = found["map"]["rounds"][found["map"]["round"] - 1]
        for outlet in found["map"]["outlets"]:
            fed_by = own if outlet["id"] in on_record else feeds[outlet["id"]]
            found = hunt.tell(outlet=outlet["id"], round=here["round"], live=fed_by in here["on"])
    assert {o["name"]: o["ways"] for o in found["map"]["outlets"] if o["name"] in outlets} == {
        outlet: [way] for outlet, way in feeds.items()
    }
    event = str(uuid4())
    for _ in range(2):
        assert hunt.tell("scheduled", event)["map"]["scheduled"]
    on = {point.name: point.circuit.name for point in Point.objects.filter(name__in=outlets)}
    assert on == feeds
    assert Circuit.objects.count() == 3


def test_a_tap_that_contradicts_another_is_told_and_taken_back(hunt):
    hunt.begin("unlabelled", "map", ways=["a", "b"], outlets=["Hall"])
    hunt.tell(outlet="Hall", round=1, live=True)
    event = str(uuid4())
    found = hunt.tell(event_id=event, outlet="Hall", round=1, live=False)
    assert (found["state"], found["said"]) == ("contradictory", "Hall was live and dead in round 1.")
    assert hunt.tell("taken-back", event=event)["state"] == "hunting"


def test_it_is_begun_on_what_it_is_hunted_on(hunt):
    refused = hunt.begin("unlabelled", "map", circuit=hunt.place["circuit"], ways=["a"])
    assert (refused.status_code, refused.json()["problems"][0]["path"]) == (422, "board")
    refused = hunt.begin("tingle", "tingle", board=hunt.place["board"])
    assert (refused.status_code, refused.json()["problems"][0]["path"]) == (422, "circuit")


def test_a_mark_is_of_a_run_only(hunt, anna):
    hunt.begin("tingle", "tingle")
    refused = anna.put(f"/hunts/{hunt.id}/events/{uuid4()}", {"kind": "marked", "entry": {"point": "x", "box": "old"}})
    assert refused.status_code == 422


def test_a_picture_of_the_box_is_kept_with_its_step(hunt, anna):
    hunt.begin("dead", "protective-outlet")
    hunt.step("upstream", "none")
    hunt.step("trace", "found")
    photo = str(uuid4())
    entry = {"step": "photograph", "outcome": "marked", "photo": photo}
    told = anna.put(f"/hunts/{hunt.id}/events/{uuid4()}", {"kind": "seen", "entry": entry})
    assert (told.status_code, told.json()["problems"][0]["path"]) == (422, "entry.photo")
    assert anna.put(f"/photos/{photo}", {"image": PICTURE}).status_code == 200
    found = hunt.tell(**entry)
    assert found["guide"]["path"][-1]["photo"] == photo
    refused = anna.put(
        f"/hunts/{hunt.id}/events/{uuid4()}",
        {"kind": "seen", "entry": {"step": "which-feeds", "outcome": "both", "photo": photo}},
    )
    assert (refused.status_code, refused.json()["problems"][0]["path"]) == (422, "entry.photo")


def gone_round(hunt, anna, **outcomes):
    """A protective outlet that holds and trips on its button, and its two pads gone round."""
    pads = [str(uuid4()) for _ in outcomes]
    for pad, name in zip(pads, outcomes, strict=True):
        body = {"circuit": hunt.place["circuit"], "name": name, "kind": "outlet", "terminals": ["L", "N", "PE"]}
        anna.put(f"/points/{pad}", body)
    hunt.begin("dead", "protective-outlet")
    for step, outcome in (
        ("upstream", "tripped"),
        ("measure", "feed"),
        ("press-reset", "holds"),
        ("press-test", "out"),
    ):
        hunt.step(step, outcome)
    for pad, outcome in zip(pads, outcomes.values(), strict=True):
        hunt.step("downstream", outcome, pad)
    return pads


def test_a_pad_that_is_live_to_one_and_dead_to_another_is_told(hunt, anna):
    north, _ = gone_round(hunt, anna, North="dead", South="dead")
    assert hunt.step("downstream", "dead", north)["state"] == "hunting"
    event = str(uuid4())
    found = hunt.tell(event_id=event, step="downstream", outcome="live", name=north)
    assert (found["state"], sum(seen["contradicts"] for seen in found["seen"])) == ("contradictory", 2)
    assert next(seen["text"] for seen in found["seen"] if seen["contradicts"]) == "North: Dead"
    assert hunt.tell("taken-back", event=event)["state"] == "hunting"


def test_what_was_told_twice_alike_leaves_every_line_in_its_place(hunt):
    hunt.begin("trips-at-once", "tripped-device")
    hunt.step("off", "dead")
    hunt.step("device", "good")
    hunt.step("off", "dead")
    found = hunt.step("loads", "out")
    assert [seen["text"].split(":")[0] for seen in found["seen"]] == [
        "Off and proved dead",
        "Test the device itself",
        "Off and proved dead",
        "Every load out",
    ]
    assert [passed["number"] for passed in found["guide"]["path"]] == [0, 1, 3]


def test_a_label_that_is_taken_back_comes_off_its_points(hunt, anna):
    pads = gone_round(hunt, anna, North="dead", South="dead")
    hunt.step("downstream", "all")
    event = str(uuid4())
    hunt.tell(event_id=event, step="label", outcome="labelled", name="Door")
    assert {p.protected_by for p in Point.objects.filter(id__in=pads)} == {"Door"}
    assert hunt.tell("taken-back", event=event)["guide"]["next"]["step"] == "label"
    assert {p.protected_by for p in Point.objects.filter(id__in=pads)} == {""}


def test_a_schedule_is_of_a_map_and_is_changed_at_the_site_not_taken_back(hunt, anna):
    hunt.begin("unlabelled", "map", ways=["a"], outlets=["Hall"])
    for outlet in hunt.tell(outlet="Hall", round=1, live=True)["map"]["outlets"]:
        hunt.tell(outlet=outlet["id"], round=2, live=outlet["name"] == "Hall")
    event = str(uuid4())
    assert hunt.tell("scheduled", event)["last"] is None
    back = {"kind": "taken-back", "entry": {"event": event}}
    assert anna.put(f"/hunts/{hunt.id}/events/{uuid4()}", back).status_code == 422
    other = Teller(anna, hunt.place)
    other.begin("tingle", "tingle")
    refused = anna.put(f"/hunts/{other.id}/events/{uuid4()}", {"kind": "scheduled", "entry": {}})
    assert (refused.status_code, refused.json()["problems"][0]["path"]) == (422, "kind")


def test_ways_that_stay_on_are_told_by_staying(hunt):
    found = hunt.begin("unlabelled", "map", ways=["a", "b", "freezer"], outlets=["Hall"], fixed_on=["freezer"]).json()
    assert all("freezer" in each["on"] for each in found["map"]["rounds"])
    refused = Teller(hunt.person, hunt.place).begin("unlabelled", "map", ways=["a"], outlets=["x"], fixed_off=["b"])
    assert (refused.status_code, refused.json()["problems"][0]["path"]) == (422, "fixed_off[0]")


def test_a_meter_is_asked_at_places_of_the_hunt_only(hunt, anna, proof):
    hunt.begin("no-pull-in", "chain", chain=CHAIN)
    asked = {"function": "volts", "from": "L", "to": "N"}
    route = f"/hunts/{hunt.id}/live/{proof['tester']}"
    refused = anna.post(route, {**asked, "at": "stop\nCONF:RES"})
    assert (refused.status_code, refused.json()["problems"][0]["path"]) == (422, "at")
    assert anna.post(route, {**asked, "at": "stop"}).status_code == 404
