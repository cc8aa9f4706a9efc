"""Before plugging in, in the real thing: an outlet and a stall nobody has on record, to a plain no."""

from playwright.sync_api import expect

from tests.browser.conftest import accessible, sign_in, small_targets


def test_a_stall_at_an_outlet_nobody_knows(outlet, live_server, page):
    sign_in(page, live_server.url)
    page.get_by_role("link", name="Before plugging in").click()
    page.get_by_role("button", name="Add equipment").click()
    stall = page.get_by_role("dialog")
    stall.get_by_label("What it is").fill("Tea stall")
    stall.get_by_text("2", exact=True).click()
    stall.get_by_label("Volts, line to neutral").fill("120")
    stall.get_by_label("Amperes it draws").fill("24")
    stall.get_by_role("button", name="Save").click()
    expect(stall.get_by_text("several lines are used against each other")).to_be_visible()
    accessible(page)
    stall.get_by_label("Volts, line to line").fill("240")
    stall.get_by_role("button", name="Save").click()

    page.get_by_role("button", name="An outlet that is not on record").click()
    pitch = page.get_by_role("dialog")
    pitch.get_by_label("Name of the place").fill("Event field")
    pitch.get_by_label("Name of the outlet").fill("Pitch 4")
    pitch.get_by_label("Supply it should be").select_option("120/240")
    pitch.get_by_label("Contacts").select_option("Two hots, neutral, ground")
    pitch.get_by_label("Device rating, A").fill("50")
    accessible(page)
    pitch.get_by_role("button", name="Save").click()
    page.get_by_role("button", name="Check it").click()

    answer = page.get_by_label("The answer")
    expect(answer.get_by_text("One more reading")).to_be_visible()
    accessible(page)
    page.set_viewport_size({"width": 390, "height": 844})
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    assert small_targets(page) == []
    page.set_viewport_size({"width": 1280, "height": 800})
    page.get_by_label("Reading, H1 to H2").fill("208.2")
    page.keyboard.press("Enter")
    expect(answer.get_by_text("Do not plug in")).to_be_visible()
    expect(answer.get_by_text("208.2 V; it needs 216 to 252 V.")).to_be_visible()
    page.get_by_label("Reading, H1 to N").fill("120.2")
    page.keyboard.press("Enter")
    like = page.get_by_role("listitem").filter(has_text="208Y/120 V")
    like.get_by_role("button", name="Use this supply").click()
    expect(like.get_by_text("as recorded")).to_be_visible()
    expect(answer.get_by_text("Do not plug in")).to_be_visible()

    page.context.set_offline(True)
    expect(answer.get_by_text("Last known: Do not plug in")).to_be_visible()
    expect(answer.get_by_text("Plug nothing in until the server answers")).to_be_visible()
