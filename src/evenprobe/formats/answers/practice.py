"""A case as it was played and as somebody went through it: each reading, what it struck out, when it was known."""

from collections.abc import Mapping, Sequence
from typing import Any

from pydantic import Field

from evenprobe.formats.answers.answer import Answer
from evenprobe.formats.looks import ahead_said, look_said
from evenprobe.formats.said import measured_said, shown_said
from evenprobe.formats.words import VerdictWord
from evenprobe.practices import Practice
from evenprobe.practising import (
    Case,
    Conclusion,
    Debrief,
    HuntDebrief,
    HuntedThrough,
    LookTaken,
    MadeDead,
    Played,
    Turn,
    WorkStep,
)
from evenprobe.practising.acts import Met
from evenprobe.practising.debrief import Taken
from evenprobe.practising.hunt_debrief import LookBack
from evenprobe.practising.hunted import Hunted
from evenprobe.practising.sentences import CONCLUSIONS, DANGERS


class TurnOut(Answer):
    """`minute`: when it was written down; `struck_out`: titles of what stood before and no more.

    `verdict`: what the readings came to then; left out of a step of a proof.
    """

    minute: float
    what: str
    with_: str = Field(alias="with")
    shows: str
    struck_out: list[str]
    verdict: VerdictWord | None = None

    @classmethod
    def of_step(cls, done: WorkStep, tester: str, practice: Practice) -> "TurnOut":
        """A step of a proof; the tester is named where it showed something."""
        text = done.step.text
        return cls(
            minute=_minute(done.at_s),
            what=text[0].upper() + text[1:],
            with_="" if done.shown is None else tester,
            shows="" if done.shown is None else shown_said(done.shown, practice),
            struck_out=[],
        )

    @classmethod
    def of_look(cls, taken: LookTaken, hunted: Hunted, practice: Practice) -> "TurnOut":
        where, seen = look_said(taken.seen, practice)
        return cls(
            minute=_minute(taken.at_s),
            what=where,
            with_="",
            shows=seen,
            struck_out=[hunted.suspects[name] for name in taken.struck_out],
        )

    @classmethod
    def of(cls, turn: Turn, practice: Practice) -> "TurnOut":
        return cls(
            minute=_minute(turn.at_s),
            what=measured_said(turn.offered.measurement, practice),
            with_=turn.offered.measurement.instrument.id,
            shows=shown_said(turn.reading, practice),
            struck_out=[condition.title_in(practice) for condition in turn.struck_out],
            verdict=str(turn.verdict),
        )


def _turns(planner: Played | MadeDead | HuntedThrough, practice: Practice) -> list[TurnOut]:
    if isinstance(planner, HuntedThrough):
        return [TurnOut.of_look(look, planner.hunted, practice) for look in planner.looks]
    if isinstance(planner, MadeDead):
        return [TurnOut.of_step(step, planner.tester, practice) for step in planner.steps]
    return [TurnOut.of(turn, practice) for turn in planner.turns]


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
        return cls(minute=_minute(met.at_s), danger=str(met.danger), text=str(DANGERS.say(met.danger, **about)))


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
            minute=_minute(taken.told.at_s),
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
    def of(cls, taken: Taken, practice: Practice, testers: Mapping[str, str]) -> "PractisedReading":
        measurement, better = taken.reading.measurement, taken.better
        return cls(
            minute=_minute(taken.reading.at or 0.0),
            what=measured_said(measurement, practice),
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
        found: Debrief | HuntDebrief,
        complaint: str,
        hints: int,
        testers: Mapping[str, str],
        did: Sequence[tuple[float, str]] = (),
    ) -> "DebriefOut":
        case, practice = found.case, found.case.point.practice
        own = _of_a_hunt(found, testers) if isinstance(found, HuntDebrief) else _of_readings(found, testers)
        return cls(
            title=case.name,
            complaint=complaint,
            hidden=_hidden(case),
            conclusion=str(found.conclusion),
            mastered=found.is_mastered,
            to_be_made_dead=case.to_be_made_dead,
            hunted=case.hunted is not None,
            economical=found.is_economical,
            dangers=[MetOut.of(met, testers) for met in found.met],
            certain_after=found.certain_after,
            readings=len(found.taken),
            minutes=_minute(found.seconds),
            planner=_turns(found.planner, practice),
            planner_minutes=_minute(found.planner.seconds),
            did=[DoneOut(minute=_minute(at_s), said=said) for at_s, said in did],
            hints=hints,
            **own,
        )


def _of_readings(found: Debrief, testers: Mapping[str, str]) -> dict[str, Any]:
    case, practice = found.case, found.case.point.practice
    return {
        "notice": "" if case.to_be_made_dead else practice.in_words(case.truth.symptom),
        "mend": "" if case.to_be_made_dead else practice.in_words(case.truth.remedy),
        "said": _said_of_dead(found) if case.to_be_made_dead else _said(found),
        "taken": [PractisedReading.of(taken, practice, testers) for taken in found.taken],
        "slips": len(found.slips),
    }


def _of_a_hunt(found: HuntDebrief, testers: Mapping[str, str]) -> dict[str, Any]:
    practice, hunted = found.case.point.practice, found.planner.hunted
    return {
        "notice": "",
        "mend": "",
        "said": _said_of_found(found, hunted),
        "taken": [PractisedReading.of_look(taken, hunted, practice, testers) for taken in found.taken],
        "slips": sum(taken.is_slip for taken in found.taken),
    }


def _said_of_found(found: HuntDebrief, hunted: Hunted) -> str:
    others = (*found.others, *found.left)
    other = _within(hunted.suspects[others[0]]) if others else "nothing else"
    truth = _within(hunted.suspects[hunted.truth])
    key = "found" if found.conclusion is Conclusion.FOLLOWED else f"found-{found.conclusion}"
    return str(CONCLUSIONS.say(key, truth=truth, other=other))


def _within(title: str) -> str:
    """Within a sentence."""
    return f"{title[:1].lower()}{title[1:]}"


def _hidden(case: Case) -> str:
    """What it was, in words."""
    if case.hunted is not None:
        return case.hunted.suspects[case.hunted.truth]
    if case.to_be_made_dead:
        return f"Also fed by {case.other_feed}" if case.other_feed else "Fed by its own device alone"
    return case.truth.title_in(case.point.practice)


def _said(found: Debrief) -> str:
    case, practice = found.case, found.case.point.practice
    other = next((c.name_in(practice) for c in (*found.others, *found.left)), "nothing else")
    return str(CONCLUSIONS.say(found.conclusion, truth=case.truth.name_in(practice), other=other))


def _said_of_dead(found: Debrief) -> str:
    feed = found.case.other_feed
    if found.conclusion is Conclusion.FOLLOWED:
        return str(CONCLUSIONS.say("dead-twice-fed" if feed else "dead", feed=feed))
    return str(CONCLUSIONS.say("still-fed" if feed else "not-proved", feed=feed))


def _minute(seconds: float) -> float:
    return round(seconds / 60, 1)


class PracticeOut(Answer):
    """`sound`: solved within the minutes that the case claims. `hidden` and what `stands` at the end by title."""

    title: str
    complaint: str
    hidden: str
    turns: list[TurnOut]
    solved: bool
    minutes: float
    claimed_minutes: float
    stands: list[str]
    sound: bool

    @classmethod
    def of(cls, played: Played | MadeDead | HuntedThrough, complaint: str) -> "PracticeOut":
        case, practice = played.case, played.case.point.practice
        return cls(
            title=case.name,
            complaint=complaint,
            hidden=_hidden(case),
            turns=_turns(played, practice),
            solved=played.solved,
            minutes=_minute(played.seconds),
            claimed_minutes=case.minutes,
            stands=_stands(played, practice),
            sound=played.in_time,
        )


def _stands(played: Played | MadeDead | HuntedThrough, practice: Practice) -> list[str]:
    match played:
        case MadeDead():
            return []
        case HuntedThrough():
            return [title for name, title in played.hunted.suspects.items() if name in played.stands]
    return [c.title_in(practice) for c in played.stands]
