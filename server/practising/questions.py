"""What is asked of the core about a case: plain data in, an answer out, so that another process can be asked."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Any

from evenprobe.entries import parse_json
from evenprobe.formats import CaseFile, SurveyFile, parse
from evenprobe.formats.answers.practice import DebriefOut
from evenprobe.formats.said import measured_said
from evenprobe.practising import Act, Case, Debrief, Doing, HuntDebrief, Told, debrief, debrief_hunt, hint
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


def _as_kept(
    found: Debrief | HuntDebrief,
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
