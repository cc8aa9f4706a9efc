"""What is a tester fit for: kind, rating of the weakest part, state, date; and what that means for a reading."""

from dataclasses import replace
from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from evenprobe.practices import NORTH_AMERICA, PRACTICES
from evenprobe.supplies import SYSTEMS
from evenprobe.testers import KINDS, kinds
from evenprobe.testers.fitness import Held, fitness
from evenprobe.testers.purposes import Purpose
from evenprobe.testers.ratings import Adapter, Category, Leads, Place, Rating, effective, volts_to_cover
from evenprobe.testers.tasks import Task

III_600, IV_1000, II_300 = Rating(Category.III, 600), Rating(Category.IV, 1000), Rating(Category.II, 300)
METER = Held("m", kinds.MULTIMETER, III_600, "meter", battery="ok", leads=Leads(III_600, True))
DETECTOR = Held("d", kinds.NON_CONTACT, IV_1000)
PLUG = Held("p", kinds.DIGITAL_PLUG_TESTER, III_600, battery="ok", test_ma=30)
INSULATION = Held(
    "i", kinds.INSULATION_TESTER, III_600, battery="ok", test_volts=(250, 500), leads=Leads(III_600, True)
)


def task(purpose="live-voltage", place="installation", system="120", practice="north-america", **more):
    return Task(Purpose(purpose), Place(place), SYSTEMS[system], PRACTICES[practice], **more)


def problems(held, **of_task):
    return {f.code for f in fitness(task(**of_task), held).problems}


def warnings(held, **of_task):
    return {f.code for f in fitness(task(**of_task), held).warnings}


def test_a_rated_meter_is_fit_for_building_wiring_and_not_for_the_origin():
    assert problems(METER) == set()
    assert problems(METER, place="origin") == {"category-too-low"}


def test_the_lowest_part_decides_and_is_marked():
    chained = replace(METER, adapters=(Adapter(II_300, name="banana adapter"),))
    found = fitness(task(), chained)
    assert found.effective == II_300
    assert [link.weakest for link in found.chain] == [False, False, True]
    assert "banana adapter" in found.problems[0].text


def test_tip_covers_off_is_category_two_whatever_the_lead_says():
    bare = replace(METER, leads=Leads(IV_1000, tip_covers=False))
    assert problems(bare) == {"category-too-low", "tip-covers-off"}
    assert problems(bare, place="plugged-in") == set()
    assert "tip-covers-off" in warnings(bare, place="plugged-in")


@pytest.mark.parametrize(
    ("place", "system", "line_to_line", "volts"),
    [
        ("installation", "120", None, 120),
        ("installation", "120", True, 240),
        ("installation", "120/240", None, 240),
        ("installation", "120/240", False, 120),
        ("installation", "208Y/120", None, 208),
        ("installation", "240-high-leg", None, 240),
        ("installation", "240-high-leg", False, 208),
        ("installation", "480Y/277", None, 480),
        ("installation", "230", True, 398),
        ("origin", "230/400", None, 398),
        ("plugged-in", "230/400", True, 230),
    ],
)
def test_the_voltage_to_cover_is_what_can_be_reached(place, system, line_to_line, volts):
    assert volts_to_cover(Place(place), SYSTEMS[system], line_to_line) == volts


def test_a_300_volt_tester_is_too_low_between_lines():
    low = replace(METER, rating=Rating(Category.III, 300))
    assert problems(low, system="230/400", practice="continental") == {"voltage-too-low"}
    assert problems(low, system="230/400", practice="continental", line_to_line=False) == set()
    assert "below-house-rule" in warnings(low)
    assert problems(low, house_rule=True) == {"below-house-rule"}


def test_leads_of_something_that_has_none_do_not_matter():
    assert fitness(task("screen"), replace(DETECTOR, leads=Leads(II_300, False))).effective == IV_1000


@pytest.mark.parametrize(
    ("light", "self_check", "battery", "fit"),
    [
        (False, None, "unknown", False),
        (None, None, "unknown", False),
        (True, None, "unknown", True),
        (False, True, "unknown", True),
        (False, None, "ok", True),
        (True, True, "low", False),
        (True, False, "ok", False),
    ],
)
def test_a_detector_that_may_be_flat_is_not_trusted(light, self_check, battery, fit):
    held = replace(DETECTOR, always_on_light=light, self_check=self_check, battery=battery)
    assert fitness(task("screen"), held).fit is fit


def test_an_unknown_battery_of_a_meter_is_a_warning():
    unknown = replace(METER, battery="unknown")
    assert problems(unknown) == set()
    assert "battery-unknown" in warnings(unknown)


@pytest.mark.parametrize(
    ("change", "code"),
    [
        ({"damaged": True}, "damaged"),
        ({"leads": Leads(III_600, True, damaged=True)}, "damaged"),
        ({"battery": "low"}, "battery-low"),
        ({"known_issue": "drops the first digit"}, "known-issue"),
        ({"calibration_due": date(2026, 11, 23)}, "calibration-overdue"),
        ({"functions": ("resistance",)}, "function-missing"),
        ({"rating": Rating()}, "category-too-low"),
        ({"self_check": False}, "self-check-failed"),
    ],
)
def test_each_thing_wrong_with_a_tester_is_named(change, code):
    assert code in problems(replace(METER, **change), on=date(2026, 11, 24))


def test_calibration_holds_through_its_last_day():
    assert problems(replace(METER, calibration_due=date(2026, 11, 24)), on=date(2026, 11, 24)) == set()


def test_a_button_below_the_device_s_current_can_never_trip_it():
    weak = replace(PLUG, test_ma=6)
    asked = {"purpose": "residual-current", "system": "230", "practice": "continental"}
    assert problems(weak, **asked, device_ma=30) == {"test-current-too-low"}
    assert problems(weak, **asked, device_ma=6) == set()
    assert problems(PLUG, **asked, device_ma=30) == set()
    assert problems(replace(PLUG, test_ma=None), **asked, device_ma=30) == {"test-current-too-low"}
    assert "device-not-named" in warnings(PLUG, **asked)


def test_insulation_wants_its_own_tester_and_test_voltage():
    assert problems(INSULATION, purpose="insulation", test_volts=500) == set()
    assert problems(INSULATION, purpose="insulation", test_volts=1000) == {"test-voltage-missing"}
    assert problems(METER, purpose="insulation") == {"wrong-kind"}


def test_resistive_leads_spoil_ohms_and_nothing_else():
    worn = replace(METER, leads=Leads(III_600, True, ohm=0.7))
    assert problems(worn, purpose="continuity") == {"leads-resistive"}
    assert problems(worn) == set()
    assert "leads-resistive" in warnings(replace(METER, leads=Leads(III_600, True, ohm=0.4)), purpose="continuity")


def test_a_blown_fuse_reads_zero_amperes():
    assert problems(replace(METER, fuse_blown=True), purpose="current") == {"fuse-blown"}


@pytest.mark.parametrize(
    "kind", [kinds.NON_CONTACT, kinds.LAMP_TESTER, kinds.DIGITAL_PLUG_TESTER, kinds.TONE_TRACER, kinds.LOW_OHM]
)
@pytest.mark.parametrize("practice", list(PRACTICES.values()))
def test_what_never_proves_dead(kind, practice):
    system = "120" if practice is NORTH_AMERICA else "230"
    assert "wrong-kind" in problems(Held("x", kind, IV_1000), purpose="prove-dead", practice=practice.id, system=system)


def test_every_kind_says_what_it_sees_and_is_blind_to():
    assert all(kind.says and kind.blind_to for kind in KINDS.values())


categories = st.sampled_from(list(Category))
ratings = st.builds(Rating, categories, st.sampled_from([300.0, 600.0, 690.0, 1000.0]))


@given(st.lists(ratings, min_size=1, max_size=5), ratings)
def test_one_more_part_never_makes_the_whole_better(parts, more):
    whole, with_more = effective(parts), effective([*parts, more])
    assert with_more.category <= whole.category
    assert with_more.volts <= whole.volts
    assert effective([*parts, more]) == effective([more, *parts])


@given(ratings, ratings, st.booleans(), st.sampled_from(list(Place)))
def test_a_better_rating_never_turns_fit_into_unfit(one, other, covers, place):
    held = replace(METER, rating=one, leads=Leads(other, covers))
    better = replace(METER, rating=IV_1000, leads=Leads(IV_1000, True))
    if fitness(task(place=place), held).fit:
        assert fitness(task(place=place), better).fit
