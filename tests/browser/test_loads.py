"""A known load, a clamp and a walk with a detector on the Bench, in the real thing."""

import pytest
from playwright.sync_api import expect

from crews.models import Crew
from demo.crew import demo_id
from kit.services import put_tester
from tests.browser.conftest import accessible
from tests.browser.test_bench import open_outlet


@pytest.fixture
def clamp(outlet):
    crew = Crew.objects.get()
    rated = {"category": "III", "rated_v": 600, "proved": True}
    put_tester(crew, demo_id("t", "m2"), {"label": "Meter M2", "kind": "multimeter", **rated})
    put_tester(crew, demo_id("t", "c1"), {"label": "Clamp C1", "kind": "clamp", **rated})
    detector = {"label": "Detector D3", "kind": "non-contact", "category": "IV", "rated_v": 1000}
    put_tester(crew, demo_id("t", "d3"), {**detector, "always_on_light": True, "proved": True})


def read(page, value, load=None):
    if load:
        page.get_by_role("button", name=load).click()
    page.get_by_label("Reading, ").fill(value)
    page.keyboard.press("Enter")
    expect(page.get_by_text(f"{value} V recorded")).to_be_visible()


def test_the_poor_joint_is_found_under_a_load(clamp, live_server, page):
    open_outlet(page, live_server)
    for value in ("120.0", "120.1", "0.2"):
        read(page, value)
    for keys, value in (("nh", "111.2"), ("gh", "119.2"), ("gn", "8.1")):
        page.evaluate("document.activeElement.blur()")
        for key in keys:
            page.keyboard.press(key)
        read(page, value, "Load here")
    expect(page.get_by_text("The poor joint is in the neutral")).to_be_visible()
    expect(page.get_by_role("row", name="N 0.72")).to_contain_text("poor")
    accessible(page)


def test_a_clamp_with_its_start_and_where_it_is_closed(clamp, live_server, page):
    open_outlet(page, live_server)
    page.get_by_label("Tester in use").select_option("Clamp C1")
    page.get_by_label("Function").select_option("Current, clamped")
    page.get_by_role("button", name="H, hot").click()
    expect(page.get_by_text("round two their fields cancel")).to_be_visible()
    page.get_by_label("Reading, H").fill("12.5")
    page.get_by_label("Most, at the start").fill("60")
    accessible(page)
    page.get_by_role("button", name="Record", exact=True).click()
    load = page.get_by_role("region", name="Under load")
    expect(load).to_contain_text("62 % of the rating")
    expect(load).to_contain_text("Starts at 3.0 times the rating")
    page.get_by_role("button", name="Round two").click()
    page.get_by_label("Reading, H").fill("0.1")
    page.keyboard.press("Enter")
    expect(load).to_contain_text("their fields cancel")
    page.set_viewport_size({"width": 390, "height": 844})
    assert page.evaluate("document.documentElement.scrollWidth") <= 390


def test_a_walk_with_a_detector(clamp, live_server, page):
    open_outlet(page, live_server)
    page.get_by_label("Tester in use").select_option("Detector D3")
    page.get_by_label("Function").select_option("Presence, walked along")
    page.get_by_role("button", name="H, hot").click()
    for sounds in ("Alarm", "Alarm", "Alarm", "Silent", "Silent"):
        page.get_by_role("button", name=sounds, exact=True).click()
    page.get_by_role("button", name="Take 8 m back").click()
    accessible(page)
    page.get_by_role("button", name="Record the walk").click()
    walked = page.get_by_role("region", name="Walked along with a detector")
    expect(walked).to_contain_text("The alarm ends between 13 and 20 ft (4 and 6 m)")
    expect(walked.get_by_role("img", name="From 0 to 6 m; it sounds at 0, 2, 4 m")).to_be_visible()
    expect(page.get_by_label("What it could still be").get_by_text("Untested")).to_be_visible()
