"""For hands and eyes: every place and form by axe, by size of targets and by width, in daylight and dark."""

from datetime import date

import pytest
from playwright.sync_api import expect

from crews.models import Crew
from demo.crew import demo_id
from evenprobe.practising import Doing
from plugging.services import put_equipment
from practising.services import begin as begin_case
from practising.services import chosen, do
from readings.models import Reading
from rounds.services import begin as begin_round
from tests.browser.conftest import COLOURS, RULES, accessible, another_browser, sign_in, small_targets
from tests.browser.test_bench import open_outlet
from visits.services import Planned, put_visit

PHONE, DESK = {"width": 390, "height": 844}, {"width": 1280, "height": 800}
NARROW = {"width": 320, "height": 640}
LOOKED_AT = ((DESK, "light", RULES), (DESK, "dark", COLOURS), (PHONE, "dark", RULES), (PHONE, "light", COLOURS))
"""Of one size in the other scheme nothing is new but the colours."""
KEYBOARD_PX = 300
PLACES = [
    "today", "measure", "waiting", "sites", "sites/{site}", "bench/{point}",
    "prove-dead", "prove-dead/new", "prove-dead/rules", "prove-dead/{proof}",
    "dead-tests", "dead-tests/new", "dead-tests/parts", "dead-tests/{sheet}",
    "rounds", "rounds/new", "rounds/{round}", "kit", "kit/holding", "kit/{m2}",
    "plug-in", "plug-in/{point}/{equipment}",
    "record", "record/visits/new", "record/visits/{visit}", "record/reports/site/{site}",
    "record/timeline/site/{site}", "record/labels", "record/files",
    "record/points/not-safe", "own", "people", "practice", "practice/{case}/", "practice/{over}/debrief",
]  # fmt: skip
FORMS = [
    ("kit", "Add a tester"),
    ("kit", "Add leads"),
    ("kit", "Today's check of Meter M2"),
    ("sites", "Add a site"),
    ("sites/{site}", "Add a supply"),
    ("sites/{site}", "Rename"),
    ("sites/{site}", "Change Workshop outlets"),
    ("sites/{site}", "Add a panel"),
    ("plug-in", "Add equipment"),
    ("plug-in", "An outlet that is not on record"),
    ("prove-dead/{proof}", "Hand over to another"),
    ("prove-dead/{proof}", "Another source found"),
    ("bench/{point}", "Keys"),
    ("today", "Find"),
]


@pytest.fixture
def whole(running_out):
    """Something of everything."""
    crew = Crew.objects.get()
    anna = crew.memberships.get().user
    begin_round(crew, anna, demo_id("t", "round"), demo_id("t", "site"), demo_id("t", "circuit"), "", None)
    planned = Planned("Yearly test", date(2026, 12, 1), [demo_id("t", "circuit")], ["dead-tests", "live-tests"])
    put_visit(crew, anna, demo_id("t", "visit"), demo_id("t", "site"), planned)
    stall = {"label": "Tea stall", "lines": 1, "amperes": 13, "volts_to_neutral": 120}
    put_equipment(crew, demo_id("t", "equipment"), stall)
    case, over = (begin_case(anna, demo_id("t", name), *chosen("cold-kettle", None, None)) for name in ("case", "over"))
    do(case, demo_id("t", "probed"), Doing.LOCKED, [], {}, "")
    do(over, demo_id("t", "touched"), Doing.TOUCHED, [], {}, "")
    names = ("case", "over", "site", "point", "proof", "sheet", "round", "m2", "equipment", "visit")
    return {name: str(demo_id("t", name)) for name in names}


def open_place(page, url, path, ids):
    page.goto(f"{url}/{path.format(**ids)}")
    page.get_by_role("heading", level=1).wait_for()
    expect(page.locator("[aria-busy=true]")).to_have_count(0)


def wrong_with(page, path, rules=RULES):
    """Whatever does not fit, in words."""
    accessible(page, rules)
    found = [f"{path}: under 48 px: {target}" for target in small_targets(page)]
    small = page.evaluate(
        """[...document.querySelectorAll('main *')].filter(e => e.children.length === 0 && e.textContent.trim()
            && e.getBoundingClientRect().width > 1)
        .filter(e => {
            const scale = e instanceof SVGElement ? e.getScreenCTM()?.a ?? 1 : 1;
            return parseFloat(getComputedStyle(e).fontSize) * scale < 12.95;
        }).map(e => e.textContent.slice(0, 40))"""
    )
    found += [f"{path}: under 13 px: {text}" for text in small]
    if page.evaluate("document.documentElement.scrollWidth > innerWidth"):
        found.append(f"{path}: wider than the screen")
    return found


@pytest.mark.parametrize("half", [0, 1])
def test_every_place_can_be_read_and_hit(whole, live_server, browser, half):
    """Each opened once, and looked at in daylight and dark, large and small; on a narrow phone it is no wider."""
    page = another_browser(browser, viewport=DESK).new_page()
    sign_in(page, live_server.url)
    wrong = []
    for path in PLACES[half::2]:
        page.set_viewport_size(DESK)
        open_place(page, live_server.url, path, whole)
        assert page.title().endswith(", Even Probe"), path
        assert page.get_by_role("heading", level=1).count() == 1, path
        for size, scheme, rules in LOOKED_AT:
            page.set_viewport_size(size)
            page.emulate_media(color_scheme=scheme)
            page.wait_for_timeout(100)
            wrong += wrong_with(page, f"{path}, {scheme}, {size['width']}", rules)
        page.set_viewport_size(NARROW)
        if page.evaluate("document.documentElement.scrollWidth > innerWidth"):
            wrong.append(f"{path}: wider than a narrow phone")
    assert not wrong, "\n".join(wrong)
    page.context.close()


def test_every_form_and_dialog_can_be_read_and_hit(whole, live_server, browser):
    context = another_browser(browser, viewport=PHONE, has_touch=True, color_scheme="dark")
    page = context.new_page()
    sign_in(page, live_server.url)
    wrong = []
    for path, button in FORMS:
        open_place(page, live_server.url, path, whole)
        if button == "Find":
            page.get_by_text("More", exact=True).click()
        if path.startswith("prove-dead"):
            page.get_by_text("Something else happened").click()
        page.get_by_role("button", name=button).first.click()
        page.get_by_role("dialog").wait_for()
        wrong += wrong_with(page, f"{path}, {button}")
    assert not wrong, "\n".join(wrong)
    context.close()


def test_two_taps_to_the_first_pair_then_three_voltages_and_a_verdict_above_the_keyboard(kit, live_server, browser):
    context = another_browser(browser, viewport=PHONE, has_touch=True)
    page = context.new_page()
    sign_in(page, live_server.url)
    page.get_by_role("link", name="Measure an outlet now").tap()
    page.get_by_role("button", name="H, N, G").tap()
    field = page.get_by_label("Reading, H to N")
    expect(field).to_be_visible()
    page.set_viewport_size({**PHONE, "height": PHONE["height"] - KEYBOARD_PX})
    for pair, volts in (("H to N", "119.8"), ("H to G", "119.7"), ("N to G", "0.2")):
        field = page.get_by_label(f"Reading, {pair}")
        expect(field).to_be_focused()
        between = page.get_by_label("The reading").get_by_text(pair, exact=True).first
        verdict = page.locator("[aria-hidden] strong", has_text="Untested").or_(
            page.locator("[aria-hidden] strong", has_text="Not confirmed yet")
        )
        for seen in (field, between, verdict):
            box = seen.bounding_box()
            assert box, f"{pair}: not there"
            assert box["y"] >= 0, pair
            assert box["y"] + box["height"] <= PHONE["height"] - KEYBOARD_PX, pair
        page.keyboard.type(volts)
        page.keyboard.press("Enter")
    expect(page.locator("[aria-hidden] strong", has_text="Not confirmed yet")).to_be_in_viewport()
    assert page.evaluate("scrollY") == 0
    expect(page.get_by_text("3 readings recorded")).to_be_attached()
    expect(page.get_by_text("N to G, 0.2 V recorded")).to_be_attached()
    page.keyboard.press("u")
    expect(page.get_by_role("button", name="Undo")).to_have_count(0)
    assert Reading.objects.exclude(supersedes=None).count() == 1, "the last is taken back"
    context.close()


def test_a_new_crew_is_told_where_to_begin(outlet, live_server, browser):
    Crew.objects.get().sites.all().delete()
    page = another_browser(browser).new_page()
    sign_in(page, live_server.url)
    for step in ("Measure an outlet now.", "Put your first tester on record.", "Add your first site."):
        expect(page.get_by_role("listitem").filter(has_text=step)).to_be_visible()
    expect(page.get_by_text("Nothing is wrong with it")).to_have_count(0)
    accessible(page)
    page.context.close()


def test_by_keyboard_one_skips_to_the_work_finds_and_is_told_the_keys(kit, live_server, page):
    sign_in(page, live_server.url)
    expect(page.get_by_role("heading", name="Today")).to_be_focused()
    page.keyboard.press("?")
    expect(page.get_by_role("dialog").get_by_text("find a site, circuit")).to_be_visible()
    page.keyboard.press("Escape")
    page.keyboard.press("/")
    page.get_by_role("dialog").get_by_label("A place, tester").fill("lathe")
    expect(page.get_by_role("link", name="Outlet 3, by the lathe")).to_be_visible()
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Outlet 3, by the lathe")).to_be_visible()
    page.get_by_role("link", name="Kit", exact=True).click()
    expect(page.get_by_role("heading", name="Kit", level=1)).to_be_focused()
    assert page.title() == "Kit, Even Probe"
    page.reload()
    page.get_by_role("heading", name="Kit", level=1).wait_for()
    page.keyboard.press("Shift+Tab")
    skip = page.get_by_role("link", name="Skip to the work")
    skip.focus()
    expect(skip).to_be_in_viewport()


def test_readings_are_twice_as_large_and_read_aloud_where_that_is_asked_for(outlet, live_server, page):
    page.add_init_script("window.said = []; speechSynthesis.speak = spoken => window.said.push(spoken.text)")
    open_outlet(page, live_server)
    field = page.get_by_label("Reading, H to N")
    size = "e => parseFloat(getComputedStyle(e).fontSize)"
    usual = field.evaluate(size)
    page.get_by_role("button", name="Big").click()
    assert field.evaluate(size) == 2 * usual
    assert page.evaluate("window.said") == []
    page.get_by_role("button", name="Aloud").click()
    field.fill("119.8")
    field.press("Enter")
    expect(page.get_by_label("Reading, H to G")).to_be_visible()
    expect(page.get_by_text("1 reading recorded")).to_be_visible()
    said = page.evaluate("window.said")
    assert said[0].startswith("Untested. Next: hot to neutral")
    assert said[-1].startswith("Not confirmed yet. Next: hot to ground")
    accessible(page)
    page.reload()
    assert page.get_by_label("Reading, H to G").evaluate(size) == 2 * usual


def test_nothing_is_recorded_with_a_tester_nobody_named(kit, live_server, browser):
    page = browser.new_context(service_workers="block").new_page()
    open_outlet(page, live_server)
    held = page.get_by_label("Tester in use")
    expect(held.locator("option:checked")).to_have_text("Which tester?")
    page.get_by_label("Reading, H to N").fill("119.8")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Say which tester is in your hand")).to_be_visible()
    expect(page.get_by_role("button", name="Record", exact=True)).to_be_disabled()
    accessible(page)
    held.select_option("Meter M2")
    expect(page.get_by_label("Reading, H to N")).to_have_value("119.8")
    page.keyboard.press("Enter")
    expect(page.get_by_text("1 reading recorded")).to_be_visible()
    assert str(Reading.objects.get().tester) == "Meter M2"
    page.reload()
    expect(held.locator("option:checked")).to_have_text("Meter M2")
    page.context.close()
