"""A practice case in the browser: from the tap that begins it until it can be worked on, and from a tap to a display.

Aimed at: within a second, and within 50 ms. Times are printed beside what a page of one line takes to be
loaded in the same run, since machines differ.
"""

import os
import re
import statistics
import time

from playwright.sync_api import Browser, Page, Route, sync_playwright

from bench.serving import PASSWORD, demo_server

PORT = 8132
ADDRESS = f"http://127.0.0.1:{PORT}"
OPENS_S, SHOWS_MS = 1.0, 50.0
PAIRS, TAPS, EVERY = 3, 12, 2
SETTLED_MS, LEFT_ALONE_MS = 700, 3_000
"""Somebody reads the list, and looks at what is shown, before the next tap."""
HERE = "Practice: nothing here is real"
EMPTY = "<!doctype html><title>Empty</title><h1>Nothing</h1>"
TAP_TO_DISPLAY = """measure => new Promise(shown => {
    const tapped = performance.now();
    const look = () => /\\d/.test(document.querySelector('[aria-label=Display]')?.textContent ?? '')
        ? requestAnimationFrame(() => shown(performance.now() - tapped))
        : requestAnimationFrame(look);
    requestAnimationFrame(look);
    measure.click();
})"""
"""In the page: from a tap until the frame after the first with a number on the display."""


def sign_in(page: Page) -> None:
    page.goto(ADDRESS)
    page.get_by_label("Name").fill("apprentice")
    page.get_by_label("Password").first.fill(PASSWORD)
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="Today").wait_for()


def opening_s(page: Page, title: str) -> float:
    """Seconds from the tap on its line until its place is there and nothing of it is waited for."""
    page.goto(f"{ADDRESS}/practice")
    called = page.get_by_text(title, exact=True)
    begin = page.get_by_role("listitem").get_by_role("button").filter(has=called)
    begin.wait_for()
    page.wait_for_timeout(LEFT_ALONE_MS)
    tapped = time.perf_counter()
    begin.click()
    page.get_by_text(HERE).wait_for()
    page.get_by_role("heading", level=1).wait_for()
    page.locator("[aria-busy=true]").first.wait_for(state="detached")
    return time.perf_counter() - tapped


def displays_ms(page: Page) -> list[float]:
    """Milliseconds of each tap to a display, of a case on the Bench whose meter is proved."""
    meter = page.get_by_label("Tester in use").locator("option", has_text=re.compile("^meter$"))
    if not meter.count():
        return []
    page.get_by_label("Tester in use").select_option(label="meter")
    found = []
    for _ in range(PAIRS):
        measure = page.get_by_role("button", name="Measure", exact=True)
        measure.wait_for()
        page.wait_for_timeout(SETTLED_MS)
        found.append(float(measure.evaluate(TAP_TO_DISPLAY)))
        page.get_by_role("button", name="Record this").click()
        page.wait_for_timeout(SETTLED_MS)
    return found


def empty_page_s(page: Page) -> float:
    def answer(route: Route) -> None:
        route.fulfill(body=EMPTY, content_type="text/html")

    page.route("**/empty", answer)
    begun = time.perf_counter()
    page.goto(f"{ADDRESS}/empty")
    page.get_by_role("heading", level=1).wait_for()
    return time.perf_counter() - begun


def measure(browser: Browser) -> None:
    page = browser.new_context(viewport={"width": 390, "height": 844}, service_workers="block").new_page()
    sign_in(page)
    page.goto(f"{ADDRESS}/practice")
    titles = page.get_by_role("listitem").get_by_role("button").locator("strong")
    titles.first.wait_for()
    opened: list[float] = []
    shown: list[float] = []
    for title in titles.all_inner_texts()[::EVERY]:
        opened.append(opening_s(page, title))
        if len(shown) < TAPS:
            shown += displays_ms(page)
    empty = statistics.median(empty_page_s(page) for _ in range(PAIRS))
    middle = statistics.median(opened)
    late = sum(one > OPENS_S for one in opened)
    print(
        f"a case opens  {middle:6.2f} s median of {len(opened)}, {max(opened):.2f} most, {late} over {OPENS_S:g}; "
        f"an empty page {empty:.2f}: {middle / empty:.1f} times"
    )
    print(f"a tap shows   {statistics.median(shown):6.0f} ms median, {max(shown):.0f} most, aimed at {SHOWS_MS:g}")


def main() -> None:
    print("\nPractice")
    with demo_server(PORT), sync_playwright() as playwright:
        chromium = os.environ.get("CHROMIUM", "/usr/bin/chromium")
        measure(playwright.chromium.launch(executable_path=chromium, args=["--no-sandbox"]))


if __name__ == "__main__":
    main()
