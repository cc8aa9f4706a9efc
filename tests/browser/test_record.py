"""The record in the real thing: a visit planned, walked, signed and printed; a meter found faulty; what has a name."""

import io
import re

from playwright.sync_api import expect
from pypdf import PdfReader

import evenprobe
from crews.models import Crew
from demo.crew import demo_id
from readings.services import record
from tests.browser.conftest import accessible, sign_in, small_targets
from tests.browser.test_bench import enter

WHY = "Lights flicker when the drill runs"


def hold(page, name):
    """As long as it has to be held."""
    page.get_by_role("button", name=name).focus()
    page.keyboard.down("Enter")
    page.wait_for_timeout(1500)
    page.keyboard.up("Enter")


def words_of(page, link):
    """Of the PDF behind a link, without spaces."""
    answer = page.request.get(page.url.split("/record")[0] + page.get_by_role("link", name=link).get_attribute("href"))
    assert answer.headers["content-type"] == "application/pdf"
    pages = PdfReader(io.BytesIO(answer.body())).pages
    return re.sub(r"\s+", "", "".join(one.extract_text() for one in pages))


def test_a_visit_is_planned_walked_signed_and_printed(kit, live_server, page):
    sign_in(page, live_server.url)
    page.get_by_role("link", name="Record", exact=True).click()
    page.get_by_role("link", name="Plan a visit").click()
    page.get_by_label("Site", exact=True).select_option("Larkspur Hill Observatory")
    page.get_by_label("Why").fill(WHY)
    page.get_by_role("button", name="Dead tests").click()
    page.get_by_role("button", name="Not safe yet").click()
    expect(page.get_by_role("checkbox", name="Workshop outlets")).to_be_checked()
    accessible(page)
    page.get_by_role("button", name="Plan it").click()

    page.get_by_role("button", name="Begin this visit").wait_for()
    expect(page.get_by_role("heading", name="1 step, about 3 min")).to_be_visible()
    expect(page.get_by_text("nothing in the kit is fit for it").or_(page.get_by_text("Live voltage"))).to_be_visible()
    accessible(page)
    page.get_by_role("button", name="Begin this visit").click()
    expect(page.get_by_role("heading", name="Live tests: Workshop outlets")).to_be_visible()
    page.get_by_label("Something else is open or apart").fill("Cover of the box at the lathe")
    page.get_by_role("button", name="Keep it listed").click()
    expect(page.get_by_label("Open at this site").get_by_text("Cover of the box at the lathe")).to_be_visible()
    page.get_by_role("link", name="Go there").click()
    page.get_by_role("heading", name="Outlet 3, by the lathe").wait_for()
    enter(page, "119.8", "H to G")
    enter(page, "119.9", "N to G")

    page.get_by_role("link", name="Today").click()
    page.get_by_label("Visits").get_by_role("link", name="Larkspur Hill Observatory").click()
    expect(page.get_by_text("1 of 1 measured, 1 not safe").first).to_be_visible()
    page.get_by_role("link", name="Report and sign-off").click()
    expect(page.get_by_role("row", name="H to N 119.8 V")).to_be_visible()
    expect(page.get_by_text("Cover of the box at the lathe")).to_be_visible()
    page.get_by_role("button", name="Sign this off").click()
    accessible(page)
    assert small_targets(page) == []
    hold(page, "Hold to sign")
    expect(page.get_by_role("alert").filter(has_text="type your own name")).to_be_visible()
    page.get_by_label("Your name").fill("anna")
    hold(page, "Hold to sign")
    expect(page.get_by_role("alert").filter(has_text="say why this was not tested").first).to_be_visible()
    page.get_by_label("not tested", exact=False).first.fill("No time left today")
    hold(page, "Hold to sign")

    page.get_by_role("link", name="Save the signed file").wait_for()
    accessible(page)
    printed = words_of(page, "Open as PDF")
    for text in (WHY, "H to N119.8 V", "H to G119.9 V", "Cover of the box at the lathe", "No time left today"):
        assert re.sub(r"\s+", "", text) in printed
    with page.expect_download() as saved:
        page.get_by_role("link", name="Save the signed file").click()
    found = evenprobe.verify(saved.value.path().read_bytes())
    assert found.sound
    page.emulate_media(media="print", color_scheme="dark")
    expect(page.get_by_role("navigation", name="Places")).to_be_hidden()
    expect(page.get_by_role("row", name="H to N 119.8 V")).to_be_visible()


def test_what_leans_on_a_meter_found_faulty_is_shown_before_it_is_said(kit, live_server, page):
    crew, point = Crew.objects.get(), demo_id("t", "point")
    for number, (a, b, volts) in enumerate((("L", "N", 119.8), ("L", "PE", 119.9), ("N", "PE", 0.1))):
        entry = {"quantity": "voltage", "mode": "ac", "from": a, "to": b, "value": volts, "unit": "V"}
        user = crew.memberships.get().user
        record(crew, user, point, demo_id("t", "r", str(number)), entry, demo_id("t", "m2"))
    sign_in(page, live_server.url)
    page.get_by_role("link", name="Kit").click()
    page.get_by_role("link", name="Meter M2").first.click()
    page.get_by_role("button", name="Found faulty").click()
    page.get_by_label("What is wrong with it").fill("Reads 0 on its low range")
    page.get_by_label("It may have been since").fill("2026-01-01T08:00")
    expect(page.get_by_label("What leans on it").get_by_text("3 readings at 1 point since then.")).to_be_visible()
    accessible(page)
    page.get_by_role("button", name="It is faulty").click()
    page.get_by_role("button", name="Tap again").click()
    expect(page.get_by_text("Faulty: Reads 0 on its low range.")).to_be_visible()
    expect(page.get_by_text("found faulty: Reads 0 on its low range").first).to_be_visible()
    page.get_by_role("link", name="Everything it took").click()
    expect(page.get_by_role("link", name="H to N 119.8 V")).to_be_visible()
    accessible(page)
    assert small_targets(page) == []

    page.keyboard.press("/")
    page.get_by_label("A place, tester, person, lock number or day").fill("2026-11-24")
    page.get_by_role("link", name="Everything on this day").click()
    expect(page).to_have_url(re.compile("since=2026-11-24&until=2026-11-24"))
