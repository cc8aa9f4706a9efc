"""A second look before a condition is struck out: its best samples are moved until they fit, if they can.

A bank of a thousand samples in some forty unknowns is sparse; a true condition seldom has one that meets
ten readings at once. So the samples that come nearest are moved by damped least squares (Levenberg 1944,
Marquardt 1963) on what each reading misses its tolerance by. Once a reading is inside it pulls no more, so
a sample that fits is a root of the system and is reached fast; a condition that cannot fit stops moving.
All starts of all conditions go in one batch; the worse half of a condition's starts is dropped as they go.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.interpretation.bank import Samples
from evenprobe.testers import Evidence
from evenprobe.wiring import Condition, Installation

Array = NDArray[Any]

DAMPING = 3e-3
FURTHEST_STEP = 0.5
SOFT_OHMS = 0.3
SOFT_TOLERANCES = 20.0
"""Below about so many ohms, or tolerances in volts, values are compared evenly rather than by their ratio."""
INSIDE = 0.6
"""Share of the tolerance within which a reading pulls no more."""
ROUNDS = 20
KEEP = {2: 0.5, 4: 0.25, 7: 0.1}
"""After so many rounds only this share of a condition's starts goes on."""
FEWEST_KEPT = 3
FITS = 1.15
"""Least squares may stop short of the least miss there is; a condition that comes this near is not struck out."""
PATIENCE = {3: 0.9, 5: 0.75}
"""A start whose misses have not shrunk to this share in so many rounds has arrived."""


@dataclass(frozen=True)
class Start:
    """Samples (K, unknowns) of one condition to begin from."""

    condition: Condition
    cube: Array


def refine(installation: Installation, evidence: Sequence[Evidence], starts: Sequence[Start]) -> dict[str, float]:
    """The least miss found for each condition.

    Beside the unknowns each tester's gain is moved, one more axis of the cube each, 0.5 being exact.
    """
    conditions = [s.condition for s in starts]
    owner = np.concatenate([np.full(len(s.cube), i) for i, s in enumerate(starts)])
    cube = np.concatenate([s.cube for s in starts])
    exact_gains = np.full((len(cube), len({e.tester for e in evidence})), 0.5)
    cube = np.concatenate([cube, exact_gains], axis=1)
    residual, miss, slopes = _evaluate(installation, evidence, conditions, owner, cube)
    least = np.full(len(starts), np.inf)
    np.minimum.at(least, owner, miss)
    damping = np.full(len(cube), DAMPING)
    cost = _cost(residual)
    history = [cost]
    active = np.flatnonzero(least[owner] > FITS)
    sizes = np.bincount(owner)
    for turn in range(ROUNDS):
        if not len(active):
            break
        step = _damped_step(slopes[active], _outside(residual[active]), damping[active], cube[active])
        trial = np.clip(cube[active] + step, 0.0, 1.0)
        new, miss, new_slopes = _evaluate(installation, evidence, conditions, owner[active], trial)
        np.minimum.at(least, owner[active], miss)
        new_cost = _cost(new)
        better = new_cost < cost[active]
        damping[active] = np.clip(np.where(better, damping[active] / 4, damping[active] * 5), 1e-7, 1e3)
        moved = active[better]
        cube[moved], residual[moved], slopes[moved] = trial[better], new[better], new_slopes[better]
        cost = cost.copy()
        cost[moved] = new_cost[better]
        history.append(cost)
        still = np.ones(len(cost), dtype=bool)
        for rounds, share in PATIENCE.items():
            if turn >= rounds:
                still &= cost < share * history[-1 - rounds]
        active = active[still[active] & (least[owner[active]] > FITS)]
        if turn in KEEP:
            active = _best_of_each(active, owner, cost, sizes, KEEP[turn])
    return {c.id: float(m) for c, m in zip(conditions, least, strict=True)}


def _best_of_each(
    active: NDArray[np.intp], owner: NDArray[np.intp], cost: Array, sizes: NDArray[np.intp], share: float
) -> NDArray[np.intp]:
    """Of each condition's starts the nearest, so many that at most `share` of those it began with are left."""
    kept = []
    for condition in np.unique(owner[active]):
        own = active[owner[active] == condition]
        most = max(FEWEST_KEPT, int(share * sizes[condition]))
        kept.append(np.sort(own[np.argsort(cost[own])[:most]]))
    return np.concatenate(kept) if kept else active


def _outside(residual: Array) -> Array:
    """What each reading misses the inner part of its tolerance by, signed."""
    return np.asarray(residual - np.clip(residual, -INSIDE, INSIDE))


def _cost(residual: Array) -> Array:
    return np.asarray((_outside(residual) ** 2).sum(axis=1))


def _evaluate(
    installation: Installation,
    evidence: Sequence[Evidence],
    conditions: Sequence[Condition],
    owner: Array,
    cube: Array,
) -> tuple[Array, Array, Array]:
    """Of samples grouped by the condition that owns them: signed misses (K, R), the greatest of them (K,),
    and how the signed ones change along each axis, (K, R, unknowns)."""
    unknowns = installation.unknowns.count
    testers = list(dict.fromkeys(e.tester for e in evidence))
    edges = np.searchsorted(owner, np.arange(len(conditions) + 1))
    blocks = [(c, slice(edges[i], edges[i + 1])) for i, c in enumerate(conditions) if edges[i] < edges[i + 1]]
    samples = Samples(installation, cube[:, :unknowns], blocks, with_slopes=True)
    predicted = samples.predictions(evidence)
    slopes = np.concatenate([samples.slopes(evidence), np.zeros((*predicted.T.shape, len(testers)))], axis=2)
    gains = 2 * cube[:, unknowns:] - 1
    signed = np.empty((len(cube), len(evidence)))
    miss = np.zeros(len(cube))
    for i, (e, p) in enumerate(zip(evidence, predicted, strict=True)):
        tester = testers.index(e.tester)
        gain = 1 + e.gain_share * gains[:, tester]
        shown = p * gain
        inside = np.clip(shown, e.low, e.high)
        linear = (shown - inside) / e.tolerance
        np.maximum(miss, np.abs(linear), out=miss)
        slopes[:, i] *= gain[:, None]
        slopes[:, i, unknowns + tester] = 2 * e.gain_share * p
        soft = SOFT_TOLERANCES * e.tolerance if e.with_source else SOFT_OHMS
        share = e.tolerance / (np.clip(e.low, None, 1e9) + soft)
        signed[:, i] = np.log((shown + soft) / (inside + soft)) / share
        per_unit = 1 / (share * (shown + soft))
        outside = (shown < e.low) | (shown > e.high)
        slopes[:, i] *= np.where(outside, per_unit, 0.0)[:, None]
    return signed, miss, slopes


def _by_ratio(e: Evidence, shown: Array, inside: Array) -> Array:
    """Distance in tolerances of ohms, which span decades, on a logarithmic scale."""
    share = e.tolerance / (e.low + SOFT_OHMS)
    return np.asarray(np.log((shown + SOFT_OHMS) / (inside + SOFT_OHMS)) / share)


def _damped_step(slopes: Array, residual: Array, damping: Array, cube: Array) -> Array:
    """(K, unknowns), in the dual form since there are fewer readings than unknowns; walls hold what leans on them."""
    free = np.ones_like(cube)
    step = np.zeros_like(cube)
    for _ in range(3):
        held = slopes * free[:, None, :]
        inner = held @ held.transpose(0, 2, 1)
        size = np.trace(inner, axis1=1, axis2=2) / inner.shape[1] + 1e-12
        inner = inner + (damping * size)[:, None, None] * np.eye(inner.shape[1])
        step = -(held.transpose(0, 2, 1) @ np.linalg.solve(inner, residual[:, :, None]))[:, :, 0]
        leaning = ((cube <= 0) & (step < 0)) | ((cube >= 1) & (step > 0))
        free = np.where(leaning, 0.0, free)
    longest = np.abs(step).max(axis=1, keepdims=True)
    return np.asarray(step * np.minimum(1.0, FURTHEST_STEP / np.maximum(longest, 1e-12)))
