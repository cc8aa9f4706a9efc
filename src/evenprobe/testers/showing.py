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
    """Volts or ohms shown, (B,). `solved` is dead for ohms and insulation, and with the device as the measurement says.

    Raises ValueError for a quantity that has no single number.
    """
    if measurement.from_ is None or measurement.to is None:
        raise ValueError(f"{measurement.quantity} has no pair of points")
    pair = port_of(measurement.from_), port_of(measurement.to)
    if measurement.dead:
        through = np.real(solved.at.impedance(pair)) if pair[0] != pair[1] else np.zeros_like(solved.contact_ohm)
        return through + _touching(pair, solved)
    volts, behind, meter = _behind(measurement, pair, solved, nominal_volts, frequency_hz)
    return np.abs(volts / (1 + behind * meter))


def slopes(measurement: Measurement, solved: Solved, nominal_volts: float, frequency_hz: float) -> Array:
    """What `shown` changes by with each branch's admittance, (K, B) per siemens.

    Complex: a change of admittances changes what is shown by the real part of the sum of products.
    """
    assert measurement.from_ is not None
    assert measurement.to is not None
    pair = port_of(measurement.from_), port_of(measurement.to)
    if measurement.dead:
        return solved.at.ohms_per_siemens(pair)
    volts, behind, meter = _behind(measurement, pair, solved, nominal_volts, frequency_hz)
    loads = _known_loads(measurement, solved, nominal_volts)
    at_meter = volts / (1 + behind * meter)
    change = solved.at.volts_per_siemens(pair, loads) - at_meter * meter * solved.at.ohms_per_siemens(pair, loads)
    return np.asarray(_along(at_meter) * change / (1 + behind * meter))


def _along(volts: Array) -> Array:
    """The factor by which a change of a phasor is a change of its magnitude."""
    return np.asarray(np.conj(volts) / np.maximum(np.abs(volts), 1e-30))


def _behind(
    measurement: Measurement, pair: Pair, solved: Solved, nominal_volts: float, frequency_hz: float
) -> tuple[Array, Array, complex]:
    """Open-circuit volts between the probes, the ohms behind them, and the siemens of the tester across them."""
    ability = measurement.instrument.volts()
    if measurement.quantity is not Quantity.VOLTAGE or ability is None:
        raise ValueError(f"a {measurement.instrument.kind} shows no {measurement.quantity} between two points")
    loads = _known_loads(measurement, solved, nominal_volts)
    volts = solved.at.open_volts(pair, loads)
    behind = solved.at.impedance(pair, loads) + _touching(pair, solved)
    return volts, behind, _input_siemens(measurement, ability, frequency_hz)


def potential(terminal: Terminal, solved: Solved) -> Array:
    """Volts of a terminal against the mass of earth, (B,), with nothing connected."""
    return np.abs(solved.at.open_volts((port_of(terminal), "REF")))


def lamp_volts(solved: Solved) -> dict[str, Array]:
    """Volts across each lamp of a three-lamp tester, its lamps all connected together."""
    loads = _lamps(solved)
    return {name: np.abs(solved.at.open_volts(pair, loads)) for name, pair in LAMP_PAIRS.items()}


def lamp_slopes(lamp: str, solved: Solved) -> Array:
    """As `slopes`, for one of the three lamps."""
    loads, pair = _lamps(solved), LAMP_PAIRS[lamp]
    volts = solved.at.open_volts(pair, loads)
    return np.asarray(_along(volts) * solved.at.volts_per_siemens(pair, loads))


def _lamps(solved: Solved) -> list[Load]:
    lamp = np.full_like(solved.contact_ohm, 1 / LAMP_OHM)
    return [Load(pair, lamp) for pair in LAMP_PAIRS.values()]


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
