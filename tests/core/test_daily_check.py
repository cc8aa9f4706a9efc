"""Today's check: what is asked of which tester, and what its answers do to fitness."""

from dataclasses import replace
from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from evenprobe.formats import InstrumentEntry
from evenprobe.formats.kit import CheckEntry, LeadsEntry
from evenprobe.practices import NORTH_AMERICA
from evenprobe.supplies import SYSTEMS
from evenprobe.testers import kinds
from evenprobe.testers.daily_check import ITEMS, items_for
from evenprobe.testers.fitness import attention, fitness
from evenprobe.testers.purposes import Purpose
from evenprobe.testers.ratings import Place
from evenprobe.testers.tasks import Task

RATED = {"category": "III", "rated_v": 690}
METER = InstrumentEntry(id="m", kind=kinds.MULTIMETER, **RATED, leads=LeadsEntry(**RATED, tip_covers=True))
TWO_POLE = InstrumentEntry(id="t", kind=kinds.TWO_POLE, **RATED)
ANSWERS = ("leads", "tips", "battery", "display", "self_check", "fuse")


def task(purpose, system="120", practice=NORTH_AMERICA):
    return Task(Purpose(purpose), Place.INSTALLATION, SYSTEMS[system], practice)


def codes(entry, purpose="prove-dead"):
    return {f.code for f in fitness(task(purpose), entry.held()).problems}


@pytest.mark.parametrize(
    ("kind", "asked"),
    [
        (kinds.MULTIMETER, {"leads", "tips", "battery", "display", "self_check", "lead_ohm", "fuse"}),
        (kinds.CLAMP, {"leads", "tips", "battery", "display", "self_check", "lead_ohm"}),
        (kinds.TWO_POLE, {"leads", "tips", "battery", "display", "self_check"}),
        (kinds.NON_CONTACT, {"battery", "display", "self_check"}),
        (kinds.PROVING_UNIT, {"battery", "display", "self_check"}),
    ],
)
def test_only_what_a_tester_has_is_asked_for(kind, asked):
    assert {item.id for item in items_for(kind)} == asked


def test_every_item_is_one_the_check_can_keep():
    assert {item.id for item in ITEMS} == set(CheckEntry.model_fields)
    assert all(item.unit or (item.good and item.bad) for item in ITEMS)


@pytest.mark.parametrize(
    ("found", "purpose", "code"),
    [
        ({"leads": "bad"}, "prove-dead", "damaged"),
        ({"display": "bad"}, "prove-dead", "damaged"),
        ({"tips": "bad"}, "prove-dead", "tip-covers-off"),
        ({"battery": "bad"}, "prove-dead", "battery-low"),
        ({"self_check": "bad"}, "prove-dead", "self-check-failed"),
        ({"lead_ohm": 0.6}, "continuity", "leads-resistive"),
        ({"fuse": "bad"}, "current", "fuse-blown"),
    ],
)
def test_each_bad_answer_makes_it_unfit_for_what_it_spoils(found, purpose, code):
    assert codes(METER, purpose) == set()
    assert code in codes(CheckEntry(**found).applied(METER), purpose)


def test_fixed_leads_that_are_damaged_are_the_tester_s_own():
    assert codes(CheckEntry(leads="bad").applied(TWO_POLE)) == {"damaged"}


def test_tip_covers_put_on_again_count():
    bare = METER.model_copy(update={"leads": METER.leads.model_copy(update={"tip_covers": False})})
    assert "tip-covers-off" in codes(bare)
    assert codes(CheckEntry(tips="good").applied(bare)) == set()


def test_a_good_check_does_not_mend_what_the_register_says_is_damaged():
    damaged = METER.model_copy(update={"damage": True})
    assert "damaged" in codes(CheckEntry(display="good", leads="good").applied(damaged))


def test_what_needs_a_hand_is_said_whatever_it_is_for():
    on = date(2026, 11, 24)
    assert attention(METER.held(), on) == ()
    overdue = replace(METER.held(), calibration_due=on.replace(day=1), known_issue="drops a digit")
    assert [f.code for f in attention(overdue, on)] == ["known-issue", "calibration-overdue"]
    unrated = InstrumentEntry(id="x", kind=kinds.TWO_POLE).held()
    assert [f.code for f in attention(unrated, on)] == ["rating-not-recorded"]


@given(st.dictionaries(st.sampled_from(ANSWERS), st.sampled_from(["good", "bad"])), st.sampled_from(ANSWERS))
def test_one_more_bad_answer_never_makes_it_fitter(found, worse):
    before = codes(CheckEntry(**found).applied(METER))
    after = codes(CheckEntry(**{**found, worse: "bad"}).applied(METER))
    assert before <= after
