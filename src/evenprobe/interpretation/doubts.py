"""Which conditions no sample fits are looked at again, and from where: what a local search is given to start with.

A condition is only out of the question when a reading by itself lies far beyond all that its samples show. The others
are moved from the samples that are nearest, in two senses.
"""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.conditions import Condition
from evenprobe.installation.admittances import variant_of
from evenprobe.interpretation.ensemble import Ensemble
from evenprobe.interpretation.misfit import distances, gap
from evenprobe.interpretation.samples import Span
from evenprobe.quantities import Evidence

Array = NDArray[Any]

_WORTH_REFINING = 8.0
"""A best misfit up to this is worth moving samples for, whatever a single reading says."""
_HOPELESS_MISFIT = 200.0
_HOPELESS_DISTANCE = 500.0
"""Beyond this the nearest sample is not worth moving: several times what a truth ever was away from its own nearest
in 20 000 random surveys. It is the same for few readings as for many, as all of this is: what a search finds with
all readings one with some of them must not miss."""
BY_FEW_WIRES, BY_MANY_WIRES = 2, 1
"""Of so many samples every way is tried; of a circuit of several lines there are more ways and each costs more."""
_NEAREST = 24


@dataclass(frozen=True)
class Doubt:
    """A condition to look at again, for no sample of it meets the evidence.

    `starts`: its samples nearest, in two senses; `nearest`: more of them, by `distance`, which is that of the first.
    """

    condition: Condition
    evidence: tuple[Evidence, ...]
    starts: Array
    nearest: Array
    distance: float


def doubts_of(
    ensemble: Ensemble,
    conditions: Iterable[Condition],
    evidence: Sequence[Evidence],
    predicted: Span,
    misfit: Array,
    scale: Array,
) -> Iterator[Doubt]:
    """Those of the conditions no sample fits and nothing excludes yet."""
    for condition in conditions:
        block = ensemble.block_of(condition)
        best = misfit[block].min()
        if best <= 1.0 or best > _HOPELESS_MISFIT:
            continue
        if best > _WORTH_REFINING and not _each_alone_fits(ensemble, evidence, ensemble.number_of(block)):
            continue
        to_move = distances(evidence, predicted.of(block), scale[block])
        if to_move.min() > _HOPELESS_DISTANCE:
            continue
        rows = _of_each_kind(ensemble, condition, block, misfit[block], to_move)
        starts = ensemble.installation.with_source(ensemble.cube[rows], condition, scale[rows])
        first_by_each = (0, len(starts) // 2)[: BY_FEW_WIRES if len(ensemble.point.lines) == 1 else BY_MANY_WIRES]
        ways = [ensemble.installation.unknowns.every_way(starts[i]) for i in first_by_each]
        rows = block.start + np.argsort(to_move)[:_NEAREST]
        nearest = ensemble.installation.with_source(ensemble.cube[rows], condition, scale[rows])
        yield Doubt(condition, tuple(evidence), np.concatenate([starts, *ways]), nearest, float(to_move.min()))


def _of_each_kind(ensemble: Ensemble, condition: Condition, block: slice, *orders: Array) -> NDArray[np.intp]:
    """Rows of the block to start from: by each order the first two, and the first on either side of each either-or.

    Whether a joint lies before or after the tap, whether filters are fitted, and which way of the condition it is,
    has no slope to follow.
    """
    names = ensemble.installation.unknowns.names
    either_or = ["filters_fitted"]
    either_or += ["joint_place"] * bool({"line", "neutral"} & set(condition.joints))
    either_or += ["earth_joint_place"] * ("earth" in condition.joints)
    sides = (ensemble.cube[block][:, [names.index(name) for name in either_or]] < 0.5).astype(np.intp)
    ways = len(condition.variants_at(ensemble.point.layout))
    kind = variant_of(ensemble.cube[block, names.index("variant")], ways)
    for side in sides.T:
        kind = 2 * kind + side
    rows: dict[int, None] = {}
    for by in orders:
        order = np.argsort(by)
        _, first = np.unique(kind[order], return_index=True)
        rows |= dict.fromkeys(order[sorted({0, 1, *first})].tolist())
    return np.asarray(block.start + np.array(list(rows)), dtype=np.intp)


def _each_alone_fits(ensemble: Ensemble, evidence: Sequence[Evidence], number: int) -> bool:
    """Whether no reading alone lies far beyond all that the samples show; then only their sparseness is against it."""
    for e in evidence:
        seen = ensemble.shown_range(e)
        if gap(e, float(seen.reach_low[number]), float(seen.reach_high[number])) > _WORTH_REFINING / 2:
            return False
    return True
