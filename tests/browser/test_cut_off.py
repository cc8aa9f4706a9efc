"""The line cut: a proof is void at zero and last known before, readings wait and none is lost, a plain page opens."""

import re
import time
from datetime import datetime, timedelta

from playwright.sync_api import expect

from readings.models import Reading
from sites.models import Point
from tests.browser.conftest import PASSWORD, USERNAME, accessible, another_browser, demo_id, sign_in, small_targets
from tests.browser.test_bench import open_outlet

FIELD = re.compile("^Reading")
STANDING = "header [data-state]"
COUNTS_TONES = """
    window.tones = 0;
    const made = AudioContext.prototype.createOscillator;
    AudioContext.prototype.createOscillator = function () { window.tones += 1; return made.call(this); };
"""
TONES_SOON, TONES_OVER = 2, 6


def test_offline_a_proof_is_last_known_and_void_at_zero_with_sound(running_out, live_server, page):
    page.add_init_script(COUNTS_TONES)
    sign_in(page, live_server.url)
    page.get_by_role("link", name="Workshop outlets").first.click()
    expect(page.locator(STANDING)).to_contain_text("Proved dead")
    page.context.set_offline(True)
    expect(page.locator(STANDING)).to_contain_text("Last known: proved dead")
    expect(page.locator(STANDING)).to_have_attribute("data-state", "last-known")
    assert page.locator(STANDING + " svg path").count() == 1, "the half disc"
    accessible(page)
    expect(page.locator(STANDING)).to_have_attribute("data-state", "void", timeout=45_000)
    expect(page.locator(STANDING)).to_contain_text("Its time is over")
    expect(page.get_by_text("Workshop outlets: no longer valid")).to_be_visible()
    assert page.evaluate("window.tones") == TONES_SOON + TONES_OVER
    expect(page.get_by_role("button", name="I am here")).to_have_count(0)
    expect(page.get_by_role("heading", name="No longer valid: its time is over")).to_be_visible()
    accessible(page)
    page.context.set_offline(False)
    expect(page.get_by_text("No line to the server")).to_have_count(0)
    expect(page.locator(STANDING)).to_have_attribute("data-state", "void")


def test_todays_card_and_the_sheet_are_last_known_too_and_nothing_is_cleared(proved, live_server, page):
    sign_in(page, live_server.url)
    card = page.locator("[data-proof]")
    expect(card).to_have_attribute("data-proof", "proved-dead")
    page.context.set_offline(True)
    expect(card).to_have_attribute("data-proof", "last-known")
    expect(page.get_by_text("No line to the server")).to_be_visible()
    page.context.set_offline(False)
    expect(card).to_have_attribute("data-proof", "proved-dead", timeout=40_000)
    page.goto(f"{live_server.url}/dead-tests/{demo_id('t', 'sheet')}")
    expect(page.locator("header")).to_contain_text("Proved dead")
    page.get_by_role("button", name="Clear to energise").click()
    expect(page.get_by_role("button", name="Energise even so")).to_be_visible()
    page.context.set_offline(True)
    expect(page.get_by_text("Nothing is cleared to energise until the server answers")).to_be_visible()
    expect(page.get_by_role("button", name="Energise even so")).to_have_count(0)


def test_a_clock_that_is_an_hour_off_changes_nothing(running_out, live_server, page):
    page.clock.install(time=datetime.now() + timedelta(hours=1))
    sign_in(page, live_server.url)
    expect(page.locator("[data-proof]")).to_have_attribute("data-proof", "proved-dead")
    left = page.locator("[data-proof] time").inner_text()
    assert left.startswith("0:"), left


def test_the_next_reading_is_taken_while_the_first_is_under_way(outlet, live_server, page):
    slow = []
    page.route("**/readings/**", lambda route: (slow.append(1), time.sleep(2.0), route.continue_()))
    open_outlet(page, live_server)
    for value in ("119.8", "119.7", "0.2"):
        page.keyboard.type(value)
        page.keyboard.press("Enter")
        expect(page.get_by_role("textbox", name=FIELD)).to_have_value("")
    waiting = page.get_by_label("Not at the server yet")
    expect(waiting.get_by_role("listitem")).not_to_have_count(0)
    page.keyboard.type("11")
    expect(page.get_by_text("3 readings recorded")).to_be_visible(timeout=40_000)
    expect(page.get_by_role("textbox", name=FIELD)).to_have_value("11")
    kept = Reading.objects.order_by("taken_at").values_list("entry__from", "entry__to", "entry__value")
    assert list(kept) == [("L", "N", 119.8), ("L", "PE", 119.7), ("N", "PE", 0.2)]


def test_offline_every_reading_waits_outlives_a_reload_and_is_there_once(outlet, live_server, page):
    open_outlet(page, live_server)
    down = []
    page.route("**/readings/**", lambda route: route.abort() if down else route.continue_())
    down.append(True)
    for value in ("119.8", "119.7"):
        page.keyboard.type(value)
        page.keyboard.press("Enter")
    waiting = page.get_by_label("Not at the server yet")
    expect(waiting.get_by_role("listitem")).to_have_count(2)
    expect(page.get_by_role("link", name="2 waiting to be sent")).to_be_visible()
    expect(page.get_by_text("without 2 readings not at the server yet")).to_be_visible()
    accessible(page)
    page.reload()
    expect(waiting.get_by_role("listitem")).to_have_count(2)
    down.clear()
    expect(page.get_by_text("2 readings recorded")).to_be_visible()
    expect(waiting).to_have_count(0)
    assert Reading.objects.count() == 2


def test_what_the_server_refuses_while_the_next_is_typed_stays_on_the_list(outlet, live_server, page):
    page.route("**/readings/**", lambda route: (time.sleep(1.0), route.continue_()))
    open_outlet(page, live_server)
    page.keyboard.type("11980")
    page.keyboard.press("Enter")
    page.keyboard.type("119")
    waiting = page.get_by_label("Not at the server yet")
    expect(waiting).to_contain_text("not recorded: 11980 V is more than this tester shows")
    expect(page.get_by_role("textbox", name=FIELD)).to_have_value("119")
    accessible(page)
    waiting.get_by_role("button", name="Put back to correct").click()
    expect(page.get_by_label("Reading, H to N")).to_have_value("11980")
    expect(waiting).to_have_count(0)


def test_a_verdict_is_last_known_when_the_line_is_cut(outlet, live_server, page):
    open_outlet(page, live_server)
    verdict = page.get_by_label("What it could still be")
    page.keyboard.type("119.8")
    page.keyboard.press("Enter")
    expect(verdict.get_by_text("Not confirmed yet")).to_be_visible()
    page.context.set_offline(True)
    expect(verdict.get_by_text("Last known: Not confirmed yet")).to_be_visible()
    expect(page.get_by_text("No line to the server")).to_contain_text("Treat as live")


def test_a_round_whose_outlet_moved_and_a_record_that_cannot_be_shown_leave_the_rest(outlet, live_server, page):
    sign_in(page, live_server.url)
    page.get_by_role("link", name="Site", exact=True).click()
    page.get_by_role("link", name="Larkspur Hill Observatory").click()
    page.get_by_role("link", name="Go round Workshop outlets").click()
    page.get_by_role("button", name="Begin").click()
    page.get_by_role("heading", name="Outlet 3, by the lathe").wait_for()
    Point.objects.update(kind="switch")
    page.get_by_role("link", name="Today").click()
    card = page.get_by_role("link", name="Workshop outlets")
    expect(card).to_contain_text("All its outlets were moved away")
    card.click()
    expect(page.get_by_role("heading", name="No outlet is on this round")).to_be_visible()
    accessible(page)
    Point.objects.update(terminals=["L", "Q"])
    page.get_by_role("link", name="Today").click()
    expect(page.get_by_role("link", name="Outlet 3, by the lathe")).to_contain_text("Cannot be shown, reference")
    accessible(page)


def test_a_phone_on_a_plain_page_has_the_whole_application(outlet, live_server, browser):
    """A browser gives randomUUID to secure pages only: a phone in the field may have opened another."""
    phone = another_browser(browser, viewport={"width": 390, "height": 844}, has_touch=True)
    page = phone.new_page()
    page.add_init_script("delete Crypto.prototype.randomUUID")
    open_outlet(page, live_server)
    page.get_by_label("Reading, H to N").fill("119.8")
    page.get_by_role("button", name="Record").tap()
    expect(page.get_by_text("1 reading recorded")).to_be_visible()
    page.goto(f"{live_server.url}/prove-dead/new")
    expect(page.get_by_role("button", name="Begin")).to_be_visible()
    assert small_targets(page) == []
    phone.close()


def test_too_many_wrong_passwords_are_said_at_the_field(outlet, live_server, page, monkeypatch):
    monkeypatch.setattr("crews.signing_in.misses.wait_s", lambda *_args: 12.0)
    page.goto(live_server.url)
    page.get_by_label("Name").fill(USERNAME)
    page.get_by_label("Password").first.fill(PASSWORD)
    page.keyboard.press("Enter")
    expect(page.get_by_text("Too many wrong tries; try again in 13 seconds")).to_be_visible()
    accessible(page)
