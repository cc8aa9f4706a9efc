"""Dead tests as evidence at a point: what a conductor end to end, a lifted neutral and insulation rule out."""

from dataclasses import replace

import pytest

from evenprobe.interpretation import Verdict, interpret
from evenprobe.quantities import INSULATION, RESISTANCE, Measurement, Reading
from evenprobe.testers import Instrument, kinds
from evenprobe.wiring import Terminal
from tests.core.installations import outlet, read, standing, volts

LOW_OHM = Instrument("low-ohm", kinds.LOW_OHM, proved=True)
TESTER = Instrument("insulation", kinds.INSULATION_TESTER, proved=True)
LIVE = (volts("L-N", 119.8), volts("L-PE", 119.9), volts("N-PE", 0.1))
RUN = 0.115
"""22 m of 12 AWG."""


def ohms(pair: str, value: float | None, neutral="connected"):
    a, b = (Terminal(name) for name in pair.split(" "))
    measurement = Measurement(RESISTANCE, a, b, LOW_OHM, device="open", neutral=neutral)
    return Reading(f"{pair} {neutral}", measurement, value=value, over_range=value is None)


def insulation(pair: str, mohm: float, **how):
    a, b = (Terminal(name) for name in pair.split(" "))
    measurement = Measurement(INSULATION, a, b, TESTER, device="open", neutral="lifted")
    return Reading(f"{pair} insulation", measurement, value=mohm * 1e6, **{"test_volts": 500, **how})


EACH_CONDUCTOR = (
    ohms("PE BOARD-PE", RUN * 1.2, "lifted"),
    ohms("L BOARD-L", RUN),
    ohms("N BOARD-N", RUN),
    ohms("N PE", None, "lifted"),
)
UNDER_LOAD = (
    volts("L-N", 119.8, nothing_else_on=True),
    volts("L-N", 116.9, load_here_a=10.0, nothing_else_on=True),
)
"""The neutral holds at the source too."""
WHOLE = (*EACH_CONDUCTOR, *UNDER_LOAD)


def test_three_voltages_a_load_and_three_conductors_end_to_end_are_correct():
    assert read(outlet(), *LIVE, *WHOLE).verdict is Verdict.CORRECT


def test_none_of_them_can_be_left_out():
    for left_out in WHOLE:
        rest = [r for r in WHOLE if r is not left_out]
        assert read(outlet(), *LIVE, *rest).verdict in (Verdict.SAFE, Verdict.UNCONFIRMED)


def test_with_the_neutral_on_its_bar_a_false_earth_reads_like_a_good_one():
    on, off = (read(outlet(), *LIVE, ohms("PE BOARD-PE", RUN * 1.2, n)) for n in ("connected", "lifted"))
    assert {"neutral-earth-swapped", "earth-from-neutral"} <= standing(on)
    assert not {"neutral-earth-swapped", "earth-from-neutral", "high-resistance-earth"} & standing(off)


def test_an_earth_that_opens_with_the_neutral_is_made_of_it():
    found = standing(read(outlet(), *LIVE, ohms("PE BOARD-PE", None, "lifted")))
    assert "earth-from-neutral" in found
    assert "correct" not in found


def test_a_conductor_of_more_than_its_run_has_a_poor_joint():
    found = read(
        outlet(), *LIVE, ohms("PE BOARD-PE", RUN * 1.2, "lifted"), ohms("L BOARD-L", 1.3), ohms("N BOARD-N", RUN)
    )
    assert (found.verdict, standing(found)) == (Verdict.DEFECT, {"high-resistance-line"})


@pytest.mark.parametrize("joint", [0.2, 0.28])
def test_a_conductor_of_a_little_more_than_its_run_has_a_joint_that_is_a_little_poor(joint):
    """Joints are continuous: what is neither sound nor yet poor must not leave nothing that explains it."""
    whole = ohms("PE BOARD-PE", RUN * 1.2, "lifted"), ohms("N BOARD-N", RUN)
    found = read(outlet(), *LIVE, *whole, ohms("L BOARD-L", RUN + joint))
    assert (found.verdict, standing(found)) == (Verdict.DEFECT, {"high-resistance-line"})


def test_equipment_across_the_loop_may_hide_a_poor_joint_and_unplugged_hides_none():
    """Line and neutral joined at the board, both in one reading: less across them could be a load beside the joint."""
    joined = replace(ohms("L N", 2 * RUN).measurement, far_ends="joined")
    plugged_in = Reading("joined", joined, value=2 * RUN)
    unplugged = replace(plugged_in, measurement=replace(joined, nothing_else_on=True))
    poor = {"high-resistance-line", "high-resistance-neutral"}
    assert poor & standing(read(outlet(), *LIVE, plugged_in))
    assert not poor & standing(read(outlet(), *LIVE, unplugged))


def test_neutral_and_earth_joined_though_lifted_is_a_false_earth():
    found = standing(read(outlet(), *LIVE, ohms("N PE", 0.02, "lifted")))
    assert found == {"earth-from-neutral", "earth-from-neutral-swapped", "neutral-earth-joined-on-run"}


def test_insulation_between_lifted_neutral_and_earth_rules_a_link_out():
    found = standing(read(outlet(), *LIVE, insulation("N PE", 80)))
    assert "correct" in found
    assert not {"earth-from-neutral", "earth-from-neutral-swapped"} & found


def test_low_insulation_is_never_correct():
    assert read(outlet(), *LIVE, *WHOLE, insulation("L PE", 80)).verdict is Verdict.CORRECT
    failing = read(outlet(), *LIVE, *WHOLE, insulation("L PE", 0.3))
    assert failing.verdict is Verdict.HAZARD
    assert "Insulation" in failing.summary
    assert read(outlet(), *LIVE, *WHOLE, insulation("L PE", 1.02)).verdict is Verdict.UNCONFIRMED


@pytest.mark.parametrize("how", [{"test_volts": 250.0}, {"loads": "connected"}, {"unfit": "out of calibration"}])
def test_a_test_made_otherwise_cannot_pass_it_and_can_fail_it(how):
    passed = read(outlet(), *LIVE, *WHOLE, insulation("L PE", 80, **how))
    failed = read(outlet(), *LIVE, *WHOLE, insulation("L PE", 0.3, **how))
    assert [j.result for j in passed.judgements if j.limit.id == "insulation.least"] == []
    assert (passed.verdict, failed.verdict) == (Verdict.CORRECT, Verdict.HAZARD)


def test_what_was_measured_at_the_board_alone_is_no_test_of_the_point():
    good, bad = insulation("BOARD-L BOARD-PE", 80), insulation("BOARD-L BOARD-PE", 0.2)
    assert read(outlet(), good).verdict is Verdict.UNTESTED
    assert read(outlet(), bad).verdict is Verdict.HAZARD
    assert read(outlet(), good, ohms("L BOARD-L", RUN)).verdict is Verdict.UNCONFIRMED


def test_neutral_to_earth_on_its_bar_is_no_insulation_at_all():
    a, b = Terminal.N, Terminal.PE
    joined = Reading("n", Measurement(INSULATION, a, b, TESTER, device="open"), value=0.0, test_volts=500)
    found = read(outlet(), *LIVE, *WHOLE, joined)
    assert found.verdict is Verdict.CORRECT


def test_a_multimeter_puts_no_voltage_on_the_insulation():
    meter = Instrument("m", kinds.MULTIMETER)
    reading = Reading("i", Measurement(INSULATION, Terminal.L, Terminal.PE, meter, device="open"), value=5e7)
    assert [n.reading for n in read(outlet(), *LIVE, reading).not_counted] == ["i"]


def test_a_dead_test_is_offered_where_it_decides_and_ends_it():
    readings = [*LIVE, ohms("PE BOARD-PE", RUN * 1.2), *EACH_CONDUCTOR[1:], *UNDER_LOAD, ohms("N PE", None, "lifted")]
    found = interpret(outlet(), readings, [LOW_OHM])
    assert found.verdict is Verdict.UNCONFIRMED
    offered = found.next_tests[0].measurement
    assert (offered.quantity, offered.neutral) == (RESISTANCE, "lifted")
    done = Reading("offered", offered, value=RUN)
    assert interpret(outlet(), [*readings, done], [LOW_OHM]).verdict is Verdict.CORRECT
