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

from evenprobe.interpretation.bank import Samples
from evenprobe.interpretation.fit import misses
from evenprobe.testers import Evidence
from evenprobe.wiring import Condition, Installation

Array = NDArray[Any]

STEP = 1e-3
DAMPING = 3e-2
FURTHEST_STEP = 0.25
ROUNDS = 14
FRESH_JACOBIAN_EVERY = 5


@dataclass(frozen=True)
class Start:
    """Samples (K, unknowns) of one condition to begin from."""

    condition: Condition
    cube: Array


def refine(
    installation: Installation, evidence: Sequence[Evidence], starts: Sequence[Start]
) -> list[tuple[float, Array]]:
    """For each start its least miss and the sample (unknowns,) that has it."""
    owner = np.concatenate([np.full(len(s.cube), i) for i, s in enumerate(starts)])
    cube = np.concatenate([s.cube for s in starts])
    conditions = [s.condition for s in starts]
    best_miss = np.full(len(starts), np.inf)
    best_cube = np.array([s.cube[0] for s in starts])
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
        for row, m, sample in zip(owner[active], miss, trial, strict=True):
            if m < best_miss[row]:
                best_miss[row], best_cube[row] = m, sample
        accepted = active[better]
        cube[accepted], residual[accepted] = trial[better], new[better]
        if turn >= 3:
            share = np.abs(residual) / (np.abs(residual).max(axis=1, keepdims=True) + 1e-9)
            weight = 0.15 + share**2
        active = active[best_miss[owner[active]] > 1.0]
        if not len(active):
            break
    return list(zip(best_miss.tolist(), best_cube, strict=True))


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
    edges = np.searchsorted(owner, np.arange(len(conditions) + 1))
    blocks = [(c, slice(edges[i], edges[i + 1])) for i, c in enumerate(conditions) if edges[i] < edges[i + 1]]
    samples = Samples(installation, cube, blocks)
    predicted = samples.predictions(evidence)
    lows = np.array([e.low for e in evidence])[:, None]
    highs = np.array([e.high for e in evidence])[:, None]
    tolerances = np.array([e.tolerance for e in evidence])[:, None]
    signed = (predicted - np.clip(predicted, lows, highs)) / tolerances
    return signed.T, misses(evidence, predicted, samples.source_scale())


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
