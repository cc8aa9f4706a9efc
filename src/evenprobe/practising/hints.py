"""Hints in three levels: what kind of question is open, which reading would decide it, and why."""

from collections.abc import Callable, Sequence

from evenprobe.interpretation import NextMeasurement, PointInterpretation, Verdict
from evenprobe.practices import Practice
from evenprobe.practising.case import Case, standing
from evenprobe.practising.hunted import Ahead, Hunted, Seen
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


def hunt_hint(hunted: Hunted, seen: Sequence[Seen], level: int, words: Callable[[Ahead], str]) -> str:
    """The same where something is hunted.

    Parameters
    ----------
    hunted : Hunted
    seen : sequence
        What was told so far.
    level : int
        From 0; each says more.
    words : callable
        How a look is written.

    Returns
    -------
    str

    Examples
    --------
    >>> from evenprobe.formats.case import shipped
    >>> loom = shipped()["loom-will-not-start"].case().hunted
    >>> hunt_hint(loom, [], 1, lambda ahead: ahead.at)
    'The look that decides most: warp stop.'
    """
    came = hunted.came(seen)
    if level == 0 or came.ahead is None:
        return _what_is_left(hunted, came.left)
    if level == 1:
        return str(HINTS.say("look-next", what=words(came.ahead)))
    return str(HINTS.say("why", why=came.ahead.why))


def _what_is_left(hunted: Hunted, left: frozenset[str]) -> str:
    if not left:
        return str(HINTS.say("no-place-left"))
    if len(left) > 1:
        return str(HINTS.say("where-it-can-be", count=len(left)))
    return str(HINTS.say("one-place-left", one=_called(hunted, next(iter(left)))))


def _called(hunted: Hunted, name: str) -> str:
    """What lies before everything that can be at fault has no other name."""
    return hunted.suspects.get(name, name)


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
