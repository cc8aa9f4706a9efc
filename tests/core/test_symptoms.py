"""What was noticed orders what stands; it is no reading, and neither strikes out nor clears anything."""

import pytest

from evenprobe.conditions import CONDITIONS, SYMPTOMS
from evenprobe.entries import FormatError
from evenprobe.hunting.intake import HAPPENED
from evenprobe.interpretation import interpret
from evenprobe.interpretation.intermittent import INTERMITTENT
from evenprobe.library import interpret as interpret_file
from tests.core.installations import outlet, volts


@pytest.mark.parametrize("symptom", SYMPTOMS.values(), ids=str)
def test_it_moves_shares_and_nothing_else(symptom):
    readings = [volts("L-N", 0.4), volts("L-PE", 118.0)]
    before, after = interpret(outlet(), readings), interpret(outlet(), readings, noticed=[symptom])
    assert after.verdict is before.verdict
    shares = {o.condition.id: o.likelihood for o in before.conditions if o.standing}
    now = {o.condition.id: o.likelihood for o in after.conditions if o.standing}
    assert set(now) == set(shares)
    assert sum(now.values()) == pytest.approx(1.0)
    raised = {name: symptom.factors.get(name, 1) * share for name, share in shares.items()}
    total = sum(raised.values())
    assert now == pytest.approx({name: share / total for name, share in raised.items()})


def test_every_row_speaks_of_conditions_and_every_answer_of_the_intake_is_a_symptom():
    known = {*CONDITIONS, INTERMITTENT.id}
    assert {name for symptom in SYMPTOMS.values() for name in symptom.factors} <= known
    assert all(factor > 1 for symptom in SYMPTOMS.values() for factor in symptom.factors.values())
    assert set(SYMPTOMS) == set(HAPPENED)


def survey(noticed):
    point = {"id": "o", "kind": "outlet", "terminals": ["L", "N", "PE"], "noticed": noticed, "readings": []}
    supply = {"system": "120", "earthing": "TN-C-S"}
    head = {"format": "even-probe/survey", "version": 1, "practice": "north-america", "supply": supply}
    return {**head, "points": [point]}


def test_a_survey_says_what_was_noticed_and_anything_else_is_named():
    def leading(noticed):
        [point] = interpret_file(survey(noticed)).points
        return {condition.id: condition.likelihood for condition in point.conditions}["live-casing"]

    assert leading(["tingle"]) > 2 * leading([])
    with pytest.raises(FormatError) as refused:
        interpret_file(survey(["haunted"]))
    assert refused.value.problems[0][0] == "points[0].noticed[0]"
