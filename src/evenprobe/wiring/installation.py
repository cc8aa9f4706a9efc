"""The installation of one point in numbers: what each branch's admittance and each source's voltage is.

`topology` says what is joined to what. A resistance reading is the same installation at DC with the sources
at zero and the device open.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any, Literal, NamedTuple

import numpy as np
from numpy.typing import NDArray

from evenprobe.network import Solution
from evenprobe.supplies import Earthing, limit_for
from evenprobe.wiring.arrangements import OPEN, Arrangement
from evenprobe.wiring.catalogue import conditions_for
from evenprobe.wiring.condition import Condition
from evenprobe.wiring.points import BOARD_END, PointFacts, Terminal
from evenprobe.wiring.sensitivities import Blocks, Sensitivities
from evenprobe.wiring.topology import between, pairs_of, topology_of
from evenprobe.wiring.unknowns import Cube, Unknowns, Values, amperes, board_pairs

Array = NDArray[Any]
Rows = slice | NDArray[np.intp]
Arranged = Sequence[tuple[Condition, Arrangement, Rows]]
Moved = Sequence[tuple[tuple[str, ...], Rows]]
"""Wires behind the contacts, and the rows where it is so."""

OPEN_SIEMENS = 1e-9
CLOSED_SIEMENS = 1e3
BOLTED_SIEMENS = 1e3


class Mode(NamedTuple):
    """How the installation is solved: at DC with its sources at zero, with the device open, the neutral off its bar.

    `taps`: whether where other loads tap the run can be measured and loaded too.
    """

    dc: bool = False
    device_open: bool = False
    neutral_lifted: bool = False
    taps: bool = False


AS_FOUND = Mode()
DEAD = Mode(dc=True, device_open=True)
NEUTRAL_LIFTED = Mode(dc=True, device_open=True, neutral_lifted=True)

BesideBranches = Literal["known_load_error", "contact_ohm", "reference_ohm"]


@dataclass(frozen=True)
class Solved:
    """A solved batch: terminal equivalents, and what else a sample fixes. Arrays are (B,).

    Ports: the contacts as they are labelled, `TAP-` and a live contact's name where other loads tap the run, REF;
    dead also the conductors' ends at the board. `through_device` (contacts, B): whether what is behind a contact
    goes through the device and is seen by it, as the lines and the neutral are and the earth is not.
    """

    at: Solution
    through_device: NDArray[np.bool_]
    known_load_error: Array
    contact_ohm: Array
    reference_ohm: Array

    def select(self, rows: NDArray[np.intp]) -> "Solved":
        """Some of the samples."""
        return Solved(
            self.at.select(rows),
            self.through_device[:, rows],
            self.known_load_error[rows],
            self.contact_ohm[rows],
            self.reference_ohm[rows],
        )

    def with_value(self, name: BesideBranches, value: Array) -> "Solved":
        """The same with another value of an unknown that acts at the known load or at the probes."""
        changed: Any = {name: value}
        return replace(self, **changed)


class Installation:
    """One point's installation. `blocks` says which rows of a batch are under which condition."""

    def __init__(self, point: PointFacts) -> None:
        self.point = point
        self.layout = point.layout
        self.topology = topology_of(point.layout)
        self.unknowns = Unknowns(point)
        self._omega = 2 * np.pi * point.system.frequency_hz
        phasors = {**dict(zip(self.layout.bars, self.layout.phasors, strict=True)), "neutral": 0j}
        nominal = point.system.nominal_volts
        self._volts = {frozenset((a, b)): nominal * abs(phasors[a] - phasors[b]) for a, b in pairs_of(phasors)}
        self._circuit_pairs = pairs_of(self.layout.live_wires)
        self._unbalanced = self.layout.lines[1:]

    def solve(self, values: Values, blocks: Blocks, mode: Mode = AS_FOUND, *, with_slopes: bool = False) -> Solved:
        """Solve samples, given as the values (B,) of the unknowns.

        At DC sources are at zero and impedances are resistances, as an ohmmeter sees them.
        """
        admittance = self._admittances(values, blocks, mode)
        if mode.dc:
            solution = self.topology.dead.solve(admittance, {}, self.topology.dead_ports, with_slopes=with_slopes)
        else:
            volts = self.source_volts(values, blocks) * self.regulation(values, blocks)
            emf = {branch: volts * share for branch, share in self._sources(values, blocks).items()}
            moving = [self.topology.sources[line] for line in self._unbalanced]
            ports = self.topology.tapped_ports if mode.taps else self.topology.live_ports
            solution = self.topology.live.solve(
                admittance, emf, ports, with_slopes=with_slopes, moving=moving, per_volts=volts
            )
        return self._as_labelled(solution, values, blocks, mode)

    def sensitivities(self, mode: Mode) -> Sensitivities[Mode]:
        """How what it shows then answers to each unknown."""
        return self._dead_sensitivities if mode.dc else self._live_sensitivities

    @cached_property
    def _live_sensitivities(self) -> Sensitivities[Mode]:
        emfs = (f"emf_{line}" for line in self._unbalanced)
        return Sensitivities(
            self.unknowns,
            conditions_for(self.point),
            (*self.topology.live.branches, *emfs),
            (AS_FOUND, Mode(device_open=True)),
            self._moving,
        )

    @cached_property
    def _dead_sensitivities(self) -> Sensitivities[Mode]:
        return Sensitivities(
            self.unknowns,
            conditions_for(self.point),
            tuple(self.topology.dead.branches),
            (DEAD, NEUTRAL_LIFTED),
            self._admittances,
        )

    def _moving(self, values: Values, blocks: Blocks, mode: Mode) -> dict[str, Array]:
        """Admittances, and each unbalanced source's voltage as a share of the first's."""
        sources = self._sources(values, blocks)
        shares = {f"emf_{line}": sources[self.topology.sources[line]] for line in self._unbalanced}
        return self._admittances(values, blocks, mode) | shares

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
        """Each sample's source voltage, (B,): its EMF, or where that is the condition its voltage at the board."""
        healthy = self.unknowns.ranges["source_volts"]
        volts = values["source_volts"].copy()
        for condition, rows in blocks:
            if condition.source_share is not None:
                low, high = self.source_span(condition)
                share = (volts[rows] - healthy.low) / (healthy.high - healthy.low)
                volts[rows] = low + share * (high - low)
        return volts

    @cached_property
    def regulating(self) -> tuple[str, ...]:
        """Unknowns the EMF depends on for a given voltage at the board."""
        loads = [amperes("board", a, b) for a, b in board_pairs(self.layout)]
        loads += [amperes(place, a, b) for place in ("tap", "end") for a, b in self._circuit_pairs]
        together = ("tap_loaded", "end_loaded") if "tap_loaded" in self.unknowns.ranges else ()
        return ("source_ohm", "source_angle", "service_neutral_ohm", *loads, *together)

    def regulation(self, values: Values, blocks: Blocks) -> Array:
        """The source's EMF over the voltage that `source_volts` is, (B,).

        A supply is too high or too low where it is so at the board as it is found, the unknown loads on. Else it
        is the EMF that is within the band. Of several lines here it is their mean.
        """
        found = np.ones(len(values["source_ohm"]))
        for condition, rows in blocks:
            if condition.source_share is not None:
                found[rows] = self.emf_over_board({name: values[name][rows] for name in self.regulating})
        return found

    def emf_over_board(self, values: Values) -> Array:
        """The EMF over the voltage at the board, (B,), of an installation with the loads of these values."""
        behind = values["source_ohm"] * np.exp(1j * values["source_angle"]) + values["service_neutral_ohm"]
        here = set(self.layout.lines)
        on_lines = sum(values[amperes("board", a, b)] * len({a, b} & here) for a, b in board_pairs(self.layout)) + sum(
            self._circuit_load(values, place, a, b) * len({a, b} & here)
            for place in ("tap", "end")
            for a, b in self._circuit_pairs
        )
        each = on_lines / len(here)
        return np.asarray(np.abs(1 + behind * each / self.point.system.nominal_volts))

    def _circuit_load(self, values: Values, place: str, a: str, b: str) -> Array:
        """Amperes at nominal voltage between two wires at the tap or the contacts, (B,)."""
        load = values[amperes(place, a, b)]
        together = values.get(f"{place}_loaded")
        return load if together is None else load * together

    def _arranged(self, values: Values, blocks: Blocks) -> Iterable[tuple[Condition, Arrangement, Rows]]:
        """The rows of each condition that are one way of it."""
        for condition, rows in blocks:
            ways = condition.arrangements(self.layout)
            if len(ways) == 1:
                yield condition, ways[0], rows
                continue
            which = way_of(values["arrangement"][rows], len(ways))
            for number, way in enumerate(ways):
                own = rows.start + np.flatnonzero(which == number)
                if len(own):
                    yield condition, way, own

    def _sources(self, values: Values, blocks: Blocks) -> dict[str, Array]:
        """Voltage of each branch that has a source, as a share of the source's volts, complex (B,)."""
        count = len(values["source_ohm"])
        share = {bar: np.full(count, phasor) for bar, phasor in zip(self.layout.bars, self.layout.phasors, strict=True)}
        neutral = np.zeros(count, dtype=complex)
        for _, way, rows in self._arranged(values, blocks):
            neutral[rows] = -way.neutral_emf
            if way.feeds != self.layout.phasors:
                for bar, feed in zip(self.layout.bars, way.feeds, strict=True):
                    share[bar][rows] = feed or 0j
        for line in self._unbalanced:
            share[line] = share[line] * (1 + values[f"unbalance_{line}"] + 1j * values[f"shift_{line}"])
        found = {self.topology.sources[bar]: volts for bar, volts in share.items()}
        return found | ({"neutral_a": neutral} if self.layout.neutral else {})

    def _admittances(self, values: Values, blocks: Blocks, mode: Mode) -> dict[str, Array]:
        arranged = list(self._arranged(values, blocks))
        return {
            **self._at_the_board(values, arranged, mode),
            **self._earthing(values, arranged, mode),
            **self._run(values, arranged, mode),
            **self._across_the_run(values, arranged, mode),
        }

    def _capacitor(self, farad: Array, mode: Mode) -> Array:
        return np.asarray(1e-12 + 0 * farad if mode.dc else 1j * self._omega * farad)

    def _at_the_board(self, v: Values, arranged: Arranged, mode: Mode) -> dict[str, Array]:
        behind = v["source_ohm"] if mode.dc else v["source_ohm"] * np.exp(1j * v["source_angle"])
        y: dict[str, Array] = {"electrode": 1 / v["electrode_ohm"]}
        for bar, branch in self.topology.sources.items():
            y[branch] = 1 / (behind * v.get(f"source_{bar}_match", 1.0))
            stray = v["source_stray_farad"] * v[f"source_stray_{bar}_share"]
            y[f"source_stray_{bar}"] = self._capacitor(stray, mode) + OPEN_SIEMENS
        for a, b in board_pairs(self.layout):
            y[between("board", a, b)] = v[amperes("board", a, b)] / self._volts[frozenset((a, b))] + OPEN_SIEMENS
        for _, way, rows in arranged:
            for bar, feed in zip(self.layout.bars, way.feeds, strict=True):
                if feed is None:
                    y[self.topology.sources[bar]][rows] = OPEN_SIEMENS
            if way.tied is not None:
                y[between("board", *way.tied)][rows] = BOLTED_SIEMENS
        return y

    def _earthing(self, v: Values, arranged: Arranged, mode: Mode) -> dict[str, Array]:
        earthing = self.point.earthing
        open_ = np.full(len(v["length_m"]), OPEN_SIEMENS)
        bond = 1 / v["bond_ohm"] if earthing is Earthing.TN_C_S else open_.copy()
        service = 1 / v["service_earth_ohm"] if earthing is Earthing.TN_S else open_.copy()
        neutral = 1 / v["service_neutral_ohm"]
        electrode = 1 / v["source_electrode_ohm"]
        for condition, way, rows in arranged:
            if not condition.bonded:
                bond[rows] = service[rows] = electrode[rows] = OPEN_SIEMENS
            if "service" in way.joints:
                joint = way.joints["service"]
                neutral[rows] = OPEN_SIEMENS if joint is OPEN else 1 / joint.at(v["joint_severity"][rows])
        stray = v["source_stray_farad"] * v["source_stray_neutral_share"]
        return {
            "bond": bond,
            "service_earth": service,
            "service_neutral": neutral,
            "source_electrode": electrode + self._capacitor(stray, mode),
        }

    def _run(self, v: Values, arranged: Arranged, mode: Mode) -> dict[str, Array]:
        """Each wire along the run, before the tap and after it, and at the device."""
        count = len(v["length_m"])
        line_ohm = v["ohm_per_m"] * v["length_m"] * v["warmth"]
        opened = OPEN_SIEMENS + self._capacitor(v["open_farad"], mode)
        y: dict[str, Array] = {}
        for wire in self.layout.wires:
            before_tap = v["earth_joint_place" if wire == "earth" else "joint_place"] < 0.5
            joint = np.zeros(count)
            is_open = np.zeros(count, dtype=bool)
            for _, way, rows in arranged:
                if wire in way.joints:
                    joint_range = way.joints[wire]
                    is_open[rows] = joint_range is OPEN
                    if joint_range is not OPEN:
                        joint[rows] = joint_range.at(v["joint_severity"][rows])
            ohm = line_ohm * (v["earth_size"] if wire == "earth" else v.get(f"{wire}_match", 1.0))
            ohm = ohm + v[f"{wire}_splice_ohm"]
            for segment, share, here in (("a", v["tap"], before_tap), ("b", 1 - v["tap"], ~before_tap)):
                whole = 1 / (ohm * share + 1e-3 + joint * here)
                y[f"{wire}_{segment}"] = np.where(is_open & here, opened, whole + 0 * opened)
            y[f"stray_{wire}"] = self._capacitor(v[f"stray_{wire}_farad"], mode) + 1e-12
        for line in self.layout.lines:
            y |= self._at_the_device(v, arranged, mode, line, y[f"{line}_a"])
        if mode.dc and self.layout.neutral:
            y["neutral_link"] = np.full(count, OPEN_SIEMENS if mode.neutral_lifted else CLOSED_SIEMENS)
        return y

    def _at_the_device(self, v: Values, arranged: Arranged, mode: Mode, line: str, closed: Array) -> dict[str, Array]:
        """The device's pole, a branch of its own when dead and else part of the run's first stretch."""
        ghost = v["ghost_farad"] * v.get(f"ghost_{line}_share", 1.0)
        at_device = OPEN_SIEMENS + self._capacitor(ghost, mode)
        if mode.device_open:
            return {f"device_{line}" if mode.dc else f"{line}_a": at_device}
        for condition, _, rows in arranged:
            if condition.open_at_device:
                closed[rows] = at_device[rows]
        return {}

    def _across_the_run(self, v: Values, arranged: Arranged, mode: Mode) -> dict[str, Array]:
        """Between the wires at the tap and at the contacts: cable, filters, loads, and what leaks."""
        near = v["length_m"] * (0.5 + v["tap"] / 2)
        far = v["length_m"] - near + v["beyond_m"]
        y: dict[str, Array] = {}
        for a, b in pairs_of(self.layout.wires):
            cable = v[f"{between('cable', a, b)}_farad_per_m"]
            y[between("tap", a, b)] = self._capacitor(cable * near, mode)
            y[between("end", a, b)] = self._capacitor(cable * far, mode)
        for wire in self.layout.live_wires:
            branch = between("end", wire, "earth")
            y[branch] = y[branch] + self._capacitor(v[f"filter_{wire}_farad"] * v["filters_fitted"], mode)
        moved = [(c, way.contacts, rows) for c, way, rows in arranged if way.contacts != self.layout.wires]
        taps_moved = [(contacts, rows) for c, contacts, rows in moved if c.taps_too]
        ends_moved = [(contacts, rows) for _, contacts, rows in moved]
        for place, elsewhere in (("tap", taps_moved), ("end", ends_moved)):
            for a, b in self._circuit_pairs:
                self._put_load(y, place, (a, b), self._load_siemens(v, place, a, b, mode), elsewhere)
        for condition, way, rows in arranged:
            if condition.leak_ohm is not None:
                y[between("end", way.leaking, "earth")][rows] += 1 / condition.leak_ohm.at(v["leak_severity"][rows])
        return y

    def _load_siemens(self, v: Values, place: str, a: str, b: str, mode: Mode) -> Array:
        """At DC a load is another resistance altogether: a cold filament, a rectifier, a winding."""
        siemens = self._circuit_load(v, place, a, b) / self._volts[frozenset((a, b))]
        return np.asarray(siemens * (v["load_at_dc"] if mode.dc else np.exp(-1j * v["load_angle"])))

    def _put_load(self, y: dict[str, Array], place: str, contacts: tuple[str, str], load: Array, moved: Moved) -> None:
        """Between the wires behind two contacts: their own, but in some rows others."""
        own = between(place, *contacts)
        if not moved:
            y[own] = y[own] + load
            return
        at_home = load.copy()
        for _, rows in moved:
            at_home[rows] = 0
        y[own] = y[own] + at_home
        positions = [self.layout.wires.index(contact) for contact in contacts]
        for behind, rows in moved:
            one, other = (behind[position] for position in positions)
            if one != other:
                y[between(place, one, other)][rows] += load[rows]

    def _as_labelled(self, solution: Solution, values: Values, blocks: Blocks, mode: Mode) -> Solved:
        """The solution by the contacts' labels rather than by the wires behind them."""
        wires = self.layout.wires
        live = len(self.layout.live_wires)
        count = solution.volts.shape[1]
        contacts = (*self.point.lines, *((Terminal.N,) if self.layout.neutral else ()), Terminal.PE)
        taps = [f"TAP-{contact}" for contact in contacts[:live]] if mode.taps else []
        at_the_board = [str(BOARD_END[contact]) for contact in contacts] if mode.dc else []
        names = (*map(str, contacts), *taps, str(Terminal.REF), *at_the_board)
        ports = np.tile(np.arange(len(names))[:, None], count)
        for _, way, rows in self._arranged(values, blocks):
            if way.contacts != wires:
                ports[: len(wires), rows] = [[wires.index(wire)] for wire in way.contacts]
        if not self.point.polarised:
            turned = np.flatnonzero(values["way_round"] < 0.5)
            ports[:2, turned] = ports[1::-1, turned]
        through_device = ports[: len(wires)] < live
        for condition, rows in blocks:
            if condition.device_blind:
                through_device[:, rows] = False
        return Solved(
            solution.at_ports(names, ports),
            through_device,
            values["known_load_error"],
            values["contact_ohm"],
            values["reference_ohm"],
        )


def way_of(share: Array, ways: int) -> NDArray[np.intp]:
    """Which of a condition's ways each sample is, by its `arrangement`."""
    return np.minimum((share * ways).astype(np.intp), ways - 1)
