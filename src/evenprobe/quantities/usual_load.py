"""The load that a person has at hand to put on a circuit while measuring."""

from evenprobe.rounding import figures
from evenprobe.wiring import PointFacts
from evenprobe.wiring.unknowns import assumed_rating_a

_USUAL_LOAD_A = 10.0
_LOAD_SHARE = 0.8
"""Of the device's rating, at most."""


def usual_load_a(point: PointFacts) -> float:
    """Amperes at nominal voltage, whole ones where there is one."""
    amperes = min(_USUAL_LOAD_A, _LOAD_SHARE * assumed_rating_a(point))
    return round(amperes) or figures(amperes, 1)
