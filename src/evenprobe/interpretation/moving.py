"""How likely a sample is by what the supply has to do between the readings for it to fit.

A few tenths of a per cent are a supply's flicker and cost nothing; the more it takes beyond, the less likely it is.
"""

from collections.abc import Sequence
from itertools import combinations
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.interpretation.misfit import misfits
from evenprobe.interpretation.movement import AT_ONCE_SHARE, MOST_SHARE
from evenprobe.interpretation.samples import Span
from evenprobe.quantities import Evidence

Array = NDArray[Any]

_LIKELY = ((0.01, 0.5), (MOST_SHARE, 0.2))
"""Shares that the source of a moment is off by, and how likely a sample is that needs as much and not less."""


def with_the_supply_moving(
    evidence: Sequence[Evidence], predicted: Span, scale: tuple[Array, Array], misfit: Array
) -> Array:
    """(B,) how likely each sample is by that: 1 where it fits at once, 0 where it does not fit at all."""
    if sum(e.with_source for e in evidence) < 2:
        return np.where(misfit <= 1.0, 1.0, 0.0)
    found = np.where(misfit <= 1.0, _LIKELY[-1][1], 0.0)
    rows = np.flatnonzero(found)
    for most, then in ((AT_ONCE_SHARE, 1.0), *_LIKELY[:-1]):
        within = scale[0][rows], scale[1][rows]
        fits = misfits(evidence, predicted.of(rows), within, most_apart=2 * most) <= 1.0
        found[rows[fits]] = then
        rows = rows[~fits]
    return found


def moved_between(evidence: Sequence[Evidence], predicted: Span, scale: tuple[Array, Array]) -> tuple[Evidence, ...]:
    """The two readings that samples (B,) bring together only because the supply moved; none where it need not have."""
    pairs = [pair for pair in combinations(range(len(evidence)), 2) if all(evidence[i].with_source for i in pair)]
    missed = [
        float(misfits([evidence[i] for i in p], predicted.readings(p), scale, most_apart=2 * AT_ONCE_SHARE).min())
        for p in pairs
    ]
    if not missed or max(missed) <= 1.0:
        return ()
    one, other = pairs[int(np.argmax(missed))]
    return evidence[one], evidence[other]
