"""What two probes find on an energised network: open-circuit volts, what is behind them, known loads, the tester.

Thévenin (1883): a network seen from two points is a source behind an impedance; what a tester shows is that source
divided between the impedance and the tester's own.
"""

from abc import abstractmethod
from dataclasses import replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.installation.installation import Solved, bar_port, tap_port
from evenprobe.network import Load, Pair
from evenprobe.quantities.measurement import Measurement
from evenprobe.quantities.quantity import CONTACT_S, LIVE_EXPOSURE, Quantity
from evenprobe.wiring import PointFacts, Terminal
from evenprobe.wiring.points import BOARD_END, METALWORK

Array = NDArray[Any]

BEYOND = 1e15
"""Stands for no upper end, above anything a tester shows."""
AT_A_LIVE_CONTACT_S, REFERENCE_S, LOW_IMPEDANCE_S, BOARD_S = 2.0, 25.0, 8.0, 30.0
LOAD_HERE_S, LOAD_ELSEWHERE_S, NOTHING_ELSE_S = 40.0, 70.0, 50.0
"""Seconds that a live contact, a reference earth, a low impedance, the board and a known load add to a reading."""


_BOTH = 2
_CONTACT_OF = {end: contact for contact, end in BOARD_END.items() if contact is not Terminal.CASE}
_EARTH_BAR = bar_port(str(Terminal.BOARD_PE))
_REFERENCES = (str(Terminal.REF), _EARTH_BAR)


def port_of(terminal: Terminal) -> str:
    """The solved port a terminal is at: the casing hangs on the PE contact."""
    return "PE" if terminal in METALWORK else str(terminal)


def ports_of(measurement: Measurement) -> frozenset[str]:
    """The solved ports its probes are on."""
    return frozenset(port_of(end) for end in measurement.ends)


def potential(terminal: Terminal, solved: Solved) -> Array:
    """Volts of a terminal against the mass of earth, (B,), with nothing connected."""
    return np.abs(phasor(terminal, solved))


def phasor(terminal: Terminal, solved: Solved) -> Array:
    """The same with its angle, complex (B,)."""
    return solved.at.open_volts((port_of(terminal), str(Terminal.REF)))


def touching(pair: Pair, solved: Solved) -> Array:
    """Resistance of the probes' own contacts, and of the reference earth where one end is there."""
    return sum(
        (solved.reference_ohm if port in _REFERENCES else solved.contact_ohm for port in pair),
        np.zeros_like(solved.contact_ohm),
    )


def along(volts: Array) -> Array:
    """The factor by which a change of a phasor is a change of its magnitude."""
    return np.asarray(np.conj(volts) / np.maximum(np.abs(volts), 1e-30))


def known_loads(measurement: Measurement, solved: Solved, point: PointFacts) -> list[Load]:
    """The loads that are known to be on, each where it is."""
    one, other = load_between(measurement, point)
    per_ampere = solved.known_load_error / point.volts_between(one, other)
    placed = (
        (measurement.load_here_a, (str(one), str(other))),
        (measurement.load_elsewhere_a, (tap_port(str(one)), tap_port(str(other)))),
    )
    return [Load(pair, amperes * per_ampere) for amperes, pair in placed if amperes is not None]


def with_loads_placed(measurement: Measurement, point: PointFacts) -> Measurement:
    """The same, its known load between the contacts it is between even where nobody said so."""
    if not measurement.under_load:
        return measurement
    return replace(measurement, load_between=load_between(measurement, point))


def unloaded(measurement: Measurement) -> Measurement:
    """The same without any known load."""
    return replace(measurement, load_here_a=None, load_elsewhere_a=None, load_between=None)


def load_between(measurement: Measurement, point: PointFacts) -> tuple[Terminal, Terminal]:
    """Which contacts a known load is between: those it is said to be, else the pair measured, if a load can be there.

    Between anything else it is the first line and the neutral, or where no neutral comes here the second line.
    """
    if measurement.load_between is not None:
        return measurement.load_between
    first, *others = point.lines
    live = {*point.lines, Terminal.N} if point.layout.neutral else {*point.lines}
    measured = tuple(_CONTACT_OF.get(end, end) for end in (measurement.from_, measurement.to) if end is not None)
    if len(point.lines) > 1 and len(measured) == _BOTH and live.issuperset(measured):
        return measured[0], measured[1]
    return first, Terminal.N if point.layout.neutral else others[0]


def pair_of(measurement: Measurement) -> Pair:
    """The ports its probes are on, measuring point first. Raises ValueError where there are not two."""
    if measurement.from_ is None or measurement.to is None:
        raise ValueError(f"{measurement.quantity} has no pair of points")
    one, other = (_where(end, measurement) for end in (measurement.from_, measurement.to))
    return one, other


def _where(end: Terminal, measurement: Measurement) -> str:
    return _EARTH_BAR if end is Terminal.REF and measurement.to_the_bar else port_of(end)


class BetweenProbes(Quantity):
    """What is shown between two probes on an energised network, in proportion to the volts across them."""

    def pair(self, measurement: Measurement, point: PointFacts) -> Pair:
        """The ports between which it is measured."""
        return pair_of(measurement)

    @abstractmethod
    def across(self, measurement: Measurement, point: PointFacts) -> complex:
        """The siemens that the tester puts across the probes."""

    def per_volt(self, measurement: Measurement, pair: Pair, solved: Solved, point: PointFacts) -> Array | float:
        """Shown for each volt across the probes."""
        return 1.0

    def shown(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        return np.abs(self.phasor(measurement, solved, point))

    def phasor(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        pair = self.pair(measurement, point)
        volts, behind, meter = self._behind(measurement, pair, solved, point)
        return np.asarray(volts / (1 + behind * meter) * self.per_volt(measurement, pair, solved, point))

    def slopes(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        pair = self.pair(measurement, point)
        volts, behind, meter = self._behind(measurement, pair, solved, point)
        loads = known_loads(measurement, solved, point)
        at_meter = volts / (1 + behind * meter)
        change = solved.at.volts_per_siemens(pair, loads) - at_meter * meter * solved.at.ohms_per_siemens(pair, loads)
        per_volt = self.per_volt(measurement, pair, solved, point)
        return np.asarray(along(at_meter) * change / (1 + behind * meter) * per_volt)

    def _behind(
        self, measurement: Measurement, pair: Pair, solved: Solved, point: PointFacts
    ) -> tuple[Array, Array, complex]:
        """Open-circuit volts between the probes, the ohms behind them, and the siemens of the tester across them."""
        loads = known_loads(measurement, solved, point)
        volts = solved.at.open_volts(pair, loads)
        behind = solved.at.impedance(pair, loads) + touching(pair, solved)
        return volts, behind, self.across(measurement, point)

    def seconds(self, measurement: Measurement) -> float:
        return seconds_at_contacts(measurement, CONTACT_S)


def seconds_at_contacts(measurement: Measurement, seconds: float) -> float:
    """What a reading at live contacts costs that by itself takes so many seconds."""
    if not measurement.ends & set(METALWORK):
        seconds += AT_A_LIVE_CONTACT_S
    seconds += REFERENCE_S * (Terminal.REF in measurement.ends)
    seconds += LOW_IMPEDANCE_S * (measurement.input == "low-z")
    seconds += LOAD_HERE_S * (measurement.load_here_a is not None)
    seconds += LOAD_ELSEWHERE_S * (measurement.load_elsewhere_a is not None)
    seconds += NOTHING_ELSE_S * measurement.nothing_else_on
    return seconds * LIVE_EXPOSURE
