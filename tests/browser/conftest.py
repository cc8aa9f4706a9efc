"""The real application in Debian's Chromium: a live server on demo data of its own."""

import os

import pytest
from django.contrib.auth import get_user_model
from django.core.management import call_command

from crews.models import Crew, Membership
from demo.crew import demo_id
from evenprobe.supplies import PracticeId
from sites.services import put_board, put_circuit, put_point, put_site, put_supply

os.environ.setdefault("DJANGO_ALLOW_ASYNC_UNSAFE", "true")
USERNAME, PASSWORD = "anna", "a-long-password"


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
    Membership.objects.create(user=user, crew=crew)
    site = put_site(crew, demo_id("t", "site"), "Larkspur Hill Observatory", PracticeId.NORTH_AMERICA)
    supply = put_supply(crew, demo_id("t", "supply"), site.id, "Service", "120/240", "TN-C-S")
    board = put_board(crew, demo_id("t", "board"), supply.id, "Warm room board W")
    circuit = put_circuit(crew, demo_id("t", "circuit"), board.id, "Workshop outlets", 20, "12 AWG")
    where = circuit.id, "Outlet 3, by the lathe", "outlet", ["L", "N", "PE"], 18
    return put_point(crew, demo_id("t", "point"), *where)


@pytest.fixture
def demo(transactional_db):
    call_command("load_demo")


def sign_in(page, address, username=USERNAME, password=PASSWORD):
    page.goto(address)
    page.get_by_label("Name").fill(username)
    page.get_by_label("Password").first.fill(password)
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="Sites").wait_for()
