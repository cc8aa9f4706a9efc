"""Which conditions no sample of the bank fits are looked at again, and from where: what `refine` is given to do.

A condition is only out of the question when a reading by itself lies far beyond all that its samples show.
The others are moved from the samples that are nearest, in two senses, and once more from many.
"""

import hashlib
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from itertools import combinations
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.conditions import Condition
from evenprobe.installation.admittances import variant_of
from evenprobe.interpretation.bank import Bank
from evenprobe.interpretation.fit import best_scale, distances, gap, misses
from evenprobe.interpretation.refine import FITS, Start, refine
from evenprobe.quantities import Evidence

Array = NDArray[Any]

WORTH_REFINING = 8.0
"""A best miss up to this is worth moving samples for, whatever a single reading says."""
HOPELESS_MISS = 200.0
HOPELESS_DISTANCE = 500.0
"""Beyond this the nearest sample is not worth moving: several times what a truth ever was away from its own nearest
in 20 000 random surveys. It is the same for few readings as for many, as all of this is: what a search finds with
all readings one with some of them must not miss."""
BY_FEW_WIRES, BY_MANY_WIRES = 2, 1
"""Of so many samples every way is tried; of a circuit of several lines there are more ways and each costs more."""
HOPS = 48
NEARLY_FITS = 4.0
WORTH_HOPPING = 60.0
"""A least miss above FITS and up to this is worth hops away from the ends."""
EASILY_MET = 2
"""So few readings are met by a hop or never."""
PATIENT_HOPS_A_READING, MOST_PATIENT_HOPS = 16, 128
"""The fewer readings there are to meet, the fewer starts it takes."""
LAST_HOPS = 512
LAST_CONDITIONS = 3
"""Before nothing at all is said to explain the readings the nearest few are hopped from as often as this."""
NEAREST = 24
NEAR = 3.0
"""What then misses by no more, or had a sample at no greater distance, is hopped from once more, patiently."""
HOP_SHARES = (0.1, 0.8)
"""Of the unknowns drawn anew in a hop: from close by to nearly anywhere, evenly."""
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
    doubts = list(_doubts(bank, evidence, predicted, miss, scale))
    if briefly:
        nearest = sorted(doubts, key=lambda d: d.distance)[:BRIEF_CONDITIONS]
        arrived = refine(bank.installation, evidence, [Start(d.condition, d.starts) for d in nearest])
        return {name: a.miss for name, a in arrived.items()}
    least = _by_two(bank, evidence, predicted, doubts)
    in_doubt = [d for d in doubts if d.condition.id not in least]
    least |= _search(bank, evidence, in_doubt)
    if miss.min() > 1.0 and min(least.values(), default=0.0) > FITS:
        near = sorted((d for d in in_doubt if d.distance <= NEAR), key=lambda d: d.distance)[:LAST_CONDITIONS]
        dice = _dice_of(evidence)
        last = [Start(d.condition, _hops(d.nearest, LAST_HOPS, dice(d.condition.id, "last"))) for d in near]
        arrived = refine(bank.installation, evidence, last, patiently=True)
        least |= {name: min(least[name], a.miss) for name, a in arrived.items()}
    return least


def _by_two(bank: Bank, evidence: Sequence[Evidence], predicted: Array, doubts: Sequence[Doubt]) -> dict[str, float]:
    """Of the conditions that cannot even meet the two readings that lie worst together, the least miss of those.

    Two are met more easily than all, so what is not found here is nowhere; and which two they are, and whether they
    can be met, follows from them alone, so it is remembered for the next reading.
    """
    by_pair: dict[tuple[int, ...], list[Condition]] = {}
    for doubt in doubts:
        pair = _worst_two(bank, evidence, predicted, bank.block_of(doubt.condition))
        if len(pair) < len(evidence):
            by_pair.setdefault(pair, []).append(doubt.condition)
    found: dict[str, float] = {}
    for pair, conditions in by_pair.items():
        two = [evidence[i] for i in pair]
        keys = {c.id: (c.id, *(e.key for e in two)) for c in conditions}
        known = {name: least for name, key in keys.items() if (least := bank.met.known(key)) is not None}
        anew = _least_of(bank, two, [c for c in conditions if c.id not in known])
        for name, least in anew.items():
            bank.met.keep(keys[name], least)
        found |= {name: least for name, least in (known | anew).items() if least > FITS}
    return found


def _worst_two(bank: Bank, evidence: Sequence[Evidence], predicted: Array, block: slice) -> tuple[int, ...]:
    """The one or two readings whose least miss among a condition's samples is the greatest."""
    scale = bank.scale[0][block], bank.scale[1][block]
    best = {
        pair: float(misses([evidence[i] for i in pair], predicted[list(pair), block], scale).min())
        for pair in (*((i,) for i in range(len(evidence))), *combinations(range(len(evidence)), 2))
    }
    return max(best, key=lambda pair: best[pair])


def _least_of(bank: Bank, evidence: Sequence[Evidence], conditions: Sequence[Condition]) -> dict[str, float]:
    """The least miss of each condition, of its samples as they are or moved."""
    if not conditions:
        return {}
    predicted = bank.predictions(evidence)
    miss, scale = misses(evidence, predicted, bank.scale), best_scale(evidence, predicted, bank.scale)
    least = {c.id: float(miss[bank.block_of(c)].min()) for c in conditions}
    doubts = [d for d in _doubts(bank, evidence, predicted, miss, scale) if d.condition in conditions]
    return least | _search(bank, evidence, doubts)


def _search(bank: Bank, evidence: Sequence[Evidence], in_doubt: Sequence[Doubt]) -> dict[str, float]:
    """The least miss found for each, by moving its samples, then hops from where they end, then patient ones."""
    doubts = {d.condition.id: d for d in in_doubt}
    dice = _dice_of(evidence)
    arrived = refine(bank.installation, evidence, [Start(d.condition, d.starts) for d in doubts.values()])
    least = {name: a.miss for name, a in arrived.items()}
    again = [
        Start(
            a.condition,
            np.concatenate([bank.installation.unknowns.every_way(a.cube[0]), _hops(a.cube, HOPS, dice(name, "hops"))]),
        )
        for name, a in arrived.items()
        if FITS < a.miss <= WORTH_HOPPING
    ]
    arrived = refine(bank.installation, evidence, again)
    least |= {name: min(least[name], a.miss) for name, a in arrived.items()}

    if len(evidence) <= EASILY_MET:
        return least
    patient_hops = min(MOST_PATIENT_HOPS, PATIENT_HOPS_A_READING * len(evidence))
    once_more = [
        Start(a.condition, _hops(np.concatenate([a.cube, doubts[name].nearest]), patient_hops, dice(name, "patient")))
        for name, a in arrived.items()
        if least[name] > FITS and (least[name] <= NEARLY_FITS or doubts[name].distance <= NEAR)
    ]
    arrived = refine(bank.installation, evidence, once_more, patiently=True)
    least |= {name: min(least[name], a.miss) for name, a in arrived.items()}
    return least


def _dice_of(evidence: Sequence[Evidence]) -> Callable[[str, str], np.random.Generator]:
    """Random numbers for a condition and a stage of its search: of the ordered evidence, whoever else is tried."""
    told = repr([e.key for e in evidence])

    def dice(condition_id: str, stage: str) -> np.random.Generator:
        seed = hashlib.sha256(f"{condition_id} {stage} {told}".encode()).digest()
        return np.random.default_rng(int.from_bytes(seed))

    return dice


def _doubts(bank: Bank, evidence: Sequence[Evidence], predicted: Array, miss: Array, scale: Array) -> Iterable[Doubt]:
    """The conditions no sample fits and nothing excludes yet."""
    for condition, block in bank.blocks:
        best = miss[block].min()
        if best <= 1.0 or best > HOPELESS_MISS:
            continue
        if best > WORTH_REFINING and not _each_alone_fits(bank, evidence, bank.number_of(block)):
            continue
        to_move = distances(evidence, predicted[:, block], scale[block])
        if to_move.min() > HOPELESS_DISTANCE:
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
    ways = len(condition.variants_at(bank.point.layout))
    which = variant_of(bank.cube[block, names.index("variant")], ways)
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
