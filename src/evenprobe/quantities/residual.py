"""What goes out by the live conductors of a circuit and does not come back by them, where they leave the board.

The sum of their currents (Kirchhoff): what a clamp round all of them shows, and what a residual-current device trips
on. A load that returns by the earth, by another circuit's neutral or by both is in it.
"""

from collections.abc import Sequence
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.installation.admittances import CLAMPED_SIEMENS
from evenprobe.installation.installation import Solved, bar_port
from evenprobe.installation.modes import Mode
from evenprobe.network import Load
from evenprobe.quantities.measurement import Measurement
from evenprobe.quantities.probes import along, known_loads
from evenprobe.quantities.quantity import Quantity
from evenprobe.wiring import PointFacts, Terminal
from evenprobe.wiring.points import BOARD_END

Array = NDArray[Any]


def residual(solved: Solved, loads: Sequence[Load], point: PointFacts) -> Array:
    """Amperes missing, complex (B,), of an installation solved clamped, with loads on."""
    by_wire = [solved.at.open_volts(pair, loads) for pair in _pairs(point)]
    return np.asarray(
        sum(own * volts for own, volts in zip(solved.of_the_circuit, by_wire, strict=True)) * CLAMPED_SIEMENS
    )


def residual_per_siemens(solved: Solved, loads: Sequence[Load], point: PointFacts) -> Array:
    """What that changes by with each branch's admittance and each EMF of its own, complex (K, B)."""
    by_wire = [solved.at.volts_per_siemens(pair, loads) for pair in _pairs(point)]
    return np.asarray(
        sum(own * each for own, each in zip(solved.of_the_circuit, by_wire, strict=True)) * CLAMPED_SIEMENS
    )


def _pairs(point: PointFacts) -> list[tuple[str, str]]:
    """Of each live conductor its bar and its end at the board."""
    contacts = (*point.lines, *((Terminal.N,) if point.layout.neutral else ()))
    return [(bar_port(str(end)), str(end)) for end in (BOARD_END[contact] for contact in contacts)]


class Missing(Quantity):
    """A quantity that is what goes missing under the known load."""

    with_source = True
    flows = True

    def mode(self, measurement: Measurement) -> Mode:
        return super().mode(measurement).at_the_board()

    def shown(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        return np.abs(self.phasor(measurement, solved, point))

    def phasor(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        return residual(solved, known_loads(measurement, solved, point), point)

    def slopes(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        loads = known_loads(measurement, solved, point)
        return np.asarray(along(residual(solved, loads, point)) * residual_per_siemens(solved, loads, point))
