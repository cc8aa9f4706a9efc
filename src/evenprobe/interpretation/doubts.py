"""Which conditions no sample fits are looked at again, and from where: what a local search is given to start with.

A condition is only out of the question when a reading by itself lies far beyond all that its samples show. The others
are moved from the samples that are nearest, in two senses.
"""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
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

    `misfit`, `to_move` (samples,): what each of its samples misses by, and how far it would have to move; `scale`: the
    best factor on its source. `begun`: samples to start from before its own.
    """

    condition: Condition
    evidence: tuple[Evidence, ...]
    ensemble: Ensemble
    misfit: Array
    to_move: Array
    scale: Array
    begun: Array

    @property
    def distance(self) -> float:
        """Of the nearest sample."""
        return float(self.to_move.min())

    @cached_property
    def starts(self) -> Array:
        """The samples nearest, in two senses, and every way that the first of them could be."""
        of_each_kind = _of_each_kind(self.ensemble, self.condition, self.misfit, self.to_move)
        starts = self._with_source(of_each_kind)
        few = len(self.ensemble.point.lines) == 1
        first_by_each = (0, len(starts) // 2)[: BY_FEW_WIRES if few else BY_MANY_WIRES]
        ways = [self.ensemble.installation.unknowns.every_way(starts[i]) for i in first_by_each]
        return np.concatenate([self.begun, starts, *ways])

    @cached_property
    def nearest(self) -> Array:
        """More of them, by distance."""
        return self._with_source(np.argsort(self.to_move)[:_NEAREST])

    def _with_source(self, rows: NDArray[np.intp]) -> Array:
        cube = self.ensemble.cube[self.ensemble.block_of(self.condition)][rows]
        return self.ensemble.installation.with_source(cube, self.condition, self.scale[rows])


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
        yield Doubt(condition, tuple(evidence), ensemble, misfit[block], to_move, scale[block], ensemble.cube[:0])


def _of_each_kind(ensemble: Ensemble, condition: Condition, *orders: Array) -> NDArray[np.intp]:
    """Which of its samples to start from: by each order the first two, and the first on either side of each either-or.

    Whether a joint lies before or after the tap, whether filters are fitted, and which way of the condition it is,
    has no slope to follow.
    """
    names, block = ensemble.installation.unknowns.names, ensemble.block_of(condition)
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
    return np.array(list(rows), dtype=np.intp)


def _each_alone_fits(ensemble: Ensemble, evidence: Sequence[Evidence], number: int) -> bool:
    """Whether no reading alone lies far beyond all that the samples show; then only their sparseness is against it."""
    for e in evidence:
        seen = ensemble.shown_range(e)
        if gap(e, float(seen.reach_low[number]), float(seen.reach_high[number])) > _WORTH_REFINING / 2:
            return False
    return True
