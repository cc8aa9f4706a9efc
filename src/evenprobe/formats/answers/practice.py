"""A case as it was played, reading by reading: what each showed, what it struck out, and when it was known."""

from pydantic import Field

from evenprobe.formats.answers.answer import Answer
from evenprobe.formats.answers.interpretation import NextTestOut
from evenprobe.formats.said import next_said, shown_said
from evenprobe.formats.words import VerdictWord
from evenprobe.practices import Practice
from evenprobe.practising import Played, Turn


class TurnOut(Answer):
    """`minute`: when it was written down; `struck_out`: titles of what stood before and no more."""

    minute: float
    what: str
    with_: str = Field(alias="with")
    shows: str
    struck_out: list[str]
    verdict: VerdictWord

    @classmethod
    def of(cls, turn: Turn, practice: Practice) -> "TurnOut":
        return cls(
            minute=round(turn.at_s / 60, 1),
            what=next_said(NextTestOut.of(turn.offered), practice),
            with_=turn.offered.measurement.instrument.id,
            shows=shown_said(turn.reading),
            struck_out=[condition.title_in(practice) for condition in turn.struck_out],
            verdict=str(turn.verdict),
        )


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
    def of(cls, played: Played, complaint: str) -> "PracticeOut":
        case, practice = played.case, played.case.point.practice
        return cls(
            title=case.name,
            complaint=complaint,
            hidden=case.truth.title_in(practice),
            turns=[TurnOut.of(turn, practice) for turn in played.turns],
            solved=played.solved,
            minutes=round(played.seconds / 60, 1),
            claimed_minutes=case.minutes,
            stands=[condition.title_in(practice) for condition in played.stands],
            sound=played.in_time,
        )
