"""Before a condition is struck out it is looked at again: by the two readings that lie worst for it, then by all.

What is not found is held to be nowhere, and the survival bench decides whether it is.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import replace
from typing import Any

from numpy.typing import NDArray

from evenprobe.interpretation.doubts import Doubt, doubts_of
from evenprobe.interpretation.easier import by_two
from evenprobe.interpretation.ensemble import Ensemble
from evenprobe.interpretation.local_search import FITS
from evenprobe.interpretation.pursuit import LAST, NEAR, NEAREST_FIRST, STAGES, Found, pursue
from evenprobe.interpretation.samples import Span
from evenprobe.quantities import Evidence

Array = NDArray[Any]

_BRIEF_CONDITIONS = 3
_LAST_CONDITIONS = 3
"""Before nothing at all is said to explain the readings so many of the nearest are hopped from once more."""


def look_again(
    ensemble: Ensemble,
    evidence: Sequence[Evidence],
    predicted: Span,
    misfit: Array,
    scale: Array,
    *,
    briefly: bool = False,
) -> dict[str, float]:
    """The least misfit found by moving samples of each condition that none fits as it is.

    `briefly`: only of the nearest few conditions, and without hops.
    """
    doubts = list(doubts_of(ensemble, ensemble.conditions, evidence, predicted, misfit, scale))
    if briefly:
        return _least(pursue(ensemble, _nearest(doubts, _BRIEF_CONDITIONS), (NEAREST_FIRST,)))
    of_two = by_two(ensemble, evidence, predicted, doubts)
    least = {name: missed for name, missed in _least(of_two).items() if missed > FITS}
    in_doubt = [replace(d, begun=of_two[d.condition.id].ends) for d in doubts if d.condition.id not in least]
    least |= _least(pursue(ensemble, in_doubt, STAGES))
    if misfit.min() > 1.0 and min(least.values(), default=0.0) > FITS:
        near = _nearest((d for d in in_doubt if d.distance <= NEAR), _LAST_CONDITIONS)
        found = _least(pursue(ensemble, near, (LAST,)))
        least |= {name: min(least[name], misfit_now) for name, misfit_now in found.items()}
    return least


def _least(found: Mapping[str, Found]) -> dict[str, float]:
    return {name: one.misfit for name, one in found.items()}


def _nearest(doubts: Iterable[Doubt], count: int) -> list[Doubt]:
    return sorted(doubts, key=lambda d: d.distance)[:count]
