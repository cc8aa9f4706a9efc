"""The journey of the Bench, by keyboard and by touch, in the real thing."""

import pytest
from playwright.sync_api import expect

from readings.models import Reading
from tests.browser.conftest import accessible, another_browser, sign_in, small_targets


def open_outlet(page, live_server, name="Outlet 3, by the lathe"):
    sign_in(page, live_server.url)
    page.get_by_role("link", name="Site", exact=True).click()
    page.get_by_role("link", name="Larkspur Hill Observatory").click()
    page.get_by_role("link", name=name).click()
    page.get_by_role("heading", name=name).wait_for()


def enter(page, value, then):
    """Type and record, and see the next pair set up."""
    page.keyboard.type(value)
    page.keyboard.press("Enter")
    expect(page.get_by_label("The reading").get_by_text(then, exact=True)).to_be_visible()


@pytest.mark.parametrize("page_scheme", ["light", "dark"])
def test_from_three_right_voltages_to_danger(outlet, live_server, page, page_scheme):
    page.emulate_media(color_scheme=page_scheme)
    open_outlet(page, live_server)
    verdict = page.get_by_label("What it could still be")
    expect(verdict.get_by_text("Untested")).to_be_visible()

    enter(page, "119.8", "H to G")
    enter(page, "1.199", "N to G")
    enter(page, "0.1", "N to G")
    expect(verdict.get_by_text("Untested")).not_to_be_visible()

    page.get_by_text("3 readings recorded").click()
    page.get_by_role("button", name="Correct").nth(1).click()
    expect(page.get_by_text("Corrects 1.199 V")).to_be_visible()
    page.keyboard.type("119.9")
    page.keyboard.press("Enter")
    expect(verdict.get_by_text("Not confirmed yet")).to_be_visible()
    expect(page.get_by_text("corrected, kept")).to_be_visible()
    expect(verdict.get_by_text("Hot and neutral reversed, ground jumpered to neutral").first).to_be_visible()
    verdict.get_by_text("ruled out, and why").click()
    expect(verdict.get_by_text("would show").first).to_be_visible()
    verdict.get_by_text("or 2 others").click()
    accessible(page)
    verdict.get_by_role("button", name="G to independent ground").click()
    enter(page, "119.4", "G to independent ground")
    expect(verdict.get_by_text("Danger", exact=True)).to_be_visible()
    expect(verdict.get_by_text("Keep off, switch off, lock")).to_be_visible()
    accessible(page)

    page.reload()
    expect(verdict.get_by_text("Danger", exact=True)).to_be_visible()
    expect(page.get_by_text("5 readings recorded")).to_be_visible()


def test_a_slip_is_named_at_the_field_and_what_was_typed_stays(outlet, live_server, page):
    server_gone = []
    page.route("**/readings/**", lambda route: route.abort() if server_gone else route.continue_())
    open_outlet(page, live_server)
    field = page.get_by_label("Reading, H to N")
    page.get_by_label("Function", exact=True).focus()
    page.keyboard.type("12..4")
    expect(field).to_have_value("12..4")
    field.fill("")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Not at the server yet")).to_have_count(0)
    field.fill("12..4")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("must be a number")
    expect(field).to_have_value("12..4")
    field.fill("119.8")
    server_gone.append(True)
    page.keyboard.press("Enter")
    expect(page.get_by_label("Not at the server yet")).to_contain_text("H to N, 119.8 V saved on this device")
    server_gone.clear()
    expect(page.get_by_text("1 reading recorded")).to_be_visible()
    expect(page.get_by_label("Not at the server yet")).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    page.get_by_text("1 reading recorded").click()
    expect(page.get_by_text("withdrawn, kept")).to_be_visible()


def test_that_nothing_else_is_on_is_said_of_a_reading_and_two_answers_stand_beside_the_verdict(
    outlet, live_server, page
):
    open_outlet(page, live_server)
    alone, as_is = (page.get_by_role("button", name=name, exact=True) for name in ("Nothing else on", "As is"))
    alone.click()
    expect(as_is).to_have_attribute("aria-pressed", "false")
    enter(page, "119.8", "H to G")
    expect(alone).to_have_attribute("aria-pressed", "true")
    as_is.click()
    expect(alone).to_have_attribute("aria-pressed", "false")
    enter(page, "119.9", "N to G")
    page.get_by_text("2 readings recorded").click()
    readings = page.get_by_label("Readings", exact=True).get_by_role("listitem")
    expect(readings.filter(has_text="nothing else on")).to_have_count(1)
    verdict = page.get_by_label("What it could still be")
    expect(verdict.get_by_text("Most likely: correct. Not excluded yet:")).to_be_visible()
    beside = verdict.get_by_label("Beside the wiring")
    expect(beside).to_contain_text("No insulation test counts yet.")
    expect(beside).to_contain_text("No GFCI is recorded here.")
    accessible(page)
    assert small_targets(page) == []
    page.reload()
    expect(page.get_by_text("2 readings recorded")).to_be_visible()
    assert [r.entry.get("nothing_else_on") for r in Reading.objects.order_by("taken_at")] == [True, None]


def test_what_is_not_to_be_had_is_said_once_and_the_next_best_is_asked_for(outlet, live_server, page):
    open_outlet(page, live_server)
    enter(page, "119.8", "H to G")
    enter(page, "119.9", "N to G")
    page.keyboard.type("0.1")
    page.keyboard.press("Enter")
    conclusion = page.get_by_label("What it could still be")
    heading = conclusion.get_by_role("heading", name="Next:")
    expect(heading).to_contain_text("device open")
    conclusion.get_by_role("button", name="I cannot switch it off").click()
    expect(heading).not_to_contain_text("device open")
    left_out = conclusion.get_by_role("button", name="nothing switched off: offer it again")
    expect(left_out).to_be_visible()
    accessible(page)
    assert small_targets(page) == []
    page.reload()
    expect(heading).not_to_contain_text("device open")
    left_out.click()
    expect(heading).to_contain_text("device open")
    expect(left_out).to_have_count(0)


def test_another_circuits_outlet_is_a_reference_once_a_second_agrees(outlet, live_server, page):
    open_outlet(page, live_server)
    conclusion = page.get_by_label("What it could still be")
    for which, said in (("Hall", "1 reading does not count, and why"), ("Loft", "")):
        page.get_by_role("button", name="R, independent ground").click()
        page.get_by_role("button", name="G, ground").click()
        page.get_by_label("The reference is").select_option(label="Another circuit's receptacle")
        page.get_by_label("Which one").fill(which)
        accessible(page)
        page.get_by_label("Reading, G to R").fill("0.2")
        page.keyboard.press("Enter")
        if said:
            expect(conclusion.get_by_text(said)).to_be_visible()
    expect(conclusion.get_by_text("does not count")).to_have_count(0)
    assert {r.entry["reference_at"] for r in Reading.objects.all()} == {"Hall", "Loft"}


def test_a_line_that_comes_and_goes_takes_nothing_typed_away(outlet, live_server, page):
    open_outlet(page, live_server)
    field = page.get_by_label("Reading, H to N")
    field.fill("119.8")
    unanswered = []
    page.route("**/api/points/*/bench", lambda route: (unanswered.append(route), route.abort()))
    page.context.set_offline(True)
    page.context.set_offline(False)
    while len(unanswered) < 3:  # asked, and asked again twice
        page.wait_for_timeout(100)
    page.wait_for_timeout(500)
    expect(field).to_have_value("119.8")
    page.unroute_all()
    field.press("Enter")
    expect(page.get_by_text("1 reading recorded")).to_be_visible()


def test_the_verdict_is_drawn_before_the_rest_which_comes_when_the_line_does(outlet, live_server, page):
    open_outlet(page, live_server)
    conclusion = page.get_by_role("region", name="What it could still be")
    set_up = conclusion.get_by_role("button", name="Set up")
    expect(set_up).to_be_visible()
    on_their_way = []
    page.route("**/api/points/*/bench", lambda route: on_their_way.append(route))
    enter(page, "119.8", then="H to G")
    expect(conclusion.get_by_text("Not confirmed yet")).to_be_visible()
    expect(conclusion.get_by_text("Next: being worked out")).to_be_visible()
    expect(set_up).to_have_count(0)
    accessible(page)
    while not on_their_way:
        page.wait_for_timeout(50)
    on_their_way.pop().abort()
    expect(conclusion.get_by_text("Next: comes when the line is back")).to_be_visible()
    page.unroute_all()
    expect(set_up).to_be_visible(timeout=30_000)
    expect(conclusion.get_by_text("Next: H to G")).to_be_visible()


def test_the_verdict_known_while_typing_is_shown_as_it_is_recorded_and_stays_with_the_line_cut(
    outlet, live_server, page
):
    open_outlet(page, live_server)
    conclusion = page.get_by_role("region", name="What it could still be")
    verdict = conclusion.get_by_text("Not confirmed yet")
    on_their_way = []
    page.route("**/readings/*", lambda route: on_their_way.append(route))
    with page.expect_response("**/judge"):
        page.keyboard.type("119.8")
    page.wait_for_timeout(200)
    expect(conclusion.get_by_text("Untested")).to_be_visible()
    assert not Reading.objects.exists(), "asking keeps nothing"
    page.keyboard.press("Enter")
    expect(verdict).to_be_visible()
    expect(conclusion.get_by_text("Treat as live. What still fits is not known yet.")).to_be_visible()
    assert not Reading.objects.exists()
    accessible(page)
    while not on_their_way:
        page.wait_for_timeout(50)
    on_their_way.pop().abort()
    expect(page.get_by_text("1 waiting").first).to_be_visible()
    expect(verdict).to_be_visible()
    expect(conclusion.get_by_text("The verdict is without")).to_have_count(0)
    page.unroute_all()
    expect(page.get_by_text("1 reading recorded")).to_be_visible(timeout=30_000)
    expect(conclusion.get_by_text("Next: H to G")).to_be_visible(timeout=30_000)
    assert Reading.objects.count() == 1


def test_by_touch_on_a_phone(outlet, live_server, browser):
    context = another_browser(browser, viewport={"width": 390, "height": 844}, has_touch=True)
    page = context.new_page()
    open_outlet(page, live_server)
    page.get_by_role("button", name="G, ground").tap()
    page.get_by_role("button", name="N, neutral").tap()
    page.get_by_label("Reading, N to G").fill("0.1")
    page.get_by_role("button", name="Record", exact=True).tap()
    expect(page.get_by_text("1 reading recorded")).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    assert small_targets(page) == []
    context.close()


def test_an_empty_site_is_filled_in(outlet, live_server, page):
    sign_in(page, live_server.url)
    page.get_by_role("link", name="Site", exact=True).click()
    page.get_by_role("button", name="Add a site").click()
    page.get_by_label("Name").fill("Fennwick Weaving Shed")
    page.get_by_label("Practice").select_option("continental")
    page.get_by_role("button", name="Add the site").click()
    page.get_by_role("heading", name="Fennwick Weaving Shed").wait_for()
    accessible(page)
    page.get_by_role("button", name="Add a supply").click()
    page.get_by_role("button", name="Add the supply").click()
    page.get_by_role("button", name="Add a distribution board").click()
    page.get_by_label("Name").fill("Mill board")
    page.get_by_role("button", name="Add the distribution board").click()
    page.get_by_role("button", name="Add a circuit").click()
    page.get_by_label("Name").fill("Loom hall sockets")
    page.get_by_label("Device rating, A").fill("sixteen")
    page.get_by_role("button", name="Add the circuit").click()
    expect(page.get_by_role("dialog").get_by_text("must be a number")).to_be_visible()
    page.get_by_label("Device rating, A").fill("16")
    page.get_by_role("button", name="Add the circuit").click()
    page.get_by_role("button", name="Add a point").click()
    page.get_by_label("Name").fill("Socket 1, window")
    page.get_by_role("button", name="Add the point").click()
    page.get_by_role("button", name="Change Loom hall sockets").click()
    expect(page.get_by_label("Device rating, A")).to_have_value("16")
    page.get_by_label("RCD, mA").fill("30")
    page.get_by_label("Trip curve").select_option("C")
    page.get_by_role("button", name="Save the circuit").click()
    expect(page.get_by_text("RCD 30 mA")).to_be_visible()
    page.get_by_role("button", name="Change Loom hall sockets").click()
    page.get_by_role("dialog").get_by_role("button", name="Socket 1, window").click()
    page.get_by_label("Room").fill("Loom hall")
    accessible(page)
    page.get_by_role("button", name="Save the point").click()
    page.get_by_role("link", name="Begin a round").click()
    expect(page.get_by_label("Circuit or room").get_by_role("option", name="Loom hall", exact=True)).to_have_count(1)
    page.go_back()
    page.get_by_role("link", name="Socket 1, window").click()
    expect(page.get_by_label("What it could still be").get_by_text("Untested")).to_be_visible()


def test_two_lines_on_one_leg_are_found_by_keyboard(range_outlet, live_server, page):
    open_outlet(page, live_server, "Range outlet")
    page.get_by_label("Tester in use").wait_for()
    page.evaluate("document.activeElement.blur()")
    for probes, value in (("nx", "120.2"), ("ny", "120.1"), ("yx", "0.2")):
        page.keyboard.press(probes[0])
        page.keyboard.press(probes[1])
        page.keyboard.type(value)
        page.keyboard.press("Enter")
        expect(page.get_by_text(f"{value} V recorded")).to_be_visible()
    verdict = page.get_by_label("What it could still be")
    expect(verdict.get_by_text("Hazard", exact=True)).to_be_visible()
    expect(verdict.get_by_text("Two hot contacts on one leg").first).to_be_visible()
    expect(page.get_by_text("Pairs, 3 of 6 measured")).to_be_visible()
    expect(page.get_by_role("img", name="Phasors").first).to_be_visible()
    accessible(page)
    page.get_by_role("button", name="N–G").click()
    expect(page.get_by_label("Reading, N to G")).to_be_focused()
    page.get_by_role("button", name="Load here").click()
    page.get_by_label("Load between").select_option("L2 N")
    page.get_by_label("Reading, N to G").fill("0.9")
    page.keyboard.press("Enter")
    page.get_by_text("4 readings recorded").click()
    expect(page.get_by_text("10 A load here, between L2 and N").first).to_be_visible()


def test_lamps_are_tapped_as_seen_and_a_tester_says_what_it_sees(range_outlet, live_server, page):
    open_outlet(page, live_server)
    page.get_by_label("Tester in use").select_option("Plug P6")
    page.get_by_label("Function").select_option("Lamps as seen")
    page.get_by_text("What Plug P6 can tell here").click()
    expect(page.get_by_text("It cannot:")).to_be_visible()
    page.get_by_role("button", name="Lamp H to N").click()
    page.get_by_role("button", name="Lamp H to G").click()
    accessible(page)
    page.get_by_role("button", name="Record as seen").click()
    expect(page.get_by_text("Lamps, lit L-N, L-PE recorded.")).to_be_visible()
    verdict = page.get_by_label("What it could still be")
    expect(verdict.get_by_text("Not confirmed yet")).to_be_visible()
    expect(verdict.get_by_text("Hot and neutral reversed, ground jumpered to neutral").first).to_be_visible()
    page.get_by_label("Function").select_option("Trip button")
    page.get_by_role("button", name="Tripped", exact=True).click()
    expect(verdict.get_by_text("Hot and neutral reversed, ground jumpered to neutral").first).not_to_be_visible()


def test_captures_from_a_meter_on_the_wire_find_both_lines_on_one_leg(meter_on_the_wire, live_server, page):
    open_outlet(page, live_server, "Range outlet")
    page.get_by_label("Tester in use").select_option("Wired W1")
    meter = page.get_by_label("Meter on the wire")
    verdict = page.get_by_label("What it could still be")
    for pair, number in (("H1–N", 1), ("H2–N", 2), ("H1–H2", 3)):
        page.get_by_role("button", name=pair).click()
        expect(meter.get_by_role("status")).to_be_visible()
        meter.get_by_role("button", name="Capture").click()
        expect(page.get_by_text(f"Pairs, {number} of 6 measured")).to_be_visible()
    expect(verdict.get_by_text("Hazard", exact=True)).to_be_visible()
    expect(verdict.get_by_text("Two hot contacts on one leg").first).to_be_visible()
    page.get_by_text("3 readings recorded").click()
    expect(page.get_by_text("captured · Wired W1").first).to_be_visible()

    page.get_by_role("button", name="N–G").click()
    meter.get_by_role("button", name="Hold").click()
    held = meter.get_by_role("status").inner_text()
    page.wait_for_timeout(1600)
    assert meter.get_by_role("status").inner_text() == held
    accessible(page)
    meter.get_by_role("button", name="Hold").click()

    meter_on_the_wire.hang_up()
    expect(meter.get_by_role("alert")).to_contain_text("Link lost")
    page.get_by_label("Reading, N to G").fill("0.2")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Pairs, 4 of 6 measured")).to_be_visible()
