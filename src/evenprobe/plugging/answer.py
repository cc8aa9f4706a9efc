"""Plug in, do not, or one more reading: the worst of everything the thing needs of its outlet."""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

from evenprobe.interpretation import PointInterpretation
from evenprobe.plugging.check import Check, Result
from evenprobe.plugging.needs import Needs
from evenprobe.plugging.outlet import contacts, current, frequency, trip
from evenprobe.plugging.range import ranges
from evenprobe.plugging.sentences import ANSWERS
from evenprobe.plugging.wiring import wiring_checks
from evenprobe.quantities import Measurement, Reading
from evenprobe.wiring import PointFacts


class Answer(StrEnum):
    """Whether to plug in. `ONE_MORE`: one reading decides."""

    PLUG_IN = "plug-in"
    ONE_MORE = "one-more"
    DO_NOT = "do-not"


@dataclass(frozen=True)
class PlugIn:
    """`take`: the one reading to take next, where a reading would decide."""

    answer: Answer
    says: str
    checks: tuple[Check, ...]
    take: Measurement | None = None


def may_plug_in(point: PointFacts, readings: Sequence[Reading], needs: Needs, found: PointInterpretation) -> PlugIn:
    """Whether equipment may be plugged in: not while anything it needs is open.

    Parameters
    ----------
    point : PointFacts
        The outlet.
    readings : sequence of Reading
        All that were taken there.
    needs : Needs
        What the equipment needs.
    found : PointInterpretation
        What the readings mean.

    Returns
    -------
    PlugIn
        The answer with every check, and the one reading that is still to be taken.
    """
    turning = frequency(point, needs, readings)
    checks = (
        contacts(point, needs),
        *ranges(point, needs, readings),
        *wiring_checks(point, found),
        trip(point, readings),
        current(point, needs),
        *((turning,) if turning else ()),
    )
    wrong = [c for c in checks if c.result is Result.NO]
    unknown = [c for c in checks if c.result is Result.OPEN]
    if wrong:
        return PlugIn(Answer.DO_NOT, _said(wrong[0]), checks)
    if unknown:
        take = next((c.take for c in unknown if c.take is not None), None)
        return PlugIn(Answer.ONE_MORE, _said(unknown[0]), checks, take)
    notes = " ".join(c.text for c in checks if c.result is Result.NOTE)
    return PlugIn(Answer.PLUG_IN, f"{ANSWERS.say('has-it')} {notes}".strip(), checks)


def _said(check: Check) -> str:
    return str(ANSWERS.say("of-a-check", title=check.title, said=check.text))
