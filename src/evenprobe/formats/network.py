"""The network file: an explicit network at one frequency, and pairs to ask for."""

from typing import Annotated, Literal

import numpy as np
from pydantic import Field, model_validator

from evenprobe.entries import FieldError, FormatError, Name, Positive, Strict
from evenprobe.formats.answers.network import EquivalentOut, NetworkOut
from evenprobe.network import EARTH, Mesh, NetworkError, Solution

Ends = Annotated[tuple[Name, Name], Field()]


class BranchEntry(Strict):
    """A resistor, a capacitor, or a source of `emf_v` behind `ohm` that drives its first node positive."""

    between: Ends
    ohm: Positive | None = None
    farad: Positive | None = None
    emf_v: float | None = None
    phase_deg: float | None = None

    @model_validator(mode="after")
    def _one_thing(self) -> "BranchEntry":
        if self.between[0] == self.between[1]:
            raise FieldError("between", f"joins {self.between[0]} to itself")
        if self.ohm is None and self.farad is None:
            raise FieldError("ohm", "is missing: a branch needs ohm or farad")
        if self.ohm is not None and self.farad is not None:
            raise FieldError("farad", "stands beside ohm: make two branches of it")
        if self.emf_v is not None and self.ohm is None:
            raise FieldError("ohm", "is missing: a source needs its impedance")
        if self.phase_deg is not None and self.emf_v is None:
            raise FieldError("phase_deg", "only a source has a phase")
        return self


class NetworkFile(Strict):
    """A network file: nodes, branches in ohms and sources in volts, for `solve`."""

    format: Literal["even-probe/network"]
    version: Literal[1]
    frequency_hz: Annotated[float, Field(ge=0)]
    earth: Name
    branches: Annotated[list[BranchEntry], Field(min_length=1)]
    ask: Annotated[list[Ends], Field(min_length=1)]

    @model_validator(mode="after")
    def _asks_for_nodes(self) -> "NetworkFile":
        nodes = {n for b in self.branches for n in b.between}
        if self.earth not in nodes:
            raise FieldError("earth", f"no branch touches {self.earth!r}")
        for i, pair in enumerate(self.ask):
            for j, node in enumerate(pair):
                if node not in nodes:
                    raise FieldError(f"ask[{i}][{j}]", f"no branch touches {node!r}")
            if pair[0] == pair[1]:
                raise FieldError(f"ask[{i}]", f"asks for {pair[0]} against itself")
        if EARTH in nodes and self.earth != EARTH:
            raise FieldError("earth", f"a node is named {EARTH}; name it as the earth or otherwise")
        return self

    def solve(self) -> NetworkOut:
        """The answer of `solve`, at full double precision. Raises FormatError naming a node left hanging."""
        omega = 2 * np.pi * self.frequency_hz
        conducting = {
            f"branches[{i}]": branch for i, branch in enumerate(self.branches) if branch.ohm is not None or omega > 0
        }
        hanging = {n for b in self.branches for n in b.between} - {n for b in conducting.values() for n in b.between}
        if hanging - {self.earth}:
            raise FormatError([("branches", f"node {min(hanging)} has no path to {self.earth} at this frequency")])
        try:
            mesh = Mesh({name: (self._node(b.between[0]), self._node(b.between[1])) for name, b in conducting.items()})
        except NetworkError as error:
            raise FormatError([("branches", str(error).replace("earth", self.earth))]) from None
        admittance = {
            name: np.array([1 / b.ohm if b.ohm is not None else 1j * omega * (b.farad or 0.0)], dtype=complex)
            for name, b in conducting.items()
        }
        emf = {
            name: np.array([b.emf_v * np.exp(1j * np.deg2rad(b.phase_deg or 0.0))])
            for name, b in conducting.items()
            if b.emf_v is not None
        }
        ports = list(dict.fromkeys(self._node(n) for pair in self.ask for n in pair))
        solution = mesh.solve(admittance, emf, ports)
        return NetworkOut(ask=[self._answer(solution, pair) for pair in self.ask])

    def _node(self, name: str) -> str:
        return EARTH if name == self.earth else name

    def _answer(self, solution: Solution, pair: Ends) -> EquivalentOut:
        ports = self._node(pair[0]), self._node(pair[1])
        volts, ohms = solution.open_volts(ports)[0], solution.impedance(ports)[0]
        return EquivalentOut(
            between=list(pair),
            open_v=[float(volts.real), float(volts.imag)],
            z_ohm=[float(ohms.real), float(ohms.imag)],
        )
