"""What moves between one reading and the next: the supply, and what else is on.

Readings are not taken at one moment. In between a kettle starts, and a tap changer steps: so each moment has a factor
of its own on the source and another load on the circuit. What one tester shows at once, and whatever carries the same
instant, is one moment. The allowance grows with the time between, from the flicker of a supply (IEC 61000-3-3) to a
slow change of its voltage; readings without a time are taken to be a minute apart.
"""

from collections.abc import Sequence
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.quantities import Evidence

Array = NDArray[Any]

AT_ONCE_SHARE, MOST_SHARE = 0.003, 0.025
"""By how much a moment's source may be off the point's, as a share: at once, and ever."""
_SETTLED_AFTER_S = 120.0
"""Time between after which a supply may be anywhere in that span."""
USUALLY_BETWEEN_S, SOON_AFTER_S = 60.0, 20.0
"""Between two readings without a time; and between two of which one is taken for the other."""
_LEAST_BETWEEN_S = 15.0
"""Between two times on record, for what is typed was seen some time before."""


def share_after(seconds: float) -> float:
    """By how much the source of a moment may be off the point's, so long after another.

    >>> share_after(0.0), share_after(600.0)
    (0.003, 0.025)
    """
    return AT_ONCE_SHARE + (MOST_SHARE - AT_ONCE_SHARE) * min(1.0, seconds / _SETTLED_AFTER_S)


def moment_of(e: Evidence) -> float | str:
    """What one moment is known by: its instant, or where none is on record the reading itself."""
    return e.reading.id if e.reading.at is None else e.reading.at


def of_the_source(evidence: Sequence[Evidence]) -> Array:
    """(R, R) by how much the source may differ between two readings, as a share; 0 at one moment.

    A reading that does not rise with the source has no part in it.
    """
    found = np.zeros((len(evidence), len(evidence)))
    for i, one in enumerate(evidence):
        for j, other in enumerate(evidence[:i]):
            if one.with_source and other.with_source and moment_of(one) != moment_of(other):
                found[i, j] = found[j, i] = 2 * share_after(_between(one, other))
    return found


def _between(one: Evidence, other: Evidence) -> float:
    at, then = one.reading.at, other.reading.at
    return USUALLY_BETWEEN_S if at is None or then is None else max(_LEAST_BETWEEN_S, abs(at - then))
