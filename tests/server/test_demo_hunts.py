"""A simulated electrician goes by what the screens say, and finds every fault of the demo."""

from uuid import uuid4

import pytest

from demo.hidden import hidden_at
from demo.hunts import HUNTS
from demo.loading_hunts import electrician, load_hunts
from demo.management.commands.load_demo import Command
from hunts.models import Hunt, HuntEvent
from hunts.presenters.lines import shown
from hunts.services import hunt_of, keep
from meters.scpi import shown_of, written
from meters.standin import StandIn
from meters.wire import on_a_hunt
from sites.models import Point

MOST_LOOKS = 60


@pytest.fixture
def crew(db):
    """The demo's places with its hunts, as far as the crew came with them."""
    crew, user = Command._crew()
    list(Command._sites(crew))
    load_hunts(crew, user)
    return crew, user


def of(crew, demo):
    return next(hunt for hunt in Hunt.objects.filter(site__crew=crew) if hunt.kind == demo.kind)


@pytest.mark.parametrize("demo", HUNTS, ids=lambda demo: demo.key)
def test_going_by_what_is_said_finds_it(crew, demo):
    crew, user = crew
    hunt = of(crew, demo)
    assert shown(hunt_of(crew, hunt.id)).state == "hunting"
    looks = 0
    while (entry := electrician(hunt_of(crew, hunt.id), demo).look()) is not None:
        keep(crew, user, hunt.id, uuid4(), HuntEvent.Kind.SEEN, entry)
        looks += 1
        assert looks < MOST_LOOKS
    found = shown(hunt_of(crew, hunt.id))
    assert found.state == "found"
    if demo.truth:
        assert demo.truth in found.said
    if demo.feeds:
        assert {outlet.name: outlet.ways for outlet in found.map.outlets} == {o: [w] for o, w in demo.feeds.items()}


def test_the_pier_pads_come_to_be_behind_the_outlet_at_the_door(crew):
    crew, user = crew
    demo = next(demo for demo in HUNTS if demo.kind == "protective-outlet")
    hunt = of(crew, demo)
    while (entry := electrician(hunt_of(crew, hunt.id), demo).look()) is not None:
        keep(crew, user, hunt.id, uuid4(), HuntEvent.Kind.SEEN, entry)
    pads = Point.objects.filter(circuit__name="Pier pad outlets")
    assert {pad.protected_by for pad in pads} == {"Warm room door"}


def test_loaded_again_nothing_changes(crew):
    crew, user = crew
    before = HuntEvent.objects.count()
    load_hunts(crew, user)
    assert (Hunt.objects.count(), HuntEvent.objects.count()) == (len(HUNTS), before)


def test_the_wired_meter_reads_what_is_hidden_along_a_hunt(crew):
    crew, _ = crew
    meter = StandIn(hidden_at({}))
    for demo in HUNTS:
        if demo.kind not in ("short", "open", "chain"):
            continue
        hunt = of(crew, demo)
        ids = electrician(hunt, demo).ids
        before, behind = {
            "short": ("Heater box 4", "Heater box 5"),
            "open": ("Outlet 4, grinder", "Outlet 5, end of run"),
            "chain": ("Stop button", "Beater guard limit"),
        }[demo.kind]
        shown = []
        for place in (before, behind):
            meter.answer(f"ROUT:POIN {on_a_hunt(str(hunt.id), ids.get(place, place), 'onward')}")
            meter.answer("ROUT:PROB L,PE" if demo.kind == "short" else "ROUT:PROB L,N")
            meter.answer("CONF:RES" if demo.kind == "short" else "CONF:VOLT:AC")
            meter.answer("ROUT:DEV OPEN")
            shown.append(shown_of(str(meter.answer("READ?"))))
        if demo.kind == "short":
            assert (0.1 < shown[0].value < 0.3, shown[1].over_range) == (True, True)
        else:
            assert shown[0].value > 110
            assert shown[1].value < 2


def test_a_meter_is_on_nothing_where_there_is_no_hunt(crew):
    meter = StandIn(hidden_at({}))
    for place in (on_a_hunt(str(uuid4()), "board", ""), on_a_hunt(str(HUNTS), "board", ""), "nowhere"):
        meter.answer(f"ROUT:POIN {place}")
        meter.answer("ROUT:PROB L,N")
        assert meter.answer("READ?") == written(None)
