"""Which conditions no sample of the bank fits are looked at again, and from where: what `refine` is given to do.

A condition is only out of the question when a reading by itself lies far beyond all that its samples show.
The others are moved from the samples that are nearest, in two senses, and once more from many.
"""

from collections.abc import Sequence
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.interpretation.bank import Bank
from evenprobe.interpretation.fit import distances, gap
from evenprobe.interpretation.refine import FITS, Start, refine
from evenprobe.testers import Evidence
from evenprobe.wiring import Condition

Array = NDArray[Any]

WORTH_REFINING = 8.0
"""A best miss up to this is worth moving samples for, whatever a single reading says."""
FEW_READINGS = 4
WORTH_A_SECOND_LOOK = {True: 3.0, False: 60.0}
"""A least miss up to this, with few readings or with more, may still come down to 1 from other samples."""
SECOND_LOOK_STARTS = 64
EXTRAPOLATED = 0.6
"""The samples' range is widened by this share of itself before a reading alone rules a condition hopeless."""


def look_again(
    bank: Bank, evidence: Sequence[Evidence], predicted: Array, miss: Array, scale: Array
) -> dict[str, float]:
    """The least miss found by moving samples of each condition that none fits as it is."""
    doubtful: dict[str, tuple[Condition, slice, Array]] = {}
    for condition, block in bank.blocks:
        best = miss[block].min()
        if best <= 1.0 or bank.excludes(condition.id, evidence):
            continue
        if best <= WORTH_REFINING or _each_alone_fits(bank, evidence, block):
            to_move = distances(evidence, predicted[:, block], scale[block])
            doubtful[condition.id] = condition, block, to_move
    if not doubtful:
        return {}
    starts = []
    for condition, block, to_move in doubtful.values():
        rows = _of_each_kind(bank, condition, block, miss[block], to_move)
        nearest = bank.installation.with_source(bank.cube[rows], condition, scale[rows])
        starts.append(Start(condition, np.concatenate([nearest, bank.installation.unknowns.every_way(nearest[0])])))
    least = refine(bank.installation, evidence, starts)
    again = []
    worth = WORTH_A_SECOND_LOOK[len(evidence) <= FEW_READINGS]
    for condition, block, to_move in doubtful.values():
        if FITS < least[condition.id] <= worth:
            rows = block.start + np.concatenate(
                [np.argsort(d)[1 : 1 + SECOND_LOOK_STARTS // 2] for d in (miss[block], to_move)]
            )
            others = bank.installation.with_source(bank.cube[rows], condition, scale[rows])
            ways = [bank.installation.unknowns.every_way(others[i]) for i in (0, SECOND_LOOK_STARTS // 2)]
            again.append(Start(condition, np.concatenate([others, *ways])))
    if again:
        for name, found in refine(bank.installation, evidence, again).items():
            least[name] = min(least[name], found)
    for name, found in least.items():
        if found > FITS:
            bank.remember_excluded(name, evidence)
    return least


def _of_each_kind(bank: Bank, condition: Condition, block: slice, *orders: Array) -> NDArray[np.intp]:
    """Rows of the block to start from: by each order the first two, and the first on either side of each either-or.

    Whether a joint lies before or after the tap, and whether filters are fitted, has no slope to follow.
    """
    names = bank.installation.unknowns.names
    either_or = ["filters_fitted"] + ["other_line"] * condition.second_line
    either_or += ["joint_place"] * bool({"line", "neutral"} & set(condition.joints))
    either_or += ["earth_joint_place"] * ("earth" in condition.joints)
    sides = bank.cube[block][:, [names.index(name) for name in either_or]] < 0.5
    rows: dict[int, None] = {}
    for by in orders:
        order = np.argsort(by)
        _, first = np.unique(sides[order], axis=0, return_index=True)
        rows |= dict.fromkeys(order[sorted({0, 1, *first})].tolist())
    return np.asarray(block.start + np.array(list(rows)), dtype=np.intp)


def _each_alone_fits(bank: Bank, evidence: Sequence[Evidence], block: slice) -> bool:
    """Whether no reading by itself lies outside all that the samples show; then only their sparseness is against it."""
    low, high = bank.scale[0][block], bank.scale[1][block]
    for e in evidence:
        p = bank.predicted(e.measurement, e.lamp)[block]
        least, most = ((p * low).min(), (p * high).max()) if e.with_source else (p.min(), p.max())
        beyond = EXTRAPOLATED * (most - least)
        if gap(e, float(least - beyond), float(most + beyond)) > WORTH_REFINING / 2:
            return False
    return True
