"""Hunts and a round in practice, in the real application: on a phone, a box opened too early, outlet by outlet."""

import re
import time

from playwright.sync_api import expect

from tests.browser.conftest import PATIENCE_MS, accessible, another_browser, small_targets
from tests.browser.test_practice import PHONE, concluded, opened, take

ASKS = "Where do you look?"


def rule_out_all_but(page, what):
    along = page.get_by_role("button", name="Rule out ", exact=False)
    for name in along.evaluate_all("all => all.map(one => one.ariaLabel.replace('Rule out ', ''))"):
        if name != what:
            page.get_by_role("button", name=f"Rule out {name}", exact=True).click()
            struck = page.get_by_role("button", name=f"Ruled out {name}", exact=True)
            expect(struck).to_have_attribute("aria-pressed", "true")


def test_a_chain_is_halved_on_a_phone_and_concluded_from_what_was_shown(outlet, live_server, browser):
    context = another_browser(browser, viewport=PHONE, has_touch=True)
    page = context.new_page()
    opened(page, live_server, "The loom will not start", asks=ASKS)
    take(page)
    for number, (joint, volts) in enumerate(
        (("warp stop", "2"), ("start button", "0."), ("overload contact", "0.")), 1
    ):
        page.get_by_label("The probe is after").select_option(label=joint)
        page.get_by_role("button", name="Measure").tap()
        expect(page.get_by_label("Display")).to_contain_text(volts)
        page.get_by_role("button", name="Record this").tap()
        expect(page.get_by_text(f"{number} thing")).to_be_visible(timeout=PATIENCE_MS)
    assert "The program:" not in page.inner_text("main"), "what the looks come to stays hidden"
    accessible(page)
    assert small_targets(page) == []
    assert page.evaluate("document.documentElement.scrollWidth") <= PHONE["width"]
    rule_out_all_but(page, "overload contact")
    concluded(page)
    expect(page.get_by_text("Your looks leave nothing else: the conclusion followed")).to_be_visible()
    expect(page.get_by_text("Certain after look 3 of 3.")).to_be_visible()
    accessible(page)
    context.close()


def test_no_tap_is_lost_while_an_answer_is_slow_and_one_that_fails_is_said(outlet, live_server, page):
    opened(page, live_server, "The loom will not start", asks=ASKS)
    acts = re.compile("/practised/acts/")
    page.route(acts, lambda route: (time.sleep(0.6), route.continue_()))
    for name in ("control fuse", "stop button", "coil K3"):
        page.get_by_role("button", name=f"Rule out {name}", exact=True).click()
    expect(page.get_by_text("4 of 7 left.")).to_be_visible()
    expect(page.get_by_role("button", name="Conclude: one of the 4 left")).to_be_visible()
    page.wait_for_load_state("networkidle")
    page.unroute(acts)
    page.reload()
    expect(page.get_by_text("4 of 7 left.")).to_be_visible(timeout=PATIENCE_MS)
    page.route(acts, lambda route: route.abort())
    page.get_by_role("button", name="Rule out warp stop", exact=True).click()
    there = page.get_by_role("listitem").filter(has=page.get_by_role("button", name="Rule out warp stop", exact=True))
    expect(there.get_by_role("alert").get_by_text("cannot be reached")).to_be_visible()
    expect(page.get_by_text("4 of 7 left.")).to_be_visible()
    take(page)
    page.get_by_role("button", name="Measure").click()
    expect(page.get_by_role("alert").get_by_text("cannot be reached").first).to_be_visible()


def test_a_hand_in_a_box_that_is_live_ends_the_hunt(outlet, live_server, page):
    opened(page, live_server, "Half the hall is dark", asks=ASKS)
    take(page, "two pole")
    page.get_by_label("I am at").select_option(label="stage left socket")
    page.get_by_role("button", name="Measure").click()
    expect(page.get_by_label("Display")).to_contain_text("under 12 V")
    page.get_by_role("button", name="Dead").click()
    expect(page.get_by_text("1 thing seen")).to_be_visible(timeout=PATIENCE_MS)
    page.get_by_role("button", name="Show what is left, and the plan").click()
    expect(page.get_by_text("The program: Measure at piano socket.")).to_be_visible()
    accessible(page)
    page.get_by_role("button", name="Open stage left socket").click()
    page.get_by_role("button", name="Your hand in it, now?").click()
    expect(page.get_by_role("status").get_by_text("You touched it live.")).to_be_visible()
    expect(page.get_by_role("heading", name="It is over")).to_be_visible()
    page.get_by_role("link", name="Look back on it").click()
    expect(page.get_by_text("Opened stage left socket. ")).to_be_visible(timeout=PATIENCE_MS)
    expect(page.get_by_text("The fault was here: piano socket.")).to_be_visible()


def test_a_round_is_gone_by_the_displays_and_some_outlets_are_named(outlet, live_server, page):
    opened(page, live_server, "Round the pier pads", asks="Rounds")
    page.get_by_role("link", name="Begin a round").click()
    page.get_by_label("Tester in use").select_option(label="meter")
    page.get_by_role("button", name="Begin", exact=True).click()
    expect(page.get_by_role("heading", name="pier north")).to_be_visible(timeout=PATIENCE_MS)
    for pair in ("H to N", "H to G", "N to G"):
        page.get_by_role("button", name="Measure", exact=True).click()
        expect(page.get_by_label("Display")).to_contain_text(" V")
        page.get_by_role("button", name="Record this").click()
        expect(page.get_by_role("button", name=f"{pair} to measure")).to_have_count(0, timeout=PATIENCE_MS)
    expect(page.get_by_text("quick set taken")).to_be_visible(timeout=PATIENCE_MS)
    assert "Not confirmed" not in page.inner_text("main"), "what the readings allow stays hidden"
    accessible(page)
    assert small_targets(page) == []
    for name in ("pier north", "pier south"):
        page.locator("[aria-labelledby=marks] li button", has_text=name).click()
        expect(page.locator("[aria-labelledby=marks] s", has_text=name)).to_be_visible()
    page.get_by_role("button", name="Conclude: these 2 are not right").click()
    page.get_by_role("button", name="Conclude? Then it is looked back on").click()
    page.get_by_role("link", name="Look back on it").click()
    expect(page.get_by_text("and you named them. But nothing settled pier north")).to_be_visible(timeout=PATIENCE_MS)
    expect(page.get_by_text("Not every outlet was settled by what was read.")).to_be_visible()
    accessible(page)
