"""How the admittances of an installation's branches answer to its unknowns, by differences.

The network says what each branch's admittance does to a reading (`network.equivalents`); this says what each
unknown does to the branches, and the two together are the slopes that samples are moved by.
"""

from collections.abc import Callable, Hashable, Sequence
from typing import Any, Generic, NamedTuple, TypeVar

import numpy as np
from numpy.typing import NDArray

from evenprobe.conditions import Condition
from evenprobe.sobol import sobol
from evenprobe.wiring.unknowns import Cube, Unknowns, Values

Array = NDArray[Any]
Blocks = Sequence[tuple[Condition, slice]]
"""Which rows of a batch are under which condition."""

SLOPE_STEP = 1e-5
"""Of the unit cube, for differences."""
_SPARSITY_SAMPLES = 4
"""Of each variant, to see which unknowns touch which branch: all there, each on both sides of its middle."""
Mode = TypeVar("Mode")
"""How the installation is solved."""


class Sparsity(NamedTuple):
    """What touches what: `branch` and `axis` (E,) of each branch that an axis touches, in the order of the axes.

    `group` (unknowns,): for each axis the group it can be moved with.
    """

    branch: NDArray[np.intp]
    axis: NDArray[np.intp]
    group: NDArray[np.intp]


_SPARSITY: dict[Hashable, Sparsity] = {}


class Sensitivities(Generic[Mode]):
    """Of an installation with these unknowns and branches in these modes; `admittances` of (values, blocks, mode)."""

    def __init__(
        self,
        unknowns: Unknowns,
        conditions: Sequence[Condition],
        branches: Sequence[str],
        modes: Sequence[Mode],
        admittances: Callable[[Values, Blocks, Mode], dict[str, Array]],
    ) -> None:
        self._unknowns = unknowns
        self._conditions = conditions
        self._branches = branches
        self._modes = modes
        self._admittances = admittances
        ids = tuple(c.id for c in conditions)
        may_be_absent = tuple(name for name, r in unknowns.ranges.items() if r.absent)
        self._built = unknowns.layout, unknowns.earthing, ids, may_be_absent, tuple(branches), tuple(modes)

    @property
    def count(self) -> int:
        """Of branches."""
        return len(self._branches)

    def changes(self, cube: Cube, blocks: Blocks, mode: Mode) -> Array:
        """What the admittance of each branch changes by along each axis that touches it, (E, B).

        Found by differences, one-sided, away from the nearer wall, moving at once all axes that touch no branch in
        common (Curtis, Powell and Reid, J. IMA 13, 1974).
        """
        branch, axis, group = self._sparsity
        step = np.where(cube > 0.5, -SLOPE_STEP, SLOPE_STEP)
        together = np.arange(int(group.max()) + 1)[:, None] == group
        change = self._changes(cube, blocks, step, together, mode)
        return np.asarray(change[branch, :, group[axis]] / step.T[axis])

    def slopes(self, per_branch: Array, changes: Array, branches: NDArray[np.intp]) -> Array:
        """What quantities (R, B) that answer to the branches' admittances change by along each axis, (B, R, unknowns).

        `per_branch` (R, K, B): per siemens of each of the `branches` (K,), by number; complex, and the real part of its
        products with the `changes` (E, B) counts.
        """
        at = np.full(len(self._branches), -1)
        at[branches] = np.arange(len(branches))
        branch, axis, _ = self._sparsity
        own = np.flatnonzero(at[branch] >= 0)
        rows, moves = at[branch[own]], changes[own]
        axes, starts = np.unique(axis[own], return_index=True)
        found = np.zeros((len(per_branch), self._unknowns.count, changes.shape[1]))
        for slopes, answers in zip(found, per_branch, strict=True):
            product = answers.real[rows] * moves.real
            if np.iscomplexobj(answers) and np.iscomplexobj(moves):
                product -= answers.imag[rows] * moves.imag
            slopes[axes] = np.add.reduceat(product, starts, axis=0)
        return found.transpose(2, 0, 1)

    @property
    def _sparsity(self) -> Sparsity:
        """Found once for all installations that are built alike, whatever their unknowns' ranges."""
        if self._built not in _SPARSITY:
            _SPARSITY[self._built] = self._find_sparsity()
        return _SPARSITY[self._built]

    def _find_sparsity(self) -> Sparsity:
        cube, blocks = self._of_every_way()
        step = np.where(cube > 0.5, -SLOPE_STEP, SLOPE_STEP)
        alone = np.eye(self._unknowns.count, dtype=bool)
        touches = np.zeros((len(self._branches), self._unknowns.count), dtype=bool)
        for mode in self._modes:
            touches |= (self._changes(cube, blocks, step, alone, mode) != 0).any(axis=1)
        group = np.zeros(self._unknowns.count, dtype=np.intp)
        used: list[NDArray[np.bool_]] = []
        for axis in np.argsort(-touches.sum(axis=0), kind="stable"):
            free = (i for i, branches in enumerate(used) if not (branches & touches[:, axis]).any())
            group[axis] = next(free, len(used))
            if group[axis] == len(used):
                used.append(np.zeros(len(touches), dtype=bool))
            used[group[axis]] |= touches[:, axis]
        axis, branch = np.nonzero(touches.T)
        return Sparsity(branch, axis, group)

    def _of_every_way(self) -> tuple[Cube, Blocks]:
        """Some samples of each variant of each condition, with everything there that may be absent."""
        drawn = [self._unknowns.every_way(s)[-1] for s in sobol(self._unknowns.count, _SPARSITY_SAMPLES, seed=0)]
        cubes: list[Cube] = []
        blocks: list[tuple[Condition, slice]] = []
        for condition in self._conditions:
            variants = len(condition.variants_at(self._unknowns.layout))
            samples = np.tile(drawn, (variants, 1))
            samples[:, self._unknowns.names.index("variant")] = (
                np.repeat(np.arange(variants), _SPARSITY_SAMPLES) + 0.5
            ) / variants
            start = blocks[-1][1].stop if blocks else 0
            blocks.append((condition, slice(start, start + len(samples))))
            cubes.append(samples)
        return np.concatenate(cubes), blocks

    def _changes(self, cube: Cube, blocks: Blocks, step: Cube, together: NDArray[np.bool_], mode: Mode) -> Array:
        """Change of each branch's admittance, (K, B, G), when each group (G, unknowns) of axes makes its step."""
        count, groups = len(cube), len(together)
        found, moved = self._unknowns.rows(cube)[:, :, None], self._unknowns.rows(cube + step)[:, :, None]
        rows = np.concatenate([found, np.where(together.T[:, None], moved, found)], axis=2)
        values = dict(zip(self._unknowns.names, rows.reshape(len(rows), -1), strict=True))
        wider = [(c, slice(rows.start * (1 + groups), rows.stop * (1 + groups))) for c, rows in blocks]
        admittance = self._admittances(values, wider, mode)
        stacked = np.stack([admittance[name] for name in self._branches]).reshape(-1, count, 1 + groups)
        return np.asarray(stacked[:, :, 1:] - stacked[:, :, :1])
