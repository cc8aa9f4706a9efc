"""Take the pictures the README shows, from demo data of their own, in Debian's Chromium."""

import os
import re
import subprocess
import sys
from pathlib import Path

from bench.serving import ROOT, demo_server
from playwright.sync_api import Browser, Page, expect, sync_playwright

HERE = Path(__file__).parent
PORT, METER_PORT = 8123, "5123"
ADDRESS = f"http://127.0.0.1:{PORT}"
DESK, PHONE = {"width": 1280, "height": 800}, {"width": 390, "height": 844}
SETTLED_MS = 800
OBSERVATORY, SHED = "Larkspur Hill Observatory", "Fennwick Weaving Shed"
YEARLY = "Yearly test before the visitors' season"

# name, colour scheme, viewport, places from the rail on: each a link to follow, the last a heading to wait for
PICTURES = [
    ("today", "light", DESK, ("Today",)),
    ("kit", "light", DESK, ("Kit",)),
    ("hunt", "light", DESK, ("Hunt", "Dew-heater bench")),
    ("hunt-board-phone-dark", "dark", PHONE, ("Hunt", "Cottage loft board")),
    ("site", "light", DESK, ("Site", OBSERVATORY)),
    ("prove-dead", "light", DESK, ("Prove dead", "Dome drive")),
    ("measure-now", "light", PHONE, ("Today", "Measure an outlet now")),
    ("sheet", "light", DESK, ("Dead tests", "Loom hall sockets")),
    ("visit", "light", DESK, ("Record", YEARLY)),
    ("report-phone", "light", PHONE, ("Record", "number 1")),
    ("history-dark", "dark", DESK, ("Site", SHED, "Socket by the vats", "History")),
    ("prove-phone-dark", "dark", PHONE, ("Prove dead", "Loom motor")),
    ("bench-unconfirmed", "light", DESK, ("Site", OBSERVATORY, "Outlet 3, by the lathe")),
    ("bench-two-lines", "light", DESK, ("Site", OBSERVATORY, "Range outlet")),
    ("practice", "light", DESK, ("Practice",)),
    ("bench-three-lines-dark", "dark", DESK, ("Site", SHED, "Loom outlet")),
    ("round-dark", "dark", DESK, ("Today",)),
    ("plug-in", "light", DESK, ("Today", "Before plugging in")),
    ("bench-phone", "light", PHONE, ("Site", OBSERVATORY, "Outlet 3, by the lathe")),
]
# what is typed on a sheet
SHOWN = "0.31"
HEADINGS = {
    "Measure an outlet now": "What does it look like?",
    "number 1": SHED,
    "History": "Socket by the vats",
    YEARLY: OBSERVATORY,
}
"""Where a link is not called as the place it leads to."""
WARNED = ("today", "prove-dead", "prove-phone-dark")
"""Where it is seen that a proof is about to end; it stands on every place until somebody taps."""
COMES_LATER = {"history-dark": "Less than half of the visit before", "visit": "Open at this site"}
"""What a picture is about, where the rest of its place is there before."""
HELD = {"sheet": "Low-ohm"}
"""What is in the hand; no tester is taken that nobody chose."""


def sign_in(page: Page) -> None:
    page.goto(ADDRESS)
    page.get_by_label("Name").fill("demo")
    page.get_by_label("Password").first.fill("larkspur-demo")
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="Today").wait_for()


def take(browser: Browser, name: str, scheme: str, size: dict[str, int], places: tuple[str, ...]) -> None:
    context = browser.new_context(viewport=size, color_scheme=scheme, has_touch=size is PHONE)  # type: ignore[arg-type]
    page = context.new_page()
    sign_in(page)
    rail, *way = places
    page.evaluate("document.querySelectorAll('nav details').forEach(folded => folded.open = true)")
    page.get_by_role("navigation").get_by_role("link", name=rail, exact=True).click()
    page.get_by_role("heading", level=1, name=re.compile(f"^{HEADINGS.get(rail, rail)}")).wait_for()
    for place in way:
        page.evaluate("document.querySelectorAll('main details').forEach(folded => folded.open = true)")
        page.get_by_role("main").get_by_role("link", name=place).first.click()
        page.get_by_role("heading", level=1, name=HEADINGS.get(place, place)).wait_for()
    warning = page.get_by_role("button", name="Seen")
    if name not in WARNED and warning.is_visible():
        warning.click()
    if name.startswith("bench"):
        page.get_by_role("heading", name=re.compile("^Voltage of each conductor to ")).wait_for()
        page.get_by_label("Tester in use").select_option(label="Meter M2")
        page.keyboard.press("Space")
    if name == "bench-two-lines":
        page.get_by_label("Tester in use").select_option("Wired meter W1")
        page.get_by_role("button", name="H1–H2").click()
        page.get_by_label("Meter on the wire").get_by_role("status").wait_for()
    if name in HELD:
        testers = page.get_by_label("Tester in use")
        testers.select_option(next(o for o in testers.locator("option").all_inner_texts() if o.startswith(HELD[name])))
        page.get_by_role("textbox", name=re.compile("^Reading")).focus()
    if name == "practice":
        page.get_by_role("button", name="The kettle stays cold").click()
        page.get_by_label("Tester in use").select_option(label="meter")
        for volts in ("H to N", "H to G"):
            page.get_by_role("button", name="Measure").click()
            page.get_by_role("button", name="Record this").click()
            page.get_by_text(re.compile(f"^{volts}, .* recorded")).wait_for()
        page.get_by_role("button", name="Correct", exact=True).click()
        page.get_by_role("button", name="Measure").click()
        page.get_by_role("button", name="Record this").wait_for()
    if name == "sheet":
        page.keyboard.type(SHOWN)
        page.get_by_text("Pass", exact=True).last.wait_for()
    if name == "round-dark":
        page.get_by_role("link", name=re.compile("of 3 checked")).click()
        page.get_by_role("heading", name="Range outlet").wait_for()
    if name == "plug-in":
        page.get_by_label("What is plugged in").select_option(index=1)
        page.get_by_label("Into which outlet").select_option(label="Outlet 3, by the lathe (Workshop outlets)")
        page.get_by_role("button", name="Check it").click()
        page.get_by_text("One more reading").wait_for()
        page.get_by_label("Tester in use").select_option(label="Meter M2")
    if name in COMES_LATER:
        page.get_by_text(COMES_LATER[name]).first.wait_for()
    expect(page.locator("[aria-busy=true]")).to_have_count(0)
    page.mouse.move(0, 0)
    page.wait_for_timeout(SETTLED_MS)
    page.screenshot(path=HERE / f"{name}.png")
    context.close()


def take_all() -> None:
    with sync_playwright() as driver:
        browser = driver.chromium.launch(
            executable_path=os.environ.get("CHROMIUM", "/usr/bin/chromium"), args=["--no-sandbox", "--disable-gpu"]
        )
        for picture in PICTURES:
            take(browser, *picture)
        browser.close()


def main() -> None:
    standin = [sys.executable, ROOT / "server/manage.py", "standin_meter", "--port", METER_PORT]
    with (
        demo_server(PORT, METER_PORT=METER_PORT) as server,
        subprocess.Popen(standin, env=server.environment) as meter,
    ):
        try:
            take_all()
        finally:
            meter.terminate()


if __name__ == "__main__":
    main()
