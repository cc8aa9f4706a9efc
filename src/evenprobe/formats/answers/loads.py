"""Currents against their device, and loops under known loads with where they lie in a picture."""

from collections.abc import Sequence

from evenprobe.formats.answers.answer import Answer
from evenprobe.formats.answers.limits import LimitOut, OutcomeOut
from evenprobe.loads import Draw, Loop
from evenprobe.loads.loop import Span
from evenprobe.loads.sentences import of_a_loop
from evenprobe.practices import Practice
from evenprobe.rounding import figures

ROOM = 1.08
"""How far a picture goes beyond the greatest value in it."""


class BarOut(Answer):
    """Shares of the bar's length."""

    passes: list[float]
    at: float
    reads: list[float]
    expected: float | None


class DrawOut(Answer):
    """A current against its device. `outcome`: none where there is nothing to hold it against; `text` says why."""

    reading: str
    conductor: str | None
    text: str
    outcome: OutcomeOut | None

    @classmethod
    def of(cls, draw: Draw) -> "DrawOut":
        return cls(
            reading=draw.reading,
            conductor=draw.conductor and str(draw.conductor),
            text=draw.text,
            outcome=None if draw.outcome is None else OutcomeOut.of(draw.outcome),
        )


class ResistanceOut(Answer):
    """Ohms, least and most: what it has, and what a sound one here would have."""

    ohm: list[float]
    expected: list[float]
    poor: bool
    bar: BarOut


class PartOfLoop(ResistanceOut):
    terminal: str


class LoopOut(ResistanceOut):
    """`drop_v`: lost at the device's rating. `drop_passes`: none where the limit is within it, or nothing is known."""

    reading: str
    pair: list[str]
    amperes: float
    drop_v: list[float] | None
    drop_passes: bool | None
    limit: LimitOut
    text: str
    parts: list[PartOfLoop]

    @classmethod
    def of(cls, loop: Loop, rating_a: float | None, practice: Practice) -> "LoopOut":
        ends = (end for p in loop.parts for end in (p.ohm[1], p.expected[1]))
        top = ROOM * max(loop.ohm[1], loop.expected[1], *ends)
        return cls(
            **_resistance(loop.ohm, loop.expected, top, poor=loop.poor),
            reading=loop.reading,
            pair=[str(end) for end in loop.pair],
            amperes=loop.amperes,
            drop_v=None if loop.drop is None else [round(volts, 1) for volts in loop.drop],
            drop_passes=None if loop.drop is None else loop.limit.band.holds(loop.drop),
            limit=LimitOut.of(loop.limit),
            text=of_a_loop(loop, rating_a, practice),
            parts=[
                PartOfLoop(terminal=str(p.terminal), **_resistance(p.ohm, p.expected, top, poor=p.poor))
                for p in loop.parts
            ],
        )


class LoadsOut(Answer):
    """What a circuit draws, and what known loads say of its loop."""

    draws: list[DrawOut]
    loops: list[LoopOut]

    @classmethod
    def of(cls, draws: Sequence[Draw], loops: Sequence[Loop], rating_a: float | None, practice: Practice) -> "LoadsOut":
        return cls(
            draws=[DrawOut.of(draw) for draw in draws], loops=[LoopOut.of(loop, rating_a, practice) for loop in loops]
        )


def _resistance(ohm: Span, expected: Span, top: float, *, poor: bool) -> dict[str, object]:
    """`bar`: as shares of the picture, which is the same for a loop and its parts."""
    bar = BarOut(
        passes=[figures(end / top) for end in expected],
        at=figures(sum(ohm) / 2 / top),
        reads=[figures(end / top) for end in ohm],
        expected=None,
    )
    return {
        "ohm": [figures(end) for end in ohm],
        "expected": [figures(end) for end in expected],
        "poor": poor,
        "bar": bar,
    }
