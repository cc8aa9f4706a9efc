"""What a tester would show: the model forwards, for every sample of a solved installation at once."""

from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.network import Load, Pair
from evenprobe.testers.instruments import LAMP_OHM, Ability
from evenprobe.testers.measurement import Measurement, Quantity
from evenprobe.wiring import Terminal
from evenprobe.wiring.installation import Solved
from evenprobe.wiring.points import LINES, METALWORK

Array = NDArray[Any]

LAMP_PAIRS: dict[str, Pair] = {"L-N": ("L", "N"), "L-PE": ("L", "PE"), "N-PE": ("N", "PE")}


def port_of(terminal: Terminal) -> str:
    """The solved port a terminal is at: the casing hangs on the PE contact, and one line is called L."""
    if terminal in LINES:
        return "L"
    return "PE" if terminal in METALWORK else str(terminal)


def shown(measurement: Measurement, solved: Solved, nominal_volts: float, frequency_hz: float) -> Array:
    """Volts or ohms shown, (B,). `solved` is at DC for resistance, and with the device as the measurement says.

    Raises ValueError for a quantity that has no single number.
    """
    if measurement.from_ is None or measurement.to is None:
        raise ValueError(f"{measurement.quantity} has no pair of points")
    pair = port_of(measurement.from_), port_of(measurement.to)
    if measurement.quantity is Quantity.RESISTANCE:
        through = np.real(solved.at.impedance(pair)) if pair[0] != pair[1] else np.zeros_like(solved.contact_ohm)
        return through + _touching(pair, solved)
    if measurement.quantity is not Quantity.VOLTAGE:
        raise ValueError(f"{measurement.quantity} is not a number between two points")
    ability = measurement.instrument.volts()
    if ability is None:
        raise ValueError(f"a {measurement.instrument.kind} shows no volts")
    loads = _known_loads(measurement, solved, nominal_volts)
    volts = solved.at.open_volts(pair, loads)
    behind = solved.at.impedance(pair, loads) + _touching(pair, solved)
    return np.abs(volts / (1 + behind * _input_siemens(measurement, ability, frequency_hz)))


def potential(terminal: Terminal, solved: Solved) -> Array:
    """Volts of a terminal against the mass of earth, (B,), with nothing connected."""
    return np.abs(solved.at.open_volts((port_of(terminal), "REF")))


def lamp_volts(solved: Solved) -> dict[str, Array]:
    """Volts across each lamp of a three-lamp tester, its lamps all connected together."""
    lamp = np.full_like(solved.contact_ohm, 1 / LAMP_OHM)
    loads = [Load(pair, lamp) for pair in LAMP_PAIRS.values()]
    return {name: np.abs(solved.at.open_volts(pair, loads)) for name, pair in LAMP_PAIRS.items()}


def lamps_on(terminals: tuple[Terminal, ...]) -> tuple[str, ...]:
    """The lamps a three-lamp tester has contacts for at this point."""
    ports = {port_of(t) for t in terminals}
    return tuple(name for name, pair in LAMP_PAIRS.items() if set(pair) <= ports)


def _known_loads(measurement: Measurement, solved: Solved, nominal_volts: float) -> list[Load]:
    placed = (
        (measurement.load_here_a, ("L", "N")),
        (measurement.load_elsewhere_a, ("TAP_L", "TAP_N")),
    )
    return [
        Load(pair, amperes / nominal_volts * solved.known_load_error) for amperes, pair in placed if amperes is not None
    ]


def _input_siemens(measurement: Measurement, ability: Ability, frequency_hz: float) -> complex:
    if measurement.input == "low-z" and ability.low_input_ohm is not None:
        return 1 / ability.low_input_ohm
    return 1 / ability.input_ohm + 2j * np.pi * frequency_hz * ability.input_farad


def _touching(pair: Pair, solved: Solved) -> Array:
    """Resistance of the probes' own contacts, and of the reference earth where one end is there."""
    return sum(
        (solved.reference_ohm if port == "REF" else solved.contact_ohm for port in pair),
        np.zeros_like(solved.contact_ohm),
    )
