"""Practice cases: each that ships is solved by the planner, and whatever is wrong with a case is named."""

import json
from copy import deepcopy
from typing import Any

import pytest

from evenprobe import FormatError, cli, practise
from evenprobe.formats.case import shipped
from evenprobe.interpretation import interpret
from evenprobe.practices import PRACTICES
from evenprobe.practising import GoneRound, HuntedThrough, MadeDead, as_planned, play
from tests.core.test_library import CASE

SHIPPED = shipped()
FEWEST_SHIPPED = 24


@pytest.mark.parametrize("name", SHIPPED)
def test_the_planner_solves_every_shipped_case_in_the_minutes_it_claims(name):
    played = as_planned(SHIPPED[name].case())
    assert played.solved
    assert played.in_time
    if isinstance(played, MadeDead | GoneRound):
        return
    if isinstance(played, HuntedThrough):
        assert played.stands == {played.hunted.truth}
        return
    assert played.case.truth.id in {c.id for c in played.stands}, "the truth is never struck out"
    assert played.case.truth not in {c for turn in played.turns for c in turn.struck_out}


def test_what_ships_is_of_every_step_and_every_practice():
    assert len(SHIPPED) >= FEWEST_SHIPPED
    assert {file.step for file in SHIPPED.values()} == {1, 2, 3, 4}
    assert {file.installation.practice for file in SHIPPED.values()} == set(PRACTICES.values())
    assert len({file.title for file in SHIPPED.values()}) == len(SHIPPED)


def test_a_title_and_a_complaint_do_not_give_it_away():
    for file in SHIPPED.values():
        practice = file.installation.practice
        told = f"{file.title} {file.complaint}".lower()
        if not file.hidden.condition.id.startswith("correct"):
            assert file.hidden.condition.title_in(practice).lower() not in told


def test_a_case_is_the_same_each_time_it_is_opened():
    one, other = (play(SHIPPED["old-meter"].case()) for _ in range(2))
    assert one == other
    hidden, errors = one.case.begun()
    first = one.turns[0]
    assert hidden.read("reading 1", first.offered.measurement, errors, at=first.at_s) == first.reading


def test_a_debrief_says_what_each_reading_did():
    answer = practise(CASE).as_json()
    assert answer["solved"]
    assert answer["sound"]
    assert answer["hidden"] == "No supply: line open at the device"
    assert [turn["minute"] for turn in answer["turns"]] == sorted(turn["minute"] for turn in answer["turns"])
    first = answer["turns"][0]
    assert first["what"] == "L to N"
    assert "Correct" in first["struck_out"]
    assert first["shows"].endswith(" V")
    assert answer["minutes"] == answer["turns"][-1]["minute"]


def test_a_tester_that_is_not_proved_solves_nothing():
    case = SHIPPED["old-meter"].case()
    alone = play(type(case)(**{**vars(case), "kit": case.kit[:1]}))
    assert case.kit[0].proved is False
    assert not alone.solved
    assert interpret(case.point, [turn.reading for turn in alone.turns], case.kit[:1]).verdict != "correct"


def changed(path, value):
    content = deepcopy(CASE)
    *parents, last = path
    at: Any = content
    for key in parents:
        at = at[key]
    at[last] = value
    return content


@pytest.mark.parametrize(
    ("path", "value", "where", "why"),
    [
        (["hidden", "condition"], "same-leg", "solved.among", "must name what is hidden"),
        (["hidden", "condition"], "ghost", "hidden.condition", "must be 'correct'"),
        (["hidden", "seed"], -1, "hidden.seed", "0"),
        (["solved", "among"], [], "solved.among", "at_most how many"),
        (["solved", "at_most"], 2, "solved.among", "dead, found, each"),
        (["solved"], {"at_most": 0}, "solved.at_most", "1"),
        (["solved", "verdicts"], ["fine"], "solved.verdicts[0]", "must be"),
        (["minutes"], 0, "minutes", "0"),
        (["step"], 5, "step", "must be 1, 2, 3 or 4"),
        (["installation", "points"], [], "installation.points", "1"),
    ],
)
def test_what_is_wrong_with_a_case_is_named(path, value, where, why):
    with pytest.raises(FormatError) as refused:
        practise(changed(path, value))
    problems = dict(refused.value.problems)
    assert where in problems
    assert why in problems[where]


def test_a_case_has_one_point_that_nobody_has_read_yet():
    point = CASE["installation"]["points"][0]
    volts = {"quantity": "voltage", "from": "L", "to": "N", "value": 231.0}
    for points, why in (
        ([{**point, "readings": [volts]}], "without readings"),
        ([point, {**point, "id": "q"}], "one point"),
    ):
        with pytest.raises(FormatError, match=why):
            practise(changed(["installation", "points"], points))


def test_a_condition_that_cannot_be_true_there_is_named_with_those_that_can():
    content = changed(["hidden", "condition"], "same-leg")
    content["solved"]["among"].append("same-leg")
    with pytest.raises(FormatError, match="cannot be true here; use one of correct, "):
        practise(content)


def test_a_case_that_takes_longer_than_it_claims_is_not_sound(tmp_path, capsys):
    file = tmp_path / "case.json"
    file.write_text(json.dumps({**CASE, "minutes": 0.1}))
    assert cli.main(["practise", str(file)]) == 3
    answer = json.loads(capsys.readouterr().out)
    assert answer["solved"]
    assert not answer["sound"]
