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
from itertools import combinations
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
    for e, lowest, highest in zip(group, predicted.least, predicted.most, strict=True):
        np.maximum(misfit, (e.low - high * (1 + e.gain_share) * highest) / e.tolerance, out=misfit)
        np.maximum(misfit, (low * (1 - e.gain_share) * lowest - e.high) / e.tolerance, out=misfit)
    near = np.flatnonzero(misfit <= worth_knowing)
    least, most, m_near = predicted.least[:, near], predicted.most[:, near], misfit[near]
    apart = np.minimum(of_the_source(group), most_apart)
    for i, above in enumerate(group):
        for j, below in enumerate(group):
            if i == j:
                continue
            same = above.tester == below.tester
            p_above = most[i] * (1 if same else 1 + above.gain_share) * (1 + apart[i, j])
            p_below = least[j] * (1 if same else 1 - below.gain_share)
            together = _missed_together(above.low, above.tolerance, below.high, below.tolerance, p_above, p_below)
            np.maximum(m_near, together, out=m_near)
        keep = m_near <= worth_knowing
        misfit[near] = m_near
        if not keep.all():
            near, least, most, m_near = near[keep], least[:, keep], most[:, keep], m_near[keep]
    return np.asarray(misfit)


def _missed_together(
    low: Any, its_tolerance: Any, high: Any, other_tolerance: Any, may_show: Array, must_show: Array
) -> Array:
    """By how many tolerances one reading is too high, and another too low, for what they show to be of one source.

    `low` of the one, of which at most `may_show` is shown; `high` of the other, of which at least `must_show` is.
    """
    return np.asarray(
        (low * must_show - high * may_show) / (its_tolerance * must_show + other_tolerance * may_show + _TINY)
    )


def misfits_without_each(evidence: Sequence[Evidence], predicted: Span, scale: tuple[Array, Array]) -> Array:
    """(R, B): the miss of each sample of all the evidence but one piece, for each piece in turn."""
    alone, together = _alone_and_together(evidence, predicted, scale)
    found = np.empty_like(alone)
    for left_out in range(len(evidence)):
        others = np.arange(len(evidence)) != left_out
        parts = (slice(None, left_out), slice(left_out + 1, None))
        each = [together[above, below].max(axis=(0, 1), initial=0.0) for above in parts for below in parts]
        found[left_out] = np.maximum.reduce([alone[others].max(axis=0, initial=0.0), *each])
    return found


def worst_two(evidence: Sequence[Evidence], predicted: Span, scale: tuple[Array, Array]) -> tuple[int, ...]:
    """The one or two pieces of the evidence whose least miss among the samples is the greatest."""
    alone, together = _alone_and_together(evidence, predicted, scale)
    of_one = np.maximum(alone, 0.0)
    of_two = np.maximum(np.maximum(of_one[:, None], of_one), np.maximum(together, together.transpose(1, 0, 2)))
    least: dict[tuple[int, ...], float] = {(i,): float(of_one[i].min()) for i in range(len(evidence))}
    least |= {(i, j): float(of_two[i, j].min()) for i, j in combinations(range(len(evidence)), 2)}
    return max(least, key=lambda pieces: least[pieces])


def _alone_and_together(
    evidence: Sequence[Evidence], predicted: Span, scale: tuple[Array, Array]
) -> tuple[Array, Array]:
    """(R, B) the miss of each sample of each piece alone; (R, R, B) of each two, one from above, the other from below.

    See `_group_misses`; pieces of which only one scales with the source have nothing to do with each other.
    """
    with_source = np.array([e.with_source for e in evidence])[:, None]
    low_scale, high_scale = (np.where(with_source, end, 1.0) for end in scale)
    low, high, tolerance, gain = (
        np.array([getattr(e, name) for e in evidence])[:, None] for name in ("low", "high", "tolerance", "gain_share")
    )
    alone = np.maximum(
        (low - high_scale * (1 + gain) * predicted.most) / tolerance,
        (low_scale * (1 - gain) * predicted.least - high) / tolerance,
    )
    other_tester = np.array([[one.tester != other.tester for other in evidence] for one in evidence])[:, :, None]
    may_show = predicted.most[:, None] * np.where(other_tester, 1 + gain[:, None], 1.0)
    may_show = may_show * (1 + of_the_source(evidence)[:, :, None])
    must_show = predicted.least * np.where(other_tester, 1 - gain, 1.0)
    together = _missed_together(low[:, None], tolerance[:, None], high, tolerance, may_show, must_show)
    together[(with_source != with_source.T) | np.eye(len(evidence), dtype=bool)] = 0.0
    return alone, together


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
