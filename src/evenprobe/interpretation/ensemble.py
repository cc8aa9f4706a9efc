"""The ensemble of samples of a point: every condition, many ways each, solved once and answering any reading.

Sobol points, the same every time, so results repeat. The same points serve every condition, so conditions
differ by their change alone.
"""

from collections.abc import Callable, Hashable, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache, partial
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.conditions import Condition, conditions_for
from evenprobe.installation import Installation
from evenprobe.installation.installation import Solved
from evenprobe.installation.modes import AS_FOUND, Mode
from evenprobe.interpretation.foreseen import Foreseen
from evenprobe.interpretation.memory import Memory
from evenprobe.interpretation.samples import PREDICTIONS_KEPT, Samples, in_whole_lanes
from evenprobe.quantities import Evidence, Measurement
from evenprobe.quantities.probes import phasor, potential
from evenprobe.sobol import sobol
from evenprobe.wiring import PointFacts, Terminal

Array = NDArray[Any]

SAMPLES_PER_CONDITION = 1024
_CORNER_SHARE = 0.08
_TAIL_SHARE = 0.1
_LEAST_MISSES_KEPT = 2048


@dataclass(frozen=True)
class ShownRange:
    """By condition, (C,): the `least` and the `most` its samples show, and how far beyond it could `reach`.

    What samples leave unseen beyond their ends is about as wide as the thinnest tenth of them.
    """

    least: Array
    most: Array
    reach_low: Array
    reach_high: Array


class Ensemble(Samples):
    """All conditions of a point, or only those named, `samples` of each: rows (C · samples, unknowns)."""

    def __init__(
        self,
        point: PointFacts,
        samples: int = SAMPLES_PER_CONDITION,
        conditions: tuple[Condition, ...] | None = None,
    ) -> None:
        installation = Installation(point)
        self.point = point
        self.samples = samples
        self.conditions = conditions_for(point) if conditions is None else conditions
        cube = _spread(installation.unknowns.count, samples)
        blocks = [(condition, slice(i * samples, (i + 1) * samples)) for i, condition in enumerate(self.conditions)]
        super().__init__(installation, np.tile(cube, (len(self.conditions), 1)), blocks)
        self.scale = self.source_range
        self._ranges: Memory[Measurement, ShownRange] = Memory(PREDICTIONS_KEPT)
        self.met: Memory[Hashable, Any] = Memory(_LEAST_MISSES_KEPT)
        """By a condition's id and the keys of one or two pieces of evidence: what a search for them found."""
        self._foreseen = Foreseen(len(self.cube))

    def prepare(self) -> None:
        """Solve beforehand what the next readings of voltage need; of the dead circuit, only when it is asked."""
        for others in ("", *self.installation.loadings):
            self.solved(AS_FOUND._replace(taps=True, others=others))

    def block_of(self, condition: Condition) -> slice:
        """The rows of the ensemble that are under a condition."""
        return self._block_by_id[condition.id]

    @cached_property
    def _block_by_id(self) -> dict[str, slice]:
        return {c.id: block for c, block in self.blocks}

    def number_of(self, block: slice) -> int:
        """Which of the conditions has this block of rows."""
        return int(block.start) // self.samples

    def shown_range(self, e: Evidence) -> "ShownRange":
        """What the samples of each condition show, its source anywhere in its span."""
        return self._ranges.of(e.measurement, lambda: self._range(e))

    def _range(self, e: Evidence) -> "ShownRange":
        span = self.span(e.measurement)
        low, high = self.scale if e.with_source else (1.0, 1.0)
        by_condition = len(self.conditions), self.samples
        tail = int(_TAIL_SHARE * self.samples)
        lowest = np.partition((span.least * low).reshape(by_condition), (0, tail), axis=1)[:, [0, tail]]
        highest = np.partition(-(span.most * high).reshape(by_condition), (0, tail), axis=1)[:, [0, tail]]
        return ShownRange(
            lowest[:, 0], -highest[:, 0], 2 * lowest[:, 0] - lowest[:, 1], highest[:, 1] - 2 * highest[:, 0]
        )

    def potentials(self, terminals: Sequence[Terminal], rows: NDArray[np.intp]) -> Array:
        """Volts of terminals against the mass of earth, (T, S) of some samples (S,)."""
        return self.foreseen(rows, AS_FOUND, {terminal: partial(potential, terminal) for terminal in terminals})

    def foreseen(self, rows: NDArray[np.intp], mode: Mode, asked: Mapping[Any, Callable[[Solved], Array]]) -> Array:
        """(A, S) of some samples (S,) in a mode: all that is asked, by whatever it is known by."""
        return self._foreseen.at(self.solved_at, rows, mode, asked)

    def phasors(self, terminals: Sequence[Terminal], rows: NDArray[np.intp]) -> Array:
        """The same with their angles."""
        solved = self.solved_at(in_whole_lanes(rows), AS_FOUND)
        return np.stack([phasor(terminal, solved)[: len(rows)] for terminal in terminals])


@lru_cache(maxsize=4)
def _spread(dimensions: int, samples: int) -> Array:
    """(samples, dimensions) in the unit cube; `samples` is best a power of two.

    A share of them is pushed to the cube's corners, where long runs meet heavy loads: what a condition can
    show at the most must be in the ensemble, or a reading out there would strike out the truth.
    """
    cube = sobol(dimensions, samples)
    corners = int(samples * _CORNER_SHARE)
    cube[-corners:] = np.round(cube[-corners:])
    return cube


def ensemble_for(point: PointFacts, samples: int = SAMPLES_PER_CONDITION) -> Ensemble:
    """The ensemble of a point, kept: points that the record describes alike share one.

    Parameters
    ----------
    point : PointFacts
        What the record knows of the point.
    samples : int
        Of each condition; best a power of two (Sobol, 1967).

    Returns
    -------
    Ensemble
        Solved as it is asked for.

    Examples
    --------
    >>> from evenprobe.practices import BRITISH
    >>> from evenprobe.supplies import SYSTEMS, Earthing
    >>> from evenprobe.wiring import PointFacts, PointKind, Terminal
    >>> contacts = (Terminal.L, Terminal.N, Terminal.PE)
    >>> outlet = PointFacts(BRITISH, SYSTEMS["230"], Earthing.TN_S, PointKind.OUTLET, contacts)
    >>> ensemble_for(outlet, 16).cube.shape[0] == 16 * len(ensemble_for(outlet, 16).conditions)
    True
    """
    return _kept(point, samples)


def forget_ensembles() -> None:
    """As if no point had ever been opened."""
    _kept.cache_clear()


@lru_cache(maxsize=12)
def _kept(point: PointFacts, samples: int) -> Ensemble:
    return Ensemble(point, samples)
