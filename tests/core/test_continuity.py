"""What must be joined, what must not, and contacts."""

import pytest
from hypothesis import given

from evenprobe.wiring import conductor_named
from tests.core.judging import ORDER, judged, result, shown

RING = {"r1": 0.62, "rn": 0.62, "r2": 1.02}
RUN = {"conductor": "2.5 mm2", "length_m": 24}
sane = shown(0.0, 50.0)


def test_the_leads_come_off_and_the_run_is_what_is_left():
    found = judged("continuity", measured_ohm=0.32, null_ohm=0.14, **RUN)
    assert found["computed"] == {"corrected_ohm": 0.18, "expected_ohm": pytest.approx(0.1778, abs=1e-3)}
    assert found["result"] == "pass"
    assert found["limit"]["value"] == pytest.approx(0.2278, abs=1e-3)
    assert "60364-6" in found["limit"]["source"]


def test_a_poor_joint_is_more_than_the_run_explains():
    assert result("continuity", measured_ohm=0.75, null_ohm=0.14, **RUN) == "fail"


def test_a_limit_within_the_testers_error_is_neither_passed_nor_failed():
    near = {"measured_ohm": 0.23, "null_ohm": 0.0, **RUN}
    assert result("continuity", **near) == "borderline"
    finer = {"accuracy_percent": 0.1, "accuracy_counts": 1, "resolution": 0.001}
    assert result("continuity", **near, **finer) == "fail"


def test_an_open_conductor_fails_whatever_its_run():
    assert result("continuity", over_range=True) == "fail"


def test_without_a_length_it_can_only_be_noted():
    assert result("continuity", measured_ohm=0.3, null_ohm=0.1) == "note"
    assert result("continuity", measured_ohm=3.0, null_ohm=0.1) == "fail"


def test_warm_copper_has_more_and_aluminium_much_more():
    run = conductor_named("16 mm2")
    assert run.ohms(100, 70) / run.ohms(100, 20) == pytest.approx(1 + 50 * 0.00393)
    assert run.ohms(100, material="aluminium") / run.ohms(100) == pytest.approx(1.91 / 1.15, rel=0.02)


def test_no_temperature_is_said_to_be_taken_as_twenty():
    assert "20 °C" in judged("continuity", measured_ohm=0.2, null_ohm=0, **RUN)["text"]
    assert "20 °C" not in judged("continuity", measured_ohm=0.2, null_ohm=0, temperature_c=20, **RUN)["text"]


def test_less_than_the_leads_alone_does_not_count():
    for kind, more in (("continuity", {}), ("separation", {"system": "230"})):
        found = judged(kind, measured_ohm=0.1, null_ohm=0.4, **more)
        assert found["result"] == "invalid"
        assert "null" in found["text"]
    assert result("closed-contact", what="switch", open_over_range=True, closed_ohm=0.1, null_ohm=0.4) == "invalid"


def test_a_hair_below_the_null_is_the_probes_touch():
    assert result("continuity", measured_ohm=0.11, null_ohm=0.12, conductor="2.5 mm2", length_m=1) == "pass"


def test_worn_leads_keep_a_reading_from_passing():
    found = judged("continuity", measured_ohm=0.88, null_ohm=0.7, **RUN)
    assert found["result"] == "note"
    assert "leads" in found["text"]


def test_leads_left_in_are_said_to_be_in_it():
    assert "not nulled" in judged("continuity", measured_ohm=0.2, **RUN)["text"]


def test_milliohms_written_as_ohms_are_asked_about():
    assert "180 mΩ" in judged("continuity", measured_ohm=180, null_ohm=0, **RUN)["question"]
    assert "question" not in judged("continuity", measured_ohm=1.8, null_ohm=0, **RUN)


@given(sane, sane, shown(0, 0.5))
def test_a_higher_resistance_is_never_a_better_conductor(one, other, null):
    lower, higher = (result("continuity", measured_ohm=m, null_ohm=null, **RUN) for m in sorted((one, other)))
    if "invalid" not in (lower, higher):
        assert ORDER.index(lower) <= ORDER.index(higher)


def test_over_range_is_separate_and_says_what_comes_next():
    found = judged("separation", system="230", over_range=True)
    assert found["result"] == "pass"
    assert "insulation" in found["text"].lower()
    assert found["limit"]["value"] is None


@pytest.mark.parametrize(("ohms", "watts"), [(26.45, 2000), (53.0, 998), (529.0, 100)])
def test_a_short_of_some_ohms_is_shown_as_the_load_it_would_be(ohms, watts):
    found = judged("separation", system="230", measured_ohm=ohms, null_ohm=0)
    assert found["computed"]["load_w"] == pytest.approx(watts, rel=0.01)
    assert found["result"] == "fail"
    assert "load" in found["text"]


def test_between_two_lines_a_load_takes_their_voltage():
    between = {"system": "120/240", "measured_ohm": 14.4, "null_ohm": 0}
    assert judged("separation", **between, **{"from": "L1", "to": "L2"})["computed"]["load_w"] == pytest.approx(4000)
    assert judged("separation", **between, **{"from": "L1", "to": "N"})["computed"]["load_w"] == pytest.approx(1000)


def test_a_bolted_short_is_half_its_loop_away():
    found = judged("separation", system="230", measured_ohm=0.6, null_ohm=0.2, conductor="1.5 mm2")
    assert found["computed"]["distance_m"] == pytest.approx(16.5, abs=0.1)
    assert "17 m" in found["text"]


def test_no_ohms_at_all_take_no_number_of_watts():
    found = judged("separation", system="230", measured_ohm=0.1, null_ohm=0.1, conductor="1.5 mm2")
    assert (found["computed"]["load_w"], found["computed"]["distance_m"]) == (None, 0)


def test_a_leak_that_no_beeper_hears_is_no_insulation():
    found = judged("separation", system="230", measured_ohm=80_000, null_ohm=0)
    assert found["result"] == "fail"
    assert "beeper" in found["text"]


def test_megohms_are_for_an_insulation_test_to_decide():
    assert result("separation", system="230", measured_ohm=5e6, null_ohm=0) == "borderline"


def test_a_contact_must_open_as_well_as_close():
    good = {"what": "breaker", "open_over_range": True, "closed_ohm": 0.04, "null_ohm": 0}
    assert result("closed-contact", **good) == "pass"
    assert result("closed-contact", **{**good, "open_over_range": False}) == "fail"
    assert result("closed-contact", **{**good, "latches": False}) == "fail"
    assert result("closed-contact", **{**good, "closed_ohm": 0.3}) == "note"
    assert result("closed-contact", **{**good, "closed_ohm": 0.9}) == "fail"
    assert result("closed-contact", **{**good, "closed_ohm": 0.5}) == "borderline"
    assert result("closed-contact", **{**good, "closed_ohm": None, "closed_over_range": True}) == "fail"
    assert result("closed-contact", **{**good, "open_over_range": None}) == "note"
    assert result("closed-contact", **{**good, "closed_ohm": None}) == "note"


def test_a_fuse_has_nothing_to_open():
    assert result("closed-contact", what="fuse", closed_ohm=0.02, null_ohm=0) == "pass"
    assert "blown" in judged("closed-contact", what="fuse", closed_over_range=True)["text"]


def test_a_ring_without_a_break_reads_a_quarter_everywhere():
    found = judged(
        "ring",
        r1=0.62,
        rn=0.62,
        r2=1.02,
        points=[{"id": "a", "r1_rn": 0.31, "r1_r2": 0.41}, {"id": "b", "r1_rn": 0.32}],
    )
    assert found["result"] == "pass"
    assert found["computed"]["expected_r1_rn"] == pytest.approx(0.31)
    assert found["computed"]["expected_r1_r2"] == pytest.approx(0.41)
    assert found["computed"]["spurs"] == []


def test_a_spur_adds_its_length_to_both_pairs_and_a_poor_joint_to_one():
    spur = {"id": "spur", "r1_rn": 0.46, "r1_r2": 0.61}
    neutral = {"id": "loose", "r1_rn": 0.61, "r1_r2": 0.41}
    found = judged("ring", **RING, points=[spur])
    assert (found["result"], found["computed"]["spurs"]) == ("note", ["spur"])
    found = judged("ring", **RING, points=[spur, neutral])
    assert (found["result"], found["computed"]["spurs"], found["computed"]["poor_joints"]) == (
        "fail",
        ["spur"],
        ["loose"],
    )
    assert "poor neutral joint" in found["text"]


def test_a_broken_ring_fails_by_its_ends():
    found = judged("ring", r1=0.62, r2=1.02, over_range=["rn"])
    assert found["result"] == "fail"
    assert "neutral" in found["text"]


def test_ends_that_differ_are_not_one_cable():
    assert result("ring", r1=0.62, rn=0.95, r2=1.02, points=[{"id": "a", "r1_rn": 0.39}]) == "fail"


def test_a_ring_of_which_no_outlet_was_read_is_not_passed():
    assert result("ring", **RING) == "note"
