"""What is asked of the core about a case: plain data in, an answer out, so that another process can be asked."""

import json
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any

from evenprobe.entries import parse_json
from evenprobe.formats import CaseFile, SurveyFile, parse
from evenprobe.formats.answers.debrief import DebriefOut, LookedBack
from evenprobe.formats.said import measured_said
from evenprobe.interpretation import PointInterpretation
from evenprobe.practising import Act, Case, Doing, Told, debrief, debrief_hunt, debrief_round, hint
from evenprobe.practising.sentences import HINTS
from evenprobe.quantities import Reading

_NOT_AT_HAND = "no tester of this case was named"


@dataclass(frozen=True)
class Went:
    """Somebody's way through a case. `case`: the file; `begun_s`: when it was opened, by the clock.

    `testers`: the case's name of each, by its id there; `acts`: what was done, and `did` the same in words.
    """

    case: Mapping[str, Any]
    begun_s: float
    testers: Mapping[str, str]
    acts: Sequence[Act] = ()
    did: Sequence[tuple[float, str]] = ()

    @cached_property
    def file(self) -> CaseFile:
        return parse(CaseFile, self.case)


def debriefed(survey: str, went: Went) -> dict[str, Any]:
    """The debrief of a case with what was recorded at it."""
    own = went.file.case()
    return _as_kept(debrief(own, _readings(survey, own, went), went.acts), went)


def hunt_debriefed(told: Sequence[Told], went: Went) -> dict[str, Any]:
    """The same of a hunt, with what was told of it."""
    return _as_kept(debrief_hunt(went.file.case(), told, went.acts), went)


def round_debriefed(surveys: str, went: Went) -> dict[str, Any]:
    """The same of a round; `surveys`: what was recorded at each outlet, by the case's own ids."""
    own = went.file.case()
    readings = {name: _readings(survey, own, went) for name, survey in json.loads(surveys).items()}
    return _as_kept(debrief_round(own, readings, went.acts), went)


def _as_kept(found: LookedBack, went: Went) -> dict[str, Any]:
    hints = sum(act.doing is Doing.HINT for act in went.acts)
    shown = DebriefOut.of(found, went.file.complaint, hints, went.testers, went.did).as_json()
    return {"shown": shown, "conclusion": str(found.conclusion), "mastered": found.is_mastered}


def hinted(survey: str, went: Went, level: int) -> str:
    """A hint to whoever has read so much."""
    own = went.file.case()
    return _hint(own, own.interpreted(_readings(survey, own, went)), level)


def hinted_on_a_round(surveys: str, went: Went, level: int) -> str:
    """A hint about the first outlet that nothing settled yet."""
    recorded = json.loads(surveys)
    for name, outlet in went.file.case().outlets.items():
        found = outlet.interpreted(_readings(recorded[name], outlet, went))
        if not outlet.is_solved(found):
            return str(HINTS.say("at-an-outlet", one=outlet.name, said=_hint(outlet, found, level)))
    return str(HINTS.say("all-settled"))


def _hint(case: Case, found: PointInterpretation, level: int) -> str:
    return hint(case, found, level, lambda test: measured_said(test.measurement, case.point.practice))


def _readings(survey: str, case: Case, went: Went) -> list[Reading]:
    """In the order they were taken, at seconds since the case was opened, with its own testers; no other confirms."""
    file = parse(SurveyFile, parse_json(survey))
    kit = {tester.id: tester for tester in case.kit}
    found = []
    for reading in file.readings(file.single_point()):
        at = None if reading.at is None else reading.at - went.begun_s
        held = kit.get(went.testers.get(reading.measurement.instrument.id, ""))
        if held is None:
            found.append(replace(reading, at=at, unfit=_NOT_AT_HAND))
        else:
            found.append(replace(reading, at=at, measurement=replace(reading.measurement, instrument=held)))
    return found
