"""A case as the planner plays it: each reading or look, what it struck out, and what was left."""

from pydantic import Field

from evenprobe.formats.answers.answer import Answer
from evenprobe.formats.looks import look_said
from evenprobe.formats.said import measured_said, shown_said
from evenprobe.formats.words import VerdictWord
from evenprobe.practices import Practice
from evenprobe.practising import (
    Case,
    GoneRound,
    HuntedThrough,
    LookTaken,
    MadeDead,
    Played,
    Turn,
    WorkStep,
    wrong_outlets,
)
from evenprobe.practising.hunted import Hunted

Way = Played | MadeDead | HuntedThrough | GoneRound
"""The planner's, through a case of whatever sort."""


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
            minute=minute_of(done.at_s),
            what=text[0].upper() + text[1:],
            with_="" if done.shown is None else tester,
            shows="" if done.shown is None else shown_said(done.shown, practice),
            struck_out=[],
        )

    @classmethod
    def of_look(cls, taken: LookTaken, hunted: Hunted, practice: Practice) -> "TurnOut":
        where, seen = look_said(taken.seen, practice)
        return cls(
            minute=minute_of(taken.at_s),
            what=where,
            with_="",
            shows=seen,
            struck_out=[hunted.suspects[name] for name in taken.struck_out],
        )

    @classmethod
    def of(cls, turn: Turn, practice: Practice) -> "TurnOut":
        return cls(
            minute=minute_of(turn.at_s),
            what=measured_said(turn.offered.measurement, practice),
            with_=turn.offered.measurement.instrument.id,
            shows=shown_said(turn.reading, practice),
            struck_out=[condition.title_in(practice) for condition in turn.struck_out],
            verdict=str(turn.verdict),
        )


def turns_of(planner: Way, practice: Practice) -> list[TurnOut]:
    """Each step of the way."""
    match planner:
        case GoneRound():
            return [turn for at_one in planner.outlets for turn in _at_an_outlet(at_one, practice)]
        case HuntedThrough():
            return [TurnOut.of_look(look, planner.hunted, practice) for look in planner.looks]
        case MadeDead():
            return [TurnOut.of_step(step, planner.tester, practice) for step in planner.steps]
    return [TurnOut.of(turn, practice) for turn in planner.turns]


def _at_an_outlet(played: Played, practice: Practice) -> list[TurnOut]:
    turns = [TurnOut.of(turn, practice) for turn in played.turns]
    return [turn.model_copy(update={"what": f"{played.case.name}: {turn.what}"}) for turn in turns]


def hidden_said(case: Case) -> str:
    """What it was, in words."""
    practice = case.point.practice
    if case.outlets:
        wrong = wrong_outlets(case)
        each = [f"{o.name}: {o.truth.title_in(practice)}" for name, o in case.outlets.items() if name in wrong]
        return "; ".join(each) or "Nothing is wrong"
    if case.hunted is not None:
        return case.hunted.suspects[case.hunted.truth]
    if case.to_be_made_dead:
        return f"Also fed by {case.other_feed}" if case.other_feed else "Fed by its own device alone"
    return case.truth.title_in(practice)


def minute_of(seconds: float) -> float:
    """As it is told."""
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
    def of(cls, played: Way, complaint: str) -> "PracticeOut":
        case, practice = played.case, played.case.point.practice
        return cls(
            title=case.name,
            complaint=complaint,
            hidden=hidden_said(case),
            turns=turns_of(played, practice),
            solved=played.solved,
            minutes=minute_of(played.seconds),
            claimed_minutes=case.minutes,
            stands=_stands(played, practice),
            sound=played.in_time,
        )


def _stands(played: Way, practice: Practice) -> list[str]:
    match played:
        case MadeDead():
            return []
        case GoneRound():
            return [f"{o.case.name}: {c.title_in(practice)}" for o in played.outlets for c in o.stands]
        case HuntedThrough():
            return [title for name, title in played.hunted.suspects.items() if name in played.stands]
    return [c.title_in(practice) for c in played.stands]
