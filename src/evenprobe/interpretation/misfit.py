"""How well each sample reproduces all the evidence together.

The misfit of a sample is the least m for which one source voltage and one gain per tester put every
prediction within m tolerances of its reading; 1 or less fits. What a sample shows is a span, for at each
moment another load may be on, and each moment has a factor of its own on the source, near that of the others and
within what the condition says of the supply, which holds at every moment.
For a given m each reading confines the scale of its moment to an interval, so the samples fit when of each
two readings the intervals come as near as their moments' factors may differ: on a line it is enough that each
two do (Helly; McShane, Bull. Amer. Math. Soc. 40, 1934). The least m is therefore the greatest over pairs of
readings of a closed expression, and no division by a prediction that may be zero is needed.
"""

from collections.abc import Sequence
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.interpretation.movement import of_the_source
from evenprobe.interpretation.samples import Span
from evenprobe.quantities import Evidence

Array = NDArray[Any]

_TINY = 1e-12
_FEW_TOLERANCES = 3.0
_LEAST_SPREAD = 1e-3


def misfits(
    evidence: Sequence[Evidence],
    predicted: Span,
    scale: tuple[Array, Array],
    worth_knowing: float = np.inf,
    most_apart: float = np.inf,
) -> Array:
    """Miss of each sample, (B,).

    `predicted` (R, B) each as `evidence`; `scale` the range (B,), (B,) by which a sample's source may be scaled.
    A misfit above `worth_knowing` is only known to be above it. `most_apart`: by how much the source may differ between
    two moments at most, as a share.
    """
    low, high = scale
    fixed = np.ones_like(low)
    total = np.zeros_like(low)
    for with_source in (True, False):
        rows = [i for i, e in enumerate(evidence) if e.with_source is with_source]
        if rows:
            group = [evidence[i] for i in rows]
            span = (low, high) if with_source else (fixed, fixed)
            total = np.maximum(total, _group_misses(group, predicted.readings(rows), span, worth_knowing, most_apart))
    return total


def _group_misses(
    group: Sequence[Evidence], predicted: Span, scale: tuple[Array, Array], worth_knowing: float, most_apart: float
) -> Array:
    low, high = scale
    misfit = np.zeros_like(low)
    for e, least, most in zip(group, predicted.least, predicted.most, strict=True):
        np.maximum(misfit, (e.low - high * (1 + e.gain_share) * most) / e.tolerance, out=misfit)
        np.maximum(misfit, (low * (1 - e.gain_share) * least - e.high) / e.tolerance, out=misfit)
    near = np.flatnonzero(misfit <= worth_knowing)
    p_near, m_near = predicted.of(near), misfit[near]
    apart = np.minimum(of_the_source(group), most_apart)
    for i, above in enumerate(group):
        for j, below in enumerate(group):
            if i == j:
                continue
            same = above.tester == below.tester
            p_above = p_near.most[i] * (1 if same else 1 + above.gain_share) * (1 + apart[i, j])
            p_below = p_near.least[j] * (1 if same else 1 - below.gain_share)
            np.maximum(
                m_near,
                (above.low * p_below - below.high * p_above)
                / (above.tolerance * p_below + below.tolerance * p_above + _TINY),
                out=m_near,
            )
        keep = m_near <= worth_knowing
        misfit[near] = m_near
        if not keep.all():
            near, p_near, m_near = near[keep], p_near.of(keep), m_near[keep]
    return np.asarray(misfit)


def _nearest_shown(evidence: Sequence[Evidence], predicted: Span) -> Array:
    """(R, B) of what each sample could show the nearest to the reading."""
    low = np.array([e.low for e in evidence])[:, None]
    return np.asarray(np.maximum(predicted.least, np.minimum(predicted.most, low)))


def best_scale(evidence: Sequence[Evidence], predicted: Span, scale: tuple[Array, Array]) -> Array:
    """The factor on each sample's source that suits its readings best, (B,): least squares, then bounded."""
    rows = [i for i, e in enumerate(evidence) if e.with_source]
    if not rows:
        return np.ones_like(scale[0])
    own = [evidence[i] for i in rows]
    weights = np.array([1 / e.tolerance**2 for e in own])[:, None]
    lows, highs = (np.array([getattr(e, end) for e in own])[:, None] for end in ("low", "high"))
    p = _nearest_shown(own, predicted.readings(rows))
    middle = np.clip(p, lows, highs)
    factor = (weights * p * middle).sum(axis=0) / ((weights * p * p).sum(axis=0) + _TINY)
    return np.asarray(np.clip(factor, *scale))


def distances(evidence: Sequence[Evidence], predicted: Span, factor: Array) -> Array:
    """How far each of a condition's samples (B,) would have to move to meet the readings, squared.

    In units of how much the condition's own predictions vary together (Mahalanobis, 1936), each on a scale
    even within a few tolerances and logarithmic beyond: what varies much is easily moved, however far it misses.
    """
    tolerance = np.array([e.tolerance for e in evidence])[:, None]
    low = np.array([e.low for e in evidence])[:, None]
    high = np.array([e.high for e in evidence])[:, None]
    with_source = np.where([[e.with_source] for e in evidence], factor, 1.0)

    def compressed(value: Array) -> Array:
        return np.asarray(np.log1p(value / (_FEW_TOLERANCES * tolerance)))

    scaled = predicted.scaled(with_source)
    shown = _nearest_shown(evidence, scaled)
    gap = compressed(shown) - compressed(np.clip(shown, low, high))
    spread = np.atleast_2d(np.cov(compressed((scaled.least + scaled.most) / 2))) + _LEAST_SPREAD * np.eye(len(evidence))
    return np.asarray((gap * np.linalg.solve(spread, gap)).sum(axis=0))


def gap(e: Evidence, least: float, most: float) -> float:
    """How many tolerances the reading lies outside a range of predictions; negative inside."""
    above = (e.low - most * (1 + e.gain_share)) / e.tolerance
    below = (least * (1 - e.gain_share) - e.high) / e.tolerance
    return max(above, below)
