"""Proving dead in the real application: by keyboard and touch, at a desk, on a phone, and by two people at once."""

import json
import time

from playwright.sync_api import expect

from tests.browser.conftest import accessible, another_browser, sign_in, small_targets

HOLD_MS = 1500


def begin(page, live_server, circuit="Dome drive", **sources):
    """Ask every question and begin; what reaches the place is named by the question's first words."""
    sign_in(page, live_server.url)
    page.get_by_role("link", name="Prove something dead").first.click()
    page.get_by_label("Circuit or board").select_option(label=f"{circuit}, Warm room board W")
    for asked, label in sources.items():
        question = page.get_by_role("radiogroup", name=asked.replace("_", " "))
        question.get_by_text("Yes").click()
        page.get_by_label("Which, and where it is switched").fill(label)
    page.get_by_role("button", name="I checked each: no to the rest").click()
    page.get_by_role("button", name="Begin").click()
    page.get_by_role("heading", name=circuit).wait_for()


def isolate(page, source, lock):
    expect(page.get_by_role("heading", name=f"Switch off {source}")).to_be_visible()
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name=f"Lock {source}")).to_be_visible()
    page.keyboard.type(lock)
    page.keyboard.press("Enter")


def shown(page, label, volts):
    """The display's number, typed straight away, and Enter."""
    expect(page.get_by_label(label)).to_be_focused()
    page.keyboard.type(volts)
    page.keyboard.press("Enter")


def take(page, tester="Meter M2"):
    """No tester is in the hand until somebody says which."""
    page.get_by_role("button", name=tester).click()


def set_meter(page):
    """What function and range the meter is on; nothing can be recorded before that is said."""
    expect(page.get_by_role("button", name="It shows that: proved")).to_be_disabled()
    page.get_by_text("V AC", exact=True).first.click()
    page.get_by_text("Auto", exact=True).click()


def hold(page, name):
    """A finger put down, left there, and lifted."""
    button = page.get_by_role("button", name=name)
    finger = {"pointerType": "touch", "isPrimary": True, "bubbles": True}
    button.dispatch_event("pointerdown", finger)
    expect(page.get_by_role("button", name="Keep holding")).to_be_visible()
    page.wait_for_timeout(HOLD_MS)
    page.dispatch_event("body", "pointerup", finger)


SPLIT_PHASE = ("H1 to H2", "H1 to N", "H1 to G", "H2 to N", "H2 to G", "N to G")
STANDING = "header [data-state]"


def test_a_split_phase_circuit_is_proved_dead_then_voided_by_handing_over(kit, live_server, page):
    begin(page, live_server, Controls_fed_from_elsewhere="Dome control feed")
    accessible(page)
    started = time.monotonic()
    isolate(page, "Warm room board W, 30 A", "K-07")
    isolate(page, "Dome control feed", "K-11")
    expect(page.get_by_role("heading", name="Which tester is in your hand")).to_be_visible()
    take(page)
    expect(page.get_by_label("Next step").get_by_text("category III 690 V")).to_be_visible()
    page.get_by_role("button", name="Silent", exact=True).click()
    expect(page.get_by_label("In this order").get_by_text("Screened, silent")).to_be_visible()
    set_meter(page)
    shown(page, "Volts shown on the known source", "239.0")
    expect(page.locator(STANDING)).to_contain_text("Not proved yet")
    for pair in SPLIT_PHASE[:3]:
        shown(page, f"Volts, {pair}", "0.0")
    expect(page.get_by_label("Pairs").get_by_text("Pairs, 3 of 6")).to_be_visible()
    accessible(page)
    for pair in SPLIT_PHASE[3:]:
        shown(page, f"Volts, {pair}", "0.1")
    set_meter(page)
    shown(page, "Volts shown on the known source", "239.1")
    expect(page.locator(STANDING)).to_contain_text("All tests done, not confirmed")
    button = page.get_by_role("button", name="Hold: proved dead")
    button.click()
    expect(page.locator(STANDING)).to_contain_text("All tests done, not confirmed")
    hold(page, "Hold: proved dead")
    expect(page.locator(STANDING)).to_contain_text("Proved dead")
    expect(page.locator(STANDING)).to_contain_text("Anna")
    expect(page.locator(STANDING)).to_contain_text("29:")
    assert time.monotonic() - started < 60
    accessible(page)

    page.get_by_text("Something else happened").click()
    page.get_by_role("button", name="Hand over to another").click()
    page.get_by_label("To whom").fill("Ben")
    page.get_by_role("button", name="Hand over: the proof ends").click()
    expect(page.locator(STANDING)).to_contain_text("No longer valid")
    expect(page.get_by_label("Outstanding").get_by_text("another person took over")).to_be_visible()
    page.get_by_role("link", name="Today").click()
    expect(page.get_by_role("link", name="Dome drive")).to_contain_text("No longer valid")
    accessible(page)


def test_by_touch_on_a_phone_a_voltage_stops_everything(kit, live_server, browser):
    context = another_browser(browser, viewport={"width": 390, "height": 844}, has_touch=True)
    page = context.new_page()
    begin(page, live_server, circuit="Workshop outlets")
    page.get_by_role("button", name="It is off").tap()
    page.get_by_role("button", name="Locked").tap()
    page.get_by_role("button", name="Two-pole T1").tap()
    page.get_by_role("button", name="230", exact=True).tap()
    page.get_by_role("button", name="None", exact=True).wait_for()
    assert small_targets(page) == []
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    page.get_by_role("button", name="None", exact=True).tap()
    expect(page.get_by_role("heading", name="H1 to N")).to_be_visible()
    page.get_by_role("button", name="120", exact=True).tap()
    expect(page.get_by_role("heading", name="Live. Hands off.")).to_be_visible()
    accessible(page)
    page.get_by_role("button", name="I have stepped back").tap()
    page.get_by_label("Its name and where it is switched").fill("Generator change-over")
    page.get_by_role("button", name="Add this source").tap()
    expect(page.get_by_role("heading", name="Switch off Generator change-over")).to_be_visible()
    expect(page.locator(STANDING)).to_contain_text("Live")
    context.close()


def test_two_people_see_the_same_and_a_lost_server_is_said(kit, live_server, page, browser):
    begin(page, live_server, circuit="Workshop outlets")
    other = another_browser(browser).new_page()
    sign_in(other, live_server.url)
    other.get_by_role("link", name="Workshop outlets").click()
    expect(other.get_by_role("heading", name="Switch off")).to_be_visible()
    page.get_by_role("button", name="It is off").click()
    expect(other.get_by_role("heading", name="Lock")).to_be_visible()

    page.route("**/events/**", lambda route: route.abort())
    page.get_by_label("Lock number").fill("K-09")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Not at the server yet")).to_contain_text("locked, K-09")
    expect(page.get_by_role("heading", name="Which tester is in your hand")).to_be_visible()
    page.unroute("**/events/**")
    expect(other.get_by_text("lock K-09")).to_be_visible()
    page.route("**/api/proofs/**", lambda route: route.abort())
    expect(page.locator(STANDING)).to_contain_text("Somebody else may have ended it: treat as live")
    other.context.close()


def test_a_number_half_typed_stays_with_its_pair_when_another_moves_the_proof_on(kit, live_server, page, browser):
    begin(page, live_server, circuit="Workshop outlets")
    for name in ("It is off", "Locked"):
        page.get_by_role("button", name=name).click()
    take(page)
    set_meter(page)
    shown(page, "Volts shown on the known source", "239.0")
    expect(page.get_by_label("Volts, H1 to H2")).to_be_focused()
    other = another_browser(browser).new_page()
    sign_in(other, live_server.url)
    other.get_by_role("link", name="Workshop outlets").click()
    page.keyboard.type("0.")
    shown(other, "Volts, H1 to H2", "0.3")
    expect(page.get_by_label("Pairs").get_by_text("Pairs, 1 of 6")).to_be_visible()
    expect(page.get_by_label("Volts, H1 to H2")).to_have_value("0.")
    page.keyboard.type("4")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Volts, H1 to N")).to_be_focused()
    expect(page.get_by_role("button", name="H1 to H2, 0.4 volts, done")).to_be_visible()
    other.context.close()


def test_what_is_not_asked_and_what_is_mistyped_is_named(kit, live_server, page):
    sign_in(page, live_server.url)
    page.get_by_role("link", name="Prove something dead").first.click()
    page.get_by_role("button", name="Begin").click()
    expect(page.get_by_role("alert").first).to_contain_text("not answered")
    page.get_by_role("button", name="I checked each: no to the rest").click()
    page.get_by_role("button", name="Begin").click()
    page.get_by_role("button", name="It is off").click()
    page.get_by_role("button", name="Locked").click()
    take(page)
    set_meter(page)
    field = page.get_by_label("Volts shown on the known source")
    field.fill("23O")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("must be a number of volts")
    expect(field).to_have_value("23O")
    page.get_by_label("Tester in use").select_option(label="Plug P6 (cannot confirm safe)")
    expect(page.get_by_text("Not fit here, kept but not counted")).to_be_visible()
    field.fill("120")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Outstanding").get_by_text("cannot confirm safe here")).to_be_visible()


def test_the_kit_is_written_down_checked_and_held(kit, live_server, page):
    sign_in(page, live_server.url)
    page.get_by_role("link", name="Kit", exact=True).click()
    page.get_by_role("button", name="Add a tester").click()
    page.get_by_label("Name").fill("Detector D1")
    page.get_by_label("Kind").select_option("non-contact")
    page.get_by_label("Category, as printed").select_option("IV")
    page.get_by_label("at volts").fill("lots")
    page.get_by_role("dialog").get_by_role("button", name="Add the tester").click()
    expect(page.get_by_role("dialog").get_by_text("must be a number")).to_be_visible()
    page.get_by_label("at volts").fill("1000")
    page.get_by_role("dialog").get_by_role("button", name="Add the tester").click()
    line = page.get_by_role("listitem").filter(has_text="Detector D1")
    expect(line.get_by_text("silent when flat")).to_be_visible()
    accessible(page)
    page.get_by_role("button", name="Today's check of Detector D1").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_text("Good", exact=True).click()
    dialog.get_by_text("Passed").click()
    accessible(page)
    dialog.get_by_role("button", name="Keep the check").click()
    expect(line.get_by_text("silent when flat")).not_to_be_visible()

    page.get_by_role("link", name="Meter M2").click()
    page.get_by_role("button", name="Prove dead, Origin: not fit, why").click()
    expect(page.get_by_text("what is held is category III")).to_be_visible()
    accessible(page)
    page.get_by_role("link", name="What am I holding?").click()
    held = page.get_by_label("What you hold")
    expect(held.get_by_text("Category III, 690 V")).to_be_visible()
    page.get_by_role("radiogroup", name="Tip covers now").get_by_text("Off").click()
    expect(held.get_by_text("Category II, 690 V")).to_be_visible()
    expect(held.get_by_role("listitem").filter(has_text="Leads A").get_by_text("weakest")).to_be_visible()
    accessible(page)


def test_a_looser_rule_needs_a_reason_and_the_proof_shows_it(kit, live_server, page):
    sign_in(page, live_server.url)
    page.get_by_role("link", name="Prove dead", exact=True).click()
    page.get_by_role("link", name="This crew's rules").click()
    page.get_by_label("Minutes with nobody seen until it is no longer valid").fill("45")
    page.get_by_role("button", name="Keep these rules").click()
    expect(page.get_by_text("looser than usual needs one")).to_be_visible()
    page.get_by_label("Reason, where a rule is looser").fill("lone worker calls in every half hour")
    page.get_by_role("button", name="Keep these rules").click()
    expect(page.get_by_role("button", name="Kept")).to_be_visible()
    accessible(page)
    page.get_by_role("link", name="Today").click()
    page.get_by_role("link", name="Prove something dead").first.click()
    page.get_by_role("button", name="I checked each: no to the rest").click()
    page.get_by_role("button", name="Begin").click()
    expect(page.get_by_text("Reason: lone worker calls in every half hour.")).to_be_visible()


def test_a_proof_is_saved_as_a_file_and_brought_in_again(kit, live_server, page, tmp_path):
    begin(page, live_server, circuit="Workshop outlets")
    page.get_by_role("button", name="It is off").click()
    page.get_by_role("heading", name="Lock").wait_for()
    page.get_by_text("1 event recorded").click()
    with page.expect_download() as saved:
        page.get_by_role("button", name="Save as isolation log").click()
    file = tmp_path / saved.value.suggested_filename
    saved.value.save_as(file)
    assert file.name == "Workshop outlets, proof of isolation.isolation.json"
    page.get_by_role("link", name="Prove dead", exact=True).first.click()
    page.get_by_role("button", name="Import an isolation log").click()
    accessible(page)
    spoilt = tmp_path / "spoilt.json"
    spoilt.write_text("{")
    page.locator("input[type=file]").set_input_files(spoilt)
    expect(page.get_by_role("alert")).to_contain_text("not JSON")
    page.locator("input[type=file]").set_input_files(file)
    expect(page.get_by_role("alert")).to_contain_text("this is the log of a proof that is on record here")
    elsewhere = tmp_path / "elsewhere.json"
    elsewhere.write_text(json.dumps({**json.loads(file.read_text()), "label": "Pier outlets"}))
    page.locator("input[type=file]").set_input_files(elsewhere)
    expect(page.get_by_role("heading", name="History from a file")).to_be_visible()
    expect(page.locator(STANDING)).to_contain_text("Imported by Anna")
    expect(page.locator(STANDING)).to_contain_text("It proves nothing here")
    accessible(page)
    page.get_by_role("link", name="Today").click()
    expect(page.get_by_role("link", name="Workshop outlets")).to_be_visible()
    expect(page.get_by_role("link", name="Pier outlets")).to_have_count(0)
