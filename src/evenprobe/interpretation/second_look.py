"""Which conditions no sample of the bank fits are looked at again, and from where: what `refine` is given to do.

A condition is only out of the question when a reading by itself lies far beyond all that its samples show.
The others are moved from the samples that are nearest, in two senses, and once more from many.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.interpretation.bank import Bank
from evenprobe.interpretation.fit import distances, gap
from evenprobe.interpretation.refine import FITS, Start, refine
from evenprobe.testers import Evidence
from evenprobe.wiring import Condition
from evenprobe.wiring.admittances import way_of

Array = NDArray[Any]

WORTH_REFINING = 8.0
"""A best miss up to this is worth moving samples for, whatever a single reading says."""
HOPELESS_MISS = 200.0
HOPELESS_DISTANCE = {1: 2.0, 2: 2.0, 3: 200.0, 4: 200.0}
HOPELESS_DISTANCE_OF_MORE = 500.0
"""Beyond these, by how many readings there are, the nearest sample is not worth moving: several times what a
truth ever was away from its own nearest in 20 000 random surveys."""
BY_FEW_WIRES, BY_MANY_WIRES = 2, 1
"""Of so many samples every way is tried; of a circuit of several lines there are more ways and each costs more."""
HOPS = 48
WORTH_HOPPING = {1: 0.0, 2: 0.0, 3: 20.0, 4: 20.0}
WORTH_HOPPING_WITH_MORE = 60.0
"""A least miss above FITS and up to this, by how many readings there are, is worth hops away from the ends."""
PATIENT_HOPS = 128
PATIENT_FROM_READINGS = 6
LAST_HOPS = 512
LAST_CONDITIONS = 3
"""Before nothing at all is said to explain the readings the nearest few are hopped from as often as this."""
NEAREST = 24
NEARLY_FITS = 4.0
NEAR = 3.0
"""What then misses by no more, or had a sample at no greater distance, is hopped from once more, patiently."""
HOP_SHARES = (0.1, 0.8)
"""Of the unknowns drawn anew in a hop: from close by to nearly anywhere, evenly."""
HOP_SEED = 20
BRIEF_CONDITIONS = 3


@dataclass(frozen=True)
class Doubt:
    """A condition to look at again: its samples nearest by `distance`, best first, and that of the first."""

    condition: Condition
    starts: Array
    nearest: Array
    distance: float


def look_again(
    bank: Bank, evidence: Sequence[Evidence], predicted: Array, miss: Array, scale: Array, *, briefly: bool = False
) -> dict[str, float]:
    """The least miss found by moving samples of each condition that none fits as it is.

    `briefly`: only of the nearest few conditions, and without hops.
    """
    most = BRIEF_CONDITIONS if briefly else None
    nearest_first = sorted(_doubts(bank, evidence, predicted, miss, scale), key=lambda d: d.distance)
    doubts = {d.condition.id: d for d in nearest_first[:most]}
    rng = np.random.default_rng(HOP_SEED)
    arrived = refine(bank.installation, evidence, [Start(d.condition, d.starts) for d in doubts.values()])
    least = {name: a.miss for name, a in arrived.items()}
    if briefly:
        return least

    worth = WORTH_HOPPING.get(len(evidence), WORTH_HOPPING_WITH_MORE)
    again = [
        Start(a.condition, np.concatenate([bank.installation.unknowns.every_way(a.cube[0]), _hops(a.cube, HOPS, rng)]))
        for a in arrived.values()
        if FITS < a.miss <= worth
    ]
    arrived = refine(bank.installation, evidence, again)
    least |= {name: min(least[name], a.miss) for name, a in arrived.items()}

    once_more = [
        Start(a.condition, _hops(np.concatenate([a.cube, doubts[name].nearest]), PATIENT_HOPS, rng))
        for name, a in arrived.items()
        if len(evidence) >= PATIENT_FROM_READINGS
        and least[name] > FITS
        and (least[name] <= NEARLY_FITS or doubts[name].distance <= NEAR)
    ]
    arrived = refine(bank.installation, evidence, once_more, patiently=True)
    least |= {name: min(least[name], a.miss) for name, a in arrived.items()}
    if miss.min() > 1.0 and min(least.values(), default=0.0) > FITS:
        near = [d for d in doubts.values() if d.distance <= NEAR][:LAST_CONDITIONS]
        last = [Start(d.condition, _hops(d.nearest, LAST_HOPS, rng)) for d in near]
        arrived = refine(bank.installation, evidence, last, patiently=True)
        least |= {name: min(least[name], a.miss) for name, a in arrived.items()}

    for name, found in least.items():
        if found > FITS:
            bank.remember_excluded(name, evidence)
    return least


def _doubts(bank: Bank, evidence: Sequence[Evidence], predicted: Array, miss: Array, scale: Array) -> Iterable[Doubt]:
    """The conditions no sample fits and nothing excludes yet."""
    for condition, block in bank.blocks:
        best = miss[block].min()
        if best <= 1.0 or best > HOPELESS_MISS or bank.excludes(condition.id, evidence):
            continue
        if best > WORTH_REFINING and not _each_alone_fits(bank, evidence, bank.number_of(block)):
            continue
        to_move = distances(evidence, predicted[:, block], scale[block])
        if to_move.min() > HOPELESS_DISTANCE.get(len(evidence), HOPELESS_DISTANCE_OF_MORE):
            continue
        rows = _of_each_kind(bank, condition, block, miss[block], to_move)
        starts = bank.installation.with_source(bank.cube[rows], condition, scale[rows])
        first_by_each = (0, len(starts) // 2)[: BY_FEW_WIRES if len(bank.point.lines) == 1 else BY_MANY_WIRES]
        ways = [bank.installation.unknowns.every_way(starts[i]) for i in first_by_each]
        rows = block.start + np.argsort(to_move)[:NEAREST]
        nearest = bank.installation.with_source(bank.cube[rows], condition, scale[rows])
        yield Doubt(condition, np.concatenate([starts, *ways]), nearest, float(to_move.min()))


def _hops(from_: Array, count: int, rng: np.random.Generator) -> Array:
    """Samples (count, unknowns) with some unknowns of one of `from_` (N, unknowns) and the others anywhere.

    Wales and Doye, J. Phys. Chem. A 101, 1997.
    """
    origin = from_[rng.integers(len(from_), size=count)]
    share = np.linspace(*HOP_SHARES, count)[:, None]
    return np.where(rng.random(origin.shape) < share, rng.random(origin.shape), origin)


def _of_each_kind(bank: Bank, condition: Condition, block: slice, *orders: Array) -> NDArray[np.intp]:
    """Rows of the block to start from: by each order the first two, and the first on either side of each either-or.

    Whether a joint lies before or after the tap, whether filters are fitted, and which way of the condition it is,
    has no slope to follow.
    """
    names = bank.installation.unknowns.names
    either_or = ["filters_fitted"]
    either_or += ["joint_place"] * bool({"line", "neutral"} & set(condition.joints))
    either_or += ["earth_joint_place"] * ("earth" in condition.joints)
    sides = (bank.cube[block][:, [names.index(name) for name in either_or]] < 0.5).astype(np.intp)
    ways = len(condition.arrangements(bank.point.layout))
    which = way_of(bank.cube[block, names.index("arrangement")], ways)
    sides = np.column_stack([which, sides])
    rows: dict[int, None] = {}
    for by in orders:
        order = np.argsort(by)
        _, first = np.unique(sides[order], axis=0, return_index=True)
        rows |= dict.fromkeys(order[sorted({0, 1, *first})].tolist())
    return np.asarray(block.start + np.array(list(rows)), dtype=np.intp)


def _each_alone_fits(bank: Bank, evidence: Sequence[Evidence], number: int) -> bool:
    """Whether no reading alone lies far beyond all that the samples show; then only their sparseness is against it."""
    for e in evidence:
        seen = bank.shown_range(e)
        if gap(e, float(seen.reach_low[number]), float(seen.reach_high[number])) > WORTH_REFINING / 2:
            return False
    return True
