"""Dead tests in the real application: a sheet from the first look to the gate, warnings before harm, a part alone."""

import re
from pathlib import Path
from uuid import uuid4

import pytest
from playwright.sync_api import expect

from crews.models import Crew
from demo.crew import demo_id
from evenprobe.isolation import QUESTIONS
from kit.services import put_tester
from proofs.models import Proof
from proofs.services import begin, record_event
from sheets.models import SheetEntry
from tests.browser.conftest import accessible, another_browser, sign_in, small_targets
from tests.browser.test_prove_dead import hold

PAIRS = ("H to N", "H to G", "N to G")
PICTURE = Path(__file__).parents[2] / "docs/screenshots/today.png"
"""Any picture, as a camera would give one."""


@pytest.fixture
def testers(kit):
    """A low-ohm tester and an insulation tester beside the rest of the kit."""
    crew = Crew.objects.get()
    rated = {"category": "III", "rated_v": 600, "proved": True}
    leads = demo_id("t", "leads")
    fine = {"accuracy_percent": 2, "accuracy_counts": 2, "resolution": 0.01}
    low_ohm = {"label": "Low-ohm L4", "kind": "low-ohm", **rated, **fine}
    put_tester(crew, demo_id("t", "l4"), low_ohm, usual_leads=leads)
    insulation = {"label": "Insulation I3", "kind": "insulation-tester", **rated, "test_v": [250, 500, 1000]}
    put_tester(crew, demo_id("t", "i3"), insulation, usual_leads=leads)


@pytest.fixture
def dead(testers):
    """The workshop circuit, proved dead by Anna a moment ago."""
    crew = Crew.objects.get()
    anna = crew.memberships.get().user
    content = {
        "name": "Workshop outlets",
        "what": "circuit",
        "terminals": ["L", "N", "PE"],
        "place": "installation",
        "wet": False,
        "sources": [{"id": "s1", "label": "board W, 20 A"}],
        "asked": {str(q.kind): False for q in QUESTIONS},
    }
    proof = begin(crew, anna, uuid4(), demo_id("t", "supply"), demo_id("t", "circuit"), content)
    proved = {"type": "proved", "against": "proving-unit", "shows_v": 239.0, "mode": "ac", "range": "auto"}
    tested = [
        {"type": "tested", "from": a, "to": b, "shows_v": 0.0, "mode": "ac", "range": "auto"}
        for a, b in (("L", "N"), ("L", "PE"), ("N", "PE"))
    ]
    off = [{"type": "off", "source": "s1"}, {"type": "locked", "source": "s1", "lock": "K-07", "tag": True}]
    for event in (*off, proved, *tested, proved, {"type": "stated"}):
        held = demo_id("t", "m2") if event["type"] in ("proved", "tested") else None
        record_event(crew, anna, proof.id, uuid4(), event, held)
    return proof


def begin_sheet(page, live_server):
    sign_in(page, live_server.url)
    page.get_by_role("link", name="Site", exact=True).click()
    page.get_by_role("heading", name="Sites").wait_for()
    page.get_by_role("link", name="Larkspur Hill Observatory").click()
    page.get_by_role("link", name="Dead tests of Workshop outlets").click()
    expect(page.get_by_label("Circuit", exact=True)).not_to_have_value("")
    page.get_by_label("Temperature of the conductors").fill("20")
    page.get_by_role("button", name="Begin").click()
    expect(page.get_by_role("heading", name="Workshop outlets")).to_be_visible()


def step(page, name):
    page.get_by_label("In this order").get_by_role("button", name=re.compile(f"^{name}")).click()
    expect(page.get_by_role("heading", name=name, exact=True, level=2)).to_be_visible()


def read(page, line, shows, result):
    """A line read: its number typed straight away, what it comes to, and Enter."""
    form = page.get_by_role("form", name=line)
    expect(form.get_by_role("textbox")).to_be_focused()
    page.keyboard.type(shows)
    expect(form.get_by_text(result, exact=True)).to_be_visible()
    page.keyboard.press("Enter")
    expect(page.get_by_label("What was read").get_by_role("button", name=line)).to_contain_text(result)


def test_a_sheet_from_the_first_look_to_the_gate(dead, live_server, page):
    begin_sheet(page, live_server)
    expect(page.locator("header")).to_contain_text("Proved dead")
    for item in page.get_by_label("Look", exact=True).get_by_role("listitem").all():
        item.get_by_text("Good", exact=True).click()
    accessible(page)
    step(page, "Loads out")
    page.get_by_text("All out", exact=True).click()
    page.get_by_text("Off its bar", exact=True).click()
    step(page, "Null the leads")
    page.get_by_label("Tester in use").select_option(label="Low-ohm L4")
    page.get_by_label("Tips together, ohms").focus()
    page.keyboard.type("0.1")
    page.keyboard.press("Enter")
    expect(page.get_by_text("is taken off")).to_be_visible()

    step(page, "Continuity")
    read(page, "G to Outlet 3, by the lathe", "0.21", "Pass")
    read(page, "H to Outlet 3, by the lathe", "1.9", "Fails")
    read(page, "N to Outlet 3, by the lathe", "0.2", "Pass")
    accessible(page)
    line = page.get_by_label("What was read").get_by_role("button", name="H to Outlet 3, by the lathe")
    line.click()
    read(page, "H to Outlet 3, by the lathe", "0.2", "Pass")

    step(page, "Separation")
    for pair in PAIRS:
        read(page, pair, "OL", "Pass")
    step(page, "Protective device")
    page.get_by_role("radiogroup", name="Open, it reads").get_by_text("Over-range").click()
    page.get_by_role("radiogroup", name="It latches").get_by_text("Yes").click()
    page.get_by_label("Closed, it reads").fill("0.13")
    page.get_by_role("button", name="Record").click()
    step(page, "Insulation")
    page.get_by_label("Tester in use").select_option(label="Insulation I3")
    page.get_by_role("form", name=PAIRS[0]).get_by_role("textbox").focus()
    for pair, shows in zip(PAIRS, ("240", "240", ">200"), strict=True):
        read(page, pair, shows, "Pass")
    step(page, "Discharge")
    page.get_by_role("button", name="It shows under 25 V").click()

    step(page, "Clear to energise")
    page.get_by_role("button", name="Boxes and covers closed").click()
    page.get_by_role("button", name="Others warned").click()
    expect(page.get_by_role("button", name="Hold: energise now")).to_have_count(0)
    page.get_by_role("button", name="My lock K-07 is off").click()
    expect(page.get_by_text("Nothing outstanding.")).to_be_visible()
    accessible(page)
    hold(page, "Hold: energise now")
    expect(page.get_by_text("The proof of isolation is ended")).to_be_visible()
    assert [e.type for e in Proof.objects.get().events.all()][-2:] == ["re-energised", "closed"]

    page.get_by_role("link", name="Site", exact=True).click()
    page.get_by_role("link", name="Larkspur Hill Observatory").click()
    page.get_by_role("link", name="Outlet 3, by the lathe").click()
    expect(page.get_by_text("dead tests count")).to_be_visible()


def test_not_proved_dead_is_warned_of_kept_and_energised_only_with_a_written_reason(testers, live_server, browser):
    page = another_browser(browser, viewport={"width": 390, "height": 844}, has_touch=True).new_page()
    begin_sheet(page, live_server)
    page.get_by_label("Picture, Nothing burnt").set_input_files(PICTURE)
    expect(page.get_by_role("img", name="Nothing burnt, as it was seen")).to_be_visible()
    step(page, "Insulation")
    warnings = page.get_by_role("alert")
    expect(warnings.filter(has_text="Not proved dead")).to_be_visible()
    expect(warnings.filter(has_text="destroys electronics")).to_be_visible()
    form = page.get_by_role("form", name="H to N")
    form.get_by_role("textbox").fill("-3")
    expect(form.get_by_role("alert")).to_contain_text("measured_mohm: must be at least 0")
    form.get_by_role("textbox").fill("300")
    expect(form.get_by_text("Saved, does not count")).to_be_visible()
    page.keyboard.press("Enter")
    expect(page.get_by_label("What was read").get_by_text("does not count").first).to_be_visible()
    assert small_targets(page) == []
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    accessible(page)

    step(page, "Clear to energise")
    page.get_by_role("button", name="Energise even so").click()
    hold(page, "Hold: energise even so")
    expect(page.get_by_role("alert")).to_contain_text("say why even so")
    page.get_by_label("Why it is energised even so").fill("seen with the owner, the freezer cannot wait")
    hold(page, "Hold: energise even so")
    expect(page.get_by_text("Though something was outstanding: seen with the owner").first).to_be_visible()
    assert SheetEntry.objects.latest("number").entry["type"] == "energised"


def test_a_part_is_checked_alone(testers, live_server, page):
    sign_in(page, live_server.url)
    page.goto(f"{live_server.url}/dead-tests/parts")
    page.get_by_role("button", name="Heating element").click()
    expect(page.get_by_text("Over-range there")).to_be_visible()
    page.get_by_label("Rated voltage").fill("120")
    page.get_by_label("Rated power").fill("1500")
    expect(page.get_by_text("About 9.6")).to_be_visible()
    page.get_by_label("It reads").fill("9.5")
    expect(page.get_by_text("Pass", exact=True)).to_be_visible()
    page.get_by_label("It reads").fill("OL")
    expect(page.get_by_text("the element is broken")).to_be_visible()
    accessible(page)


def test_what_a_lost_server_did_not_take_is_said(dead, live_server, page):
    begin_sheet(page, live_server)
    step(page, "Loads out")
    page.route("**/api/**", lambda route: route.abort())
    page.get_by_text("All out", exact=True).click()
    page.get_by_text("Off its bar", exact=True).click()
    expect(page.get_by_label("Not at the server yet")).to_contain_text("Loads disconnected, neutral lifted")
    expect(page.get_by_role("radio", name="All out")).to_be_checked()
    expect(page.locator("header")).to_contain_text("Last known: proved dead", timeout=30_000)
