"""The load that a person has at hand to put on a circuit while measuring."""

from evenprobe.wiring import PointFacts
from evenprobe.wiring.unknowns import assumed_rating_a

USUAL_LOAD_A = 10.0
LOAD_SHARE = 0.8
"""Of the device's rating, at most."""


def usual_load_a(point: PointFacts) -> int:
    """Amperes at nominal voltage."""
    return round(min(USUAL_LOAD_A, LOAD_SHARE * assumed_rating_a(point)))
