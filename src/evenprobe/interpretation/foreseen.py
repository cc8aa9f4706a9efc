"""What the ensemble's samples would show that no reading asked for yet, kept by sample.

After every reading much the same samples are asked about much the same measurements again, in modes that no reading
needed yet; a sample is solved for it once, and what it would show is kept instead of the solution.
"""

from collections.abc import Callable, Hashable, Mapping
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.installation.installation import Solved
from evenprobe.installation.modes import Mode
from evenprobe.interpretation.memory import Memory
from evenprobe.interpretation.samples import in_whole_lanes

Array = NDArray[Any]

_MOST_KEPT = 192
"""About three testers' candidates of a point, with and without what else is on."""


class Foreseen:
    """Of `count` samples; `solved_at` solves some of them in a mode."""

    def __init__(self, count: int, solved_at: Callable[[NDArray[np.intp], Mode], Solved]) -> None:
        self._count, self._solved_at = count, solved_at
        self._kept: Memory[tuple[Hashable, Mode], Array] = Memory(_MOST_KEPT)

    def at(self, rows: NDArray[np.intp], mode: Mode, asked: Mapping[Any, Callable[[Solved], Array]]) -> Array:
        """(A, S) of the samples `rows` (S,) in a mode: all that is asked, by whatever it is known by."""
        kept = [self._of(name, mode) for name in asked]
        unseen = np.unique(rows[np.logical_or.reduce([np.isnan(of_all[rows]) for of_all in kept])])
        if len(unseen):
            solved = self._solved_at(in_whole_lanes(unseen), mode)
            for of_all, shown in zip(kept, asked.values(), strict=True):
                of_all[unseen] = shown(solved)[: len(unseen)]
        return np.stack([of_all[rows] for of_all in kept])

    def _of(self, name: Hashable, mode: Mode) -> Array:
        return self._kept.of((name, mode), lambda: np.full(self._count, np.nan))
