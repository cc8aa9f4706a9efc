"""Rounds in the real thing: six outlets by keyboard, left and taken up again; presser and watcher on two devices."""

import pytest
from playwright.sync_api import Route, expect

from crews.models import Crew
from demo.crew import demo_id
from kit.services import put_tester
from sites.services import put_circuit, put_point
from tests.browser.conftest import accessible, another_browser, sign_in, small_targets

HEALTHY = ("119.8", "119.9", "0.1")
REVERSED = ("119.8", "0.2", "119.7")


@pytest.fixture
def six_outlets(outlet):
    """Five more on the workshop's run, which a residual-current device protects, and testers to go round with."""
    crew = Crew.objects.get()
    put_circuit(crew, outlet.circuit_id, demo_id("t", "board"), "Workshop outlets", 20, "12 AWG", 6)
    for number, name in enumerate(("drill press", "lathe bench", "grinder", "paint store", "end of run"), 4):
        where = outlet.circuit_id, f"Outlet {number}, {name}", "outlet", ["L", "N", "PE"], 18 + 2 * number
        put_point(crew, demo_id("t", name), *where)
    rated = {"category": "III", "rated_v": 600, "proved": True}
    put_tester(crew, demo_id("t", "m2"), {"label": "Meter M2", "kind": "multimeter", **rated})
    plug = {"label": "Plug P6", "kind": "digital-plug-tester", "test_ma": 6, **rated, "rated_v": 300}
    put_tester(crew, demo_id("t", "p6"), plug)


def begin(page, live_server, tester):
    sign_in(page, live_server.url)
    page.get_by_role("link", name="Site", exact=True).click()
    page.get_by_role("link", name="Larkspur Hill Observatory").click()
    page.get_by_role("link", name="Go round Workshop outlets").click()
    page.get_by_label("Tester in use").select_option(tester)
    accessible(page)
    page.get_by_role("button", name="Begin").click()
    page.get_by_role("heading", name="Outlet 3, by the lathe").wait_for()


def quick_set(page, values):
    for number, value in enumerate(values, 1):
        expect(page.get_by_label("The quick set").get_by_text("to measure")).to_have_count(4 - number)
        page.keyboard.type(value)
        page.keyboard.press("Enter")
    expect(page.get_by_label("The quick set").get_by_text("to measure")).to_have_count(0)


def onward(page, name):
    """The next outlet, by Enter, as soon as the one in hand is checked."""
    expect(page.get_by_role("button", name=f"Next: {name}")).to_be_focused()
    page.keyboard.press("Enter")
    page.get_by_role("heading", name=name).wait_for()


def test_six_outlets_in_a_round_left_and_taken_up_again(six_outlets, live_server, page):
    begin(page, live_server, "Meter M2")
    here = page.get_by_label("The outlet in hand")
    quick_set(page, HEALTHY)
    expect(here.get_by_text("Not confirmed yet")).to_be_visible()
    expect(page.get_by_text("1 of 6 checked. With Meter M2.")).to_be_visible()
    onward(page, "Outlet 4, drill press")
    quick_set(page, REVERSED)
    expect(here.get_by_text("Danger", exact=True)).to_be_visible()
    accessible(page)
    onward(page, "Outlet 5, lathe bench")
    quick_set(page, HEALTHY)
    expect(page.get_by_text("3 of 6 checked, 1 in full. With Meter M2.")).to_be_visible()

    page.get_by_role("link", name="Today").click()
    page.get_by_role("link", name="Workshop outlets").filter(has_text="3 of 6 checked").click()
    page.get_by_role("heading", name="Outlet 6, grinder").wait_for()
    page.get_by_role("button", name="Skip it").click()
    page.get_by_role("button", name="Skip it").click()
    expect(here.get_by_text("say why it is skipped")).to_be_visible()
    page.get_by_label("Why is it skipped?").fill("Behind the cabinet")
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="Outlet 7, paint store").wait_for()
    expect(page.get_by_text("skipped: Behind the cabinet")).to_be_visible()
    quick_set(page, HEALTHY)
    onward(page, "Outlet 8, end of run")
    quick_set(page, HEALTHY)
    expect(page.get_by_text("5 of 6 checked, 1 in full, 1 skipped. With Meter M2.")).to_be_visible()
    page.get_by_role("link", name="The round is done").click()
    expect(page.get_by_text("5 of 6 checked, 1 in full, 1 skipped")).to_be_visible()
    accessible(page)


def test_a_slip_is_taken_again_and_nothing_typed_is_lost_when_the_server_is_gone(six_outlets, live_server, page):
    server_gone = []
    page.route("**/readings/**", lambda route: route.abort() if server_gone else route.continue_())
    begin(page, live_server, "Meter M2")
    page.keyboard.type("11.98")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="H to N")).to_contain_text("11.98 V")
    page.get_by_role("button", name="H to N").click()
    expect(page.get_by_text("instead of 11.98 V, which stays on record")).to_be_visible()
    server_gone.append(True)
    page.get_by_label("Reading, H to N").fill("119.8")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Not at the server yet")).to_contain_text("H to N, 119.8 V saved on this device")
    server_gone.clear()
    expect(page.get_by_role("button", name="H to N")).to_contain_text("119.8 V")


def test_the_next_value_is_of_the_next_pair_while_the_round_is_not_read_again_yet(six_outlets, live_server, page):
    begin(page, live_server, "Meter M2")
    held: list[Route] | None = []
    page.route("**/api/rounds/*", lambda route: route.continue_() if held is None else held.append(route))
    to_measure = page.get_by_label("The quick set").get_by_text("to measure")
    with page.expect_request("**/api/rounds/*"):
        page.keyboard.type(HEALTHY[0])
        page.keyboard.press("Enter")
    expect(page.get_by_label("Not at the server yet")).not_to_be_visible()
    expect(to_measure).to_have_count(2)
    page.keyboard.type(HEALTHY[1])
    page.keyboard.press("Enter")
    expect(to_measure).to_have_count(1)
    for route in held or ():
        route.continue_()
    held = None
    for pair, value in zip(("H to N", "H to G"), HEALTHY, strict=False):
        expect(page.get_by_role("button", name=pair)).to_contain_text(value)


def test_one_presses_while_another_watches_the_board(six_outlets, live_server, page, browser):
    begin(page, live_server, "Plug P6")
    watcher = another_browser(browser, viewport={"width": 390, "height": 844}, has_touch=True).new_page()
    sign_in(watcher, live_server.url)
    watcher.goto(page.url)
    quick_set(page, HEALTHY)
    expect(page.get_by_text("Warn first: everything behind the device goes dark")).to_be_visible()
    page.get_by_role("button", name="I press now").click()
    watcher.get_by_role("heading", name="Pressed at Outlet 3, by the lathe").wait_for()
    assert small_targets(watcher) == []
    accessible(watcher)
    watcher.get_by_label("Another device went").fill("Main one too")
    watcher.get_by_role("button", name="Tripped").tap()
    page.get_by_role("heading", name="Tripped: dark until reset").wait_for()
    watcher.get_by_role("button", name="Reset, power is back").tap()
    expect(page.get_by_role("heading", name="Tripped: dark until reset")).not_to_be_visible()
    expect(page.get_by_text("1 of 6 checked")).to_be_visible()
    expect(page.get_by_role("button", name="Next: Outlet 4, drill press")).to_be_visible()
    assert watcher.evaluate("document.documentElement.scrollWidth") <= 390
    watcher.context.close()
