"""Practice in the real application: solved by keyboard, on a phone and after proving dead, and two ended early."""

import re

import pytest
from playwright.sync_api import expect

from practising.models import Practised
from readings.models import Reading
from tests.browser.conftest import PATIENCE_MS, accessible, another_browser, sign_in, small_targets
from tests.browser.test_bench import open_outlet
from tests.browser.test_prove_dead import hold, set_meter

PHONE = {"width": 390, "height": 844}
KETTLE = "The kettle stays cold"
OPEN_NEUTRAL = "Neutral open along the run"


def opened(page, live_server, title=KETTLE, asks="What can it still be?"):
    sign_in(page, live_server.url)
    page.goto(f"{live_server.url}/practice")
    page.get_by_role("listitem").get_by_role("button", name=title).click()
    expect(page.get_by_text("Practice: nothing here is real")).to_be_visible()
    expect(page.get_by_role("heading", name=asks)).to_be_visible(timeout=PATIENCE_MS)


def take(page, tester="meter"):
    page.get_by_label("Tester in use").select_option(label=tester)


def recorded(page, number):
    log = page.get_by_label("Readings", exact=True)
    expect(log.get_by_text(f"{number} reading")).to_be_visible(timeout=PATIENCE_MS)


def concluded(page, tap="click"):
    for name in ("It is: |Conclude: ", "Conclude\\? "):
        getattr(page.get_by_role("button", name=re.compile(name)), tap)()
    page.get_by_role("link", name="Look back on it").click()
    expect(page.get_by_role("heading", name="The planner’s way")).to_be_visible(timeout=PATIENCE_MS)


def mark_all_but(page, title, press):
    for mark in page.locator("[aria-labelledby=marks] li button").all():
        if mark.inner_text().strip("○✕ \n") != title:
            press(mark)
            expect(mark).to_have_attribute("aria-pressed", "true")


def test_a_case_is_solved_by_keyboard_alone_and_looked_back_on(outlet, live_server, page):
    opened(page, live_server)
    take(page)
    page.locator("input[aria-label^=Reading]").focus()
    for number in (1, 2, 3):
        page.keyboard.press("Enter")
        expect(page.get_by_label("Display")).to_contain_text(" V")
        page.keyboard.press("Enter")
        recorded(page, number)
    accessible(page)
    assert "Not confirmed" not in page.inner_text("main")
    for key in ("g", "r"):
        page.keyboard.press(key)
    page.keyboard.press("Enter")
    expect(page.get_by_label("Display")).to_contain_text(" V")
    page.keyboard.press("Enter")
    recorded(page, 4)
    page.get_by_role("button", name="Show what the readings allow").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_label("What it could still be").get_by_text("ruled out, and why")).to_be_visible()
    mark_all_but(page, OPEN_NEUTRAL, lambda mark: (mark.focus(), page.keyboard.press("Enter")))
    page.get_by_role("button", name=f"It is: {OPEN_NEUTRAL}").focus()
    page.keyboard.press("Enter")
    page.keyboard.press("Enter")
    page.get_by_role("link", name="Look back on it").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_text("the conclusion followed from them")).to_be_visible(timeout=PATIENCE_MS)
    expect(page.get_by_text("Certain after reading")).to_be_visible()
    accessible(page)
    page.get_by_role("link", name="Back to practice").click()
    expect(page.get_by_text("mastered, comes back")).to_be_visible()
    accessible(page)


@pytest.mark.parametrize(
    ("title", "contacts", "truth"),
    [
        ("The amplifier hums", ("R, ", "H, "), "Ground open"),
        ("The new workshop outlet", ("R, ", "G, "), "Hot and neutral swapped"),
    ],
)
def test_a_case_is_solved_on_a_phone(outlet, live_server, browser, title, contacts, truth):
    context = another_browser(browser, viewport=PHONE, has_touch=True)
    page = context.new_page()
    opened(page, live_server, title)
    take(page)
    for number in (1, 2, 3, 4):
        for contact in contacts if number == 4 else ():
            page.get_by_role("button", name=re.compile(f"^{contact}")).tap()
        page.get_by_role("button", name="Measure").tap()
        page.get_by_role("button", name="Record this").tap()
        recorded(page, number)
    mark_all_but(page, truth, lambda mark: mark.tap())
    concluded(page, "tap")
    expect(page.get_by_text("the conclusion followed from them")).to_be_visible()
    context.close()


def test_on_a_phone_a_meter_on_ohms_is_blown_and_another_case_goes_on(outlet, live_server, browser):
    context = another_browser(browser, viewport=PHONE, has_touch=True)
    page = context.new_page()
    opened(page, live_server, "The plug tester says it is right")
    take(page, "plug tester")
    page.get_by_role("button", name="Measure").tap()
    expect(page.get_by_label("Display")).to_contain_text("lit H-N, H-G")
    page.get_by_role("button", name="Record this").tap()
    recorded(page, 1)
    take(page, "meter")
    page.get_by_label("Function").select_option(label="Ohms, device open")
    page.get_by_role("button", name="Measure").tap()
    expect(page.get_by_text("Its fuse is blown. Take another")).to_be_visible()
    expect(page.get_by_text("The circuit was live, and meter on a range")).to_be_visible()
    assert small_targets(page) == []
    assert page.evaluate("document.documentElement.scrollWidth") <= PHONE["width"]
    take(page, "low ohm")
    page.get_by_role("button", name="Switch it off").tap()
    expect(page.get_by_text("The circuit is off")).to_be_visible()
    page.get_by_role("button", name="Measure").tap()
    expect(page.get_by_label("Display")).to_contain_text("Ω")
    page.get_by_role("button", name="A hint").tap()
    expect(page.get_by_label("Help").get_by_text("Open is whether")).to_be_visible(timeout=PATIENCE_MS)
    accessible(page)
    concluded(page, "tap")
    expect(page.get_by_text("Its fuse is blown")).to_be_visible()
    context.close()


def test_proved_dead_on_what_is_simulated_hands_may_go_in(outlet, live_server, page):
    opened(page, live_server)
    case = page.url.split("/bench")[0]
    page.get_by_role("link", name="Prove dead").click()
    page.goto(f"{case}/prove-dead/new")
    page.get_by_label("Circuit or board").select_option(index=1)
    page.get_by_role("button", name="I checked each: no to the rest").click()
    page.get_by_role("button", name="Begin").click()
    page.get_by_role("button", name="It is off").click()
    page.get_by_label("Lock").first.fill("K-1")
    page.get_by_role("button", name="Locked").click()
    page.get_by_role("button", name="meter").click()

    def showing(proof):
        page.get_by_role("button", name="Measure").click()
        expect(page.get_by_label("Display")).to_contain_text(" V")
        page.get_by_role("button", name="Write it down").click()
        page.get_by_role("button", name="It shows that: proved" if proof else "Record", exact=True).click()

    set_meter(page)
    showing(proof=True)
    for pair in ("H to N", "H to G", "N to G"):
        expect(page.get_by_role("heading", name=pair)).to_be_visible()
        showing(proof=False)
    set_meter(page)
    showing(proof=True)
    hold(page, "Hold: proved dead")
    expect(page.locator("header [data-state]")).to_contain_text("Proved dead")
    page.get_by_role("link", name="Bench").click()
    expect(page.get_by_text("The circuit is off and locked")).to_be_visible()
    page.get_by_role("button", name="Touch the conductors").click()
    page.get_by_role("button", name="Bare hands on them, now?").click()
    expect(page.get_by_text("Your hands were on it: proved dead, and dead.")).to_be_visible()
    expect(page.get_by_text("Danger.")).to_have_count(0)
    concluded(page)
    expect(page.get_by_text("No danger met.")).to_be_visible()


def test_what_is_off_and_locked_may_be_fed_from_elsewhere(outlet, live_server, page):
    opened(page, live_server, "Two ways in", asks="Make it safe to work on")
    for name in ("Switch it off", "Lock it", "Look for other feeds"):
        page.get_by_role("button", name=name).click()
    expect(page.get_by_text("It is fed from the night-light inverter, way 2 too: on.")).to_be_visible()
    take(page, "two pole")
    page.get_by_role("button", name="Measure").click()
    expect(page.get_by_label("Display")).to_contain_text("230")
    page.get_by_role("button", name="Switch that off").click()
    expect(page.get_by_label("Display")).to_contain_text("under 12 V")
    accessible(page)
    page.get_by_role("button", name="Touch the conductors").click()
    page.get_by_role("button", name="Bare hands on them, now?").click()
    expect(page.get_by_text("You touched it before it was proved dead.").first).to_be_visible()
    page.get_by_role("link", name="Look back on it").click()
    expect(page.get_by_text("Looked for what else feeds it.")).to_be_visible(timeout=PATIENCE_MS)
    accessible(page)


@pytest.mark.parametrize(
    ("first", "why"),
    [((), "You touched it live."), (("Switch it off", "Lock it"), "You touched it before it was proved dead.")],
)
def test_touching_too_early_ends_the_case(outlet, live_server, page, first, why):
    opened(page, live_server)
    for act in first:
        page.get_by_role("button", name=act).click()
        expect(page.get_by_role("button", name=act)).to_have_count(0)
    page.get_by_role("button", name="Touch the conductors").click()
    page.get_by_role("button", name="Bare hands on them, now?").click()
    expect(page.get_by_text("The case is over.")).to_be_visible()
    expect(page.get_by_role("status").get_by_text(why)).to_be_visible()
    page.get_by_role("link", name="Look back on it").click()
    expect(page.get_by_role("heading", name=KETTLE)).to_be_visible(timeout=PATIENCE_MS)
    assert not Reading.objects.filter(point__circuit__board__supply__site__crew=Practised.objects.get().home).exists()


def test_a_dead_test_is_read_off_the_display_with_its_leads_nulled(outlet, live_server, page):
    opened(page, live_server, "Swapped in the dark")
    for name in ("Switch it off", "Lock it"):
        page.get_by_role("button", name=name).click()
    expect(page.get_by_text("The circuit is off and locked")).to_be_visible()
    page.goto(f"{page.url.split('/bench')[0]}/dead-tests/new")
    page.get_by_label("Circuit").select_option(index=1)
    page.get_by_role("button", name="Begin").click()
    page.get_by_role("button", name="Null the leads").click()
    page.get_by_label("Tester in use").select_option(label="low ohm")
    for step in ("Take it off every reading", "Record"):
        page.get_by_role("button", name="Measure").click()
        expect(page.get_by_label("Display")).to_contain_text("Ω")
        page.get_by_role("button", name="Write it down").click()
        accessible(page)
        page.get_by_role("button", name=step).click()
        if step != "Record":
            page.get_by_role("button", name="Continuity").click()
            page.get_by_role("button", name="E to shed, north wall").click()
    expect(page.get_by_role("button", name="Fails, does not count")).to_be_visible()
    assert "Its points" not in page.inner_text("main"), "what the readings allow stays hidden"


def test_a_case_is_made_of_the_point_on_the_bench(outlet, live_server, page):
    open_outlet(page, live_server)
    page.get_by_role("button", name="Make a case of this").click()
    page.get_by_label("What the case is called").fill("The lathe runs rough")
    page.get_by_label("What is hidden").select_option(label=OPEN_NEUTRAL)
    accessible(page)
    assert small_targets(page) == []
    with page.expect_download() as saved:
        page.get_by_role("button", name="Save it as a file").click()
    assert saved.value.suggested_filename == "The lathe runs rough.case.json"
    page.get_by_role("button", name="Practise it").click()
    expect(page.get_by_text("Practice: nothing here is real")).to_be_visible(timeout=PATIENCE_MS)
    expect(page.get_by_role("heading", level=1)).to_have_text("The lathe runs rough")
    assert Practised.objects.get().case["hidden"]["condition"] == "open-neutral"
