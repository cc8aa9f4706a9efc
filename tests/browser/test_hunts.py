"""A hunt in the real thing, on a phone: a short halved to the stretch, a wrong tap taken back, cut off half-way."""

import re

import pytest
from playwright.sync_api import expect

from crews.models import Crew
from demo.crew import demo_id
from sites.services import put_circuit, put_point
from tests.browser.conftest import accessible, sign_in, small_targets

BOXES = 8
TRUTH = 5
"""The stretch that leads to this box."""


@pytest.fixture
def eight_boxes(outlet):
    crew = Crew.objects.get()
    put_circuit(crew, demo_id("t", "heaters"), demo_id("t", "board"), "Dew-heater bench", 15, "14 AWG")
    for number in range(1, BOXES + 1):
        where = demo_id("t", "heaters"), f"Box {number}", "junction", ["L", "N", "PE"], 7 * number
        put_point(crew, demo_id("t", f"box {number}"), *where)


def begin(page, live_server):
    page.set_viewport_size({"width": 390, "height": 844})
    sign_in(page, live_server.url)
    page.goto(f"{live_server.url}/hunts")
    page.get_by_role("link", name="Begin a hunt").click()
    page.get_by_label("Site").select_option(label="Larkspur Hill Observatory")
    page.get_by_label("Circuit", exact=True).select_option(label="Dew-heater bench")
    page.get_by_label("The device trips at once").check()
    expect(page.get_by_text("Do not reset it to find out.")).to_be_visible()
    accessible(page)
    page.get_by_role("button", name="Begin", exact=True).click()
    expect(page.get_by_role("heading", name="Measure at the panel")).to_be_visible()


def shown_at(page):
    """The box that is to be opened."""
    heading = page.get_by_role("heading", name=re.compile(r"^Open Box \d"))
    expect(heading).to_be_visible()
    return int(heading.inner_text().split()[-1])


def tap(page, outcome):
    page.get_by_role("button", name=re.compile(f"^{outcome}")).click()


def test_a_short_is_halved_to_the_stretch_on_a_phone(eight_boxes, live_server, page):
    begin(page, live_server)
    tap(page, "The joint shows")
    expect(page.get_by_text("Treat as live: this circuit is not proved dead.")).to_be_visible()
    assert not small_targets(page)
    accessible(page)
    first = shown_at(page)
    tap(page, "In this box")
    expect(page.get_by_role("heading", name=f"Found: Box {first}")).to_be_visible()
    page.get_by_role("button", name=re.compile("^Take back")).click()
    assert shown_at(page) == first
    opened = 0
    page.context.set_offline(True)
    tap(page, "Onward side" if first < TRUTH else "Feed side")
    expect(page.get_by_label("Not at the server yet")).to_be_visible()
    page.context.set_offline(False)
    expect(page.get_by_role("heading", name=f"Open Box {first}", exact=True)).to_have_count(0)
    while page.get_by_role("heading", name=re.compile("^Found")).count() == 0:
        here = shown_at(page)
        opened += 1
        assert opened < BOXES
        tap(page, "Onward side" if here < TRUTH else "Feed side")
        expect(page.get_by_role("heading", name=f"Open Box {here}", exact=True)).to_have_count(0)
    found = page.get_by_role("heading", name=f"Found: between Box {TRUTH - 1} and Box {TRUTH}")
    expect(found).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    page.get_by_role("button", name="Mended").click()
    page.get_by_role("button", name="Close this hunt").click()
    expect(page.get_by_role("heading", name="Closed")).to_be_visible()
