"""How well each sample reproduces all the evidence together.

The misfit of a sample is the least m for which one source voltage and one gain per tester put every
prediction within m tolerances of its reading; 1 or less fits. For a given m each reading confines the
common scale to an interval, so the samples fit when all intervals meet, and on a line intervals meet when
each two do (Helly). The least m is therefore the greatest over pairs of readings of a closed expression,
and no division by a prediction that may be zero is needed.
"""

from collections.abc import Sequence
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.quantities import Evidence

Array = NDArray[Any]

_TINY = 1e-12
_FEW_TOLERANCES = 3.0
_LEAST_SPREAD = 1e-3


def misfits(
    evidence: Sequence[Evidence], predicted: Array, scale: tuple[Array, Array], worth_knowing: float = np.inf
) -> Array:
    """Miss of each sample, (B,).

    `predicted` (R, B) as `evidence`; `scale` the range (B,), (B,) by which a sample's source may be scaled.
    A misfit above `worth_knowing` is only known to be above it.
    """
    low, high = scale
    fixed = np.ones_like(low)
    total = np.zeros_like(low)
    for with_source in (True, False):
        rows = [i for i, e in enumerate(evidence) if e.with_source is with_source]
        if rows:
            group = [evidence[i] for i in rows]
            span = (low, high) if with_source else (fixed, fixed)
            total = np.maximum(total, _group_misses(group, predicted[rows], span, worth_knowing))
    return total


def _group_misses(
    group: Sequence[Evidence], predicted: Array, scale: tuple[Array, Array], worth_knowing: float
) -> Array:
    low, high = scale
    misfit = np.zeros_like(low)
    for e, p in zip(group, predicted, strict=True):
        np.maximum(misfit, (e.low - high * (1 + e.gain_share) * p) / e.tolerance, out=misfit)
        np.maximum(misfit, (low * (1 - e.gain_share) * p - e.high) / e.tolerance, out=misfit)
    near = np.flatnonzero(misfit <= worth_knowing)
    p_near, m_near = predicted[:, near], misfit[near]
    for i, above in enumerate(group):
        for j, below in enumerate(group):
            if i == j:
                continue
            same = above.tester == below.tester
            p_above = p_near[i] * (1 if same else 1 + above.gain_share)
            p_below = p_near[j] * (1 if same else 1 - below.gain_share)
            np.maximum(
                m_near,
                (above.low * p_below - below.high * p_above)
                / (above.tolerance * p_below + below.tolerance * p_above + _TINY),
                out=m_near,
            )
        keep = m_near <= worth_knowing
        misfit[near] = m_near
        if not keep.all():
            near, p_near, m_near = near[keep], p_near[:, keep], m_near[keep]
    return np.asarray(misfit)


def best_scale(evidence: Sequence[Evidence], predicted: Array, scale: tuple[Array, Array]) -> Array:
    """The factor on each sample's source that suits its readings best, (B,): least squares, then bounded."""
    rows = [i for i, e in enumerate(evidence) if e.with_source]
    if not rows:
        return np.ones_like(scale[0])
    weights = np.array([1 / evidence[i].tolerance ** 2 for i in rows])[:, None]
    lows = np.array([evidence[i].low for i in rows])[:, None]
    highs = np.array([evidence[i].high for i in rows])[:, None]
    p = predicted[rows]
    middle = np.clip(p, lows, highs)
    factor = (weights * p * middle).sum(axis=0) / ((weights * p * p).sum(axis=0) + _TINY)
    return np.asarray(np.clip(factor, *scale))


def distances(evidence: Sequence[Evidence], predicted: Array, factor: Array) -> Array:
    """How far each of a condition's samples (B,) would have to move to meet the readings, squared.

    In units of how much the condition's own predictions vary together (Mahalanobis, 1936), each on a scale
    even within a few tolerances and logarithmic beyond: what varies much is easily moved, however far it misses.
    """
    tolerance = np.array([e.tolerance for e in evidence])[:, None]
    low = np.array([e.low for e in evidence])[:, None]
    high = np.array([e.high for e in evidence])[:, None]
    scaled = predicted * np.where([[e.with_source] for e in evidence], factor, 1.0)

    def compressed(value: Array) -> Array:
        return np.asarray(np.log1p(value / (_FEW_TOLERANCES * tolerance)))

    seen = compressed(scaled)
    gap = seen - compressed(np.clip(scaled, low, high))
    spread = np.atleast_2d(np.cov(seen)) + _LEAST_SPREAD * np.eye(len(evidence))
    return np.asarray((gap * np.linalg.solve(spread, gap)).sum(axis=0))


def gap(e: Evidence, least: float, most: float) -> float:
    """How many tolerances the reading lies outside a range of predictions; negative inside."""
    above = (e.low - most * (1 + e.gain_share)) / e.tolerance
    below = (least * (1 - e.gain_share) - e.high) / e.tolerance
    return max(above, below)
