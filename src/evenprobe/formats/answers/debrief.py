"""A case as somebody went through it: each reading, what it struck out, when it was known, and what was safe."""

from collections.abc import Iterable, Mapping, Sequence
from typing import Any

from pydantic import Field

from evenprobe.formats.answers.answer import Answer
from evenprobe.formats.answers.practice import TurnOut, hidden_said, minute_of, turns_of
from evenprobe.formats.looks import ahead_said, look_said
from evenprobe.formats.said import measured_said, shown_said
from evenprobe.formats.words import VerdictWord
from evenprobe.practices import Practice
from evenprobe.practising import Conclusion, Debrief, HuntDebrief, RoundDebrief
from evenprobe.practising.acts import Met
from evenprobe.practising.debrief import Taken
from evenprobe.practising.hunt_debrief import LookBack
from evenprobe.practising.hunted import Hunted
from evenprobe.practising.sentences import CONCLUSIONS, DANGERS

LookedBack = Debrief | HuntDebrief | RoundDebrief
"""On a case of whatever sort."""


class DoneOut(Answer):
    """What somebody did, in words, and when."""

    minute: float
    said: str


class MetOut(Answer):
    """A danger, and when."""

    minute: float
    danger: str
    text: str

    @classmethod
    def of(cls, met: Met, testers: Mapping[str, str]) -> "MetOut":
        """`testers`: what each is called, by its id."""
        about = {"tester": testers.get(met.tester, met.tester)} if met.tester else {}
        return cls(minute=minute_of(met.at_s), danger=str(met.danger), text=str(DANGERS.say(met.danger, **about)))


class PractisedReading(Answer):
    """A reading looked back on. `better`: what would have ruled out more then, and how many; `slip`: what was wrong."""

    minute: float
    what: str
    with_: str = Field(alias="with")
    recorded: str
    slip: str
    counted: bool
    struck_out: list[str]
    better: str
    better_rules_out: int
    settled: bool
    verdict: VerdictWord | None = None

    @classmethod
    def of_look(
        cls, taken: LookBack, hunted: Hunted, practice: Practice, testers: Mapping[str, str]
    ) -> "PractisedReading":
        where, seen = look_said(taken.told.seen, practice)
        tester = taken.told.tester
        return cls(
            minute=minute_of(taken.told.at_s),
            what=where,
            with_=testers.get(tester, tester),
            recorded=seen,
            slip=_slip_of_look(taken, practice),
            counted=True,
            struck_out=[hunted.suspects[name] for name in taken.struck_out],
            better=ahead_said(hunted, taken.better, practice) if taken.better else "",
            better_rules_out=taken.better_rules_out,
            settled=taken.settled,
        )

    @classmethod
    def of(cls, taken: Taken, practice: Practice, testers: Mapping[str, str], outlet: str = "") -> "PractisedReading":
        """`outlet`: of a round, where it was taken."""
        measurement, better = taken.reading.measurement, taken.better
        return cls(
            minute=minute_of(taken.reading.at or 0.0),
            what=f"{outlet}: {measured_said(measurement, practice)}"
            if outlet
            else measured_said(measurement, practice),
            with_=testers.get(measurement.instrument.id, measurement.instrument.id),
            recorded=shown_said(taken.reading, practice),
            slip=_slip(taken, practice),
            counted=taken.counted,
            struck_out=[condition.title_in(practice) for condition in taken.struck_out],
            better="" if better is None else measured_said(better.measurement, practice),
            better_rules_out=0 if better is None else len(better.rules_out),
            settled=taken.settled,
            verdict=str(taken.verdict),
        )


def _slip(taken: Taken, practice: Practice) -> str:
    if taken.device is not None:
        return f"said with the device {taken.reading.measurement.device}; it was {taken.device}"
    return "" if taken.shown is None else f"the display had {shown_said(taken.shown, practice)}"


def _slip_of_look(taken: LookBack, practice: Practice) -> str:
    if taken.unopened:
        return "the box was not open"
    return "" if taken.instead is None else f"it was {look_said(taken.instead, practice)[1]}"


class DebriefOut(Answer):
    """A case looked back on. `mastered`: concluded from what was read, and safely. `planner`: its own way through.

    `certain_after`: the reading, from 1, after which the answer was certain. `did`: what was done beside reading.
    """

    title: str
    complaint: str
    hidden: str
    notice: str
    mend: str
    conclusion: str
    said: str
    mastered: bool
    to_be_made_dead: bool = False
    hunted: bool = False
    round: bool = False
    economical: bool = False
    dangers: list[MetOut]
    taken: list[PractisedReading]
    certain_after: int | None
    readings: int
    minutes: float
    planner: list[TurnOut]
    planner_minutes: float
    did: list[DoneOut] = []
    hints: int
    slips: int

    @classmethod
    def of(
        cls,
        found: LookedBack,
        complaint: str,
        hints: int,
        testers: Mapping[str, str],
        did: Sequence[tuple[float, str]] = (),
    ) -> "DebriefOut":
        case, practice = found.case, found.case.point.practice
        return cls(
            title=case.name,
            complaint=complaint,
            hidden=hidden_said(case),
            conclusion=str(found.conclusion),
            mastered=found.is_mastered,
            to_be_made_dead=case.to_be_made_dead,
            hunted=case.hunted is not None,
            round=bool(case.outlets),
            economical=found.is_economical,
            dangers=[MetOut.of(met, testers) for met in found.met],
            minutes=minute_of(found.seconds),
            planner=turns_of(found.planner, practice),
            planner_minutes=minute_of(found.planner.seconds),
            did=[DoneOut(minute=minute_of(at_s), said=said) for at_s, said in did],
            hints=hints,
            **_own(found, testers),
        )


def _own(found: LookedBack, testers: Mapping[str, str]) -> dict[str, Any]:
    """What is told of a case of its sort alone."""
    match found:
        case RoundDebrief():
            return _of_a_round(found, testers)
        case HuntDebrief():
            return _of_a_hunt(found, testers)
    return _of_readings(found, testers)


def _of_readings(found: Debrief, testers: Mapping[str, str]) -> dict[str, Any]:
    case, practice = found.case, found.case.point.practice
    return {
        "notice": "" if case.to_be_made_dead else practice.in_words(case.truth.symptom),
        "mend": "" if case.to_be_made_dead else practice.in_words(case.truth.remedy),
        "said": _said_of_dead(found) if case.to_be_made_dead else _said(found),
        "taken": [PractisedReading.of(taken, practice, testers) for taken in found.taken],
        "certain_after": found.certain_after,
        "readings": len(found.taken),
        "slips": len(found.slips),
    }


def _of_a_hunt(found: HuntDebrief, testers: Mapping[str, str]) -> dict[str, Any]:
    practice, hunted = found.case.point.practice, found.planner.hunted
    return {
        "notice": "",
        "mend": "",
        "said": _said_of_found(found, hunted),
        "taken": [PractisedReading.of_look(taken, hunted, practice, testers) for taken in found.taken],
        "certain_after": found.certain_after,
        "readings": len(found.taken),
        "slips": sum(taken.is_slip for taken in found.taken),
    }


def _of_a_round(found: RoundDebrief, testers: Mapping[str, str]) -> dict[str, Any]:
    practice = found.case.point.practice
    taken = [
        (own.reading.at or 0.0, PractisedReading.of(own, practice, testers, each.case.name))
        for each in found.each.values()
        for own in each.taken
    ]
    return {
        "notice": "",
        "mend": "",
        "said": _said_of_a_round(found),
        "taken": [shown for _, shown in sorted(taken, key=lambda each: each[0])],
        "certain_after": None if found.open else found.readings,
        "readings": found.readings,
        "slips": sum(len(each.slips) for each in found.each.values()),
    }


def _said_of_a_round(found: RoundDebrief) -> str:
    outlets, named = found.case.outlets, found.concluded

    def said(names: Iterable[str]) -> str:
        kept = set(names)
        return ", ".join(outlet.name for name, outlet in outlets.items() if name in kept) or "none"

    about = {
        "wrong": said(found.wrong), "open": said(found.open), "more": said(named - found.wrong),
        "missed": said(found.wrong - named),
    }  # fmt: skip
    return str(CONCLUSIONS.say(f"round-{found.conclusion}", **about))


def _said_of_found(found: HuntDebrief, hunted: Hunted) -> str:
    others = (*found.others, *found.left)
    other = _within(hunted.suspects[others[0]]) if others else "nothing else"
    truth = _within(hunted.suspects[hunted.truth])
    key = "found" if found.conclusion is Conclusion.FOLLOWED else f"found-{found.conclusion}"
    return str(CONCLUSIONS.say(key, truth=truth, other=other))


def _within(title: str) -> str:
    """Within a sentence."""
    return f"{title[:1].lower()}{title[1:]}"


def _said(found: Debrief) -> str:
    case, practice = found.case, found.case.point.practice
    other = next((c.name_in(practice) for c in (*found.others, *found.left)), "nothing else")
    return str(CONCLUSIONS.say(found.conclusion, truth=case.truth.name_in(practice), other=other))


def _said_of_dead(found: Debrief) -> str:
    feed = found.case.other_feed
    if found.conclusion is Conclusion.FOLLOWED:
        return str(CONCLUSIONS.say("dead-twice-fed" if feed else "dead", feed=feed))
    return str(CONCLUSIONS.say("still-fed" if feed else "not-proved", feed=feed))
