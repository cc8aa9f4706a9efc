"""Loads as the server gives them: currents against their device, and loops with where they lie in a picture."""

from collections.abc import Sequence
from typing import Any

from evenprobe.formats.tests import limit_answer, outcome_answer
from evenprobe.loads import Draw, Loop
from evenprobe.loads.loop import Span
from evenprobe.loads.words import says
from evenprobe.practices import Practice
from evenprobe.rounding import figures

ROOM = 1.08
"""How far a picture goes beyond the greatest value in it."""


def loads_answer(
    draws: Sequence[Draw], loops: Sequence[Loop], rating_a: float | None, practice: Practice
) -> dict[str, Any]:
    return {
        "draws": [_draw(draw) for draw in draws],
        "loops": [_loop(loop, rating_a, practice) for loop in loops],
    }


def _draw(draw: Draw) -> dict[str, Any]:
    return {
        "reading": draw.reading,
        "conductor": draw.conductor and str(draw.conductor),
        "text": draw.text,
        "outcome": None if draw.outcome is None else outcome_answer(draw.outcome),
    }


def _loop(loop: Loop, rating_a: float | None, practice: Practice) -> dict[str, Any]:
    top = ROOM * max(loop.ohm[1], loop.expected[1], *(end for p in loop.parts for end in (p.ohm[1], p.expected[1])))
    holds = None if loop.drop is None else loop.limit.band.holds(loop.drop)
    return {
        "reading": loop.reading,
        "pair": [str(end) for end in loop.pair],
        "amperes": loop.amperes,
        **_resistance(loop.ohm, loop.expected, top, poor=loop.poor),
        "drop_v": None if loop.drop is None else [round(volts, 1) for volts in loop.drop],
        "drop_passes": holds,
        "limit": limit_answer(loop.limit),
        "text": says(loop, rating_a, practice),
        "parts": [
            {"terminal": str(p.terminal), **_resistance(p.ohm, p.expected, top, poor=p.poor)} for p in loop.parts
        ],
    }


def _resistance(ohm: Span, expected: Span, top: float, *, poor: bool) -> dict[str, Any]:
    """`bar`: as shares of the picture, which is the same for a loop and its parts."""
    middle = sum(ohm) / 2
    bar = {
        "passes": [figures(end / top) for end in expected],
        "at": figures(middle / top),
        "reads": [figures(end / top) for end in ohm],
        "expected": None,
    }
    spans = {"ohm": [figures(end) for end in ohm], "expected": [figures(end) for end in expected]}
    return {**spans, "poor": poor, "bar": bar}
