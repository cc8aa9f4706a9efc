"""What testers show in practice is what the core predicts, within the tester's error; what acts lead to; debriefs."""

from dataclasses import replace
from datetime import date, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from evenprobe.conditions import conditions_for
from evenprobe.formats import FormatError
from evenprobe.formats.case import shipped
from evenprobe.formats.drawn import drawn
from evenprobe.practising import (
    Act,
    Case,
    Conclusion,
    Danger,
    Doing,
    Gone,
    Simulated,
    as_planned,
    debrief,
    due,
    learnt,
    play,
    progress,
)
from evenprobe.practising.acts import progress_at
from evenprobe.quantities import RESISTANCE, VOLTAGE, Measurement
from evenprobe.quantities.voltage import DRIFT
from evenprobe.testers import Instrument, kinds
from evenprobe.wiring.points import contact_pairs

METER = Instrument("meter", kinds.MULTIMETER, proved=True)
FILES = shipped()
PLACES = {name: FILES[name].case().point for name in ("cold-kettle", "hall-kettle", "dye-room-socket", "loom-neutral")}
KETTLE = FILES["cold-kettle"].case()


def of(point, truth, seed):
    return Case("any", point, truth, seed, (METER,), frozenset({truth.id}), 10)


@given(st.data())
def test_what_is_shown_is_what_is_predicted_within_the_tester_s_error(data):
    point = PLACES[data.draw(st.sampled_from(sorted(PLACES)))]
    truth = data.draw(st.sampled_from(conditions_for(point)))
    one, other = data.draw(st.sampled_from(contact_pairs(point.terminals)))
    simulated = Simulated(of(point, truth, data.draw(st.integers(0, 2**20))))
    device = data.draw(st.sampled_from(["closed", "open"]))
    measurement = Measurement(VOLTAGE, one, other, METER, device=device)
    shown = simulated.shows(measurement, device=device, at=data.draw(st.floats(0, 3600))).value
    predicted = float(simulated.hidden.samples.predicted(measurement)[0])
    ability = METER.volts()
    assert abs(shown - predicted) <= ability.error(predicted) + DRIFT.constant + DRIFT.share * predicted + 1e-9


def test_a_tester_errs_the_same_however_often_the_case_is_opened():
    measurement = Measurement(RESISTANCE, *contact_pairs(KETTLE.point.terminals)[0], METER, device="open")
    shown = [Simulated(KETTLE).shows(measurement, device="open", at=5.0).value for _ in range(2)]
    assert shown[0] == shown[1]


def test_what_a_tester_says_of_itself_is_seen_on_a_known_source_alone():
    lame = Instrument("lame", kinds.MULTIMETER, proved=False)
    simulated = Simulated(KETTLE)
    assert simulated.on_a_known_source(METER).value > 100
    assert simulated.on_a_known_source(lame).value < 5
    with pytest.raises(ValueError, match="shows no volts"):
        simulated.on_a_known_source(Instrument("low", kinds.LOW_OHM, proved=True))


@pytest.mark.parametrize("name", ["cold-kettle", "hall-kettle"])
def test_ohms_blow_on_what_is_live_and_on_nothing_else(name):
    case = FILES[name].case()
    simulated = Simulated(case)
    line, _, earth = case.point.terminals
    ohms = Measurement(RESISTANCE, line, earth, METER)
    assert simulated.blows(ohms, device="closed", at=1.0)
    assert not simulated.blows(ohms, device="open", at=1.0)
    assert not simulated.blows(Measurement(VOLTAGE, line, earth, METER), device="closed", at=1.0)
    assert simulated.is_live(device="closed", at=1.0)
    assert not simulated.is_live(device="open", at=1.0)


DOINGS = st.sampled_from([Doing.OFF, Doing.ON, Doing.LOCKED, Doing.UNLOCKED, Doing.HINT, Doing.SHOWN])


@given(st.lists(DOINGS, max_size=8), st.lists(DOINGS, max_size=8))
def test_nothing_that_is_done_after_the_end_changes_how_it_ended(before, after):
    end = Act(Doing.TOUCHED, 50.0, danger=Danger.TOUCHED_LIVE)
    acts = [Act(doing, float(n)) for n, doing in enumerate(before)]
    over = progress([*acts, end])
    assert over.is_over
    assert progress([*acts, end, *(Act(doing, 60.0) for doing in after)]) == over


@given(st.lists(st.sampled_from([Doing.OFF, Doing.ON]), min_size=1, max_size=6), st.floats(-1, 10))
def test_the_device_at_a_time_is_what_was_switched_last_by_then(switched, at_s):
    acts = [Act(doing, float(n)) for n, doing in enumerate(switched)]
    done = switched[: sum(n <= at_s for n in range(len(switched)))]
    assert progress_at(acts, at_s).device == ("open" if done and done[-1] is Doing.OFF else "closed")


def readings_of_the_planner():
    return [turn.reading for turn in play(KETTLE).turns]


@pytest.mark.parametrize(
    ("named", "taken", "conclusion"),
    [
        (["open-neutral"], 4, Conclusion.FOLLOWED),
        (["open-neutral"], 1, Conclusion.GUESSED),
        (["open-line"], 4, Conclusion.WRONG),
        (["open-neutral", "line-earth-swapped"], 3, Conclusion.LEFT_OPEN),
    ],
)
def test_a_conclusion_counts_where_the_readings_leave_nothing_else(named, taken, conclusion):
    end = Act(Doing.CONCLUDED, 400.0, conditions=frozenset(named))
    found = debrief(KETTLE, readings_of_the_planner()[:taken], [end])
    assert found.conclusion is conclusion
    assert found.is_mastered == (conclusion is Conclusion.FOLLOWED)
    assert KETTLE.truth not in {c for t in found.taken for c in t.struck_out}


def test_what_is_read_after_the_end_does_not_count():
    acts = [Act(Doing.CONCLUDED, 1.0, conditions=frozenset({"open-neutral"}))]
    found = debrief(KETTLE, readings_of_the_planner(), acts)
    assert found.taken == ()
    assert found.conclusion is Conclusion.GUESSED


def test_a_danger_met_is_never_mastered():
    acts = [Act(Doing.LOCKED, 1.0, danger=Danger.LIVE_LOCK), Act(Doing.CONCLUDED, 400.0, conditions={"open-neutral"})]
    found = debrief(KETTLE, readings_of_the_planner(), acts)
    assert found.conclusion is Conclusion.FOLLOWED
    assert not found.is_mastered


def test_said_to_be_on_what_was_off_is_a_slip():
    first, *_ = readings_of_the_planner()
    found = debrief(KETTLE, [first], [Act(Doing.OFF, 0.0), Act(Doing.CONCLUDED, 400.0)])
    assert [t.device for t in found.slips] == ["open"]


@given(st.lists(st.booleans(), min_size=1, max_size=8))
def test_what_was_missed_comes_back_at_once_and_what_goes_well_ever_later(went):
    day = date(2026, 12, 1)
    back = due([(day, well) for well in went])
    assert (back == day) == (not went[-1])
    assert due([*((day, well) for well in went), (day, True)]) >= back
    assert back <= day + timedelta(days=60)


@pytest.mark.parametrize("step", [1, 2, 3, 4])
def test_cases_without_end_can_be_played_and_are_as_hard_as_was_asked(step):
    files = [drawn(step, seed) for seed in range(40)]
    assert {file.step for file in files} == {step}
    hidden = {file.hidden.condition.id for file in files}
    assert len(hidden) >= (4 if step == 1 else 10)
    assert all(file.case().truth.id in {c.id for c in file.conditions()} for file in files)
    hunts = {file.circuit["hunt"] for file in files if file.circuit}
    assert hunts == (set() if step < 3 else {"short", "open", "chain"})
    assert all(as_planned(file.case()).in_time for file in files if file.circuit)
    lines = {len([t for t in file.installation.points[0].terminals if t.startswith("L")]) for file in files}
    assert lines == ({1} if step < 3 else {1, 2, 3})


@pytest.mark.parametrize(("step", "seed"), [(0, 1), (5, 1), (1, -1), (1, 2**31 + 1)])
def test_a_case_that_there_is_not_is_named(step, seed):
    with pytest.raises(FormatError):
        drawn(step, seed)


def test_a_drawn_case_is_solved_by_the_planner_and_keeps_the_truth():
    for seed in (1, 2, 3):
        case = drawn(1, seed).case()
        played = play(case)
        assert played.solved
        assert case.truth.id in {c.id for c in played.stands}


def test_ohms_written_down_as_others_are_a_slip():
    contacts = contact_pairs(KETTLE.point.terminals)[0]
    ohms = Measurement(RESISTANCE, *contacts, instrument=METER, device="open")
    shown = Simulated(KETTLE).shows(ohms, device="open", at=5.0)
    acts = [Act(Doing.OFF, 0.0), Act(Doing.CONCLUDED, 400.0)]
    for value, slips in ((shown.value, 0), (shown.value + 2.5, 1)):
        assert len(debrief(KETTLE, [replace(shown, id="r", value=value)], acts).slips) == slips


@given(
    st.lists(st.tuples(st.sampled_from("ab"), st.booleans(), st.sets(st.sampled_from(["guess", "touch"]))), max_size=9)
)
def test_a_case_is_as_mastered_as_it_went_last_and_a_slip_once_three_cases_went_without(went):
    gone = [Gone(about, well, frozenset({about}), frozenset(slips)) for about, well, slips in went]
    found = learnt(gone)
    last = {about: well for about, well, _ in went}
    assert found.about == found.testers == last
    for slip, mastered in found.slips.items():
        assert mastered is not any(slip in slips for _, _, slips in went[-3:])
    assert set(found.slips) == {slip for _, _, slips in went for slip in slips}
