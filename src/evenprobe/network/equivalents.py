"""Everything a tester can do follows from two points: an open-circuit voltage behind an impedance.

Thévenin's theorem for a pair of ports, and known loads between ports as rank-one updates
(Sherman and Morrison, Ann. Math. Stat. 21, 1950), so an ensemble is solved once and answers any reading.
"""

from collections.abc import Callable, Hashable, Sequence
from dataclasses import dataclass, field, replace
from functools import cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

Pair = tuple[str, str]
"""Two ports, measuring point first: the voltage of a pair is V[first] − V[second]."""

Array = NDArray[Any]


def _some(of_all: Array, rows: NDArray[np.intp]) -> Array:
    """Of samples along the last axis some, lying in memory as all of them did."""
    return np.take(of_all, rows, axis=-1)


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
    the order of `both_ways`. `standing`: loads that are on whatever else is asked; where there are slopes too, what
    is asked again and again with these alone on is kept.
    """

    ports: tuple[str, ...]
    volts: Array
    half: Array
    slopes: Slopes | None = None
    standing: tuple[Load, ...] = ()
    _with_standing: dict[Hashable, Array] = field(default_factory=dict, init=False, repr=False, compare=False)

    def _kept(self, loads: Sequence[Load], asked: Hashable, work_out: Callable[[], Array]) -> Array:
        if self.slopes is None or len(loads) != len(self.standing):
            return work_out()
        if asked not in self._with_standing:
            self._with_standing[asked] = work_out()
        return self._with_standing[asked]

    def _at(self, pair: Pair) -> tuple[int, int]:
        return self.ports.index(pair[0]), self.ports.index(pair[1])

    def transfer(self, pair: Pair, drive: Pair, loads: Sequence[Load] = ()) -> Array:
        """Volts across `pair` for one ampere driven into `drive`, with `loads` connected. Shape (B,)."""
        return self._transfer(pair, drive, (*self.standing, *loads))

    def _transfer(self, pair: Pair, drive: Pair, loads: Sequence[Load]) -> Array:
        return self._kept(loads, (pair, drive), lambda: self._transfer_with(pair, drive, loads))

    def _transfer_with(self, pair: Pair, drive: Pair, loads: Sequence[Load]) -> Array:
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
        return self._kept(loads, pair, lambda: self._open_volts_with(pair, loads))

    def _open_volts_with(self, pair: Pair, loads: Sequence[Load]) -> Array:
        if loads:
            *rest, load = loads
            own = self._transfer(load.pair, load.pair, rest)
            current = load.siemens * self._open_volts(load.pair, rest) / (1 + load.siemens * own)
            return np.asarray(self._open_volts(pair, rest) - self._transfer(pair, load.pair, rest) * current)
        a, b = self._at(pair)
        return np.asarray(self.volts[a] - self.volts[b])

    def volts_per_siemens(self, pair: Pair, loads: Sequence[Load] = ()) -> Array:
        """What the pair's open-circuit voltage changes by for each branch's admittance, then each EMF, (K + S + L, B).

        Last for the siemens of each load that is `standing`.
        """
        slopes, loads = self._with_slopes, (*self.standing, *loads)
        by_standing = [
            -self._transfer(pair, load.pair, loads) * self._open_volts(load.pair, loads) for load in self.standing
        ]
        by_admittance = -self._loaded(slopes.across, pair, loads) * self._drops(loads)
        by_emf = self._loaded(slopes.by_emf, pair, loads)
        return np.concatenate([by_admittance, by_emf, *(each[None] for each in by_standing)])

    def ohms_per_siemens(self, pair: Pair, loads: Sequence[Load] = ()) -> Array:
        """What the pair's internal impedance changes by for the same, and not for EMFs, (K + S + L, B)."""
        slopes, loads = self._with_slopes, (*self.standing, *loads)
        by_standing = [-(self._transfer(pair, load.pair, loads) ** 2) for load in self.standing]
        by_admittance = -(self._loaded(slopes.across, pair, loads) ** 2)
        return np.concatenate(
            [by_admittance, np.zeros_like(slopes.by_emf[:, 0]), *(each[None] for each in by_standing)]
        )

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
        return self._kept(loads, "drops", lambda: self._drops_with(loads))

    def _drops_with(self, loads: Sequence[Load]) -> Array:
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
            np.take_along_axis(self.slopes.across, index[None], axis=1),
            self.slopes.drops,
            np.take_along_axis(self.slopes.by_emf, index[None], axis=1),
        )
        one, other = np.triu_indices(len(names))
        rows = both_ways(len(self.ports))[index[one], index[other]]
        return Solution(names, self.volts[index, b], self.half[rows, b], slopes)

    def select(self, rows: NDArray[np.intp]) -> "Solution":
        """The same ports for some of the samples."""
        slopes = self.slopes and Slopes(
            _some(self.slopes.across, rows), _some(self.slopes.drops, rows), _some(self.slopes.by_emf, rows)
        )
        standing = tuple(Load(load.pair, load.siemens[rows]) for load in self.standing)
        return Solution(self.ports, _some(self.volts, rows), _some(self.half, rows), slopes, standing)

    def carrying(self, load: Load) -> "Solution":
        """With a load (B,) on, whatever else is asked."""
        return replace(self, standing=(*self.standing, load))

    def side_by_side(self, loads: Sequence[Load]) -> "Solution":
        """The samples as they are, then all of them again with the first load on, then with the second: (1 + L) · B."""
        one, other = np.triu_indices(len(self.ports))
        to_each = self.ohms
        volts, half = [self.volts], [self.half]
        for load in loads:
            a, b = self._at(load.pair)
            through = to_each[:, a] - to_each[:, b]
            share = load.siemens / (1 + load.siemens * (through[a] - through[b]))
            volts.append(self.volts - through * (share * (self.volts[a] - self.volts[b])))
            half.append(self.half - through[one] * (share * through[other]))
        return Solution(self.ports, np.concatenate(volts, axis=1), np.concatenate(half, axis=1))
