"""A round as a case: each outlet is settled by its own readings, and what is named is held against what is wrong."""

import json

import pytest

from evenprobe.conditions import CONDITIONS
from evenprobe.entries import FormatError, parse
from evenprobe.formats import CaseFile
from evenprobe.formats.answers.debrief import DebriefOut
from evenprobe.formats.case import shipped
from evenprobe.practising import Act, Conclusion, Danger, Doing, Simulated, debrief_round, go_round, wrong_outlets
from evenprobe.quantities import VOLTAGE, Measurement
from evenprobe.wiring import Terminal

FILE = shipped()["pier-pads-round"]
PADS = FILE.case()
GONE = go_round(PADS)
AS_PLANNED = {name: [turn.reading for turn in at.turns] for name, at in zip(PADS.outlets, GONE.outlets, strict=True)}


def debriefed(readings, *named, danger=None):
    acts = [Act(Doing.OFF, 1.0, danger=danger)] if danger else []
    return debrief_round(PADS, readings, [*acts, Act(Doing.CONCLUDED, 1e6, conditions=frozenset(named))])


def test_the_planner_settles_every_outlet_and_strikes_out_no_truth():
    assert GONE.in_time
    assert wrong_outlets(PADS) == {"east", "west"}
    for at in GONE.outlets:
        assert at.case.truth.id in {c.id for c in at.stands}


def test_outlets_of_a_circuit_have_one_supply_and_the_meter_errs_alike_at_all():
    line_to_neutral = [
        Simulated(outlet).shows(Measurement(VOLTAGE, Terminal.L, Terminal.N, PADS.kit[-1]), device="closed", at=60.0)
        for outlet in PADS.outlets.values()
    ]
    volts = [reading.value or 0.0 for reading in line_to_neutral]
    assert max(volts) - min(volts) < 3


@pytest.mark.parametrize(
    ("readings", "named", "conclusion"),
    [
        (AS_PLANNED, ("east", "west"), Conclusion.FOLLOWED),
        (AS_PLANNED, ("east", "west", "north"), Conclusion.LEFT_OPEN),
        (AS_PLANNED, ("east",), Conclusion.WRONG),
        (AS_PLANNED, (), Conclusion.WRONG),
        ({**AS_PLANNED, "south": []}, ("east", "west"), Conclusion.GUESSED),
    ],
)
def test_what_is_named_is_held_against_what_is_wrong_and_what_the_readings_settle(readings, named, conclusion):
    found = debriefed(readings, *named)
    assert found.conclusion is conclusion
    assert found.is_mastered is (conclusion is Conclusion.FOLLOWED)
    shown = DebriefOut.of(found, "", 0, {})
    assert "pier east" in shown.said
    assert len(shown.taken) == sum(map(len, readings.values())) == shown.readings
    assert found.is_economical is (readings is AS_PLANNED)


def test_a_danger_on_the_way_is_not_mastered():
    assert not debriefed(AS_PLANNED, "east", "west", danger=Danger.LIVE_LOCK).is_mastered


def changed(**parts):
    content = json.loads(FILE.model_dump_json(by_alias=True, exclude_none=True))
    return content | {name: content[name] | part if isinstance(part, dict) else part for name, part in parts.items()}


SYSTEM_OF_THREE = next(c.id for c in CONDITIONS.values() if c.id == "phase-sequence-reversed")


@pytest.mark.parametrize(
    ("parts", "path"),
    [
        ({"hidden": {"elsewhere": {"up": "correct"}}}, "hidden.elsewhere.up"),
        ({"hidden": {"elsewhere": {"east": SYSTEM_OF_THREE}}}, "hidden.elsewhere.east"),
        ({"hidden": {"elsewhere": {"east": "gremlin"}}}, "hidden.elsewhere.east"),
        ({"solved": {"each": False, "at_most": 3}}, "installation.points"),
        ({"solved": {"at_most": 3}}, "solved.among"),
        ({"installation": {"points": FILE.model_dump(mode="json", exclude_none=True)["installation"]["points"][:1]}},
         "installation.points"),
    ],
)  # fmt: skip
def test_whatever_is_wrong_with_a_round_in_a_case_is_named(parts, path):
    with pytest.raises(FormatError) as refused:
        parse(CaseFile, changed(**parts))
    assert any(problem[0].startswith(path) for problem in refused.value.problems), refused.value.problems
