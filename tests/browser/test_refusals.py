"""Whatever the server says no to is said, in every form, and also when it cannot be reached."""

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import sign_in

STRANGE = {"problems": [{"path": "elsewhere", "text": "no field shows this"}]}


def add_a_site(page):
    page.get_by_role("link", name="Site", exact=True).click()
    page.get_by_role("button", name="Add a site").click()
    page.get_by_label("Name").fill("Fennwick Weaving Shed")


def add_a_supply(page):
    page.get_by_role("link", name="Site", exact=True).click()
    page.get_by_role("link", name="Larkspur Hill Observatory").click()
    page.get_by_role("button", name="Add a supply").click()


def add_a_tester(page):
    page.get_by_role("link", name="Kit", exact=True).click()
    page.get_by_role("button", name="Add a tester").click()
    page.get_by_label("Name").fill("Meter M9")


def add_leads(page):
    page.get_by_role("link", name="Kit", exact=True).click()
    page.get_by_role("button", name="Add leads").click()
    page.get_by_label("Name").fill("Leads C")


def change_the_rules(page):
    page.get_by_role("link", name="Prove dead", exact=True).click()
    page.get_by_role("link", name="rules").click()
    page.get_by_label("Minutes with nobody seen until void").fill("20")


def begin_a_sheet(page):
    page.get_by_role("link", name="Dead tests", exact=True).click()
    page.get_by_role("link", name="Begin").first.click()
    page.get_by_label("Circuit").select_option(index=1)


def begin_a_round(page):
    page.get_by_role("link", name="Site", exact=True).click()
    page.get_by_role("link", name="Larkspur Hill Observatory").click()
    page.get_by_role("link", name="Begin a round").click()
    page.get_by_label("Circuit or room").select_option("Workshop outlets")


def write_down_a_van(page):
    page.get_by_role("link", name="Before plugging in").click()
    page.get_by_role("button", name="Write down something else").click()
    page.get_by_label("What it is").fill("Visitors' van")


def write_down_an_outlet(page):
    page.get_by_role("link", name="Before plugging in").click()
    page.get_by_role("button", name="An outlet that is not on record").click()
    page.get_by_label("Name of the place").fill("Fair ground")
    page.get_by_label("Name of the outlet").fill("Pitch 4")


def unreachable(route):
    return route.continue_() if route.request.method == "GET" else route.abort()


def refused(route):
    return route.continue_() if route.request.method == "GET" else route.fulfill(status=422, json=STRANGE)


FORMS = [
    *(add_a_site, add_a_supply, add_a_tester, add_leads, change_the_rules, begin_a_sheet, begin_a_round),
    *(write_down_a_van, write_down_an_outlet),
]


@pytest.mark.parametrize("fill_in", FORMS, ids=lambda form: form.__name__)
def test_a_form_says_what_it_cannot_place_and_keeps_what_was_typed(kit, live_server, page, fill_in):
    page.set_default_timeout(20_000)
    expect.set_options(timeout=20_000)
    sign_in(page, live_server.url)
    fill_in(page)
    typed = page.locator("main input, [role=dialog] input").evaluate_all("all => all.map(i => i.value)")
    for answer, says in ((unreachable, "cannot be reached. Nothing is lost"), (refused, "no field shows this")):
        page.route("**/api/**", answer)
        page.locator("button[type=submit]").last.click()
        expect(page.get_by_text(says).first).to_be_visible()
        page.unroute_all()
    after = page.locator("main input, [role=dialog] input").evaluate_all("all => all.map(i => i.value)")
    assert after == typed
