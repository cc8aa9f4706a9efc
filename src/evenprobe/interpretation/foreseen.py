"""What the ensemble's samples would show that no reading asked for yet, kept by sample.

After every reading much the same samples are asked about much the same measurements again, in modes that no reading
needed yet; a sample is solved for it once, and what it would show is kept instead of the solution.
"""

from collections.abc import Callable, Hashable, Mapping
from threading import Lock
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.installation.installation import Solved
from evenprobe.installation.modes import Mode
from evenprobe.interpretation.samples import in_whole_lanes

Array = NDArray[Any]

_MOST_SAMPLES, _MOST_NAMES = 6144, 256
"""Kept of a mode before all of it is forgotten: a few outlets' standing conditions, a few testers' measurements."""


SolvedAt = Callable[[NDArray[np.intp], Mode], Solved]
"""Solves some samples in a mode."""


class Foreseen:
    """Of `count` samples. It does not know whose: what is forgotten is gone at once only where nothing goes round."""

    def __init__(self, count: int) -> None:
        self._count = count
        self._of_modes: dict[Mode, _OfAMode] = {}
        self._lock = Lock()

    def at(
        self,
        solved_at: SolvedAt,
        rows: NDArray[np.intp],
        mode: Mode,
        asked: Mapping[Any, Callable[[Solved], Array]],
    ) -> Array:
        """(A, S) of the samples `rows` (S,) in a mode: all that is asked, by whatever it is known by."""
        with self._lock:
            own = self._of_modes.get(mode)
            if own is None or own.samples > _MOST_SAMPLES or len(own.values) > _MOST_NAMES:
                own = self._of_modes[mode] = _OfAMode(self._count)
            kept, places = own.with_room_for(rows, asked)
            unseen = np.unique(rows[np.isnan(kept[:, places]).any(axis=0)])
            if len(unseen):
                solved = solved_at(in_whole_lanes(unseen), mode)
                kept[:, own.place[unseen]] = [shown(solved)[: len(unseen)] for shown in asked.values()]
                own.values.update(zip(asked, kept, strict=True))
            return np.asarray(kept[:, places])


class _OfAMode:
    """`place` (count,): where the values of a sample are, -1 where there are none; `values` by name, NaN unseen."""

    def __init__(self, count: int) -> None:
        self.place = np.full(count, -1, dtype=np.int32)
        self.samples = 0
        self.values: dict[Hashable, Array] = {}

    def with_room_for(self, rows: NDArray[np.intp], names: Mapping[Any, Any]) -> tuple[Array, Array]:
        """What is known of each name (A, samples), and the places (S,) of the rows in it."""
        new = np.unique(rows[self.place[rows] < 0])
        self.place[new] = np.arange(self.samples, self.samples + len(new))
        self.samples += len(new)
        kept = np.full((len(names), self.samples), np.nan)
        for of_name, name in zip(kept, names, strict=True):
            known = self.values.get(name, kept[:0, 0])
            of_name[: len(known)] = known
        return kept, self.place[rows]
