"""What nobody wrote down: the unknowns of an installation and the range each can lie in.

One table. A sample is a point of the unit cube, one axis an unknown, mapped through its range; what the
record knows narrows the range. Ranges: handbook of this project, section "Installation"; where it gives
none, IEC 60364-6 annex values for loop and electrode resistances, wide on purpose, for a range too narrow
strikes out the truth while one too wide only asks for another reading.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property
from itertools import product
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from evenprobe.limits import limit_for
from evenprobe.supplies import Earthing
from evenprobe.wiring.points import Layout, PointFacts
from evenprobe.wiring.topology import between, pairs_of

Cube = NDArray[np.floating]
Values = dict[str, Cube]
"""Unknowns by name in SI units, each (B,)."""
Shape = Literal["even", "log", "square"]


@dataclass(frozen=True)
class Range:
    """`even`: uniform. `log`: uniform in the logarithm. `square`: from low up, thinning out, as loads do.

    `absent`: share of samples in which the thing is not there at all, value 0.
    """

    low: float
    high: float
    shape: Shape = "even"
    absent: float = 0.0

    def at(self, u: Cube) -> Cube:
        """Map (B,) in [0, 1] onto the range."""
        return _mapped(self.shape, np.asarray(self.low), np.asarray(self.high), np.asarray(self.absent), u)


def _mapped(shape: Shape, low: Cube, high: Cube, absent: Cube, u: Cube) -> Cube:
    """Shares `u` of ranges of one shape, all broadcast together."""
    present = (absent < u) | (absent == 0.0)
    share = np.where(present, (u - absent) / (1 - absent), 0.0)
    if shape == "log":
        value = low * np.exp(share * np.log(high / low))
    else:
        value = low + (high - low) * (share if shape == "even" else share * share)
    return np.where(present, value, 0.0)


_SMALLEST_LOAD_A = 0.0005
"""A charger or a clock."""
_ALONE_SHARES = (0.02, 0.3)
"""How far along its range a load is tried that is on alone."""
_SHARE_OF_SEVERAL = 0.6
"""Of the device's rating that one of several loads draws at most, for together they share its poles."""
_LENGTH_DOUBT = 0.05
"""A recorded length is paced out or read off a drawing."""

_CABLE_FARAD_PER_M = Range(45e-12, 130e-12)
_STRAY_FARAD = Range(10e-12, 500e-12, "log")
_FILTER_FARAD = Range(0.8e-9, 8e-9)
_SPLICE_OHM = Range(0.0005, 0.03, "log")
_BOARD_LOAD_A = Range(0.0, 20.0, "square", absent=0.15)
_BOARD_LOAD_ACROSS_A = Range(0.0, 20.0, "square", absent=0.4)
_UNBALANCE = Range(-0.025, 0.025)
"""Of a line's EMF against the first, in line with it and at right angles, per volt."""

_BEFORE_THE_RUN: dict[str, Range] = {
    "source_ohm": Range(0.01, 0.6, "log"),
    "source_angle": Range(0.0, 0.6),
    "service_neutral_ohm": Range(0.003, 0.12, "log"),
    "service_earth_ohm": Range(0.003, 0.2, "log"),
    "bond_ohm": Range(0.0005, 0.02, "log"),
}
_SERVICE_OF_SEVERAL_OHM = Range(0.01, 0.3, "log")
"""Circuits of several lines are on services made for more."""
_ALONG_THE_RUN: dict[str, Range] = {
    "tap": Range(0.0, 1.0),
    "load_angle": Range(0.0, 0.6),
    "load_at_dc": Range(0.05, 12.0, "log", absent=0.25),
    "known_load_error": Range(0.95, 1.05),
    "joint_place": Range(0.0, 1.0),
    "earth_joint_place": Range(0.0, 1.0),
    "joint_severity": Range(0.0, 1.0),
    "open_farad": Range(3e-12, 60e-12, "log"),
    "ghost_farad": Range(3e-12, 3e-9, "log"),
    "leak_severity": Range(0.0, 1.0),
    "source_stray_farad": Range(0.05e-9, 20e-9, "log"),
}
_AT_THE_PROBES: dict[str, Range] = {
    "reference_ohm": Range(0.5, 1000.0, "log"),
    "contact_ohm": Range(0.0, 0.03),
    "way_round": Range(0.0, 1.0),
    "variant": Range(0.0, 1.0),
}


def amperes(place: str, one: str, other: str) -> str:
    """The unknown that is the load between two wires at a place."""
    return f"{between(place, one, other)}_a"


def circuit_load(values: Values, place: str, one: str, other: str, most_a: float) -> Cube:
    """Amperes at nominal voltage between two wires at the tap or the contacts, (B,).

    The device carries both, so along the run there is at most what is left of `most_a`.
    """
    load = _alone(values, place, one, other)
    return load * _left_share(values, one, other, most_a) if place == "tap" else load


def load_left(values: Values, one: str, other: str, most_a: float) -> Cube:
    """The most amperes that can be on along the run beside what is at the contacts, (B,)."""
    return most_a * _left_share(values, one, other, most_a)


def _left_share(values: Values, one: str, other: str, most_a: float) -> Cube:
    return np.asarray(1 - _alone(values, "end", one, other) / most_a)


def _alone(values: Values, place: str, one: str, other: str) -> Cube:
    load = values[amperes(place, one, other)]
    together = values.get(f"{place}_loaded")
    return load if together is None else load * together


def board_pairs(layout: Layout) -> list[tuple[str, str]]:
    """Bars that a load at the board can be between: each line and the neutral, and each two lines."""
    return [*((bar, "neutral") for bar in layout.bars), *pairs_of(layout.bars)]


def _base(layout: Layout) -> dict[str, Range]:
    """What every point of this layout has; the first line's, in the order they are drawn in."""
    ranges = dict(_BEFORE_THE_RUN)
    if len(layout.lines) > 1:
        ranges["source_ohm"] = _SERVICE_OF_SEVERAL_OHM
    for a, b in board_pairs(layout):
        ranges[amperes("board", a, b)] = _BOARD_LOAD_A if b == "neutral" else _BOARD_LOAD_ACROSS_A
    ranges["warmth"] = Range(0.9, 1.18)
    ranges |= {f"{wire}_match": Range(0.98, 1.02) for wire in layout.live_wires[1:]}
    ranges |= {f"{wire}_splice_ohm": _SPLICE_OHM for wire in layout.wires}
    ranges |= _ALONG_THE_RUN
    ranges |= {f"source_stray_{bar}_share": Range(0.5, 1.5) for bar in (*layout.bars, "neutral")}
    ranges["beyond_m"] = Range(2.5, 30.0, "square")
    ranges |= {f"{between('cable', a, b)}_farad_per_m": _CABLE_FARAD_PER_M for a, b in pairs_of(layout.wires)}
    ranges |= {f"stray_{wire}_farad": _STRAY_FARAD for wire in layout.wires}
    ranges["filters_fitted"] = Range(1.0, 1.0, absent=0.5)
    ranges |= {f"filter_{wire}_farad": _FILTER_FARAD for wire in layout.live_wires}
    ranges |= _AT_THE_PROBES
    for bar in layout.bars[1:]:
        ranges[f"source_{bar}_match"] = Range(0.8, 1.25, "log")
    for line in layout.lines[1:]:
        ranges[f"unbalance_{line}"] = ranges[f"shift_{line}"] = _UNBALANCE
        ranges[f"ghost_{line}_share"] = Range(0.4, 2.5, "log")
    return ranges


def most_load_a(point: PointFacts) -> float:
    """The most that a load on the circuit draws, in amperes."""
    several = len(pairs_of(point.layout.live_wires)) > 1
    return assumed_rating_a(point) * (_SHARE_OF_SEVERAL if several else 1.0)


def source_range(point: PointFacts) -> Range:
    """Volts at the board of a sound supply: the tolerable band, and a little past it."""
    limit = limit_for("voltage.band", point.practice, point.system)
    healthy = limit.tolerable or limit.band
    return Range(healthy.low * 0.985, healthy.high * 1.015)


def ohm_of_a_run_too_long(point: PointFacts) -> float:
    """Of each wire, in ohms: on so much the device's rating loses more than the practice would have it."""
    return point.practice.drop.share * point.system.nominal_volts / (2 * most_load_a(point))


def loses_little(point: PointFacts) -> bool:
    """Whether what is on record of the circuit says that its run is not too long."""
    length, conductor = point.circuit.length_m, point.circuit.conductor
    if length is None or conductor is None:
        return False
    return conductor.ohm_per_m * length < ohm_of_a_run_too_long(point)


def _loads(point: PointFacts) -> dict[str, Range]:
    """Loads elsewhere on the circuit and at the contacts, from equipment on standby to all the device carries.

    Where there are several they are on or off together as well, so that a circuit with nothing on it is no rarity.
    """
    pairs, most = pairs_of(point.layout.live_wires), most_load_a(point)
    if len(pairs) == 1:
        absent = {"tap": 0.2, "end": 0.6}
        switched = {}
    else:
        absent = {"tap": 0.35, "end": 0.5}
        switched = {"tap_loaded": Range(1.0, 1.0, absent=0.3), "end_loaded": Range(1.0, 1.0, absent=0.4)}
    ranges = {
        amperes(place, a, b): Range(_SMALLEST_LOAD_A, most, "square", absent=share)
        for place, share in absent.items()
        for a, b in pairs
    }
    return ranges | switched


_ELECTRODES: dict[Earthing, tuple[Range, Range]] = {
    Earthing.TN_S: (Range(0.2, 20, "log"), Range(2, 300, "log")),
    Earthing.TN_C_S: (Range(0.2, 20, "log"), Range(2, 300, "log")),
    Earthing.TT: (Range(0.2, 20, "log"), Range(3, 250, "log")),
    Earthing.IT: (Range(1e7, 1e9, "log"), Range(2, 300, "log")),
}


_EARTH_OFFSET = {"earth_offset_volts": Range(0.0, 8.0, "square"), "earth_offset_angle": Range(0.0, 2 * np.pi)}
"""Of a neutral whose electrode is somewhere else: what others return through the ground lifts it, in any phase."""


def assumed_rating_a(point: PointFacts) -> float:
    """The device rating in amperes: recorded, or the practice's usual largest for socket circuits."""
    return point.circuit.rating_a or point.practice.usual_rating_a


class Unknowns:
    """The ranges of a point's unknowns, and the mapping of unit-cube samples onto them."""

    def __init__(self, point: PointFacts) -> None:
        self.layout = point.layout
        self.earthing = point.earthing
        self.ranges = {**_base(point.layout), **self._narrowed(point)}
        self.names = tuple(self.ranges)
        loads = [amperes(place, a, b) for place in ("tap", "end") for a, b in pairs_of(point.layout.live_wires)]
        several = "tap_loaded" in self.ranges
        self._together = [*(("tap_loaded", "end_loaded") if several else loads), "load_at_dc", "filters_fitted"]
        self._one_by_one = loads if len(point.layout.lines) > 1 else []

    @property
    def count(self) -> int:
        return len(self.names)

    def __call__(self, cube: Cube) -> Values:
        """The values of samples (B, count) of the unit cube."""
        return dict(zip(self.names, self.rows(cube), strict=True))

    def rows(self, cube: Cube) -> Cube:
        """The same as one array, (count, B)."""
        values = np.empty(cube.shape[::-1])
        for shape, axes, (low, high, absent) in self._by_shape:
            values[axes] = _mapped(shape, low, high, absent, cube.T[axes])
        return values

    @cached_property
    def _by_shape(self) -> list[tuple[Shape, NDArray[np.intp], Cube]]:
        """For each shape its axes, and their low, high and absent as columns, so that all are mapped at once."""
        shapes: dict[Shape, list[int]] = {}
        for axis, name in enumerate(self.names):
            shapes.setdefault(self.ranges[name].shape, []).append(axis)
        rows = [(r.low, r.high, r.absent) for r in self.ranges.values()]
        return [(shape, np.array(axes), np.array(rows)[axes].T[:, :, None]) for shape, axes in shapes.items()]

    def every_way(self, sample: Cube) -> Cube:
        """One sample (unknowns,) with what may be absent on the circuit there or not: all ways, all there last.

        Of several loads that are on or off together also each one alone, as equipment on standby and as more.
        """
        on = dict.fromkeys(self._together, True)
        alone = [
            self._set(self._with(sample, on | {n: n == name for n in self._one_by_one}), name, share)
            for name in self._one_by_one
            for share in _ALONE_SHARES
        ]
        together = [
            self._with(sample, dict.fromkeys(self._one_by_one, True) | dict(zip(self._together, present, strict=True)))
            for present in product((False, True), repeat=len(self._together))
        ]
        return np.array([*alone, *together])

    def _set(self, way: Cube, name: str, share: float) -> Cube:
        absent = self.ranges[name].absent
        way[self.names.index(name)] = absent + share * (1 - absent)
        return way

    def _with(self, sample: Cube, present: Mapping[str, bool]) -> Cube:
        way = sample.copy()
        for name, there in present.items():
            axis, absent = self.names.index(name), self.ranges[name].absent
            way[axis] = max(way[axis], absent + 0.2 * (1 - absent)) if there else 0.0
        return way

    @staticmethod
    def _narrowed(point: PointFacts) -> dict[str, Range]:
        circuit, system = point.circuit, point.system
        rating = assumed_rating_a(point)
        source_electrode, own_electrode = _ELECTRODES[point.earthing]
        ranges = {
            "source_volts": source_range(point),
            **_loads(point),
            "earth_size": Range(*point.practice.earth_size_ratio),
            "source_electrode_ohm": source_electrode,
            "electrode_ohm": own_electrode,
            **(_EARTH_OFFSET if point.earthing is Earthing.TT else {}),
            "length_m": Range(1.0, 80.0, "log")
            if circuit.length_m is None
            else Range(circuit.length_m * (1 - _LENGTH_DOUBT), circuit.length_m * (1 + _LENGTH_DOUBT)),
            "ohm_per_m": Range(*point.practice.final_ohm_per_m, "log")
            if circuit.conductor is None
            else Range(circuit.conductor.ohm_per_m * 0.99, circuit.conductor.ohm_per_m * 1.01),
        }
        if point.earthing is Earthing.IT and not system.standalone:
            ranges["source_stray_farad"] = Range(0.2e-9, 300e-9, "log")
        if system.standalone:
            ranges["source_ohm"] = Range(0.02, 5.0, "log")
            ranges["source_electrode_ohm"] = Range(1e6, 1e9, "log")
            ranges["electrode_ohm"] = Range(2.0, 1e5, "log")
            for a, b in board_pairs(point.layout):
                ranges[amperes("board", a, b)] = Range(0.0, rating / 2, "square", absent=0.5)
        return ranges
