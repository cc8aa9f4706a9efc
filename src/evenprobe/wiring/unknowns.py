"""What nobody wrote down: the unknowns of an installation and the range each can lie in.

One table. A sample is a point of the unit cube, one axis an unknown, mapped through its range; what the
record knows narrows the range. Ranges: handbook of this project, section "Installation"; where it gives
none, IEC 60364-6 annex values for loop and electrode resistances, wide on purpose, for a range too narrow
strikes out the truth while one too wide only asks for another reading.
"""

from dataclasses import dataclass
from functools import cached_property
from itertools import product
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from evenprobe.supplies import PRACTICES, Earthing, PracticeId, limit_for
from evenprobe.wiring.points import PointFacts

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


ON_THE_CIRCUIT = ("other_load_a", "load_at_contacts_a", "load_at_dc", "filters_fitted")
SMALLEST_LOAD_A = 0.02
"""Equipment on standby."""
LENGTH_DOUBT = 0.05
"""A recorded length is paced out or read off a drawing."""

_BASE: dict[str, Range] = {
    "source_ohm": Range(0.01, 0.6, "log"),
    "source_angle": Range(0.0, 0.6),
    "service_neutral_ohm": Range(0.003, 0.12, "log"),
    "service_earth_ohm": Range(0.003, 0.2, "log"),
    "bond_ohm": Range(0.0005, 0.02, "log"),
    "board_load_a": Range(0.0, 20.0, "square", absent=0.15),
    "warmth": Range(0.9, 1.18),
    "neutral_match": Range(0.98, 1.02),
    "line_splice_ohm": Range(0.0005, 0.03, "log"),
    "neutral_splice_ohm": Range(0.0005, 0.03, "log"),
    "earth_splice_ohm": Range(0.0005, 0.03, "log"),
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
    "source_stray_l_share": Range(0.5, 1.5),
    "source_stray_n_share": Range(0.5, 1.5),
    "beyond_m": Range(2.5, 30.0, "square"),
    "cable_ln_farad_per_m": Range(45e-12, 130e-12),
    "cable_le_farad_per_m": Range(45e-12, 130e-12),
    "cable_ne_farad_per_m": Range(45e-12, 130e-12),
    "stray_l_farad": Range(10e-12, 500e-12, "log"),
    "stray_n_farad": Range(10e-12, 500e-12, "log"),
    "stray_e_farad": Range(10e-12, 500e-12, "log"),
    "filters_fitted": Range(1.0, 1.0, absent=0.5),
    "filter_le_farad": Range(0.8e-9, 8e-9),
    "filter_ne_farad": Range(0.8e-9, 8e-9),
    "reference_ohm": Range(0.5, 1000.0, "log"),
    "contact_ohm": Range(0.0, 0.03),
    "way_round": Range(0.0, 1.0),
    "other_line": Range(0.0, 1.0),
}

_ELECTRODES: dict[Earthing, tuple[Range, Range]] = {
    Earthing.TN_S: (Range(0.2, 20, "log"), Range(2, 300, "log")),
    Earthing.TN_C_S: (Range(0.2, 20, "log"), Range(2, 300, "log")),
    Earthing.TT: (Range(0.2, 20, "log"), Range(3, 250, "log")),
    Earthing.IT: (Range(1e7, 1e9, "log"), Range(2, 300, "log")),
}

_DEFAULT_RATING_A = {
    PracticeId.NORTH_AMERICA: 20.0,
    PracticeId.CONTINENTAL: 16.0,
    PracticeId.BRITISH: 32.0,
}

_ANY_FINAL_CONDUCTOR = {
    PracticeId.NORTH_AMERICA: Range(0.00206, 0.00829, "log"),
    PracticeId.CONTINENTAL: Range(0.0030, 0.01215, "log"),
    PracticeId.BRITISH: Range(0.0018, 0.01215, "log"),
}


def assumed_rating_a(point: PointFacts) -> float:
    """The device rating in amperes: recorded, or the practice's usual largest for socket circuits."""
    return point.circuit.rating_a or _DEFAULT_RATING_A[point.practice]


class Unknowns:
    """The ranges of a point's unknowns, and the mapping of unit-cube samples onto them."""

    def __init__(self, point: PointFacts) -> None:
        self.ranges = {**_BASE, **self._narrowed(point)}
        self.names = tuple(self.ranges)

    @property
    def count(self) -> int:
        return len(self.names)

    def __call__(self, cube: Cube) -> Values:
        """The values of samples (B, count) of the unit cube."""
        values = np.empty(cube.shape[::-1])
        for shape, axes, (low, high, absent) in self._by_shape:
            values[axes] = _mapped(shape, low, high, absent, cube.T[axes])
        return dict(zip(self.names, values, strict=True))

    @cached_property
    def _by_shape(self) -> list[tuple[Shape, NDArray[np.intp], Cube]]:
        """For each shape its axes, and their low, high and absent as columns, so that all are mapped at once."""
        shapes: dict[Shape, list[int]] = {}
        for axis, name in enumerate(self.names):
            shapes.setdefault(self.ranges[name].shape, []).append(axis)
        rows = [(r.low, r.high, r.absent) for r in self.ranges.values()]
        return [(shape, np.array(axes), np.array(rows)[axes].T[:, :, None]) for shape, axes in shapes.items()]

    def every_way(self, sample: Cube) -> Cube:
        """One sample (unknowns,) with what may be absent on the circuit there or not: all ways, all there last."""
        axes = [i for i in self._may_be_absent if self.names[i] in ON_THE_CIRCUIT]
        ways = np.tile(sample, (2 ** len(axes), 1))
        for way, present in zip(ways, product((False, True), repeat=len(axes)), strict=True):
            for axis, there in zip(axes, present, strict=True):
                way[axis] = max(way[axis], self._barely_there(axis)) if there else 0.0
        return ways

    @cached_property
    def _may_be_absent(self) -> list[int]:
        return [i for i, name in enumerate(self.names) if self.ranges[name].absent]

    def _barely_there(self, axis: int) -> float:
        absent = self.ranges[self.names[axis]].absent
        return absent + 0.2 * (1 - absent)

    @staticmethod
    def _narrowed(point: PointFacts) -> dict[str, Range]:
        circuit, system = point.circuit, point.system
        limit = limit_for("voltage.band", point.practice, system)
        healthy = limit.tolerable or limit.band
        rating = assumed_rating_a(point)
        source_electrode, own_electrode = _ELECTRODES[point.earthing]
        ranges = {
            "source_volts": Range(healthy.low * 0.985, healthy.high * 1.015),
            "other_load_a": Range(SMALLEST_LOAD_A, rating, "square", absent=0.2),
            "load_at_contacts_a": Range(SMALLEST_LOAD_A, rating, "square", absent=0.6),
            "earth_size": Range(*PRACTICES[point.practice].earth_size_ratio),
            "source_electrode_ohm": source_electrode,
            "electrode_ohm": own_electrode,
            "length_m": Range(1.0, 80.0, "log")
            if circuit.length_m is None
            else Range(circuit.length_m * (1 - LENGTH_DOUBT), circuit.length_m * (1 + LENGTH_DOUBT)),
            "ohm_per_m": _ANY_FINAL_CONDUCTOR[point.practice]
            if circuit.conductor is None
            else Range(circuit.conductor.ohm_per_m * 0.99, circuit.conductor.ohm_per_m * 1.01),
        }
        if point.earthing is Earthing.IT and not system.standalone:
            ranges["source_stray_farad"] = Range(0.2e-9, 300e-9, "log")
        if system.standalone:
            ranges["source_ohm"] = Range(0.02, 5.0, "log")
            ranges["source_electrode_ohm"] = Range(1e6, 1e9, "log")
            ranges["electrode_ohm"] = Range(2.0, 1e5, "log")
            ranges["board_load_a"] = Range(0.0, rating / 2, "square", absent=0.5)
        return ranges
