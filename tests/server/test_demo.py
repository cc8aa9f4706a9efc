"""The demo scenario: what it has to show, and that loading it twice is loading it once."""

from datetime import timedelta

import pytest
from django.core.management import call_command
from django.utils import timezone

from evenprobe.interpretation import Verdict
from evenprobe.testers.fitness import attention
from kit.hands import in_hand
from kit.models import Tester
from proofs.logs import state_of
from proofs.models import Proof
from readings.interpretations import interpretation_of
from readings.models import Reading
from readings.point_view import PointView
from signoffs.models import SignOff
from sites.models import Point, Site
from visits.models import Visit
from visits.services import stands


@pytest.fixture
def no_answers_ahead(monkeypatch):
    """Loads what is on record, and makes no answers ready: what is asked here is not of them."""
    monkeypatch.setattr("demo.management.commands.load_demo.settle", lambda _old: None)


def test_the_demo_scenario_shows_every_verdict_and_loads_twice_as_once(db):
    call_command("load_demo")
    call_command("load_demo")
    points = Point.objects.select_related("circuit__board__supply__site")
    verdicts = {interpretation_of(PointView(p)).verdict for p in points}
    assert verdicts == set(Verdict)
    assert Site.objects.get(name__startswith="Larkspur").supplies.all()[0].name == "Split-phase service"


@pytest.mark.usefixtures("db", "no_answers_ahead")
def test_what_an_older_version_loaded_stays_as_it_is_and_that_is_said(monkeypatch, capsys):
    """Its readings were simulated by other physics: under their ids they cannot be written again."""
    call_command("load_demo")
    before = {r.id: r.entry for r in Reading.objects.all()}
    monkeypatch.setattr("demo.management.commands.load_demo._STRAY_VOLTS", 37.0)
    call_command("load_demo")
    assert "of an older version, kept as it is" in capsys.readouterr().out
    assert {r.id: r.entry for r in Reading.objects.all()} == before


@pytest.mark.usefixtures("db", "no_answers_ahead")
def test_the_demo_scenario_shows_proofs_that_run_and_that_do_not_and_kit_that_needs_a_hand():
    call_command("load_demo")
    call_command("load_demo")
    now = timezone.now()
    found = {p.name: state_of(p, now) for p in Proof.objects.all()}
    assert {name: state.state for name, state in found.items()} == {
        "Dome drive": "proved-dead",
        "Loom motor": "proved-dead",
        "Kitchenette counter": "void",
        "Pier pad outlets": "proving",
        "Workshop outlets": "energised",
        "Mill board, insulation round": "closed",
    }
    left = found["Dome drive"].expires_at - now
    assert timedelta(minutes=5) < left <= timedelta(minutes=6)
    assert len(found["Loom motor"].pairs) == 10
    visits = {v.site.name: stands(v) for v in Visit.objects.all()}
    assert sorted(visits.values()) == ["begun", "closed", "planned"]
    assert [s.name for s in SignOff.objects.all()] == ["Loom motor"]
    [faulty] = Tester.objects.exclude(suspect_from=None)
    assert faulty.readings.count() == 3
    trouble = {f.code for t in Tester.objects.all() for f in attention(in_hand(t, now).held(), timezone.localdate())}
    assert {"calibration-overdue", "tip-covers-off", "battery-unknown", "damaged"} <= trouble
    later = now + timedelta(minutes=10)
    assert state_of(Proof.objects.get(name="Dome drive"), later).state == "void"
