"""From the source to the contacts of one single-phase point, as a network.

    source – board line bar – device – run – [joint] – tap – run – [joint] – L contact
    source neutral – board neutral bar – run – N contact, and the bond or electrodes of the earthing
    earth bar – electrode – mass of earth; earth bar – run – PE contact – casing

The run is split where other loads tap it, so a joint lies before or after the tap. Cable and stray
capacitances sit at the tap and at the contacts. A resistance reading is the same installation at DC with
the sources at zero and the device open.
"""

from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any, Literal, NamedTuple

import numpy as np
from numpy.typing import NDArray

from evenprobe.network import EARTH, Mesh, Solution
from evenprobe.supplies import Earthing, limit_for
from evenprobe.wiring.conditions import HEALTHY, OPEN, Condition, Wire
from evenprobe.wiring.points import PointFacts
from evenprobe.wiring.sensitivities import Blocks, Sensitivities
from evenprobe.wiring.unknowns import Cube, Unknowns, Values

Array = NDArray[Any]

OPEN_SIEMENS = 1e-9
TERMINALS = ("L", "N", "PE", "TAP_L", "TAP_N", "REF")
"""Ports of a solved installation: the contacts as labelled, where other loads tap the run, the mass of earth."""
BOARD_ENDS = ("BOARD-L", "BOARD-N", "BOARD-PE")
"""More of them when it is dead: the conductors' ends at the board."""


class Mode(NamedTuple):
    """How the installation is solved: at DC with its sources at zero, with the device open, the neutral off its bar."""

    dc: bool = False
    device_open: bool = False
    neutral_lifted: bool = False


AS_FOUND = Mode()
DEAD = Mode(dc=True, device_open=True)
NEUTRAL_LIFTED = Mode(dc=True, device_open=True, neutral_lifted=True)

_MESH = Mesh(
    {
        "source": ("line_bar", "source_neutral"),
        "source_electrode": ("source_neutral", EARTH),
        "service_neutral": ("source_neutral", "neutral_bar"),
        "service_earth": ("source_neutral", "earth_bar"),
        "bond": ("neutral_bar", "earth_bar"),
        "electrode": ("earth_bar", EARTH),
        "board_load": ("line_bar", "neutral_bar"),
        "source_stray_l": ("line_bar", EARTH),
        "line_a": ("line_bar", "line_tap"),
        "neutral_a": ("neutral_bar", "neutral_tap"),
        "earth_a": ("earth_bar", "earth_tap"),
        "line_b": ("line_tap", "line_end"),
        "neutral_b": ("neutral_tap", "neutral_end"),
        "earth_b": ("earth_tap", "earth_end"),
        "ln_tap": ("line_tap", "neutral_tap"),
        "le_tap": ("line_tap", "earth_tap"),
        "ne_tap": ("neutral_tap", "earth_tap"),
        "ln_end": ("line_end", "neutral_end"),
        "le_end": ("line_end", "earth_end"),
        "ne_end": ("neutral_end", "earth_end"),
        "stray_l": ("line_end", EARTH),
        "stray_n": ("neutral_end", EARTH),
        "stray_e": ("earth_end", EARTH),
    }
)
_DEAD_MESH = Mesh(
    {
        **_MESH.branches,
        "device": ("line_bar", "line_out"),
        "line_a": ("line_out", "line_tap"),
        "neutral_link": ("neutral_bar", "neutral_out"),
        "neutral_a": ("neutral_out", "neutral_tap"),
    }
)
"""The same with the ends at the board apart, where dead tests are made."""
CLOSED_SIEMENS = 1e3
_PORTS = ("line_end", "neutral_end", "earth_end", "line_tap", "neutral_tap", EARTH)
_DEAD_PORTS = (*_PORTS, "line_out", "neutral_out", "earth_bar")
_PORT_OF_WIRE: dict[Wire, int] = {"line": 0, "neutral": 1, "earth": 2}
_BETWEEN: dict[frozenset[Wire], str] = {
    frozenset(("line", "neutral")): "ln_end",
    frozenset(("line", "earth")): "le_end",
    frozenset(("neutral", "earth")): "ne_end",
}
_WIRES: tuple[Wire, ...] = ("line", "neutral", "earth")

REGULATING = (
    "source_ohm",
    "source_angle",
    "service_neutral_ohm",
    "board_load_a",
    "other_load_a",
    "load_at_contacts_a",
)
"""Unknowns the EMF depends on for a given voltage at the board."""
BesideBranches = Literal["known_load_error", "contact_ohm", "reference_ohm"]


@dataclass(frozen=True)
class Solved:
    """A solved batch: terminal equivalents, and what else a sample fixes. Arrays are (B,)."""

    at: Solution
    known_load_error: Array
    contact_ohm: Array
    reference_ohm: Array

    def select(self, rows: NDArray[np.intp]) -> "Solved":
        """Some of the samples."""
        return Solved(
            self.at.select(rows), self.known_load_error[rows], self.contact_ohm[rows], self.reference_ohm[rows]
        )

    def with_value(self, name: BesideBranches, value: Array) -> "Solved":
        """The same with another value of an unknown that acts at the known load or at the probes."""
        changed: Any = {name: value}
        return replace(self, **changed)


class Installation:
    """One point's installation. `blocks` says which rows of a batch are under which condition."""

    def __init__(self, point: PointFacts) -> None:
        self.point = point
        self.unknowns = Unknowns(point)
        self._omega = 2 * np.pi * point.system.frequency_hz

    def solve(self, values: Values, blocks: Blocks, mode: Mode = AS_FOUND, *, with_slopes: bool = False) -> Solved:
        """Solve samples, given as the values (B,) of the unknowns.

        At DC sources are at zero and impedances are resistances, as an ohmmeter sees them.
        """
        admittance = self._admittances(values, blocks, mode)
        if mode.dc:
            solution = _DEAD_MESH.solve(admittance, {}, _DEAD_PORTS, with_slopes=with_slopes)
        else:
            line_emf, neutral_emf = self._sources(values, blocks)
            emf = {"source": line_emf, "neutral_a": -neutral_emf}
            solution = _MESH.solve(admittance, emf, _PORTS, with_slopes=with_slopes)
        return Solved(
            self._as_labelled(solution, values, blocks),
            values["known_load_error"],
            values["contact_ohm"],
            values["reference_ohm"],
        )

    def sensitivities(self, mode: Mode) -> Sensitivities[Mode]:
        """How what it shows then answers to each unknown."""
        return self._dead_sensitivities if mode.dc else self._live_sensitivities

    @cached_property
    def _live_sensitivities(self) -> Sensitivities[Mode]:
        return Sensitivities(
            self.unknowns, tuple(_MESH.branches), (AS_FOUND, Mode(device_open=True)), self._admittances
        )

    @cached_property
    def _dead_sensitivities(self) -> Sensitivities[Mode]:
        return Sensitivities(self.unknowns, tuple(_DEAD_MESH.branches), (DEAD, NEUTRAL_LIFTED), self._admittances)

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

    def regulation(self, values: Values, blocks: Blocks) -> Array:
        """The source's EMF over the voltage that `source_volts` is, (B,).

        A supply is too high or too low where it is so at the board as it is found, the unknown loads on. Else it
        is the EMF that is within the band.
        """
        found = np.ones(len(values["source_ohm"]))
        for condition, rows in blocks:
            if condition.source_share is not None:
                found[rows] = self._emf_over_board({name: values[name][rows] for name in REGULATING})
        return found

    def _emf_over_board(self, values: Values) -> Array:
        behind = values["source_ohm"] * np.exp(1j * values["source_angle"]) + values["service_neutral_ohm"]
        amperes = values["board_load_a"] + values["other_load_a"] + values["load_at_contacts_a"]
        return np.asarray(np.abs(1 + behind * amperes / self.point.system.nominal_volts))

    def _sources(self, values: Values, blocks: Blocks) -> tuple[Array, Array]:
        volts = (self.source_volts(values, blocks) * self.regulation(values, blocks)).astype(complex)
        second = np.zeros_like(volts)
        others = np.array(self.point.system.other_line_phasors)
        for condition, rows in blocks:
            if condition.second_line:
                which = np.minimum((values["other_line"][rows] * len(others)).astype(int), len(others) - 1)
                second[rows] = volts[rows] * others[which]
        return volts, second

    def _admittances(self, values: Values, blocks: Blocks, mode: Mode) -> dict[str, Array]:
        v = values
        dc = mode.dc
        count = len(v["length_m"])
        jw: complex | float = 0.0 if dc else 1j * self._omega
        nominal = self.point.system.nominal_volts

        def capacitor(farad: Array) -> Array:
            return jw * farad + (1e-12 if dc else 0.0)

        def load(amperes: Array) -> Array:
            """At DC a load is another resistance altogether: a cold filament, a rectifier, a winding."""
            return amperes / nominal * (v["load_at_dc"] if dc else np.exp(-1j * v["load_angle"]))

        source_ohm = v["source_ohm"] if dc else v["source_ohm"] * np.exp(1j * v["source_angle"])
        y: dict[str, Array] = {
            "source": 1 / source_ohm,
            "service_neutral": 1 / v["service_neutral_ohm"],
            "electrode": 1 / v["electrode_ohm"],
            "board_load": v["board_load_a"] / nominal + OPEN_SIEMENS,
            "source_stray_l": capacitor(v["source_stray_farad"] * v["source_stray_l_share"]) + OPEN_SIEMENS,
            **self._earthing(values, blocks, capacitor),
            **self._run(values, blocks, capacitor, mode),
        }

        near_share = 0.5 + v["tap"] / 2
        for pair in ("ln", "le", "ne"):
            cable = v[f"cable_{pair}_farad_per_m"]
            y[f"{pair}_tap"] = capacitor(cable * v["length_m"] * near_share)
            y[f"{pair}_end"] = capacitor(cable * (v["length_m"] * (1 - near_share) + v["beyond_m"]))
        y["le_end"] = y["le_end"] + capacitor(v["filter_le_farad"] * v["filters_fitted"])
        y["ne_end"] = y["ne_end"] + capacitor(v["filter_ne_farad"] * v["filters_fitted"])
        y["ln_tap"] = y["ln_tap"] + load(v["other_load_a"])
        plugged_in = load(v["load_at_contacts_a"])
        leak = np.zeros(count)
        for condition, rows in blocks:
            first, second, _ = condition.contacts
            between = _BETWEEN[frozenset((first, second))]
            y[between][rows] += plugged_in[rows]
            if condition.leak_ohm is not None:
                leak[rows] = 1 / condition.leak_ohm.at(v["leak_severity"][rows])
        y["le_end"] = y["le_end"] + leak
        for wire in ("l", "n", "e"):
            y[f"stray_{wire}"] = capacitor(v[f"stray_{wire}_farad"]) + 1e-12
        return y

    def _earthing(self, v: Values, blocks: Blocks, capacitor: Any) -> dict[str, Array]:
        earthing = self.point.earthing
        open_ = np.full(len(v["length_m"]), OPEN_SIEMENS)
        bond = 1 / v["bond_ohm"] if earthing is Earthing.TN_C_S else open_.copy()
        service = 1 / v["service_earth_ohm"] if earthing is Earthing.TN_S else open_.copy()
        electrode = 1 / v["source_electrode_ohm"]
        for condition, rows in blocks:
            if not condition.bonded:
                bond[rows] = service[rows] = electrode[rows] = OPEN_SIEMENS
        return {
            "bond": bond,
            "service_earth": service,
            "source_electrode": electrode + capacitor(v["source_stray_farad"] * v["source_stray_n_share"]),
        }

    def _run(self, v: Values, blocks: Blocks, capacitor: Any, mode: Mode) -> dict[str, Array]:
        count = len(v["length_m"])
        per_wire: dict[Wire, Array] = {"line": v["ohm_per_m"] * v["length_m"] * v["warmth"]}
        per_wire["neutral"] = per_wire["line"] * v["neutral_match"]
        per_wire["earth"] = per_wire["line"] * v["earth_size"]
        opened = OPEN_SIEMENS + capacitor(v["open_farad"])
        at_device = OPEN_SIEMENS + capacitor(v["ghost_farad"])
        y: dict[str, Array] = {}
        for wire in _WIRES:
            place = v["earth_joint_place" if wire == "earth" else "joint_place"]
            joint = np.zeros(count)
            is_open = np.zeros(count, dtype=bool)
            for condition, rows in blocks:
                if wire in condition.joints:
                    joint_range = condition.joints[wire]
                    is_open[rows] = joint_range is OPEN
                    if joint_range is not OPEN:
                        joint[rows] = joint_range.at(v["joint_severity"][rows])
            before_tap = place < 0.5
            ohm = per_wire[wire] + v[f"{wire}_splice_ohm"]
            for segment, share, here in (("a", v["tap"], before_tap), ("b", 1 - v["tap"], ~before_tap)):
                whole = 1 / (ohm * share + 1e-3 + joint * here)
                y[f"{wire}_{segment}"] = np.where(is_open & here, opened, whole + 0 * opened)
        device = "device" if mode.dc else "line_a"
        if mode.dc:
            y["device"] = np.full(count, CLOSED_SIEMENS)
            y["neutral_link"] = np.full(count, OPEN_SIEMENS if mode.neutral_lifted else CLOSED_SIEMENS)
        for condition, rows in blocks:
            if condition.open_at_device:
                y[device][rows] = at_device[rows]
        if mode.device_open:
            y[device] = at_device
        return y

    def _as_labelled(self, solution: Solution, values: Values, blocks: Blocks) -> Solution:
        """The solution by the contacts' labels rather than by the wires behind them."""
        count = solution.volts.shape[1]
        names = (*TERMINALS, *BOARD_ENDS)[: len(solution.ports)]
        ports = np.tile(np.arange(len(names))[:, None], count)
        for condition, rows in blocks:
            if condition.contacts != HEALTHY:
                ports[:3, rows] = [[_PORT_OF_WIRE[wire]] for wire in condition.contacts]
        if not self.point.polarised:
            turned = np.flatnonzero(values["way_round"] < 0.5)
            ports[:2, turned] = ports[1::-1, turned]
        return solution.at_ports(names, ports)
