"""A second look before a condition is struck out: its best samples are moved until they fit, if they can.

A bank of a thousand samples in some forty unknowns is sparse; a true condition seldom has one that meets
ten readings at once. So the samples that come nearest are moved by damped least squares (Levenberg 1944,
Marquardt 1963) with the Jacobian by differences and Broyden's update between, all starts of all
conditions in one batch. Weights drift to the worst reading, for what counts is the greatest miss.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import linprog

from evenprobe.interpretation.bank import Samples
from evenprobe.interpretation.fit import misses
from evenprobe.testers import Evidence
from evenprobe.wiring import Condition, Installation

Array = NDArray[Any]

STEP = 1e-3
DAMPING = 3e-2
FURTHEST_STEP = 0.25
SOFT_OHMS = 0.3
"""Below about this much, ohms are compared evenly rather than by their ratio."""
ROUNDS = 15
FRESH_JACOBIAN_EVERY = 5
POLISHED = 3
POLISHING_ROUNDS = 10
WORTH_ANOTHER_ROUND = 0.95
"""Where the linear program promises less than this improvement, a sample has arrived."""
GIVE_UP_ABOVE = {4: 20.0, 9: 5.0}
"""After so many rounds a start that still misses by more is dropped."""


def worth_pursuing(readings: int) -> float:
    """The greatest miss after least squares from which more work may still bring a condition down to 1.

    Measured in the benchmark: with few readings least squares does not get stuck, with many it does.
    """
    return 2.0 if readings <= 4 else 60.0


@dataclass(frozen=True)
class Start:
    """Samples (K, unknowns) of one condition to begin from."""

    condition: Condition
    cube: Array


def refine(
    installation: Installation,
    evidence: Sequence[Evidence],
    starts: Sequence[Start],
    polished: int = POLISHED,
) -> dict[str, float]:
    """The least miss found for each condition.

    Beside the unknowns each tester's gain is moved, one more axis of the cube each, 0.5 being exact.
    """
    owner = np.concatenate([np.full(len(s.cube), i) for i, s in enumerate(starts)])
    cube = np.concatenate([s.cube for s in starts])
    exact_gains = np.full((len(cube), len({e.tester for e in evidence})), 0.5)
    cube = np.concatenate([cube, exact_gains], axis=1)
    conditions = [s.condition for s in starts]
    best_miss = np.full(len(starts), np.inf)
    own_best = np.full(len(cube), np.inf)
    best_cube = cube.copy()
    active = np.arange(len(cube))
    jacobian = np.zeros((len(cube), len(evidence), cube.shape[1]))
    damping = np.full(len(cube), DAMPING)
    residual = _evaluate(installation, evidence, conditions, owner, cube)[0]
    weight = np.ones_like(residual)
    for turn in range(ROUNDS):
        if turn % FRESH_JACOBIAN_EVERY == 0:
            jacobian[active] = _jacobian(
                installation, evidence, conditions, owner[active], cube[active], residual[active]
            )
        step = _damped_step(jacobian[active], residual[active], weight[active], damping[active], cube[active])
        trial = np.clip(cube[active] + step, 0.0, 1.0)
        moved = trial - cube[active]
        new, miss = _evaluate(installation, evidence, conditions, owner[active], trial)
        _broyden(jacobian, active, moved, new - residual[active])
        better = _cost(new, weight[active]) < _cost(residual[active], weight[active])
        damping[active] = np.clip(np.where(better, damping[active] / 3, damping[active] * 4), 1e-6, 1e3)
        np.minimum.at(best_miss, owner[active], miss)
        nearer = active[miss < own_best[active]]
        best_cube[nearer] = trial[miss < own_best[active]]
        own_best[active] = np.minimum(own_best[active], miss)
        accepted = active[better]
        cube[accepted], residual[accepted] = trial[better], new[better]
        if turn >= 3:
            share = np.abs(residual) / (np.abs(residual).max(axis=1, keepdims=True) + 1e-9)
            weight = 0.15 + share**2
        hopeful = own_best[active] <= GIVE_UP_ABOVE.get(turn, np.inf)
        active = active[hopeful & (best_miss[owner[active]] > 1.0)]
        if not len(active):
            break
    stubborn = [
        rows[np.argsort(own_best[rows])[:polished]]
        for i in range(len(starts))
        if 1.0 < best_miss[i] <= worth_pursuing(len(evidence)) and len(rows := np.flatnonzero(owner == i))
    ]
    if stubborn:
        rows = np.concatenate(stubborn)
        least = polish(installation, evidence, conditions, owner[rows], best_cube[rows])
        np.minimum.at(best_miss, owner[rows], least)
    return {c.id: float(m) for c, m in zip(conditions, best_miss, strict=True)}


def polish(
    installation: Installation,
    evidence: Sequence[Evidence],
    conditions: Sequence[Condition],
    owner: Array,
    cube: Array,
) -> Array:
    """The least greatest miss (K,) near each sample, by linear programs in a trust region.

    Least squares stops where the sum is least; what counts here is the greatest of the misses, and its
    minimum lies at a corner of many constraints (Madsen, J. IMA 16, 1975).
    """
    cube, radius = cube.copy(), np.full(len(cube), 0.15)
    distances, miss = _evaluate(installation, evidence, conditions, owner, cube)
    for _ in range(POLISHING_ROUNDS):
        done = [i for i in set(owner) if miss[owner == i].min() <= 1.0]
        active = np.flatnonzero(~np.isin(owner, done) & (radius > 1e-4))
        if not len(active):
            break
        slope = _jacobian(installation, evidence, conditions, owner[active], cube[active], distances[active])
        trial = cube.copy()
        for k, row in enumerate(active):
            step, promised = _least_greatest(distances[row], slope[k], cube[row], radius[row])
            trial[row] += step
            if promised > WORTH_ANOTHER_ROUND * np.abs(distances[row]).max():
                radius[row] = 0.0
        new, new_miss = _evaluate(installation, evidence, conditions, owner[active], trial[active])
        better = np.abs(new).max(axis=1) < np.abs(distances[active]).max(axis=1)
        radius[active] = np.where(better, np.minimum(radius[active] * 1.6, 0.4), radius[active] * 0.35)
        moved = active[better]
        cube[moved], distances[moved] = trial[moved], new[better]
        miss[active] = np.minimum(miss[active], new_miss)
    return miss


def _least_greatest(distance: Array, slope: Array, sample: Array, radius: float) -> tuple[Array, float]:
    """The step (unknowns,) within the trust region and the cube that makes the greatest distance least, and that."""
    unknowns = len(sample)
    cost = np.zeros(unknowns + 1)
    cost[-1] = 1.0
    slack = np.full((len(distance), 1), -1.0)
    within = np.block([[slope, slack], [-slope, slack]])
    bounds = [(max(-radius, -u), min(radius, 1.0 - u)) for u in np.clip(sample, 0.0, 1.0)]
    found = linprog(
        cost, A_ub=within, b_ub=np.concatenate([-distance, distance]), bounds=[*bounds, (0.0, None)], method="highs"
    )
    if not found.success or found.x is None:
        return np.zeros(unknowns), np.inf
    return np.asarray(found.x[:-1]), float(found.x[-1])


def _cost(residual: Array, weight: Array) -> Array:
    return np.asarray((weight * residual**2).sum(axis=1))


def _evaluate(
    installation: Installation,
    evidence: Sequence[Evidence],
    conditions: Sequence[Condition],
    owner: Array,
    cube: Array,
) -> tuple[Array, Array]:
    """Signed misses (K, R), and the joint miss (K,), of samples grouped by the condition that owns them."""
    unknowns = installation.unknowns.count
    testers = list(dict.fromkeys(e.tester for e in evidence))
    edges = np.searchsorted(owner, np.arange(len(conditions) + 1))
    blocks = [(c, slice(edges[i], edges[i + 1])) for i, c in enumerate(conditions) if edges[i] < edges[i + 1]]
    samples = Samples(installation, cube[:, :unknowns], blocks)
    predicted = samples.predictions(evidence)
    gains = 2 * cube[:, unknowns:] - 1
    signed = [
        _signed(e, p * (1 + e.gain_share * gains[:, testers.index(e.tester)]))
        for e, p in zip(evidence, predicted, strict=True)
    ]
    return np.stack(signed, axis=1), misses(evidence, predicted, samples.source_scale())


def _signed(evidence: Evidence, predicted: Array) -> Array:
    """Distance from the reading in tolerances; of ohms, which span decades, on a logarithmic scale."""
    inside = np.clip(predicted, evidence.low, evidence.high)
    if evidence.with_source:
        return np.asarray((predicted - inside) / evidence.tolerance)
    share = evidence.tolerance / (evidence.low + SOFT_OHMS)
    return np.asarray(np.log((predicted + SOFT_OHMS) / (inside + SOFT_OHMS)) / share)


def _jacobian(
    installation: Installation,
    evidence: Sequence[Evidence],
    conditions: Sequence[Condition],
    owner: Array,
    cube: Array,
    residual: Array,
) -> Array:
    """(K, R, unknowns) by one-sided differences, stepping away from the nearer wall."""
    count, unknowns = cube.shape
    step = np.where(cube > 0.5, -STEP, STEP)
    moved = np.repeat(cube, unknowns, axis=0)
    moved[np.arange(count * unknowns), np.tile(np.arange(unknowns), count)] += step.ravel()
    signed, _ = _evaluate(installation, evidence, conditions, np.repeat(owner, unknowns), moved)
    change = signed.reshape(count, unknowns, -1) - residual[:, None, :]
    return np.asarray((change / step[:, :, None]).transpose(0, 2, 1))


def _damped_step(jacobian: Array, residual: Array, weight: Array, damping: Array, cube: Array) -> Array:
    """(K, unknowns), in the dual form since there are fewer readings than unknowns; walls hold what leans on them."""
    root = np.sqrt(weight)
    weighted = jacobian * root[:, :, None]
    target = residual * root
    free = np.ones_like(cube)
    step = np.zeros_like(cube)
    for _ in range(2):
        held = weighted * free[:, None, :]
        inner = held @ held.transpose(0, 2, 1)
        size = np.trace(inner, axis1=1, axis2=2) / inner.shape[1] + 1e-12
        inner = inner + (damping * size)[:, None, None] * np.eye(inner.shape[1])
        step = -(held.transpose(0, 2, 1) @ np.linalg.solve(inner, target[:, :, None]))[:, :, 0]
        leaning = ((cube <= 0) & (step < 0)) | ((cube >= 1) & (step > 0))
        free = np.where(leaning, 0.0, free)
    longest = np.abs(step).max(axis=1, keepdims=True)
    return np.asarray(step * np.minimum(1.0, FURTHEST_STEP / np.maximum(longest, 1e-12)))


def _broyden(jacobian: Array, rows: Array, moved: Array, change: Array) -> None:
    """Rank-one correction of the Jacobians of `rows` (Broyden, Math. Comp. 19, 1965), in place."""
    length = (moved**2).sum(axis=1)
    error = change - np.einsum("kru,ku->kr", jacobian[rows], moved)
    safe = np.where(length > 1e-12, length, np.inf)
    jacobian[rows] += error[:, :, None] * moved[:, None, :] / safe[:, None, None]
