"""What a customer says of something that is wrong, by what they notice of it."""

from collections.abc import Sequence

from evenprobe.conditions import SYMPTOMS, Condition

_SAID = {
    "trips-at-once": "As soon as it is switched on, the breaker goes.",
    "trips-later": "It holds for an hour or so, then the breaker goes.",
    "trips-when": "It goes whenever something is plugged in there.",
    "dead": "Nothing works there any more.",
    "dead-after-work": "It has not worked since somebody was in the wall.",
    "flicker": "The light there is unsteady when the big machine runs.",
    "tingle": "It prickles when one touches the case.",
    "no-pull-in": "The motor hums and does not start.",
}
NO_COMPLAINT = "Nobody complains. It is new, and somebody has to say whether it is right."


def complaints_of(truth: Condition) -> Sequence[str]:
    """What may be said where something is true, one of it or the other; never nothing.

    >>> from evenprobe.conditions import CONDITIONS
    >>> complaints_of(CONDITIONS["correct"])
    ['Nobody complains. It is new, and somebody has to say whether it is right.']
    """
    noticed = [symptom.id for symptom in SYMPTOMS.values() if truth.id in symptom.factors]
    return [_SAID[each] for each in noticed] or [NO_COMPLAINT]
