"""What a tester would show: the model forwards, for every sample of a solved installation at once."""

from dataclasses import replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.network import Load, Pair
from evenprobe.testers.instruments import LAMP_OHM, Ability
from evenprobe.testers.measurement import Measurement, Quantity
from evenprobe.wiring import PointFacts, Terminal
from evenprobe.wiring.admittances import CLAMPED_SIEMENS
from evenprobe.wiring.installation import Solved, bar_of
from evenprobe.wiring.points import METALWORK

Array = NDArray[Any]

DRIVES_FROM_SHARE = 0.8
"""A trip tester drives its current from so much of nominal voltage on, and no more than it above."""
CLEAR_TURN = 0.2
"""Sine of the least angle between two line-to-line voltages that shows which comes first."""
LAMPS = ("L-N", "L-PE", "N-PE")
WITH_THE_SOURCE = (Quantity.VOLTAGE, Quantity.LAMPS, Quantity.CURRENT)
"""What is shown of these rises with the source's voltage."""


def port_of(terminal: Terminal) -> str:
    """The solved port a terminal is at: the casing hangs on the PE contact."""
    return "PE" if terminal in METALWORK else str(terminal)


def shown(measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
    """Volts, ohms or amperes shown, amperes that a device sees of a trip test, or the sequence, (B,).

    `solved` is dead for ohms and insulation, clamped for a current, and with the device as the measurement says. The
    sequence is 1 forwards, 0 reversed and between where there is none. Raises ValueError for a quantity that has no
    number.
    """
    if measurement.quantity is Quantity.SEQUENCE:
        return _sequence(solved)
    pair = _pair(measurement, point)
    if measurement.dead:
        through = np.real(solved.at.impedance(pair)) if pair[0] != pair[1] else np.zeros_like(solved.contact_ohm)
        return through + _touching(pair, solved)
    volts, behind, meter = _behind(measurement, pair, solved, point)
    found = np.abs(volts / (1 + behind * meter)) * _per_volt(measurement, pair, solved, point)
    return np.minimum(found, _most(measurement))


def slopes(measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
    """What `shown` changes by with each branch's admittance, (K, B) per siemens, and each EMF of its own.

    Complex: a change of admittances changes what is shown by the real part of the sum of products.
    """
    if measurement.quantity is Quantity.SEQUENCE:
        first, second, *_ = solved.at.ports
        return np.zeros_like(solved.at.volts_per_siemens((first, second)))
    pair = _pair(measurement, point)
    if measurement.dead:
        return solved.at.ohms_per_siemens(pair)
    volts, behind, meter = _behind(measurement, pair, solved, point)
    loads = _known_loads(measurement, solved, point)
    at_meter = volts / (1 + behind * meter)
    change = solved.at.volts_per_siemens(pair, loads) - at_meter * meter * solved.at.ohms_per_siemens(pair, loads)
    per_volt = _per_volt(measurement, pair, solved, point)
    moves = np.abs(at_meter) * per_volt < _most(measurement)
    return np.asarray(_along(at_meter) * change / (1 + behind * meter) * per_volt * moves)


def _pair(measurement: Measurement, point: PointFacts) -> Pair:
    """The ports between the probes; a trip test is from the first line to earth unless it says otherwise.

    A clamp sees what flows between a conductor's bar and its end at the board.
    """
    from_, to = measurement.from_, measurement.to
    if measurement.quantity is Quantity.CURRENT and from_ is not None:
        return bar_of(str(from_)), str(from_)
    if measurement.quantity is Quantity.TRIP:
        from_, to = from_ or point.lines[0], to or Terminal.PE
    if from_ is None or to is None:
        raise ValueError(f"{measurement.quantity} has no pair of points")
    return port_of(from_), port_of(to)


def _sequence(solved: Solved) -> Array:
    """Whether the second line-to-line voltage lags the first (1) or leads it (0); half where one is missing."""
    one, two, three, *_ = solved.at.ports
    first, second = solved.at.open_volts((one, two)), solved.at.open_volts((two, three))
    turn = np.imag(second * np.conj(first)) / np.maximum(np.abs(first) * np.abs(second), 1.0)
    return np.where(turn < -CLEAR_TURN, 1.0, np.where(turn > CLEAR_TURN, 0.0, 0.5))


def _along(volts: Array) -> Array:
    """The factor by which a change of a phasor is a change of its magnitude."""
    return np.asarray(np.conj(volts) / np.maximum(np.abs(volts), 1e-30))


def _behind(measurement: Measurement, pair: Pair, solved: Solved, point: PointFacts) -> tuple[Array, Array, complex]:
    """Open-circuit volts between the probes, the ohms behind them, and the siemens of the tester across them."""
    loads = _known_loads(measurement, solved, point)
    volts = solved.at.open_volts(pair, loads)
    behind = solved.at.impedance(pair, loads) + _touching(pair, solved)
    return volts, behind, _tester_siemens(measurement, point)


def _tester_siemens(measurement: Measurement, point: PointFacts) -> complex:
    if measurement.quantity is Quantity.TRIP:
        return _test_siemens(measurement, point)
    if measurement.quantity is Quantity.CURRENT:
        return 0.0
    ability = measurement.instrument.volts()
    if measurement.quantity is not Quantity.VOLTAGE or ability is None:
        raise ValueError(f"a {measurement.instrument.kind} shows no {measurement.quantity} between two points")
    return _input_siemens(measurement, ability, point.system.frequency_hz)


def _test_siemens(measurement: Measurement, point: PointFacts) -> float:
    return (measurement.test_ma or 0.0) / 1000 / (DRIVES_FROM_SHARE * point.system.nominal_volts)


def follows_source(measurement: Measurement, shown_so: Array) -> Array:
    """Whether what is shown rises with the source, (B,): volts and amperes do, a trip test's current up to its most."""
    if measurement.quantity is Quantity.TRIP:
        return np.asarray(shown_so < _most(measurement))
    return np.full(shown_so.shape, measurement.quantity in WITH_THE_SOURCE)


def _most(measurement: Measurement) -> float:
    return np.inf if measurement.test_ma is None else measurement.test_ma / 1000


def _per_volt(measurement: Measurement, pair: Pair, solved: Solved, point: PointFacts) -> Array | float:
    """Shown for each volt across the probes: itself, or of a trip test what does not come back by the device.

    In a clamp the conductor's own volts are amperes.
    """
    if measurement.quantity is Quantity.CURRENT:
        return CLAMPED_SIEMENS
    if measurement.quantity is not Quantity.TRIP:
        return 1.0
    contacts = solved.at.ports[: len(solved.through_device)]
    from_, to = (port in contacts and solved.through_device[contacts.index(port)] for port in pair)
    return np.asarray(_test_siemens(measurement, point) * np.not_equal(from_, to))


def potential(terminal: Terminal, solved: Solved) -> Array:
    """Volts of a terminal against the mass of earth, (B,), with nothing connected."""
    return np.abs(phasor(terminal, solved))


def phasor(terminal: Terminal, solved: Solved) -> Array:
    """The same with its angle, complex (B,)."""
    return solved.at.open_volts((port_of(terminal), str(Terminal.REF)))


def lamp_volts(solved: Solved) -> dict[str, Array]:
    """Volts across each lamp of a three-lamp tester at a one-line point, its lamps all connected together."""
    loads = _lamps(solved)
    return {name: np.abs(solved.at.open_volts(load.pair, loads)) for name, load in zip(LAMPS, loads, strict=True)}


def lamp_slopes(lamp: str, solved: Solved) -> Array:
    """As `slopes`, for one of the three lamps."""
    loads = _lamps(solved)
    pair = loads[LAMPS.index(lamp)].pair
    volts = solved.at.open_volts(pair, loads)
    return np.asarray(_along(volts) * solved.at.volts_per_siemens(pair, loads))


def _lamps(solved: Solved) -> list[Load]:
    line, neutral, earth, *_ = solved.at.ports
    lamp = np.full_like(solved.contact_ohm, 1 / LAMP_OHM)
    return [Load(pair, lamp) for pair in ((line, neutral), (line, earth), (neutral, earth))]


def lamps_on(point: PointFacts) -> tuple[str, ...]:
    """The lamps a three-lamp tester has contacts for at this point; it is made for one line."""
    if len(point.lines) != 1:
        return ()
    here = {"L"} | {port_of(t) for t in point.terminals}
    return tuple(name for name in LAMPS if set(name.split("-")) <= here)


def _known_loads(measurement: Measurement, solved: Solved, point: PointFacts) -> list[Load]:
    one, other = load_between(measurement, point)
    per_ampere = solved.known_load_error / point.volts_between(one, other)
    placed = (
        (measurement.load_here_a, (str(one), str(other))),
        (measurement.load_elsewhere_a, (f"TAP-{one}", f"TAP-{other}")),
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
    measured = measurement.from_, measurement.to
    if len(point.lines) > 1 and measured[0] in live and measured[1] in live:
        return Terminal(measured[0]), Terminal(measured[1])
    return first, Terminal.N if point.layout.neutral else others[0]


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
