"""Hints in three levels: what kind of question is open, which reading would decide it, and why."""

from collections.abc import Callable

from evenprobe.interpretation import NextMeasurement, PointInterpretation, Verdict
from evenprobe.practices import Practice
from evenprobe.practising.case import Case, standing
from evenprobe.practising.sentences import HINTS

Words = Callable[[NextMeasurement], str]
"""A reading that is to be taken, in words."""


def hint(case: Case, found: PointInterpretation, level: int, words: Words) -> str:
    """What is said to somebody who does not know on.

    Parameters
    ----------
    case : Case
    found : PointInterpretation
        What the readings so far mean.
    level : int
        From 0; each says more.
    words : callable
        How a reading that is to be taken is written.

    Returns
    -------
    str

    Examples
    --------
    >>> from evenprobe.formats.case import shipped
    >>> case = shipped()["cold-kettle"].case()
    >>> hint(case, case.interpreted([]), 0, str)
    'Nothing that counts is measured yet. Which voltages does every outlet of this kind owe you?'
    """
    if level == 0:
        return _what_is_open(found, case.point.practice)
    if not found.next_tests:
        return str(HINTS.say("nothing-decides"))
    offered = found.next_tests[0]
    if level == 1:
        return str(HINTS.say("decides", what=words(offered), tester=offered.measurement.instrument.id))
    return str(HINTS.say("why", why=offered.why))


def _what_is_open(found: PointInterpretation, practice: Practice) -> str:
    if found.verdict is Verdict.UNTESTED:
        return str(HINTS.say("first"))
    stands = sorted(standing(found).values(), key=lambda condition: -condition.severity)
    if not stands:
        return str(HINTS.say("contradiction"))
    likeliest = max((o for o in found.conditions if o.standing), key=lambda o: o.likelihood).condition
    others = [condition for condition in stands if condition is not likeliest]
    if not others:
        return str(HINTS.say("one-left", one=likeliest.name_in(practice)))
    return str(HINTS.say("which", one=likeliest.name_in(practice), other=others[0].name_in(practice)))
