"""A second look before a condition is struck out: its best samples are moved until they fit, if they can.

A bank of a thousand samples in some forty unknowns is sparse; a true condition seldom has one that meets
ten readings at once. So the samples that come nearest are moved by damped least squares (Levenberg 1944,
Marquardt 1963) on what each reading misses its tolerance by. Once a reading is inside it pulls no more, so
a sample that fits is a root of the system and is reached fast; a condition that cannot fit stops moving.
All starts of all conditions go in one batch, the Jacobian by differences with Broyden's update between.
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

STEP = 1e-3
DAMPING = 1e-2
FURTHEST_STEP = 0.3
SOFT_OHMS = 0.3
"""Below about this much, ohms are compared evenly rather than by their ratio."""
INSIDE = 0.7
"""Share of the tolerance within which a reading pulls no more."""
ROUNDS = 24
FRESH_JACOBIAN_EVERY = 3
PATIENCE = 6
WORTH_ANOTHER_ROUND = 0.8
"""A start whose misses have not shrunk to this share in `PATIENCE` rounds has arrived."""


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
    residual, miss = _evaluate(installation, evidence, conditions, owner, cube)
    least = np.full(len(starts), np.inf)
    np.minimum.at(least, owner, miss)
    jacobian = np.zeros((*residual.shape, cube.shape[1]))
    damping = np.full(len(cube), DAMPING)
    cost = _cost(residual)
    history = [cost]
    active = np.flatnonzero(least[owner] > 1.0)
    for turn in range(ROUNDS):
        if not len(active):
            break
        if turn % FRESH_JACOBIAN_EVERY == 0:
            jacobian[active] = _jacobian(
                installation, evidence, conditions, owner[active], cube[active], residual[active]
            )
        step = _damped_step(jacobian[active], _outside(residual[active]), damping[active], cube[active])
        trial = np.clip(cube[active] + step, 0.0, 1.0)
        new, miss = _evaluate(installation, evidence, conditions, owner[active], trial)
        np.minimum.at(least, owner[active], miss)
        _broyden(jacobian, active, trial - cube[active], new - residual[active])
        new_cost = _cost(new)
        better = new_cost < cost[active]
        damping[active] = np.clip(np.where(better, damping[active] / 4, damping[active] * 5), 1e-7, 1e3)
        moved = active[better]
        cube[moved], residual[moved] = trial[better], new[better]
        cost = cost.copy()
        cost[moved] = new_cost[better]
        history.append(cost)
        if turn >= PATIENCE:
            still = cost < WORTH_ANOTHER_ROUND * history[-1 - PATIENCE]
        else:
            still = np.ones(len(cost), dtype=bool)
        active = active[still[active] & (least[owner[active]] > 1.0)]
    return {c.id: float(m) for c, m in zip(conditions, least, strict=True)}


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
) -> tuple[Array, Array]:
    """Signed misses (K, R) and the greatest of them (K,), of samples grouped by the condition that owns them."""
    unknowns = installation.unknowns.count
    testers = list(dict.fromkeys(e.tester for e in evidence))
    edges = np.searchsorted(owner, np.arange(len(conditions) + 1))
    blocks = [(c, slice(edges[i], edges[i + 1])) for i, c in enumerate(conditions) if edges[i] < edges[i + 1]]
    samples = Samples(installation, cube[:, :unknowns], blocks)
    predicted = samples.predictions(evidence)
    gains = 2 * cube[:, unknowns:] - 1
    signed = np.empty((len(cube), len(evidence)))
    miss = np.zeros(len(cube))
    for i, (e, p) in enumerate(zip(evidence, predicted, strict=True)):
        shown = p * (1 + e.gain_share * gains[:, testers.index(e.tester)])
        inside = np.clip(shown, e.low, e.high)
        linear = (shown - inside) / e.tolerance
        np.maximum(miss, np.abs(linear), out=miss)
        signed[:, i] = linear if e.with_source else _by_ratio(e, shown, inside)
    return signed, miss


def _by_ratio(e: Evidence, shown: Array, inside: Array) -> Array:
    """Distance in tolerances of ohms, which span decades, on a logarithmic scale."""
    share = e.tolerance / (e.low + SOFT_OHMS)
    return np.asarray(np.log((shown + SOFT_OHMS) / (inside + SOFT_OHMS)) / share)


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


def _damped_step(jacobian: Array, residual: Array, damping: Array, cube: Array) -> Array:
    """(K, unknowns), in the dual form since there are fewer readings than unknowns; walls hold what leans on them."""
    free = np.ones_like(cube)
    step = np.zeros_like(cube)
    for _ in range(3):
        held = jacobian * free[:, None, :]
        inner = held @ held.transpose(0, 2, 1)
        size = np.trace(inner, axis1=1, axis2=2) / inner.shape[1] + 1e-12
        inner = inner + (damping * size)[:, None, None] * np.eye(inner.shape[1])
        step = -(held.transpose(0, 2, 1) @ np.linalg.solve(inner, residual[:, :, None]))[:, :, 0]
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
