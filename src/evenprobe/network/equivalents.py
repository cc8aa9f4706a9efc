"""Everything a tester can do follows from two points: an open-circuit voltage behind an impedance.

Thévenin's theorem for a pair of ports, and known loads between ports as rank-one updates
(Sherman and Morrison, Ann. Math. Stat. 21, 1950), so an ensemble is solved once and answers any reading.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

Pair = tuple[str, str]
"""Two ports, measuring point first: the voltage of a pair is V[first] − V[second]."""

Array = NDArray[Any]


@cache
def both_ways(ports: int) -> NDArray[np.intp]:
    """(P, P): which row of the half that is kept has the impedance between two ports.

    >>> both_ways(2).tolist()
    [[0, 1], [1, 2]]
    """
    found = np.zeros((ports, ports), dtype=np.intp)
    one, other = np.triu_indices(ports)
    found[one, other] = found[other, one] = np.arange(len(one))
    return found


@dataclass(frozen=True)
class Load:
    """A conductance in siemens, scalar or (B,), between two ports."""

    pair: Pair
    siemens: Array


@dataclass(frozen=True)
class Slopes:
    """What tells how a solution answers to a change of each branch (Director and Rohrer, IEEE Trans. CT-16, 1969).

    `across` (K, P, B): volts across each branch for one ampere into each port. `drops` (K, B): volts each
    branch itself drops, its source taken off. `by_emf` (S, P, B): volts of each port for the EMF of each branch
    whose source moves on its own.
    """

    across: Array
    drops: Array
    by_emf: Array


@dataclass(frozen=True)
class Solution:
    """Potentials V (P, B) in volts of the named ports and the impedances Z in ohms between them.

    Z is the same both ways (reciprocity), so of its P × P rows each two are kept once: `half` (P (P + 1) / 2, B), in
    the order of `both_ways`. `standing`: loads that are on whatever else is asked.
    """

    ports: tuple[str, ...]
    volts: Array
    half: Array
    slopes: Slopes | None = None
    standing: tuple[Load, ...] = ()

    def _at(self, pair: Pair) -> tuple[int, int]:
        return self.ports.index(pair[0]), self.ports.index(pair[1])

    def transfer(self, pair: Pair, drive: Pair, loads: Sequence[Load] = ()) -> Array:
        """Volts across `pair` for one ampere driven into `drive`, with `loads` connected. Shape (B,)."""
        return self._transfer(pair, drive, (*self.standing, *loads))

    def _transfer(self, pair: Pair, drive: Pair, loads: Sequence[Load]) -> Array:
        if loads:
            *rest, load = loads
            into = self._transfer(pair, load.pair, rest)
            out = into if drive == pair else self._transfer(load.pair, drive, rest)
            own = self._transfer(load.pair, load.pair, rest)
            return np.asarray(self._transfer(pair, drive, rest) - load.siemens * into * out / (1 + load.siemens * own))
        a, b = self._at(pair)
        c, d = self._at(drive)
        at, half = both_ways(len(self.ports)), self.half
        return np.asarray(half[at[a, c]] - half[at[a, d]] - half[at[b, c]] + half[at[b, d]])

    @property
    def ohms(self) -> Array:
        """Z whole, (P, P, B)."""
        return np.asarray(self.half[both_ways(len(self.ports))])

    def impedance(self, pair: Pair, loads: Sequence[Load] = ()) -> Array:
        """Internal impedance of the pair in ohms, shape (B,)."""
        return self.transfer(pair, pair, loads)

    def open_volts(self, pair: Pair, loads: Sequence[Load] = ()) -> Array:
        """Open-circuit voltage of the pair in volts, shape (B,)."""
        return self._open_volts(pair, (*self.standing, *loads))

    def _open_volts(self, pair: Pair, loads: Sequence[Load]) -> Array:
        if loads:
            *rest, load = loads
            own = self._transfer(load.pair, load.pair, rest)
            current = load.siemens * self._open_volts(load.pair, rest) / (1 + load.siemens * own)
            return np.asarray(self._open_volts(pair, rest) - self._transfer(pair, load.pair, rest) * current)
        a, b = self._at(pair)
        return np.asarray(self.volts[a] - self.volts[b])

    def volts_per_siemens(self, pair: Pair, loads: Sequence[Load] = ()) -> Array:
        """What the pair's open-circuit voltage changes by for each branch's admittance, then each EMF, (K + S, B)."""
        slopes, loads = self._with_slopes, (*self.standing, *loads)
        by_admittance = -self._loaded(slopes.across, pair, loads) * self._drops(loads)
        if not len(slopes.by_emf):
            return np.asarray(by_admittance)
        return np.concatenate([by_admittance, self._loaded(slopes.by_emf, pair, loads)])

    def ohms_per_siemens(self, pair: Pair, loads: Sequence[Load] = ()) -> Array:
        """What the pair's internal impedance changes by for each branch's admittance, and not for EMFs, (K + S, B)."""
        slopes, loads = self._with_slopes, (*self.standing, *loads)
        by_admittance = -(self._loaded(slopes.across, pair, loads) ** 2)
        if not len(slopes.by_emf):
            return np.asarray(by_admittance)
        return np.concatenate([by_admittance, np.zeros_like(slopes.by_emf[:, 0])])

    @property
    def _with_slopes(self) -> Slopes:
        assert self.slopes is not None, "solved without slopes"
        return self.slopes

    def _loaded(self, per_port: Array, pair: Pair, loads: Sequence[Load]) -> Array:
        """Of what answers to a drive at each port, (X, P, B), what answers to the pair with loads on, (X, B)."""
        if loads:
            *rest, load = loads
            own = self._transfer(load.pair, load.pair, rest)
            share = load.siemens * self._transfer(load.pair, pair, rest) / (1 + load.siemens * own)
            return np.asarray(self._loaded(per_port, pair, rest) - share * self._loaded(per_port, load.pair, rest))
        a, b = self._at(pair)
        return np.asarray(per_port[:, a] - per_port[:, b])

    def _drops(self, loads: Sequence[Load]) -> Array:
        if loads:
            *rest, load = loads
            own = self._transfer(load.pair, load.pair, rest)
            share = load.siemens * self._open_volts(load.pair, rest) / (1 + load.siemens * own)
            across = self._with_slopes.across
            return np.asarray(self._drops(rest) - share * self._loaded(across, load.pair, rest))
        return self._with_slopes.drops

    def at_ports(self, names: tuple[str, ...], index: NDArray[np.intp]) -> "Solution":
        """The same network by other names: of sample b, names[i] is the port index[i, b]. `index` is (N, B)."""
        b = np.arange(index.shape[1])
        slopes = self.slopes and Slopes(
            self.slopes.across[:, index, b], self.slopes.drops, self.slopes.by_emf[:, index, b]
        )
        one, other = np.triu_indices(len(names))
        rows = both_ways(len(self.ports))[index[one], index[other]]
        return Solution(names, self.volts[index, b], self.half[rows, b], slopes)

    def select(self, rows: NDArray[np.intp]) -> "Solution":
        """The same ports for some of the samples."""
        slopes = self.slopes and Slopes(
            self.slopes.across[:, :, rows], self.slopes.drops[:, rows], self.slopes.by_emf[..., rows]
        )
        standing = tuple(Load(load.pair, load.siemens[rows]) for load in self.standing)
        return Solution(self.ports, self.volts[:, rows], self.half[:, rows], slopes, standing)

    def carrying(self, load: Load) -> "Solution":
        """With a load (B,) on, whatever else is asked."""
        return replace(self, standing=(*self.standing, load))
