"""How the admittances of an installation's branches answer to its unknowns, by differences.

The network says what each branch's admittance does to a reading (`network.equivalents`); this says what each
unknown does to the branches, and the two together are the slopes that samples are moved by.
"""

from collections.abc import Callable, Hashable, Sequence
from typing import Any, Generic, TypeVar

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
Sparsity = tuple[NDArray[np.bool_], NDArray[np.intp]]
"""Which axes touch which branch, (K, unknowns), and for each axis the group it can be moved with."""
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

    def slopes(self, per_branch: Array, cube: Cube, blocks: Blocks, mode: Mode) -> Array:
        """What quantities (R, B) that answer to the branches' admittances change by along each axis, (B, R, unknowns).

        `per_branch` (R, K, B): per siemens of each branch, complex, of whose products the real part counts. How
        the admittances move is found by differences, one-sided, away from the nearer wall, moving at once all
        axes that touch no branch in common (Curtis, Powell and Reid, J. IMA 13, 1974).
        """
        touches, group = self._sparsity
        step = np.where(cube > 0.5, -SLOPE_STEP, SLOPE_STEP)
        together = np.arange(int(group.max()) + 1)[:, None] == group
        change = self._changes(cube, blocks, step, together, mode)
        moves = np.ascontiguousarray(change.transpose(2, 1, 0))
        answers = np.ascontiguousarray(per_branch.transpose(2, 0, 1))
        found = np.empty((*answers.shape[:2], cube.shape[1]))
        for own, axes in zip(moves, together, strict=True):
            found[:, :, axes] = np.real(answers * own[:, None]) @ touches[:, axes].astype(float)
        return np.asarray(found / step[:, None])

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
        return touches, group

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
