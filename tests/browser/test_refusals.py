"""Whatever the server says no to is said, in every form, and also when it cannot be reached."""

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import sign_in

STRANGE = {"problems": [{"path": "elsewhere", "text": "no field shows this"}]}


SITE, LARKSPUR = ("link", "Site"), ("link", "Larkspur Hill Observatory")
KIT, PLUG_IN = ("link", "Kit"), ("link", "Before plugging in")
FORMS: dict[str, list[tuple]] = {
    "a site": [SITE, ("button", "Add a site"), ("fill", "Name", "Fennwick Weaving Shed")],
    "a supply": [SITE, LARKSPUR, ("button", "Add a supply")],
    "a tester": [KIT, ("button", "Add a tester"), ("fill", "Name", "Meter M9")],
    "leads": [KIT, ("button", "Add leads"), ("fill", "Name", "Leads C")],
    "rules": [
        *(("link", "Prove dead"), ("link", "This crew's rules")),
        ("fill", "Minutes with nobody seen until it is no longer valid", "20"),
    ],
    "a sheet": [("link", "Dead tests"), ("link", "Begin a sheet"), ("choose", "Circuit", 1)],
    "a round": [SITE, LARKSPUR, ("link", "Begin a round"), ("choose", "Circuit or room", 1)],
    "equipment": [PLUG_IN, ("button", "Add equipment"), ("fill", "What it is", "Visitors' van")],
    "an outlet": [
        *(PLUG_IN, ("button", "An outlet that is not on record")),
        *(("fill", "Name of the place", "Fair ground"), ("fill", "Name of the outlet", "Pitch 4")),
    ],
}


def go(page, do, name, what=None):
    match do:
        case "fill":
            page.get_by_label(name).fill(what)
        case "choose":
            page.get_by_label(name).select_option(index=what)
        case role:
            page.get_by_role(role, name=name).first.click()


def unreachable(route):
    return route.continue_() if route.request.method == "GET" else route.abort()


def refused(route):
    return route.continue_() if route.request.method == "GET" else route.fulfill(status=422, json=STRANGE)


@pytest.mark.parametrize("form", FORMS)
def test_a_form_says_what_it_cannot_place_and_keeps_what_was_typed(kit, live_server, page, form):
    sign_in(page, live_server.url)
    for step in FORMS[form]:
        go(page, *step)
    typed = page.locator("main input, [role=dialog] input").evaluate_all("all => all.map(i => i.value)")
    for answer, says in ((unreachable, "cannot be reached. Nothing is lost"), (refused, "no field shows this")):
        page.route("**/api/**", answer)
        page.locator("button[type=submit]").last.click()
        expect(page.get_by_text(says).first).to_be_visible()
        page.unroute_all()
    after = page.locator("main input, [role=dialog] input").evaluate_all("all => all.map(i => i.value)")
    assert after == typed
