"""Where a day begins and ends: signing in, what waits, a site in a file, signing out."""

import json
from uuid import uuid4

import pytest
from django.contrib.auth import get_user_model
from playwright.sync_api import expect

from crews.models import Crew
from readings.services import record
from sites.models import Site
from tests.browser.conftest import accessible, another_browser, sign_in, sign_out, small_targets

VOLTS = {"quantity": "voltage", "mode": "ac", "unit": "V"}


def measure(point, *readings):
    crew, user = Crew.objects.get(), get_user_model().objects.get()
    for one, other, value in readings:
        entry = {**VOLTS, "from": one, "to": other, "value": value}
        record(crew, user, point.id, uuid4(), entry, tester_id=None, supersedes=None, taken_at=None)


@pytest.fixture
def deadly(outlet):
    """Three healthy voltages, and metalwork at line voltage."""
    measure(outlet, ("L", "N", 119.8), ("L", "PE", 119.9), ("N", "PE", 0.1), ("PE", "REF", 119.4))
    return outlet


def test_what_waits_is_opened_from_today_by_keyboard_and_the_day_ends_signed_out(deadly, kit, live_server, page):
    page.goto(live_server.url)
    page.get_by_label("Name").fill("anna")
    page.get_by_label("Password").first.fill("not hers")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Wrong name or password")).to_be_visible()
    expect(page.get_by_label("Name")).to_have_value("anna")
    accessible(page)
    sign_in(page, live_server.url)
    expect(page.get_by_text("None is running. Nothing is dead: treat all as live.")).to_be_visible()
    expect(page.get_by_text("Nothing is wrong with it.")).not_to_be_visible()
    accessible(page)
    waiting = page.get_by_role("link", name="Outlet 3, by the lathe")
    expect(waiting).to_contain_text("Danger")
    waiting.focus()
    page.keyboard.press("Enter")
    expect(page.get_by_text("Keep off, switch off, lock")).to_be_visible()

    bench = page.url
    sign_out(page)
    page.get_by_label("Name").wait_for()
    page.goto(bench)
    expect(page.get_by_label("Name")).to_be_visible()
    expect(page.get_by_text("Outlet 3, by the lathe")).to_have_count(0)
    page.go_back()
    expect(page.get_by_text("Outlet 3, by the lathe")).to_have_count(0)


def test_whoever_is_signed_out_while_typing_signs_in_again_over_it_and_loses_nothing(outlet, live_server, page):
    sign_in(page, live_server.url)
    page.get_by_role("link", name="Site", exact=True).click()
    page.get_by_role("link", name="Larkspur Hill Observatory").click()
    page.get_by_role("link", name="Outlet 3, by the lathe").click()
    field = page.get_by_label("Reading, H to N")
    field.fill("119.8")
    page.context.clear_cookies(name="sessionid")
    page.keyboard.press("Enter")
    again = page.get_by_role("dialog", name="Sign in again")
    expect(again.get_by_text("What you typed is still here")).to_be_visible()
    page.keyboard.press("Escape")
    expect(again).to_be_visible()
    accessible(page)
    again.get_by_label("Name").fill("anna")
    again.get_by_label("Password").first.fill("a-long-password")
    page.keyboard.press("Enter")
    expect(again).to_have_count(0)
    expect(page.get_by_text("1 reading recorded")).to_be_visible()
    expect(page.get_by_label("Not at the server yet")).to_have_count(0)


def test_a_site_leaves_as_a_file_and_is_brought_in_whole(deadly, live_server, page, tmp_path):
    sign_in(page, live_server.url)
    page.get_by_role("link", name="Site", exact=True).click()
    page.get_by_role("link", name="Larkspur Hill Observatory").click()
    with page.expect_download() as saved:
        page.get_by_role("button", name="Save as survey file").click()
    file = tmp_path / saved.value.suggested_filename
    saved.value.save_as(file)
    survey = json.loads(file.read_text())
    assert [r["value"] for r in survey["points"][0]["readings"]] == [119.8, 119.9, 0.1, 119.4]

    page.get_by_role("link", name="Site", exact=True).click()
    spoilt = tmp_path / "spoilt.json"
    survey["points"][0]["readings"][1]["to"] = "N9"
    spoilt.write_text(json.dumps(survey))
    page.locator("input[type=file]").set_input_files(spoilt)
    expect(page.get_by_role("alert")).to_contain_text("points[0].readings[1].to")
    assert Site.objects.count() == 1
    accessible(page)
    page.locator("input[type=file]").set_input_files(file)
    page.get_by_role("heading", name="Larkspur Hill Observatory").wait_for()
    page.get_by_role("link", name="Outlet 3, by the lathe").click()
    expect(page.get_by_text("4 readings recorded")).to_be_visible()
    expect(page.get_by_label("What it could still be").get_by_text("Danger", exact=True)).to_be_visible()
    assert Site.objects.count() == 2


def test_today_on_a_phone(deadly, kit, live_server, browser):
    context = another_browser(browser, viewport={"width": 390, "height": 844}, has_touch=True, color_scheme="dark")
    page = context.new_page()
    sign_in(page, live_server.url)
    page.get_by_role("link", name="Outlet 3, by the lathe").scroll_into_view_if_needed()
    accessible(page)
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    assert small_targets(page) == []
    page.get_by_role("link", name="Outlet 3, by the lathe").tap()
    expect(page.get_by_text("Keep off, switch off, lock")).to_be_visible()
    context.close()


def test_the_longest_names_stay_on_a_phone(deadly, live_server, browser):
    unbroken = "Dyehouseventilationswitchgear" * 4
    circuit, site = deadly.circuit, Site.objects.get()
    for named in (deadly, circuit, circuit.board, circuit.board.supply, site):
        named.name = unbroken
        named.save()
    context = another_browser(browser, viewport={"width": 390, "height": 844}, has_touch=True)
    page = context.new_page()
    sign_in(page, live_server.url)
    places = {
        "/today": "Not safe yet",
        "/sites": "Sites",
        f"/sites/{site.id}": unbroken,
        f"/bench/{deadly.id}": unbroken,
        f"/rounds/new?site={site.id}": "Begin a round",
        f"/prove-dead/new?circuit={circuit.id}": "What are you isolating?",
    }
    for place, heading in places.items():
        page.goto(live_server.url + place)
        page.get_by_role("heading", name=heading).first.wait_for()
        page.wait_for_load_state("networkidle")
        assert page.evaluate("document.documentElement.scrollWidth") <= 390, place
    context.close()
