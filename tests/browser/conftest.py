"""The real application in Debian's Chromium: a live server on demo data of its own."""

import os
import threading
from datetime import timedelta
from pathlib import Path

import numpy as np
import pytest
from django.contrib.auth import get_user_model
from django.db.models import F
from django.utils import timezone
from playwright.sync_api import expect

from crews.models import Crew, Membership
from demo.crew import demo_id
from demo.hidden import hidden_at
from evenprobe.conditions import CONDITIONS
from evenprobe.practices import NORTH_AMERICA
from evenprobe.simulation import HiddenPoint
from kit.services import put_part, put_tester
from meters.services import put_link
from meters.serving import StandInServer
from meters.standin import StandIn
from proofs.models import ProofEvent
from readings.point_view import PointView
from sites.services import put_board, put_circuit, put_point, put_site, put_supply
from tests.browser.proofs import proved_dead
from tests.tampering import tampering

os.environ.setdefault("DJANGO_ALLOW_ASYNC_UNSAFE", "true")
USERNAME, PASSWORD = "anna", "a-long-password"
_BEFORE_THE_END = timedelta(minutes=29, seconds=30)
"""A proof that was made so long ago has half a minute left."""


@pytest.fixture(scope="session")
def browser_type_launch_args():
    return {
        "executable_path": os.environ.get("CHROMIUM", "/usr/bin/chromium"),
        "args": ["--no-sandbox", "--disable-gpu", "--disable-background-networking", "--disable-quic"],
    }


@pytest.fixture
def outlet(transactional_db, settings, tmp_path):
    """A crew of one with one outlet nobody has measured."""
    settings.CACHES = {"default": {**settings.CACHES["default"], "LOCATION": str(tmp_path / "cache")}}
    settings.SECURE_CONTENT_TYPE_NOSNIFF = False
    crew = Crew.objects.create(name="Larkspur crew")
    user = get_user_model().objects.create_user(USERNAME, password=PASSWORD, first_name="Anna")
    Membership.objects.create(user=user, crew=crew, role="keeper")
    site = put_site(crew, demo_id("t", "site"), "Larkspur Hill Observatory", NORTH_AMERICA.id)
    supply = put_supply(crew, demo_id("t", "supply"), site.id, "Service", "120/240", "TN-C-S")
    board = put_board(crew, demo_id("t", "board"), supply.id, "Warm room board W")
    circuit = put_circuit(crew, demo_id("t", "circuit"), board.id, "Workshop outlets", 20, "12 AWG")
    where = circuit.id, "Outlet 3, by the lathe", "outlet", ["L", "N", "PE"], 18
    return put_point(crew, demo_id("t", "point"), *where)


@pytest.fixture
def range_outlet(outlet):
    """Beside it one of two lines, a neutral and an earth, and a plug tester with lamps and a button."""
    crew = Crew.objects.get()
    circuit = put_circuit(crew, demo_id("t", "range"), demo_id("t", "board"), "Kitchenette range", 40, "8 AWG")
    put_tester(crew, demo_id("t", "p6"), {"label": "Plug P6", "kind": "digital-plug-tester", "test_ma": 6})
    where = circuit.id, "Range outlet", "outlet", ["L1", "L2", "N", "PE"], 12
    return put_point(crew, demo_id("t", "range point"), *where)


@pytest.fixture
def meter_on_the_wire(range_outlet, settings):
    """A meter linked to a stand-in, whose probes are at the range outlet with both its lines on one leg."""

    def hidden():
        facts = PointView(range_outlet).facts
        return HiddenPoint(facts, CONDITIONS["same-leg"], np.random.default_rng(8))

    made = {str(range_outlet.id): hidden}
    server = StandInServer(("127.0.0.1", 0), lambda: StandIn(hidden_at(made)))
    threading.Thread(target=server.serve_forever, daemon=True).start()
    crew = Crew.objects.get()
    put_tester(crew, demo_id("t", "w1"), {"label": "Wired W1", "kind": "multimeter", "proved": True})
    settings.METER_LINKS = [f"127.0.0.1:{server.server_address[1]}"]
    put_link(crew, demo_id("t", "w1"), f"TCPIP::127.0.0.1::{server.server_address[1]}::SOCKET")
    yield server
    server.hang_up()


@pytest.fixture
def kit(outlet):
    """A meter with its leads, a two-pole tester and a circuit of two lines to prove dead, beside the outlet."""
    crew = Crew.objects.get()
    leads = put_part(
        crew,
        demo_id("t", "leads"),
        "leads",
        {"label": "Leads A", "category": "III", "rated_v": 1000, "tip_covers": True},
    )
    rated = {"category": "III", "rated_v": 690}
    meter = {"label": "Meter M2", "kind": "multimeter", **rated}
    put_tester(crew, demo_id("t", "m2"), meter, usual_leads=leads.id)
    steps = {"steps_v": [12, 50, 120, 230, 400], "always_on_light": True}
    put_tester(crew, demo_id("t", "t1"), {"label": "Two-pole T1", "kind": "two-pole", **rated, **steps})
    put_tester(crew, demo_id("t", "p6"), {"label": "Plug P6", "kind": "digital-plug-tester", "test_ma": 6})
    detector = {"label": "Detector D3", "kind": "non-contact", "category": "IV", "rated_v": 1000}
    put_tester(crew, demo_id("t", "d3"), {**detector, "always_on_light": True})
    put_circuit(crew, demo_id("t", "dome"), demo_id("t", "board"), "Dome drive", 30, "10 AWG")


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args):
    """What a service worker answers no test can spoil, so only the tests of it have one."""
    return {**browser_context_args, "service_workers": "block"}


USED_BEFORE = """
    Object.defineProperty(navigator, 'connection', { value: { saveData: true } });
    const named = 'even-probe.tester live';
    if (localStorage.getItem(named) === null) localStorage.setItem(named, '');
"""
"""A typed meter was named on it, and it fetches nothing ahead; not so where that is what is tried."""


@pytest.fixture
def context(context):
    context.add_init_script(USED_BEFORE)
    return context


def another_browser(browser, **how):
    """Another person's, or a phone."""
    made = browser.new_context(**{"service_workers": "block", **how})
    made.add_init_script(USED_BEFORE)
    return made


PATIENCE_MS = 60_000
"""Two workers on two cores that others may use too, and points opened for the first time."""


@pytest.fixture
def proved(kit, django_user_model):
    """A circuit proved dead and stated so just now; and its sheet."""
    return proved_dead(django_user_model.objects.get(username=USERNAME), {"type": "stated"})


@pytest.fixture
def running_out(proved):
    """The same half a minute before it is void."""
    first = ProofEvent.objects.order_by("at").first().at
    earlier = _BEFORE_THE_END - (timezone.now() - first)
    with tampering(ProofEvent) as events:
        events.update(at=F("at") - earlier)
    return proved


def sign_in(page, address, username=USERNAME, password=PASSWORD, heading="Today"):
    page.set_default_timeout(PATIENCE_MS)
    expect.set_options(timeout=PATIENCE_MS)
    page.goto(address)
    page.get_by_label("Name").fill(username)
    page.get_by_label("Password").first.fill(password)
    page.keyboard.press("Enter")
    page.get_by_role("heading", name=heading).wait_for()


def sign_out(page):
    page.get_by_role("link", name="You").first.click()
    page.get_by_role("button", name="Sign out", exact=True).click()


AXE = Path(__file__).parents[2] / "web/node_modules/axe-core/axe.min.js"
RULES = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]
COLOURS = ["color-contrast"]


def accessible(page, rules=RULES):
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE.read_text())
    asked = {"runOnly": rules, "resultTypes": ["violations"]}
    found = page.evaluate("asked => axe.run(document, asked)", asked)["violations"]
    assert not found, "\n".join(f"{v['id']}: {n['html'][:200]}" for v in found for n in v["nodes"])


def small_targets(page):
    """Whatever is to be hit with a glove on and is under 48 px tall; a box is hit by its label."""
    return page.evaluate(
        """[...document.querySelectorAll(
            'button, select, summary, a[href], [role=button], input:not([type=checkbox], [type=radio], [type=file])')]
        .filter(e => {
            const box = e.getBoundingClientRect(), style = getComputedStyle(e);
            const drawn = e instanceof SVGElement ? e.querySelector('path') : null;
            const line = drawn && getComputedStyle(drawn);
            const thick = line?.vectorEffect === 'non-scaling-stroke' ? parseFloat(line.strokeWidth) : 0;
            return box.width + thick && box.left >= 0 && style.visibility !== 'hidden'
                && Math.round(box.height + thick) < 48;
        }).map(e => e.outerHTML.slice(0, 160))"""
    )
