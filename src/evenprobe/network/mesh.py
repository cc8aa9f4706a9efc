"""Nodal analysis by star–mesh elimination, vectorised over a batch of parameter samples.

A mesh is a fixed set of nodes joined by branches; the mass of earth is the reference. Only the branch
admittances differ between samples. Eliminating node k replaces its star of branches by a mesh between its
neighbours (Rosen, "A new network theorem", J. IEE 62, 1924):

    y_ij += y_ki · y_kj / Σ_j y_kj          J_j += J_k · y_kj / Σ_j y_kj

No step subtracts, so a bolted joint of 1 mΩ beside an open of 1 GΩ loses no digits, where forming and
inverting Y would lose them to cancellation on the diagonal. The order of elimination is chosen once for a
topology (least degree first), and every step then runs over the whole batch.
"""

from collections.abc import Mapping, Sequence
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.network.equivalents import Slopes, Solution

EARTH = "EARTH"
"""The reference node, the mass of earth, at 0 V by definition."""

Samples = NDArray[Any]

_CHUNK = 1024
"""Samples eliminated at a time, so that what is worked on stays in the processor's cache."""


class NetworkError(ValueError):
    """The network has no unique solution; the message names the node."""


class Mesh:
    """A topology: branches between named nodes, with `EARTH` as the reference.

    Parameters: `branches`, name to the two nodes it joins. Raises NetworkError when a branch joins a node
    to itself or a node has no path to earth.
    """

    def __init__(self, branches: Mapping[str, tuple[str, str]]) -> None:
        self.branches = dict(branches)
        for name, (a, b) in self.branches.items():
            if a == b:
                raise NetworkError(f"branch {name} joins {a} to itself")
        self.nodes = tuple(dict.fromkeys(n for ends in branches.values() for n in ends if n != EARTH))
        for node in self.nodes:
            if node not in self._reachable:
                raise NetworkError(f"node {node} has no path to earth at this frequency")

    @cached_property
    def _neighbours(self) -> dict[str, set[str]]:
        neighbours: dict[str, set[str]] = {node: set() for node in (*self.nodes, EARTH)}
        for a, b in self.branches.values():
            neighbours[a].add(b)
            neighbours[b].add(a)
        return neighbours

    @cached_property
    def _reachable(self) -> set[str]:
        reached, front = {EARTH}, [EARTH]
        while front:
            for node in self._neighbours[front.pop()] - reached:
                reached.add(node)
                front.append(node)
        return reached

    @cached_property
    def _order(self) -> list[tuple[str, list[str]]]:
        """Nodes in the order they are eliminated, each with the neighbours its star then has."""
        neighbours = {node: set(others) for node, others in self._neighbours.items()}
        order = []
        remaining = list(self.nodes)
        while remaining:
            node = min(remaining, key=lambda n: len(neighbours[n]))
            remaining.remove(node)
            star = sorted(neighbours.pop(node))
            for a in star:
                neighbours[a].discard(node)
                neighbours[a].update(b for b in star if b != a)
            order.append((node, star))
        return order

    def solve(
        self,
        admittance: Mapping[str, Samples],
        emf: Mapping[str, Samples],
        ports: Sequence[str],
        *,
        with_slopes: bool = False,
        moving: Sequence[str] = (),
        per_volts: Samples | float = 1.0,
    ) -> Solution:
        """Potentials of the ports and the impedance matrix between them.

        `admittance`: siemens (B,) for every branch, with positive real part or positive susceptance, never
        zero at every branch of a node. `emf`: volts (B,) of the branches that have a source, driving their
        first node positive. Real arrays at DC, complex phasors otherwise. Returns a Solution with V (P, B)
        and Z, and `with_slopes` how they answer to each branch, and to the EMF of the branches `moving`
        as shares of `per_volts`; EARTH may be a port.
        """
        count = len(next(iter(admittance.values())))
        injection: dict[str, Samples] = {}
        for name, volts in emf.items():
            into = volts * admittance[name]
            for node, amperes in zip(self.branches[name], (into, -into), strict=True):
                if node != EARTH:
                    injection[node] = injection[node] + amperes if node in injection else amperes
        driven = [port for port in ports if port != EARTH]
        asked = [*ports, *(self.nodes if with_slopes else ())]
        answer = np.empty((len(asked), 1 + len(driven), count), dtype=np.result_type(*admittance.values()))
        for start in range(0, count, _CHUNK):
            rows = slice(start, start + _CHUNK)
            answer[:, :, rows] = self._eliminate(
                {name: y[rows] for name, y in admittance.items()},
                {node: amperes[rows] for node, amperes in injection.items()},
                driven,
                asked,
            )
        columns = [ports.index(port) for port in driven]
        driven_by = {column: 1 + number for number, column in enumerate(columns)}
        half = np.zeros((len(ports) * (len(ports) + 1) // 2, count), dtype=answer.dtype)
        for row, (one, other) in enumerate(np.transpose(np.triu_indices(len(ports))).tolist()):
            if other in driven_by:
                half[row] = answer[one, driven_by[other]]
        slopes = None
        if with_slopes:
            per_share = {name: admittance[name] * per_volts for name in moving}
            slopes = self._slopes(answer[len(ports) :], emf, columns, len(ports), per_share)
        return Solution(tuple(ports), answer[: len(ports), 0].copy(), half, slopes)

    def _slopes(
        self,
        everywhere: Samples,
        emf: Mapping[str, Samples],
        columns: list[int],
        ports: int,
        per_share: Mapping[str, Samples],
    ) -> Slopes:
        at = dict(zip(self.nodes, everywhere, strict=True))
        at[EARTH] = np.zeros_like(everywhere[0])
        across = np.zeros((len(self.branches), ports, everywhere.shape[2]), dtype=everywhere.dtype)
        drops = np.empty((len(self.branches), everywhere.shape[2]), dtype=everywhere.dtype)
        for row, (name, (a, b)) in enumerate(self.branches.items()):
            difference = at[a] - at[b]
            across[row, columns] = difference[1:]
            drops[row] = difference[0] - emf[name] if name in emf else difference[0]
        by_emf = np.zeros((len(per_share), *across.shape[1:]), dtype=across.dtype)
        rows = {name: row for row, name in enumerate(self.branches)}
        for own, (name, into) in zip(by_emf, per_share.items(), strict=True):
            own[:] = across[rows[name]] * into
        return Slopes(across, drops, by_emf)

    def _eliminate(
        self,
        admittance: Mapping[str, Samples],
        injection: Mapping[str, Samples],
        driven: Sequence[str],
        asked: Sequence[str],
    ) -> Samples:
        """(A, 1 + D, B): potentials of the nodes asked for, under the injection, then one ampere into each driven."""
        star: dict[str, dict[str, Samples]] = {node: {} for node in (*self.nodes, EARTH)}
        for name, (a, b) in self.branches.items():
            y = admittance[name]
            star[a][b] = star[b][a] = star[a][b] + y if b in star[a] else y

        count = len(next(iter(admittance.values())))
        unit = np.ones(count, dtype=np.result_type(*admittance.values(), *injection.values()))
        drive: dict[str, Samples] = {}
        for column, into in enumerate([injection, *({port: unit} for port in driven)]):
            for node in into:
                if node not in drive:
                    drive[node] = np.zeros((1 + len(driven), len(unit)), dtype=unit.dtype)
                drive[node][column] = into[node]

        resistance: dict[str, Samples] = {}
        share: dict[str, dict[str, Samples]] = {}
        for node, neighbours in self._order:
            own = star[node]
            resistance[node] = np.asarray(1.0 / sum(own[n] for n in neighbours))
            share[node] = {n: own[n] * resistance[node] for n in neighbours if n != EARTH}
            for position, a in enumerate(neighbours):
                del star[a][node]
                for b in neighbours[position + 1 :]:
                    through = own[a] * share[node][b] if b != EARTH else own[b] * share[node][a]
                    star[a][b] = star[b][a] = star[a][b] + through if b in star[a] else through
            if node in drive:
                for n, part in share[node].items():
                    passed = drive[node] * part
                    drive[n] = drive[n] + passed if n in drive else passed

        at_earth = np.zeros((1 + len(driven), len(unit)), dtype=unit.dtype)
        potential: dict[str, Samples] = {EARTH: at_earth}
        for node, _ in reversed(self._order):
            value = drive[node] * resistance[node] if node in drive else at_earth
            for n, part in share[node].items():
                value = value + part * potential[n]
            potential[node] = value
        return np.stack([potential[node] for node in asked])
