"""The installation of one point, solved: its sources, its terminals as they are labelled.

`topology` says what is joined to what, `admittances` how well. A resistance reading is the same installation
at DC with the sources at zero and the device open.
"""

from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any, Literal

import numpy as np
from numpy.typing import NDArray

from evenprobe.conditions import Condition, conditions_for
from evenprobe.installation.admittances import Admittances, rows_by_variant
from evenprobe.installation.modes import AS_FOUND, CLAMPED, DEAD, NEUTRAL_LIFTED, OFF, Mode, only_between
from evenprobe.installation.sensitivities import Blocks, Sensitivities
from evenprobe.limits import limit_for
from evenprobe.network import Load, Mesh, Solution
from evenprobe.wiring.points import BOARD_END, PointFacts, Terminal
from evenprobe.wiring.topology import FOREIGN, pairs_of, topology_of
from evenprobe.wiring.unknowns import Cube, Unknowns, Values, amperes, board_pairs, circuit_load, load_left, most_load_a

Array = NDArray[Any]
BesideBranches = Literal["known_load_error", "contact_ohm", "reference_ohm"]


@dataclass(frozen=True)
class Solved:
    """A solved batch: terminal equivalents, and what else a sample fixes. Arrays are (B,).

    Ports: the contacts as they are labelled, `TAP-` and a live contact's name where other loads tap the run, REF;
    dead also the conductors' ends at the board, clamped these and the bars behind them. `of_the_circuit` (live wires,
    B): which leave the board together, through the circuit's device; `device_sees` (B,): whether it sees what is
    missing of them.
    """

    at: Solution
    of_the_circuit: NDArray[np.bool_]
    device_sees: NDArray[np.bool_]
    known_load_error: Array
    contact_ohm: Array
    reference_ohm: Array

    def select(self, rows: NDArray[np.intp]) -> "Solved":
        """Some of the samples."""
        return Solved(
            self.at.select(rows),
            self.of_the_circuit[:, rows],
            self.device_sees[rows],
            self.known_load_error[rows],
            self.contact_ohm[rows],
            self.reference_ohm[rows],
        )

    def with_value(self, name: BesideBranches, value: Array) -> "Solved":
        """The same with another value of an unknown that acts at the known load or at the probes."""
        changed: Any = {name: value}
        return replace(self, **changed)


def tap_port(contact: str) -> str:
    """The port where other loads tap the run, on the wire of a contact."""
    return f"TAP-{contact}"


def bar_port(end: str) -> str:
    """The port of the bar that a conductor with this end at the board is on."""
    return f"BAR-{end}"


class Installation:
    """One point's installation. `blocks` says which rows of a batch are under which condition."""

    def __init__(self, point: PointFacts) -> None:
        self.point = point
        self.layout = point.layout
        self.topology = topology_of(point.layout)
        self.unknowns = Unknowns(point)
        self.admittances = Admittances(point)
        self._circuit_pairs = pairs_of(self.layout.live_wires)
        self._moving_sources = {f"emf_{line}": self.topology.sources[line] for line in self.layout.lines[1:]}
        if "earth_offset_volts" in self.unknowns.ranges:
            self._moving_sources["emf_earth"] = "source_electrode"
        self._most_a = most_load_a(point)

    @cached_property
    def loadings(self) -> tuple[str, ...]:
        """What else can be on along the run, by its extremes: nothing, or the most between any two wires."""
        return (OFF, *(only_between(*pair) for pair in self._circuit_pairs))

    def carrying(self, unloaded: Solved, values: Values, blocks: Blocks, mode: Mode) -> Solved:
        """Solved with nothing on along the run, what it is with what the mode says."""
        pair = next(pair for pair in self._circuit_pairs if only_between(*pair) == mode.others)
        return replace(unloaded, at=unloaded.at.carrying(self._most_between(pair, values, blocks, mode)))

    def side_by_side(self, unloaded: Solved, values: Values, blocks: Blocks, mode: Mode) -> Solved:
        """The same for each of the `loadings`, one after the other: (loadings · B)."""
        loads = [self._most_between(pair, values, blocks, mode) for pair in self._circuit_pairs]
        return Solved(
            unloaded.at.side_by_side(loads),
            *(
                np.tile(each, len(self.loadings))
                for each in (
                    unloaded.of_the_circuit,
                    unloaded.device_sees,
                    unloaded.known_load_error,
                    unloaded.contact_ohm,
                    unloaded.reference_ohm,
                )
            ),
        )

    def _most_between(self, pair: tuple[str, str], values: Values, blocks: Blocks, mode: Mode) -> Load:
        """The most that can be on along the run between two wires."""
        contacts = (*self.point.lines, Terminal.N)
        one, other = (str(contacts[self.layout.live_wires.index(wire)]) for wire in pair)
        siemens = self.admittances.most_along_the_run(values, blocks, pair, mode)
        return Load((tap_port(one), tap_port(other)), siemens)

    def solve(self, values: Values, blocks: Blocks, mode: Mode = AS_FOUND, *, with_slopes: bool = False) -> Solved:
        """Solve samples, given as the values (B,) of the unknowns.

        At DC sources are at zero and impedances are resistances, as an ohmmeter sees them.
        """
        admittance = self.admittances(values, blocks, mode)
        if mode.dc:
            solution = self.topology.dead.solve(admittance, {}, self.topology.dead_ports, with_slopes=with_slopes)
        else:
            volts = self.source_volts(values, blocks) * self.regulation(values, blocks)
            emf = {branch: volts * share for branch, share in self._sources(values, blocks).items()}
            moving = list(self._moving_sources.values())
            mesh, ports = self._energised(mode)
            solution = mesh.solve(admittance, emf, ports, with_slopes=with_slopes, moving=moving, per_volts=volts)
        return self._as_labelled(solution, values, blocks, mode)

    def _energised(self, mode: Mode) -> tuple[Mesh, tuple[str, ...]]:
        """The mesh, and the nodes that can be measured."""
        if mode.clamped:
            return self.topology.clamped, self.topology.clamped_ports
        return self.topology.live, self.topology.tapped_ports if mode.taps else self.topology.live_ports

    def sensitivities(self, mode: Mode) -> Sensitivities[Mode]:
        """How what it shows then answers to each unknown."""
        if mode.dc:
            return self._dead_sensitivities
        return self._clamped_sensitivities if mode.clamped else self._live_sensitivities

    @cached_property
    def _live_sensitivities(self) -> Sensitivities[Mode]:
        return self._energised_sensitivities(self.topology.live, AS_FOUND, Mode(device_open=True))

    @cached_property
    def _clamped_sensitivities(self) -> Sensitivities[Mode]:
        return self._energised_sensitivities(self.topology.clamped, CLAMPED, CLAMPED._replace(device_open=True))

    def _energised_sensitivities(self, mesh: Mesh, *modes: Mode) -> Sensitivities[Mode]:
        branches = (*mesh.branches, *self._moving_sources, *self.loadings[1:])
        return Sensitivities(self.unknowns, conditions_for(self.point), branches, modes, self._moving)

    @cached_property
    def _dead_sensitivities(self) -> Sensitivities[Mode]:
        return Sensitivities(
            self.unknowns,
            conditions_for(self.point),
            (*self.topology.dead.branches, *self.loadings[1:]),
            (DEAD, NEUTRAL_LIFTED),
            self._moving,
        )

    def _moving(self, values: Values, blocks: Blocks, mode: Mode) -> dict[str, Array]:
        """Admittances, the voltage of each source that moves by itself as a share of the first's, and loadings."""
        sources = {} if mode.dc else self._sources(values, blocks)
        shares = {name: sources[branch] for name, branch in self._moving_sources.items() if branch in sources}
        most = {
            only_between(*pair): self.admittances.most_along_the_run(values, blocks, pair, mode)
            for pair in self._circuit_pairs
        }
        return self.admittances(values, blocks, mode) | shares | most

    def answering(self, mode: Mode) -> NDArray[np.intp]:
        """In the order of what a solution in a mode answers to: by which numbers its sensitivities know it."""
        loaded = self.loadings.index(mode.others) if mode.others in self.loadings else 0
        in_mesh = self.sensitivities(mode).count - len(self.loadings[1:])
        return np.array([*range(in_mesh), *([in_mesh + loaded - 1] if loaded else [])])

    def source_span(self, condition: Condition) -> tuple[float, float]:
        """Source voltage, lowest and highest, that the condition allows."""
        healthy = self.unknowns.ranges["source_volts"]
        if condition.source_share is None:
            return healthy.low, healthy.high
        limit = limit_for("voltage.band", self.point.practice, self.point.system)
        of_low, of_high = condition.source_share
        if of_high == 1.0:
            return of_low * self.point.system.nominal_volts, limit.band.low
        return limit.band.high, of_high * self.point.system.nominal_volts

    def with_source(self, cube: Cube, condition: Condition, factor: Array) -> Cube:
        """The condition's samples with their source voltages multiplied by `factor` (B,), within its span."""
        axis = self.unknowns.names.index("source_volts")
        low, high = self.source_span(condition)
        volts = (low + cube[:, axis] * (high - low)) * factor
        moved = cube.copy()
        moved[:, axis] = np.clip((volts - low) / (high - low), 0.0, 1.0)
        return moved

    def source_volts(self, values: Values, blocks: Blocks) -> Array:
        """Each sample's source voltage, (B,): what is at the board."""
        healthy = self.unknowns.ranges["source_volts"]
        volts = values["source_volts"].copy()
        for condition, rows in blocks:
            if condition.source_share is not None:
                low, high = self.source_span(condition)
                share = (volts[rows] - healthy.low) / (healthy.high - healthy.low)
                volts[rows] = low + share * (high - low)
        return volts

    @cached_property
    def tap_loads(self) -> frozenset[str]:
        """Unknowns that are what else is on along the run."""
        loads = {amperes("tap", a, b) for a, b in self._circuit_pairs}
        return frozenset(loads | ({"tap_loaded"} & set(self.unknowns.ranges)))

    @cached_property
    def regulating(self) -> tuple[str, ...]:
        """Unknowns the EMF depends on for a given voltage at the board."""
        loads = [amperes("board", a, b) for a, b in board_pairs(self.layout)]
        loads += [amperes("end", a, b) for a, b in self._circuit_pairs]
        together = ("end_loaded",) if "end_loaded" in self.unknowns.ranges else ()
        return ("source_ohm", "source_angle", "service_neutral_ohm", *loads, *together)

    def regulation(self, values: Values, blocks: Blocks) -> Array:
        """The source's EMF over the voltage that `source_volts` is, (B,).

        That voltage is the board's with nothing on this circuit; where the supply is too high it is the board's with
        all of it on, for it is so at any moment. Of several lines here it is their mean.
        """
        found = np.ones(len(values["source_ohm"]))
        for condition, rows in blocks:
            found[rows] = self.regulation_of(condition, {name: values[name][rows] for name in self.regulating})
        return found

    def regulation_of(self, condition: Condition, values: Values) -> Array:
        """The EMF over the voltage at the board, (B,), of samples of a condition."""
        is_too_high = condition.source_share is not None and condition.source_share[1] != 1.0
        behind = values["source_ohm"] * np.exp(1j * values["source_angle"]) + values["service_neutral_ohm"]
        here = set(self.layout.lines)
        on_lines = sum(values[amperes("board", a, b)] * len({a, b} & here) for a, b in board_pairs(self.layout))
        for a, b in self._circuit_pairs if is_too_high else ():
            on_circuit = load_left(values, a, b, self._most_a) + circuit_load(values, "end", a, b, self._most_a)
            on_lines = on_lines + on_circuit * len({a, b} & here)
        each = on_lines / len(here)
        return np.asarray(np.abs(1 + behind * each / self.point.system.nominal_volts))

    def _sources(self, values: Values, blocks: Blocks) -> dict[str, Array]:
        """Voltage of each branch that has a source, as a share of the source's volts, complex (B,)."""
        count = len(values["source_ohm"])
        share = {bar: np.full(count, phasor) for bar, phasor in zip(self.layout.bars, self.layout.phasors, strict=True)}
        neutral, foreign = np.zeros(count, dtype=complex), np.zeros(count, dtype=complex)
        for _, variant, rows in rows_by_variant(self.layout, values, blocks):
            neutral[rows] = -variant.neutral_emf
            foreign[rows] = variant.foreign or 0j
            if variant.feeds != self.layout.phasors:
                for bar, feed in zip(self.layout.bars, variant.feeds, strict=True):
                    share[bar][rows] = feed or 0j
        for line in self.layout.lines[1:]:
            # NumPy multiplies a long batch in its temporary's place, which rounds otherwise than a short one is.
            against_the_first = 1 + values[f"unbalance_{line}"] + 1j * values[f"shift_{line}"]
            share[line] = share[line] * against_the_first
        found = {self.topology.sources[bar]: volts for bar, volts in share.items()}
        if "earth_offset_volts" in self.unknowns.ranges:
            offset = values["earth_offset_volts"] * np.exp(1j * values["earth_offset_angle"])
            found["source_electrode"] = offset / self.point.system.nominal_volts
        return found | ({"neutral_a": neutral, FOREIGN: foreign} if self.layout.neutral else {})

    def _as_labelled(self, solution: Solution, values: Values, blocks: Blocks, mode: Mode) -> Solved:
        """The solution by the contacts' labels rather than by the wires behind them."""
        wires = self.layout.wires
        live = len(self.layout.live_wires)
        count = solution.volts.shape[1]
        contacts = (*self.point.lines, *((Terminal.N,) if self.layout.neutral else ()), Terminal.PE)
        tapped = mode.taps or mode.dc
        taps = [tap_port(str(contact)) for contact in contacts[:live]] if tapped else []
        at_the_board = [str(BOARD_END[contact]) for contact in contacts] if mode.dc or mode.clamped else []
        bars = [bar_port(end) for end in at_the_board] if mode.clamped else []
        names = (*map(str, contacts), *taps, str(Terminal.REF), *at_the_board, *bars)
        ports = np.tile(np.arange(len(names))[:, None], count)
        for condition, variant, rows in rows_by_variant(self.layout, values, blocks):
            if variant.contacts != wires:
                ports[: len(wires), rows] = [[wires.index(wire)] for wire in variant.contacts]
                if condition.taps_too and tapped:
                    behind = [len(wires) + wires.index(wire) for wire in variant.contacts[:live]]
                    ports[len(wires) : len(wires) + live, rows] = np.array(behind)[:, None]
        if not self.point.polarised:
            turned = np.flatnonzero(values["way_round"] < 0.5)
            ports[:2, turned] = ports[1::-1, turned]
        of_the_circuit, device_sees = np.ones((live, count), dtype=bool), np.ones(count, dtype=bool)
        for condition, rows in blocks:
            of_the_circuit[[wire == "neutral" for wire in self.layout.live_wires], rows] = not condition.borrows_neutral
            device_sees[rows] = not condition.device_blind
        return Solved(
            solution.at_ports(names, ports),
            of_the_circuit,
            device_sees,
            values["known_load_error"],
            values["contact_ohm"],
            values["reference_ohm"],
        )
