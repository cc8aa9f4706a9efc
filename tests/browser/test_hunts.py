"""A hunt in the real thing, on a phone: a short halved to the stretch, a wrong tap taken back, cut off half-way."""

import re
from uuid import uuid4

import pytest
from playwright.sync_api import expect

from crews.models import Crew
from demo.crew import demo_id
from evenprobe.isolation import QUESTIONS
from kit.models import Tester
from proofs.services import begin as begin_proof
from proofs.services import record_event
from sites.models import Circuit, Point
from sites.services import put_circuit, put_point
from tests.browser.conftest import accessible, sign_in, small_targets

BOXES = 8
TRUTH = 5
"""The stretch that leads to this box."""


@pytest.fixture
def eight_boxes(outlet):
    crew = Crew.objects.get()
    put_circuit(crew, demo_id("t", "heaters"), demo_id("t", "board"), "Dew-heater bench", 15, "14 AWG")
    for number in range(1, BOXES + 1):
        where = demo_id("t", "heaters"), f"Box {number}", "junction", ["L", "N", "PE"], 7 * number
        put_point(crew, demo_id("t", f"box {number}"), *where)


def begin_at(page, live_server, happened, hunted):
    """On the dew-heater bench, on a phone."""
    page.set_viewport_size({"width": 390, "height": 844})
    sign_in(page, live_server.url)
    page.goto(f"{live_server.url}/hunts")
    page.get_by_role("link", name="Begin a hunt").click()
    page.get_by_label("Site").select_option(label="Larkspur Hill Observatory")
    page.get_by_label(happened).check()
    page.get_by_label("Hunt for").select_option(label=hunted)
    page.get_by_label("Circuit", exact=True).select_option(label="Dew-heater bench")
    accessible(page)
    page.get_by_role("button", name="Begin", exact=True).click()


def begin(page, live_server):
    begin_at(page, live_server, "The breaker trips at once", "A short or a fault to ground")
    expect(page.get_by_text("Do not reset it to find out.")).to_be_visible()
    expect(page.get_by_role("heading", name="Measure at the panel")).to_be_visible()


def step(page, outcome, leads_to):
    """Tap what a step showed, and be at the next."""
    tap(page, outcome)
    expect(page.get_by_role("heading", name=leads_to)).to_be_visible()


def settled(page):
    """What is to be done, once what was told last is at the server: to open a box, or that it is found."""
    heading = page.get_by_role("heading", name=re.compile(r"^(Open Box \d+$|Found)"))
    expect(heading).to_be_visible()
    return heading.inner_text()


def box_of(said):
    return int(said.split()[-1])


def tap(page, outcome):
    page.get_by_role("button", name=re.compile(f"^{outcome}")).click()


def test_a_short_is_halved_to_the_stretch_on_a_phone(eight_boxes, live_server, page):
    begin(page, live_server)
    tap(page, "The joint shows")
    expect(page.get_by_text("Treat as live: this circuit is not proved dead.")).to_be_visible()
    assert not small_targets(page)
    accessible(page)
    first = box_of(settled(page))
    tap(page, "In this box")
    expect(page.get_by_role("heading", name=f"Found: Box {first}")).to_be_visible()
    page.get_by_role("button", name=re.compile("^Take back")).click()
    expect(page.get_by_role("heading", name=f"Open Box {first}", exact=True)).to_be_visible()
    opened = 0
    page.context.set_offline(True)
    tap(page, "Onward side" if first < TRUTH else "Feed side")
    expect(page.get_by_label("Not at the server yet")).to_be_visible()
    page.context.set_offline(False)
    expect(page.get_by_role("heading", name=f"Open Box {first}", exact=True)).to_have_count(0)
    while not (said := settled(page)).startswith("Found"):
        here = box_of(said)
        opened += 1
        assert opened < BOXES
        tap(page, "Onward side" if here < TRUTH else "Feed side")
        expect(page.get_by_role("heading", name=f"Open Box {here}", exact=True)).to_have_count(0)
    found = page.get_by_role("heading", name=f"Found: between Box {TRUTH - 1} and Box {TRUTH}")
    expect(found).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    page.get_by_role("button", name="Mended").click()
    page.get_by_role("button", name="Close this hunt").click()
    expect(page.get_by_role("heading", name="Closed")).to_be_visible()


def test_a_protective_outlet_is_refitted_and_what_it_protects_is_labelled(eight_boxes, live_server, page):
    begin_at(page, live_server, "Dead receptacle or lamp", "A dead receptacle behind a GFCI receptacle")
    expect(page.get_by_role("heading", name="What else is dead? Look for a tripped GFCI")).to_be_visible()
    accessible(page)
    step(page, "None is found", "Trace the cable from the dead receptacle")
    expect(page.get_by_text("Treat as live: this circuit is not proved dead.")).to_be_visible()
    step(page, "Traced to a box", "Photograph and mark both pairs")
    step(page, "Photographed", "Energise, and measure which pair is the feed")
    step(page, "The pair that was on LOAD feeds", "Prove dead again")
    step(page, "Off, locked and proved dead", "Put it back: ground first")
    step(page, "Closed and energised", "Reset it")
    step(page, "It holds", "Press test")
    step(page, "It trips", "Go round: which points are dead now?")
    assert not small_targets(page)
    for number in range(1, BOXES + 1):
        page.get_by_role("button", name=f"Box {number}: {'Dead' if number > TRUTH else 'Live'}").click()
    expect(page.get_by_text("Every point on record was looked at.")).to_be_visible()
    step(page, "All gone round", "Label what it protects")
    labelled = page.get_by_role("button", name="Labelled, and reset")
    expect(labelled).to_be_disabled()
    page.get_by_label("The GFCI receptacle is").fill("Garage door")
    labelled.click()
    expect(page.get_by_role("heading", name=re.compile("^Found: It works"))).to_be_visible()
    behind = Point.objects.filter(protected_by="Garage door").values_list("name", flat=True)
    assert list(behind) == [f"Box {number}" for number in range(TRUTH + 1, BOXES + 1)]


def test_a_board_of_twelve_is_mapped_and_its_schedule_filled(outlet, live_server, page):
    sign_in(page, live_server.url)
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"{live_server.url}/hunts/new")
    page.get_by_label("Site").select_option(label="Larkspur Hill Observatory")
    page.get_by_label("Nothing is labelled").check()
    page.get_by_label("Board", exact=True).select_option(index=1)
    page.get_by_label("Ways that are not on record").fill("11")
    rooms = [f"Room {number}" for number in range(1, 12)]
    page.get_by_label("Outlets and lamps in walking order").fill("\n".join(rooms))
    page.get_by_role("button", name="Begin", exact=True).click()
    expect(page.get_by_role("heading", name="Round 1 of 5")).to_be_visible()
    accessible(page)
    own = Circuit.objects.get(points=outlet).name
    way_of = {room: f"Way {12 - number}" for number, room in enumerate(rooms)}
    for number in range(1, 6):
        expect(page.get_by_role("heading", name=f"Round {number} of 5")).to_be_visible()
        on = page.get_by_role("definition").first.inner_text().split(", ")
        buttons = page.get_by_role("button", name=re.compile(": live$"))
        names = buttons.evaluate_all("found => found.map((one) => one.getAttribute('aria-label'))")
        for room in (name.removesuffix(": live") for name in names):
            live = way_of.get(room, own) in on
            page.get_by_role("button", name=f"{room}: {'live' if live else 'dead'}", exact=True).click()
    page.get_by_role("button", name="Fill the schedule").click()
    expect(page.get_by_role("button", name="Close this hunt")).to_be_visible()
    filled = {p.name: p.circuit.name for p in Point.objects.filter(name__in=rooms).select_related("circuit")}
    assert filled == {room: way_of[room] for room in rooms}


def proved_dead(kit):
    """The dew-heater bench off, locked, proved, every pair tested, proved again and confirmed."""
    crew, user = Crew.objects.get(), Crew.objects.get().memberships.first().user
    circuit = Circuit.objects.get(name="Dew-heater bench")
    tester = Tester.objects.get(crew=crew, entry__kind="two-pole")
    proof = uuid4()
    content = {
        "name": circuit.name, "what": "circuit", "terminals": ["L", "N", "PE"], "place": "installation", "wet": False,
        "sources": [{"id": "s1", "label": "Its breaker", "kind": "device"}],
        "asked": {str(question.kind): False for question in QUESTIONS},
    }  # fmt: skip
    begin_proof(crew, user, proof, circuit.board.supply_id, circuit.id, content)
    proved = {"type": "proved", "against": "proving-unit", "shows_v": 239.0, "mode": "ac"}
    tested = [
        {"type": "tested", "from": a, "to": b, "shows_v": 0.0, "mode": "ac"}
        for a, b in (("L", "N"), ("L", "PE"), ("N", "PE"))
    ]
    off = [{"type": "off", "source": "s1"}, {"type": "locked", "source": "s1", "lock": "K-1", "tag": True}]
    for event in (*off, proved, *tested, proved, {"type": "stated"}):
        by = tester.id if event["type"] in ("proved", "tested") else None
        record_event(crew, user, proof, uuid4(), event, by)


def test_a_hunt_wears_the_proof_of_its_circuit_and_cut_off_it_is_treated_as_live(eight_boxes, kit, live_server, page):
    proved_dead(kit)
    begin(page, live_server)
    expect(page.get_by_text(re.compile(r"^Proved dead for \d+:\d\d"))).to_be_visible()
    page.context.set_offline(True)
    expect(page.get_by_text(re.compile("^Treat as live. Last known: proved dead"))).to_be_visible()
    page.context.set_offline(False)
    expect(page.get_by_text(re.compile(r"^Proved dead for \d+:\d\d"))).to_be_visible()
