"""Nothing recorded is lost: on a bad line, over reloads and a killed browser, in two tabs, by signing out."""

import random
import re
import signal
import subprocess
import time
from collections import Counter
from contextlib import contextmanager, suppress

import pytest
from playwright.sync_api import Error, expect

from crews.models import Crew, Membership
from readings.models import Reading
from tests.browser.conftest import PASSWORD, USERNAME, accessible, sign_in, sign_out, small_targets
from tests.browser.test_bench import open_outlet

MANY = 200
A_MOMENT_MS = 250
"""A browser has its database for it."""
A_MINUTE_S = 60.0
"""As long as one reading of a full outbox may take to arrive."""
FIELD = re.compile("^Reading")
WAITING = re.compile("waiting to be sent|not recorded")


@contextmanager
def own_browser(playwright, launched, folder):
    """A browser with a folder of its own, so that it can be killed and begun again."""
    context = playwright.chromium.launch_persistent_context(str(folder), service_workers="block", **launched)
    yield context, context.pages[0] if context.pages else context.new_page()


def killed(folder):
    """As a battery does it: nothing is told to anything."""
    found = subprocess.run(["pgrep", "-f", f"user-data-dir={folder}"], capture_output=True, text=True, check=False)
    for process in found.stdout.split():
        subprocess.run(["kill", f"-{signal.SIGKILL.value}", process], check=False)


def hertz(number):
    return f"{59 + number / 1000:.3f}"


def record(page, line, numbers):
    """Frequencies, for nothing is decided by them: what is tried here is the way there, not the verdict."""
    for number in numbers:
        line.release()
        field = page.get_by_role("textbox", name=FIELD)
        page.keyboard.type(hertz(number))
        expect(field).to_have_value(hertz(number))
        page.keyboard.press("Enter")
        expect(field).to_have_value("")


def sign_in_where_asked(page, url):
    """A browser that was killed may have lost who was signed in; what was recorded it has not."""
    page.goto(url)
    page.get_by_label("Name").or_(page.get_by_role("heading", name="Today")).wait_for()
    if page.get_by_label("Name").is_visible():
        sign_in(page, url)


class BadLine:
    """Some requests never arrive, of some the answer is lost after it was written, and some take three seconds."""

    def __init__(self, seed):
        self.rng, self.held, self.spoiled = random.Random(seed), [], Counter()

    def carry(self, route):
        self.release()
        fate = self.rng.choices(("", "dropped", "lost", "slow"), (94, 2, 2, 2))[0]
        self.spoiled[fate] += 1
        with suppress(Error):  # the browser was killed, or its page left, while this was under way
            if fate == "slow":
                self.held.append((time.monotonic() + 3.0, route))
            elif fate == "":
                route.continue_()
            else:
                if fate == "lost":
                    route.fetch()
                route.abort()

    def release(self, *, left=False):
        """Those whose time has come; those whose page was `left` are nobody's any more."""
        for due, route in [held for held in self.held if left or held[0] < time.monotonic()]:
            self.held.remove((due, route))
            if not left:
                with suppress(Error):
                    route.continue_()


def at_the_bench(page, line):
    page.context.route("**/readings/**", line.carry)
    page.get_by_role("textbox", name=FIELD).wait_for()
    page.get_by_label("Function", exact=True).select_option(label="Frequency")


def test_two_hundred_readings_on_a_bad_line_are_there_once_and_in_order(
    outlet, live_server, playwright, browser_type_launch_args, tmp_path
):
    line = BadLine(seed=3)
    with own_browser(playwright, browser_type_launch_args, tmp_path) as (_, page):
        sign_in(page, live_server.url)
        page.goto(f"{live_server.url}/bench/{outlet.id}")
        at_the_bench(page, line)
        for part in range(3):
            record(page, line, range(50 * part, 50 * part + 50))
            line.release(left=True)
            page.reload()
            at_the_bench(page, line)
        record(page, line, range(150, 175))
        page.wait_for_timeout(A_MOMENT_MS)
        killed(tmp_path)
    with own_browser(playwright, browser_type_launch_args, tmp_path) as (context, page):
        line.release(left=True)
        sign_in_where_asked(page, live_server.url)
        page.goto(f"{live_server.url}/bench/{outlet.id}")
        at_the_bench(page, line)
        record(page, line, range(175, MANY))
        line.release(left=True)
        page.goto(f"{live_server.url}/waiting")
        nothing_waits = page.get_by_text("Nothing waits")
        arrived, until = 0, time.monotonic() + A_MINUTE_S
        while not nothing_waits.is_visible() and time.monotonic() < until:
            page.wait_for_timeout(A_MOMENT_MS)
            line.release()
            if arrived < (now := Reading.objects.count()):
                arrived, until = now, time.monotonic() + A_MINUTE_S
        expect(nothing_waits).to_be_visible()
        context.close()
    assert min(line.spoiled[fate] for fate in ("dropped", "lost", "slow")) > 0, line.spoiled
    kept = Reading.objects.order_by("taken_at").values_list("entry__value", flat=True)
    assert list(kept) == [float(hertz(number)) for number in range(MANY)]
    in_order_of_arrival = Reading.objects.order_by("recorded_at").values_list("entry__value", flat=True)
    assert list(in_order_of_arrival) == list(kept)


def test_what_waits_is_listed_and_outlives_signing_out_for_the_same_person(outlet, live_server, page):
    open_outlet(page, live_server)
    down = [True]
    page.route("**/readings/**", lambda route: route.abort() if down else route.continue_())
    for value in ("119.8", "119.7"):
        page.keyboard.type(value)
        page.keyboard.press("Enter")
    page.get_by_role("link", name="2 waiting to be sent").click()
    page.get_by_role("heading", name="Waiting to be sent").wait_for()
    expect(page.get_by_role("main").get_by_role("listitem")).to_have_count(2)
    expect(page.get_by_text("Saved on this device for you")).to_be_visible()
    accessible(page)
    assert small_targets(page) == []
    sign_out(page)
    expect(page.get_by_role("dialog").get_by_text("is sent when Anna signs in here again")).to_be_visible()
    page.get_by_role("dialog").get_by_role("button", name="Sign out").click()
    page.get_by_label("Name").wait_for()
    down.clear()
    page.wait_for_timeout(4_000)
    assert Reading.objects.count() == 0, "nobody is signed in, so nothing is sent"
    page.get_by_label("Name").fill(USERNAME)
    page.get_by_label("Password").first.fill(PASSWORD)
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="Today").wait_for()
    page.goto(f"{live_server.url}/waiting")
    expect(page.get_by_text("Nothing waits")).to_be_visible()
    assert list(Reading.objects.order_by("taken_at").values_list("entry__value", flat=True)) == [119.8, 119.7]


def test_two_tabs_show_the_same_and_each_reading_is_sent_once(outlet, live_server, page):
    open_outlet(page, live_server)
    other = page.context.new_page()
    other.goto(page.url)
    other.get_by_role("textbox", name=FIELD).wait_for()
    down, sent = [True], []
    for tab in (page, other):
        tab.route(
            "**/readings/**",
            lambda route: route.abort() if down else (sent.append(route.request.url), route.continue_()),
        )
    for tab, value in ((page, "119.8"), (other, "119.7")):
        tab.bring_to_front()
        tab.get_by_role("textbox", name=FIELD).fill(value)
        tab.keyboard.press("Enter")
    for tab in (page, other):
        expect(tab.get_by_role("link", name="2 waiting to be sent")).to_be_visible()
    down.clear()
    for tab in (page, other):
        expect(tab.get_by_role("link", name=WAITING)).to_have_count(0, timeout=30_000)
    assert len(sent) == len(set(sent)) == Reading.objects.count() == 2


@pytest.mark.parametrize("way", ["Drop", "Send again"])
def test_what_is_refused_stays_with_why_until_a_person_says_what_next(outlet, live_server, page, way):
    page.route("**/readings/**", lambda route: route.continue_())
    open_outlet(page, live_server)
    page.keyboard.type("11980")
    page.keyboard.press("Enter")
    page.keyboard.type("1")
    link = page.get_by_role("link", name="1 not recorded")
    link.click()
    expect(page.get_by_text("11980 V is more than this tester shows")).to_be_visible()
    page.reload()
    expect(page.get_by_text("11980 V is more than this tester shows")).to_be_visible()
    accessible(page)
    page.get_by_role("button", name=way).click()
    if way == "Drop":
        page.get_by_role("button", name="Drop it for good").click()
        expect(page.get_by_text("Nothing waits")).to_be_visible()
    else:
        expect(page.get_by_text("more than this tester shows")).to_be_visible()
    assert Reading.objects.count() == 0


def test_a_reading_is_taken_back_once_however_often_it_is_asked_for(outlet, live_server, page):
    open_outlet(page, live_server)
    page.keyboard.type("119.8")
    page.keyboard.press("Enter")
    page.get_by_text("1 reading recorded").click()
    down = [True]
    page.route("**/withdrawals/**", lambda route: route.abort() if down else route.continue_())
    for _ in range(3):
        page.get_by_role("button", name="Withdraw").first.click()
    expect(page.get_by_label("Not at the server yet").get_by_role("listitem")).to_have_count(1)
    down.clear()
    expect(page.get_by_label("Not at the server yet")).to_have_count(0)
    expect(page.get_by_role("link", name=WAITING)).to_have_count(0)


def test_what_one_left_waiting_is_not_sent_by_another_of_the_same_name(outlet, live_server, page, django_user_model):
    other = django_user_model.objects.create_user("anna-2", password=PASSWORD, first_name="Anna")
    Membership.objects.create(user=other, crew=Crew.objects.get(), role="keeper")
    open_outlet(page, live_server)
    down = [True]
    page.route("**/readings/**", lambda route: route.abort() if down else route.continue_())
    page.keyboard.type("119.8")
    page.keyboard.press("Enter")
    page.get_by_role("link", name="1 waiting to be sent").wait_for()
    sign_out(page)
    page.get_by_role("dialog").get_by_role("button", name="Sign out").click()
    page.get_by_label("Name").wait_for()
    down.clear()
    sign_in(page, live_server.url, "anna-2")
    page.wait_for_timeout(4_000)
    expect(page.get_by_role("link", name=WAITING)).to_have_count(0)
    assert Reading.objects.count() == 0
    sign_out(page)
    page.get_by_label("Name").wait_for()
    sign_in(page, live_server.url)
    expect(page.get_by_role("link", name=WAITING)).to_have_count(0)
    page.wait_for_timeout(1_000)
    assert [r.by_name for r in Reading.objects.all()] == ["Anna"]
    assert Reading.objects.get().by.username == USERNAME
