"""Guided hunts: every way through them ends, figures choose by their physics, and what cannot be is told."""

import json
from collections.abc import Sequence

import pytest
from hypothesis import given
from hypothesis import strategies as st

from evenprobe.cli import main
from evenprobe.entries import FormatError
from evenprobe.hunting.findings import HuntState
from evenprobe.hunting.guided.figures import at_the_plug
from evenprobe.hunting.guided.guides import GUIDES
from evenprobe.hunting.guided.step import OVER, Facts, Guide, Step
from evenprobe.hunting.guided.walk import Told, Walk, walk
from evenprobe.hunting.guided.wording import said_in
from evenprobe.library import hunt
from evenprobe.practices import PRACTICES

FACTS = Facts(230.0, 16.0, 30.0)
POINTS = ["pad 1", "pad 2"]
CLEAR = {"L-PE": OVER, "N-PE": OVER, "L-N": OVER}
OHMS = st.one_of(st.just(OVER), st.floats(0.01, 1e8))
TO = {"V": 260, "A": 60, "min": 90, "mA": 60}
FIGURES = {"Ω": OHMS} | {unit: st.one_of(st.just(0.0), st.floats(0.01, most)) for unit, most in TO.items()}


@st.composite
def told_at(draw, step: Step, left: Sequence[str]):
    """Anything a person may tell at a step; of points, those that were not told yet."""
    choices = [o for o in step.to_tap if o.of_all or step.each != "point" or left] + ([None] if step.asks else [])
    outcome = draw(st.sampled_from(choices))
    named = step.names or (step.each and (outcome is None or not outcome.of_all))
    name = draw(st.sampled_from(left if step.each == "point" else POINTS)) if named else ""
    if outcome is None:
        return Told(step.id, None, name, {each.id: draw(FIGURES[each.unit]) for each in step.asks})
    return Told(step.id, outcome.id, name)


@st.composite
def walks(draw, most: int = 25):
    guide = draw(st.sampled_from(list(GUIDES.values())))
    seen: list[Told] = []
    while len(seen) < most and (found := walk(guide, seen, FACTS, POINTS)).at is not None:
        seen.append(draw(told_at(found.at, found.left)))
    return guide, seen


@given(walks())
def test_in_order_nothing_contradicts_and_every_step_says_what_chose_it(drawn):
    guide, seen = drawn
    found = walk(guide, seen, FACTS, POINTS)
    assert found.contradiction is None
    assert len(found.passed) == len(seen)
    assert all(str(passed.said.key) for passed in found.passed)
    assert (found.at is None) is (found.ending is not None)
    assert (found.state is HuntState.HUNTING) is (found.ending is None)


@given(walks(), st.sampled_from(list(PRACTICES.values())))
def test_every_text_has_the_words_of_every_practice(drawn, practice):
    guide, seen = drawn
    content = circuit(guide, seen, practice.id)
    answer = hunt(content)
    texts = [passed.said for passed in answer.path] + [passed.title for passed in answer.path]
    texts += answer.next.do if answer.next else answer.ending.do
    assert all(texts)
    assert not any("{" in text for text in texts)


@given(walks())
def test_the_last_taken_back_is_as_it_was_and_a_retry_changes_nothing(drawn):
    guide, seen = drawn
    if not seen:
        return
    before = walk(guide, seen[:-1], FACTS, POINTS)
    assert before.at is not None
    assert before.at.id == seen[-1].step
    after = walk(guide, seen, FACTS, POINTS)
    again = walk(guide, [*seen, seen[-1]], FACTS, POINTS)
    if after.at is not before.at:
        assert (again.state, again.at, again.ending) == (after.state, after.at, after.ending)


def circuit(guide: Guide, seen: list[Told], practice: str = "british", **more):
    entries = [
        {"step": told.step}
        | ({"outcome": told.outcome} if told.outcome else {})
        | ({"name": told.name} if told.name else {})
        | ({"figures": {k: "over" if v == OVER else v for k, v in told.figures.items()}} if told.figures else {})
        for told in seen
    ]
    head = {"format": "even-probe/circuit", "version": 1, "practice": practice, "hunt": guide.id}
    return {**head, "points": [{"id": name} for name in POINTS], "seen": entries, **more}


def ends_at(guide: Guide) -> set[str]:
    """Every step and ending that a row of outcomes leads to."""
    reached, to_go = {guide.steps[0].id}, [guide.steps[0]]
    while to_go:
        for outcome in to_go.pop().outcomes:
            if outcome.to not in reached:
                reached.add(outcome.to)
                step = guide.step(outcome.to)
                to_go += [step] if step else []
    return reached


@pytest.mark.parametrize("guide", GUIDES.values(), ids=str)
def test_every_row_leads_somewhere_and_every_step_and_ending_can_be_reached(guide):
    rows = {row.id for row in (*guide.steps, *guide.endings)}
    assert ends_at(guide) == rows


def tripped(*told: Told, **facts) -> Walk:
    start = [Told("off", "dead"), Told("device", "good"), Told("loads", "out")]
    return walk(GUIDES["tripped-device"], [*start, *told], Facts(230.0, **facts))


@given(st.floats(0.05, 1.9), st.sampled_from(["L-PE", "N-PE", "L-N"]))
def test_a_bolted_joint_is_halved_between_its_two(ohm, pair):
    found = tripped(Told("terminals", figures={**CLEAR, pair: ohm}))
    assert found.ending is not None
    assert found.ending.hunt == "short"
    assert "-".join(found.between or ()) == pair


@given(st.floats(20, 3000))
def test_a_load_that_is_still_in_is_a_load_and_never_a_short(watts):
    found = tripped(Told("terminals", figures={**CLEAR, "L-N": 230**2 / watts}))
    assert found.at is not None
    assert found.at.id == "loads"
    assert f"{watts:.0f} W" in said_in(PRACTICES["british"], found.passed[-1].said)


@given(st.floats(1, 4_900))
def test_no_load_lies_to_earth(ohm):
    assert tripped(Told("terminals", figures={**CLEAR, "N-PE": ohm})).ending is not None


@given(st.lists(st.floats(0.1, 20), min_size=1, max_size=12), st.sampled_from([5.0, 30.0, 100.0]))
def test_leaks_add_up_to_what_trips_the_device(leaks, rated):
    start = [Told("terminals", figures=CLEAR), Told("appliances", "all"), Told("attempt", "holds")]
    start += [Told("loads-back", "later"), Told("amperes", figures={"amperes": 3.0, "minutes": 4.0})]
    stays_in = 4.0 if rated == 5.0 else rated / 2
    told, enough = [], False
    for number, leak in enumerate(leaks):
        told.append(Told("leaks", name=f"a {number}", figures={"leak_ma": leak}))
        enough = sum(leaks[: number + 1]) > stays_in
        if enough:
            break
    found = tripped(*start, *told, rating_a=16.0, residual_ma=rated)
    assert (found.ending is not None) is enough


@given(st.floats(20, 230), st.floats(0, 1))
def test_a_tingle_that_holds_under_a_low_impedance_is_switched_off(volts, share):
    told = [Told("keep-off", "off"), Told("to-reference", figures={"volts": volts})]
    found = walk(GUIDES["tingle"], [*told, Told("low-impedance", figures={"volts": share * volts})], FACTS)
    assert found.at is not None
    assert found.at.id == ("unplug" if share * volts <= 0.2 * volts else "switch-off")


def test_what_was_told_twice_and_otherwise_is_told_with_both():
    found = tripped(Told("device", "welded"))
    assert found.state is HuntState.CONTRADICTORY
    assert found.contradiction is not None
    assert found.contradiction.between == (1, 3)
    assert "told twice" in str(found.contradiction.why)
    early = walk(GUIDES["tripped-device"], [Told("off", "dead"), Told("loads", "out")], FACTS)
    assert early.contradiction is not None
    assert early.contradiction.between == (0, 1)


def test_points_are_gone_round_and_those_that_went_dead_are_kept():
    guide = GUIDES["protective-outlet"]
    start = [Told("upstream", "tripped"), Told("measure", "feed"), Told("press-reset", "holds")]
    found = walk(guide, [*start, Told("press-test", "out"), Told("downstream", "dead", "pad 2")], FACTS, POINTS)
    assert found.left == ["pad 1"]
    assert [name for name, passed in found.gone_through.items() if passed.outcome.id == "dead"] == ["pad 2"]


@pytest.mark.parametrize(
    ("entry", "path"),
    [
        ({"step": "nothing", "outcome": "dead"}, "seen[0].step"),
        ({"step": "off", "outcome": "alive"}, "seen[0].outcome"),
        ({"step": "off"}, "seen[0].outcome"),
        ({"step": "off", "outcome": "dead", "name": "kettle"}, "seen[0].name"),
        ({"step": "appliances", "figures": {"L-N": 12.0}}, "seen[0].name"),
        ({"step": "terminals", "figures": {"L-N": 12.0, "L-PE": "over"}}, "seen[0].figures.N-PE"),
        ({"step": "terminals", "outcome": "clear"}, "seen[0].outcome"),
        ({"step": "amperes", "figures": {"amperes": "over", "minutes": 2.0}}, "seen[0].figures.amperes"),
    ],
)
def test_what_cannot_be_written_is_refused_with_its_path(entry, path):
    content = circuit(GUIDES["tripped-device"], []) | {"seen": [entry]}
    with pytest.raises(FormatError) as refused:
        hunt(content)
    assert refused.value.problems[0][0] == path


@given(st.floats(1, 60), st.floats(0.5, 59), st.sampled_from(["B", "C", "D", "thermal-magnetic", None]))
def test_a_current_the_curve_carries_is_no_overload(amperes, minutes, curve):
    told = [Told("terminals", figures=CLEAR), Told("appliances", "all"), Told("attempt", "holds")]
    told += [Told("loads-back", "later"), Told("amperes", figures={"amperes": amperes, "minutes": minutes})]
    found = tripped(*told, rating_a=20.0, curve=curve)
    carries = 1.0 if curve in (None, "thermal-magnetic") else 1.13
    assert (found.ending is not None) is (amperes > carries * 20.0)
    said = said_in(PRACTICES["british"], found.passed[-1].said)
    assert ("not the current" in said) is (amperes <= carries * 20.0)


@given(st.sampled_from(["dead", "live"]), st.sampled_from(["dead", "live"]))
def test_a_point_told_twice_is_once_where_alike_and_cannot_be_both(first, second):
    start = [Told("upstream", "tripped"), Told("measure", "feed"), Told("press-reset", "holds")]
    told = [*start, Told("press-test", "out"), Told("downstream", first, "pad 1"), Told("downstream", second, "pad 1")]
    found = walk(GUIDES["protective-outlet"], told, FACTS, POINTS)
    assert (found.contradiction is None) is (first == second)
    assert found.left == ["pad 2"]


def test_an_appliance_measured_again_counts_as_it_was_measured_last():
    start = [Told("terminals", figures=CLEAR), Told("appliances", "all"), Told("attempt", "holds")]
    start += [Told("loads-back", "later"), Told("amperes", figures={"amperes": 3.0, "minutes": 4.0})]
    leaks = [Told("leaks", name="kettle", figures={"leak_ma": each}) for each in (9.0, 2.0, 8.0)]
    assert tripped(*start, *leaks, rating_a=16.0, residual_ma=30.0).ending is None


@pytest.mark.parametrize(
    ("ohms", "outcome"),
    [
        ({"L-N": 0.2}, "appliance"),
        ({"N-PE": 40_000.0}, "appliance"),
        ({"L-N": 19.0}, None),
        ({}, None),
    ],
)
def test_an_appliance_is_at_fault_by_earth_or_a_short_and_never_by_its_load(ohms, outcome):
    judged = at_the_plug({**CLEAR, **ohms}, FACTS)
    assert judged.outcome == outcome


def test_the_command_walks_a_guided_hunt(tmp_path, capsys):
    path = tmp_path / "tripped.json"
    path.write_text(json.dumps(circuit(GUIDES["tripped-device"], [Told("off", "dead"), Told("device", "welded")])))
    assert main(["hunt", str(path)]) == 0
    assert json.loads(capsys.readouterr().out)["ending"]["title"].endswith("treat the circuit as live")
    path.write_text(json.dumps(circuit(GUIDES["tingle"], [Told("off", "dead")])))
    assert main(["hunt", str(path)]) == 2
    assert "seen[0].step" in capsys.readouterr().err
