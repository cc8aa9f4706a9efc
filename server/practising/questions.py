"""What is asked of the core about a case: plain data in, an answer out, so that another process can be asked."""

import json
from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Any

from evenprobe.entries import parse_json
from evenprobe.formats import CaseFile, SurveyFile, parse
from evenprobe.formats.answers.debrief import DebriefOut, LookedBack
from evenprobe.formats.said import measured_said
from evenprobe.practising import Act, Case, Doing, Told, debrief, debrief_hunt, debrief_round, hint
from evenprobe.practising.sentences import HINTS
from evenprobe.quantities import Reading

_NOT_AT_HAND = "no tester of this case was named"


def debriefed(
    survey: str,
    case: Mapping[str, Any],
    acts: Sequence[Act],
    begun_s: float,
    testers: Mapping[str, str],
    did: Sequence[tuple[float, str]],
) -> dict[str, Any]:
    """The debrief of a case with what was recorded at it, and what was done in words.

    `testers`: the case's name of each, by its id there.
    """
    file = parse(CaseFile, case)
    own = file.case()
    found = debrief(own, _readings(survey, own, begun_s, testers), acts)
    return _as_kept(found, file, acts, testers, did)


def hunt_debriefed(
    case: Mapping[str, Any],
    told: Sequence[Told],
    acts: Sequence[Act],
    testers: Mapping[str, str],
    did: Sequence[tuple[float, str]],
) -> dict[str, Any]:
    """The same of a hunt, with what was told of it."""
    file = parse(CaseFile, case)
    return _as_kept(debrief_hunt(file.case(), told, acts), file, acts, testers, did)


def round_debriefed(
    surveys: str,
    case: Mapping[str, Any],
    acts: Sequence[Act],
    begun_s: float,
    testers: Mapping[str, str],
    did: Sequence[tuple[float, str]],
) -> dict[str, Any]:
    """The same of a round; `surveys`: what was recorded at each outlet, by the case's own ids."""
    file = parse(CaseFile, case)
    own = file.case()
    readings = {name: _readings(survey, own, begun_s, testers) for name, survey in json.loads(surveys).items()}
    return _as_kept(debrief_round(own, readings, acts), file, acts, testers, did)


def _as_kept(
    found: LookedBack,
    file: CaseFile,
    acts: Sequence[Act],
    testers: Mapping[str, str],
    did: Sequence[tuple[float, str]],
) -> dict[str, Any]:
    hints = sum(act.doing is Doing.HINT for act in acts)
    shown = DebriefOut.of(found, file.complaint, hints, testers, did).as_json()
    return {"shown": shown, "conclusion": str(found.conclusion), "mastered": found.is_mastered}


def hinted(survey: str, case: Mapping[str, Any], level: int, begun_s: float, testers: Mapping[str, str]) -> str:
    """A hint to whoever has read so much."""
    own = parse(CaseFile, case).case()
    found = own.interpreted(_readings(survey, own, begun_s, testers))
    return hint(own, found, level, lambda test: measured_said(test.measurement, own.point.practice))


def hinted_on_a_round(
    surveys: str, case: Mapping[str, Any], level: int, begun_s: float, testers: Mapping[str, str]
) -> str:
    """A hint about the first outlet that nothing settled yet."""
    own, recorded = parse(CaseFile, case).case(), json.loads(surveys)
    for name, outlet in own.outlets.items():
        found = outlet.interpreted(_readings(recorded[name], outlet, begun_s, testers))
        if not outlet.is_solved(found):
            said = hint(outlet, found, level, lambda test: measured_said(test.measurement, own.point.practice))
            return str(HINTS.say("at-an-outlet", one=outlet.name, said=said))
    return str(HINTS.say("all-settled"))


def _readings(survey: str, case: Case, begun_s: float, testers: Mapping[str, str]) -> list[Reading]:
    """In the order they were taken, at seconds since the case was opened, with its own testers; no other confirms."""
    file = parse(SurveyFile, parse_json(survey))
    kit = {tester.id: tester for tester in case.kit}
    found = []
    for reading in file.readings(file.single_point()):
        at = None if reading.at is None else reading.at - begun_s
        held = kit.get(testers.get(reading.measurement.instrument.id, ""))
        if held is None:
            found.append(replace(reading, at=at, unfit=_NOT_AT_HAND))
        else:
            found.append(replace(reading, at=at, measurement=replace(reading.measurement, instrument=held)))
    return found
