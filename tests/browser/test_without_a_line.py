"""Without a line: a proof goes on, what was seen opens with its age, what is half typed comes back."""

import re
from datetime import timedelta

import pytest
from django.db.models import F
from playwright.sync_api import expect

from crews.models import SignedIn
from proofs.models import ProofEvent
from readings.models import Reading
from rounds.models import RoundEvent
from sheets.models import SheetEntry
from tests.browser.conftest import PASSWORD, USERNAME, accessible, another_browser, sign_in, sign_out
from tests.browser.front import Front
from tests.browser.test_bench import open_outlet
from tests.browser.test_dead_tests import begin_sheet, step, testers
from tests.browser.test_prove_dead import SPLIT_PHASE, STANDING, begin, isolate, set_meter, shown, take
from tests.tampering import tampering

__all__ = ["testers"]
WAITING = "Not at the server yet"
FIELD = re.compile("^Reading")
LAST_ASKED_AHEAD = "api/outlets"
A_MOMENT_MS = 500
"""A browser has its database for it."""
LOADED_AHEAD = ("Find", "KeysEverywhere", "OwnPlace", "WaitingPlace")
HAS_LOADED = "part => performance.getEntriesByType('resource').some(({name}) => name.includes(`/${part}-`))"


def all_sent(page, live_server):
    page.goto(f"{live_server.url}/waiting")
    expect(page.get_by_text("Nothing waits")).to_be_visible()


def test_a_whole_proof_is_recorded_without_a_line_and_stands_when_it_is_back(kit, live_server, page):
    begin(page, live_server, circuit="Workshop outlets")
    page.context.set_offline(True)
    expect(page.get_by_text("No line to the server")).to_be_visible()
    isolate(page, "Warm room board W, 20 A", "K-07")
    take(page)
    set_meter(page)
    shown(page, "Volts shown on the known source", "239.0")
    for pair in SPLIT_PHASE:
        shown(page, f"Volts, {pair}", "0.0")
    set_meter(page)
    shown(page, "Volts shown on the known source", "239.1")
    expect(page.get_by_role("heading", name="Recorded. Treat as live")).to_be_visible()
    expect(page.get_by_label(WAITING).get_by_role("listitem")).to_have_count(10)
    expect(page.locator(STANDING)).to_contain_text("Last known: live")
    assert ProofEvent.objects.count() == 0
    accessible(page)
    page.context.set_offline(False)
    expect(page.get_by_role("button", name="Hold: proved dead")).to_be_visible()
    expect(page.get_by_label(WAITING)).to_have_count(0)
    types = ["off", "locked", "proved", *["tested"] * 6, "proved"]
    assert list(ProofEvent.objects.values_list("type", flat=True)) == types
    at = list(ProofEvent.objects.values_list("at", flat=True))
    assert at == sorted(at)
    page.context.set_offline(True)
    expect(page.get_by_text("Confirming it dead needs the server")).to_be_visible()
    expect(page.get_by_role("button", name="Hold: proved dead")).to_have_count(0)


def test_what_may_have_ended_a_proof_is_believed_before_the_server_has_it(running_out, live_server, page):
    sign_in(page, live_server.url)
    page.get_by_role("link", name="Workshop outlets").first.click()
    expect(page.locator(STANDING)).to_have_attribute("data-state", "proved-dead")
    page.route("**/events/**", lambda route: route.abort())
    page.get_by_text("Something else happened").click()
    page.get_by_role("button", name="Switched on again").click()
    page.get_by_role("button", name="This one: the proof ends").click()
    expect(page.locator(STANDING)).to_have_attribute("data-state", "last-known")
    expect(page.get_by_role("heading", name="Recorded. Treat as live")).to_be_visible()


def test_a_sheet_and_a_picture_wait_for_the_line(testers, live_server, page, tmp_path):
    begin_sheet(page, live_server)
    page.context.set_offline(True)
    page.get_by_label("Look", exact=True).get_by_text("Good", exact=True).first.click()
    picture = tmp_path / "seen.png"
    page.screenshot(path=picture)
    page.locator("input[type=file]").first.set_input_files(picture)
    expect(page.get_by_label(WAITING).get_by_text("Picture,")).to_be_visible()
    step(page, "Loads out")
    page.get_by_text("All out", exact=True).click()
    page.get_by_text("Off its bar", exact=True).click()
    expect(page.get_by_label(WAITING)).to_contain_text("Loads disconnected, neutral lifted")
    page.context.set_offline(False)
    all_sent(page, live_server)
    kept = [(e.entry["type"], "photo" in e.entry, e.supersedes is not None) for e in SheetEntry.objects.all()]
    assert kept == [("looked", False, False), ("looked", True, True), ("loads", False, False)]


def test_a_stop_is_skipped_without_a_line(outlet, live_server, page):
    sign_in(page, live_server.url)
    page.get_by_role("link", name="Site", exact=True).click()
    page.get_by_role("link", name="Larkspur Hill Observatory").click()
    page.get_by_role("link", name="Go round Workshop outlets").click()
    page.get_by_role("button", name="Begin").click()
    page.get_by_role("heading", name="Outlet 3, by the lathe").wait_for()
    page.context.set_offline(True)
    page.get_by_role("button", name="Skip it").click()
    page.get_by_label("Why is it skipped?").fill("Behind the cabinet")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Outlets of the round")).to_contain_text("skipped, waits for the line")
    page.context.set_offline(False)
    expect(page.get_by_label("Outlets of the round")).to_contain_text("skipped: Behind the cabinet")
    assert RoundEvent.objects.get().entry == {"reason": "Behind the cabinet"}


def test_what_is_half_typed_comes_back_to_its_place_and_goes_with_its_person(kit, live_server, page):
    open_outlet(page, live_server)
    page.keyboard.type("119.")
    page.get_by_role("link", name="Kit", exact=True).click()
    page.get_by_role("button", name="Add a tester").click()
    page.get_by_label("Name").fill("Detector D")
    page.reload()
    page.get_by_role("button", name="Add a tester").click()
    expect(page.get_by_label("Name")).to_have_value("Detector D")
    page.keyboard.press("Escape")
    page.get_by_role("link", name="Bench").click()
    expect(page.get_by_label("Reading, H to N")).to_have_value("119.")
    page.keyboard.type("120.1")
    expect(page.get_by_label("Reading, H to N")).to_have_value("120.1")
    sign_out(page)
    page.get_by_label("Name").wait_for()
    open_outlet(page, live_server)
    expect(page.get_by_label("Reading, H to N")).to_have_value("")


@pytest.fixture
def installed(browser, live_server):
    """A browser in which the page may be kept."""
    context = browser.new_context(viewport={"width": 390, "height": 844}, has_touch=True)
    yield context.new_page()
    context.close()


def test_every_place_seen_opens_without_a_line_with_its_age(outlet, live_server, installed):
    page = installed
    with page.expect_response(f"**/{LAST_ASKED_AHEAD}"):
        open_outlet(page, live_server)
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
    page.keyboard.type("119.8")
    page.keyboard.press("Enter")
    expect(page.get_by_text("1 reading recorded")).to_be_visible()
    page.reload()
    expect(page.get_by_text("1 reading recorded")).to_be_visible()
    page.wait_for_timeout(A_MOMENT_MS)
    page.context.set_offline(True)
    page.reload()
    expect(page.get_by_role("heading", name="Outlet 3, by the lathe")).to_be_visible()
    expect(page.get_by_text("No line to the server. Last known at")).to_be_visible()
    expect(page.get_by_label("What it could still be").get_by_text("Last known:")).to_be_visible()
    field = page.get_by_role("textbox", name=FIELD)
    field.fill("119.7")
    page.keyboard.press("Enter")
    expect(page.get_by_label(WAITING)).to_contain_text("The verdict is without it")
    accessible(page)
    for place in ("today", "sites", "kit", "prove-dead", "dead-tests", "rounds", "plug-in", "waiting"):
        page.goto(f"{live_server.url}/{place}")
        expect(page.get_by_role("heading", level=1)).to_be_visible()
        expect(page.get_by_text("No line to the server. Last known at")).to_be_visible()
    page.goto(f"{live_server.url}/sites")
    page.get_by_role("link", name="Larkspur Hill Observatory").click()
    expect(page.get_by_role("heading", name="Workshop outlets")).to_be_visible()
    page.context.set_offline(False)
    expect(page.get_by_text("No line to the server")).to_have_count(0)
    all_sent(page, live_server)
    assert list(Reading.objects.values_list("entry__value", flat=True)) == [119.8, 119.7]


def test_nothing_is_asked_ahead_while_somebody_is_at_work_nor_twice_for_a_page_loaded_again(
    outlet, live_server, installed
):
    page, asked = installed, []
    page.on("request", lambda request: asked.append(request.url) if request.url.endswith(LAST_ASKED_AHEAD) else None)
    sign_in(page, live_server.url)
    for _ in range(12):
        page.keyboard.press("Shift")
        page.wait_for_timeout(1_000)
    assert asked == []
    page.wait_for_event("request", lambda request: request.url.endswith(LAST_ASKED_AHEAD))
    page.wait_for_timeout(A_MOMENT_MS)
    asked.clear()
    page.reload()
    page.wait_for_timeout(10_000)
    assert asked == []


def test_who_signs_out_leaves_nothing_to_be_read_without_a_line(outlet, live_server, installed):
    page = installed
    sign_in(page, live_server.url)
    page.evaluate("navigator.serviceWorker.ready.then(() => true)")
    page.reload()
    page.get_by_role("heading", name="Today").wait_for()
    page.get_by_text("More", exact=True).click()
    sign_out(page)
    page.get_by_label("Name").wait_for()
    page.context.set_offline(True)
    page.reload()
    expect(page.get_by_text("The server cannot be reached")).to_be_visible()
    expect(page.get_by_text("Larkspur")).to_have_count(0)


def test_what_is_wanted_without_a_line_is_there_though_nothing_is_installed(outlet, live_server, page):
    """A phone on a plain address has no service worker."""
    open_outlet(page, live_server)
    for part in LOADED_AHEAD:
        page.wait_for_function(HAS_LOADED, arg=part)
    page.context.set_offline(True)
    page.keyboard.press("?")
    expect(page.get_by_role("dialog")).to_contain_text("take back the last reading")
    page.keyboard.press("Escape")
    page.keyboard.press("/")
    expect(page.get_by_role("dialog")).to_contain_text("Find")
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.keyboard.type("119.8")
    page.keyboard.press("Enter")
    sign_out(page)
    expect(page.get_by_role("dialog", name="1 waiting to be sent")).to_be_visible()
    page.get_by_role("button", name="Stay signed in").click()
    page.get_by_role("link", name="1 waiting to be sent").click()
    expect(page.get_by_role("list", name=WAITING)).to_contain_text("119.8 V")


def test_what_cannot_be_loaded_leaves_the_place_under_it_as_it_is(outlet, live_server, page):
    page.route("**/Find*", lambda route: route.abort())
    open_outlet(page, live_server)
    page.keyboard.press("/")
    expect(page.get_by_role("alert")).to_contain_text("This cannot be shown without a line")
    expect(page.get_by_role("textbox", name=FIELD)).to_be_visible()


def test_where_the_browser_keeps_nothing_that_is_said_and_all_is_sent(outlet, live_server, page):
    page.add_init_script("Object.defineProperty(window, 'indexedDB', { get() { throw new Error('refused'); } })")
    down = [True]
    page.route("**/readings/**", lambda route: route.abort() if down else route.continue_())
    open_outlet(page, live_server)
    page.keyboard.type("119.8")
    page.keyboard.press("Enter")
    expect(page.get_by_text("This browser keeps nothing")).to_be_visible()
    down.clear()
    expect(page.get_by_text("1 reading recorded")).to_be_visible()
    assert Reading.objects.count() == 1


def test_where_the_disk_is_full_that_is_said_and_all_is_sent(outlet, live_server, page):
    page.add_init_script(
        "IDBObjectStore.prototype.put = () => { throw new DOMException('full', 'QuotaExceededError'); }"
    )
    down = [True]
    page.route("**/readings/**", lambda route: route.abort() if down else route.continue_())
    open_outlet(page, live_server)
    for value in ("119.8", "119.7"):
        page.keyboard.type(value)
        page.keyboard.press("Enter")
    expect(page.get_by_text("Leave this page open until all of it is sent")).to_be_visible()
    down.clear()
    expect(page.get_by_text("2 readings recorded")).to_be_visible()
    assert list(Reading.objects.values_list("entry__value", flat=True)) == [119.8, 119.7]


def test_an_hour_s_cut_over_a_proof_s_end_leaves_it_void_here_and_at_the_server(running_out, live_server, page):
    page.clock.install()
    sign_in(page, live_server.url)
    page.get_by_role("link", name="Workshop outlets").first.click()
    expect(page.locator(STANDING)).to_have_attribute("data-state", "proved-dead")
    page.context.set_offline(True)
    expect(page.locator(STANDING)).to_have_attribute("data-state", "last-known")
    page.clock.fast_forward("01:00:00")
    expect(page.locator(STANDING)).to_have_attribute("data-state", "void")
    expect(page.get_by_text("Cut off for 60 min")).to_be_visible()
    expect(page.get_by_role("button", name="I am here")).to_have_count(0)
    with tampering(ProofEvent) as events:
        events.update(at=F("at") - timedelta(hours=1), recorded_at=F("recorded_at") - timedelta(hours=1))
    page.context.set_offline(False)
    page.clock.fast_forward("00:30")
    expect(page.get_by_text("No line to the server")).to_have_count(0)
    expect(page.locator(STANDING)).to_have_attribute("data-state", "void")


def test_of_two_at_one_proof_without_a_line_the_one_who_switched_on_is_believed(kit, live_server, page, browser):
    begin(page, live_server, circuit="Workshop outlets")
    other = another_browser(browser).new_page()
    sign_in(other, live_server.url)
    other.get_by_role("link", name="Workshop outlets").first.click()
    expect(other.get_by_role("heading", name="Switch off")).to_be_visible()
    page.context.set_offline(True)
    other.context.set_offline(True)
    isolate(page, "Warm room board W, 20 A", "K-07")
    take(page)
    set_meter(page)
    shown(page, "Volts shown on the known source", "239.0")
    other.get_by_text("Something else happened").click()
    other.get_by_role("button", name="Switched on again").click()
    other.get_by_role("button", name="This one: the proof ends").click()
    expect(other.get_by_role("heading", name="Recorded. Treat as live")).to_be_visible()
    for pair in SPLIT_PHASE:
        shown(page, f"Volts, {pair}", "0.0")
    set_meter(page)
    shown(page, "Volts shown on the known source", "239.1")
    page.context.set_offline(False)
    expect(page.get_by_role("button", name="Hold: proved dead")).to_be_visible()
    other.context.set_offline(False)
    expect(page.get_by_role("heading", name="Switch off")).to_be_visible()
    expect(page.get_by_role("button", name="Hold: proved dead")).to_have_count(0)
    types = list(ProofEvent.objects.values_list("type", flat=True))
    assert types[:3] == ["off", "locked", "proved"]
    assert types[3] == "re-energised", "in its place in time, though it came last"
    other.context.close()


def test_a_server_killed_and_back_has_each_reading_once_and_nothing_typed_is_lost(outlet, live_server, page):
    with Front(live_server) as front:
        open_outlet(page, front)
        front.kill()
        page.keyboard.type("119.8")
        page.keyboard.press("Enter")
        expect(page.get_by_label(WAITING)).to_contain_text("H to N, 119.8 V")
        expect(page.get_by_text("No line to the server")).to_be_visible()
        page.keyboard.type("119.")
        front.serve()
        expect(page.get_by_text("1 reading recorded")).to_be_visible()
        expect(page.get_by_label("Reading, H to G")).to_have_value("119.")
        page.keyboard.type("7")
        page.keyboard.press("Enter")
        expect(page.get_by_text("2 readings recorded")).to_be_visible()
    assert list(Reading.objects.values_list("entry__value", flat=True)) == [119.8, 119.7]


def test_a_session_that_ended_without_a_line_keeps_what_waits_for_its_person(outlet, live_server, page):
    open_outlet(page, live_server)
    page.context.set_offline(True)
    page.keyboard.type("119.8")
    page.keyboard.press("Enter")
    expect(page.get_by_label(WAITING)).to_contain_text("119.8")
    SignedIn.objects.all().delete()
    page.context.set_offline(False)
    again = page.get_by_role("dialog")
    expect(again.get_by_text("You are signed out")).to_be_visible()
    assert Reading.objects.count() == 0
    again.get_by_label("Name").fill(USERNAME)
    again.get_by_label("Password").first.fill(PASSWORD)
    page.keyboard.press("Enter")
    expect(page.get_by_text("1 reading recorded")).to_be_visible()
    assert Reading.objects.get().by.get_username() == USERNAME
