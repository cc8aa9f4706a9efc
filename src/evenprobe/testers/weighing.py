"""What each reading counts for: any tester may raise an alarm, only a fit and proved one clears."""

from math import ceil, log10

from evenprobe.supplies.limits import DRY_TOUCH_VOLTS
from evenprobe.supplies.test_limits import residual_span_ma
from evenprobe.testers.evidence import Alarm, Direct, Evidence, Kept, Weighed
from evenprobe.testers.instruments import (
    ALARM_POSSIBLE_VOLTS,
    KINDS,
    LAMP_DARK_SHARE,
    STEP_LIGHTS_FROM,
    TYPED,
    Ability,
    InstrumentKind,
)
from evenprobe.testers.measurement import Quantity, Reading
from evenprobe.wiring import PointFacts, Terminal
from evenprobe.wiring.points import BOARD_END, METALWORK

DRIFT_VOLTS, DRIFT_SHARE = 0.1, 0.002
"""The supply moves between one reading and the next."""
DRIFT_AMPERES, DRIFT_AMPERES_SHARE = 0.05, 0.01
"""So does what the loads draw."""
JOINT_OHMS, JOINT_SHARE = 0.02, 0.01
"""So does the resistance of a probe's touch."""
FIRST_RANGE_COUNTS = 6000
"""Counts of an autoranging display, as the first range holds them."""
NOT_JOINED_OHMS = 1e6
"""More than this an insulation reading says nothing of what is joined to what."""
SMALLEST_DEVICE_MA = 5.0
"""Rated residual current of the most sensitive device there is."""
SHORT_OF_TRIPPING, NO_TRIP_TOLERANCE = 0.95, 0.03
"""Share of what a device must trip at that it certainly has not seen when it did not, and the doubt in it."""
LINES_WITH_A_SEQUENCE = 3
SEQUENCE_TOLERANCE = 0.6
"""Between forwards and reversed, so that no sequence at all agrees with either."""
STANDING_LEAKAGE_SHARE = 0.3
"""Of what a device may trip at: as much may leak on its circuit already."""
DIRECT_FROM_VOLTS = 1.0
"""Direct voltage above this and the tester's error is there; below it is an offset of the range."""
BEYOND = 1e15
"""Stands for no upper end, above anything a tester shows."""


def weigh(reading: Reading, point: PointFacts) -> tuple[Weighed, ...]:
    """What a reading counts for; a lamp pattern counts once for each lit lamp."""
    measurement = reading.measurement
    if measurement.quantity is Quantity.VOLTAGE and measurement.dc:
        return (_direct(reading),)
    if reading.unfit and measurement.quantity is not Quantity.PRESENCE:
        return (_clears_nothing(reading, reading.unfit),)
    match measurement.quantity:
        case Quantity.VOLTAGE:
            return (_voltage(reading),)
        case Quantity.RESISTANCE:
            return (_resistance(reading),)
        case Quantity.INSULATION:
            return (_insulation(reading),)
        case Quantity.PRESENCE:
            return (_presence(reading),)
        case Quantity.LAMPS:
            return _lamps(reading, point.system.nominal_volts)
        case Quantity.CURRENT:
            return (_current(reading),)
        case Quantity.TRIP:
            return (_trip(reading, point),)
        case Quantity.SEQUENCE:
            return (_sequence(reading, point),)
        case other:
            return (Kept(reading, f"{other} is not used to decide between conditions yet"),)


def _voltage(reading: Reading) -> Weighed:
    measurement = reading.measurement
    instrument = measurement.instrument
    ability = instrument.volts()
    if ability is None:
        return Kept(reading, f"a {instrument.kind} does not measure volts")
    if instrument.proved is False:
        return _clears_nothing(reading, "this tester was not proved")
    stepped = reading.value is None
    if stepped:
        low = STEP_LIGHTS_FROM * (reading.at_least or 0.0)
        high = BEYOND if reading.below is None else reading.below
        tolerance = DRIFT_VOLTS + DRIFT_SHARE * max(low, reading.below or 0.0)
        return Evidence(reading, low, high, tolerance, 0.0, f"{instrument.id} steps")
    value = reading.value or 0.0
    tolerance = ability.counts * ability.resolution + DRIFT_VOLTS + DRIFT_SHARE * value
    return Evidence(reading, value, value, tolerance, ability.percent / 100, f"{instrument.id} volts")


def _direct(reading: Reading) -> Weighed:
    """Only a DC zero says nothing on an AC circuit."""
    instrument = reading.measurement.instrument
    ability = instrument.volts()
    if ability is None:
        return Kept(reading, f"a {instrument.kind} does not measure volts")
    stepped = reading.value is None
    shows = STEP_LIGHTS_FROM * (reading.at_least or 0.0) if stepped else abs(reading.value or 0.0)
    error = 0.0 if stepped else ability.error(shows)
    if shows - error > DIRECT_FROM_VOLTS:
        most = max(shows, reading.below or reading.at_least or 0.0) if stepped else shows
        return Direct(reading, most, f"{max(shows, reading.at_least or 0):g} V direct")
    counts = instrument.proved is not False and not reading.unfit
    why = "a DC range shows 0 on a live AC conductor, so it says nothing about AC"
    return Kept(reading, why, no_direct=counts and not stepped)


def _clears_nothing(reading: Reading, why: str) -> Weighed:
    """It may still raise an alarm: volts on metalwork against an independent earth."""
    measurement = reading.measurement
    ends = {measurement.from_, measurement.to}
    metal = [end for end in ends if end in METALWORK]
    seen = reading.value if reading.value is not None else reading.at_least
    volts = measurement.quantity is Quantity.VOLTAGE
    if volts and seen is not None and seen > DRY_TOUCH_VOLTS and metal and Terminal.REF in ends:
        return Alarm(reading, Terminal(metal[0]), DRY_TOUCH_VOLTS)
    return Kept(reading, f"{why}, so it may raise an alarm and clears nothing")


def _resistance(reading: Reading) -> Weighed:
    measurement = reading.measurement
    ability = measurement.instrument.ohms()
    if ability is None:
        return Kept(reading, f"a {measurement.instrument.kind} does not measure ohms")
    if measurement.instrument.proved is False:
        return Kept(reading, "this tester was not proved, so it clears nothing")
    if measurement.device == "closed":
        return Kept(reading, "with the device closed the supply is measured too; open it and repeat")
    tester = f"{measurement.instrument.id} ohms"
    if reading.over_range:
        return Evidence(reading, ability.top, BEYOND, 0.1 * ability.top, ability.percent / 100, tester)
    value = reading.value or 0.0
    tolerance = ability.counts * _ohm_resolution(ability, value) + JOINT_OHMS + JOINT_SHARE * value
    return Evidence(reading, value, value, tolerance, ability.percent / 100, tester)


def _insulation(reading: Reading) -> Weighed:
    """It tells what is not joined, no more: how well it insulates is for its own limit to say."""
    measurement = reading.measurement
    instrument = measurement.instrument
    if instrument != TYPED and instrument.kind is not InstrumentKind.INSULATION_TESTER:
        return Kept(reading, f"a {instrument.kind} puts no test voltage on the insulation")
    if instrument.proved is False:
        return Kept(reading, "this tester was not proved, so it clears nothing")
    if measurement.device == "closed":
        return Kept(reading, "with the device closed the whole board is measured too; open it and repeat")
    least = reading.at_least or (NOT_JOINED_OHMS if reading.over_range else reading.value or 0.0)
    least = min(least, NOT_JOINED_OHMS)
    return Evidence(reading, least, BEYOND, 0.1 * least + JOINT_OHMS, 0.05, f"{instrument.id} insulation")


def _current(reading: Reading) -> Weighed:
    """Round one conductor where it leaves the board, a current says by which way it comes and goes."""
    measurement = reading.measurement
    ability = measurement.instrument.amps()
    if ability is None:
        return Kept(reading, f"a {measurement.instrument.kind} does not measure current")
    if measurement.instrument.proved is False:
        return _clears_nothing(reading, "this tester was not proved")
    if measurement.to is not None:
        text = "round two conductors at once their fields cancel: it shows what leaks. Split the line and clamp one"
        return Kept(reading, text)
    if measurement.from_ not in BOARD_END.values():
        return Kept(reading, "it says what flows there; how wires lie it says only where a conductor leaves the board")
    if reading.value is None:
        return Kept(reading, "what it rose to says what started, not how the wires lie")
    if measurement.device == "open" or measurement.dc:
        return Kept(reading, "with the device open, or on DC, nothing is meant to flow")
    value = reading.value
    tolerance = ability.counts * ability.resolution + DRIFT_AMPERES + DRIFT_AMPERES_SHARE * value
    return Evidence(reading, value, value, tolerance, ability.percent / 100, f"{measurement.instrument.id} amps")


def _ohm_resolution(ability: Ability, ohms: float) -> float:
    """An autoranging display has about four digits, so its last one grows with the range."""
    ranges_up = max(0, ceil(log10(ohms / FIRST_RANGE_COUNTS / ability.resolution))) if ohms > 0 else 0
    return float(ability.resolution * 10**ranges_up)


def _presence(reading: Reading) -> Weighed:
    measurement = reading.measurement
    terminal = measurement.from_
    if terminal is None:
        return Kept(reading, "no terminal is named")
    if reading.alarm:
        return Alarm(reading, terminal, ALARM_POSSIBLE_VOLTS)
    if reading.unfit:
        return Kept(reading, f"silence clears nothing, least of all here: {reading.unfit}")
    if measurement.instrument.kind is InstrumentKind.NON_CONTACT and measurement.instrument.proved:
        return Kept(reading, "silence clears nothing; of a proved detector it only ranks what stands", terminal)
    return Kept(reading, "silence clears nothing, least of all of a detector that was not proved")


def _lamps(reading: Reading, nominal_volts: float) -> tuple[Weighed, ...]:
    if reading.measurement.instrument.proved is False:
        return (Kept(reading, "this tester was not proved, so it clears nothing"),)
    lit = [lamp for lamp, on in reading.lit.items() if on]
    if not lit or not KINDS[reading.measurement.instrument.kind].contact:
        return (Kept(reading, "a dark lamp clears nothing"),)
    from_volts = LAMP_DARK_SHARE * nominal_volts
    tester = f"{reading.measurement.instrument.id} lamps"
    return tuple(Evidence(reading, from_volts, BEYOND, DRIFT_VOLTS, 0.0, tester, lamp) for lamp in lit)


def _trip(reading: Reading, point: PointFacts) -> Weighed:
    """A trip says that the test current did not come back by the device; no trip may be the device's own fault.

    Whatever tripped is no less sensitive than the device recorded, or than any there is.
    """
    measurement = reading.measurement
    test_ma, rated_ma = measurement.test_ma, point.circuit.residual_ma
    stays_in, must_trip = residual_span_ma(rated_ma or SMALLEST_DEVICE_MA)
    tester = f"{measurement.instrument.id} trip"
    if test_ma is None:
        return Kept(reading, "the tester's current is not known, so a trip or no trip says nothing")
    if reading.tripped:
        if test_ma < stays_in:
            return Kept(reading, f"{test_ma:g} mA is less than any device may trip at: something else tripped it")
        low = stays_in / 1000
        return Evidence(reading, low, BEYOND, STANDING_LEAKAGE_SHARE * low, 0.0, tester)
    if measurement.instrument.proved is False:
        return Kept(reading, "this tester was not proved, so no trip clears nothing")
    if rated_ma is None:
        return Kept(reading, "no residual-current device is recorded for this circuit, so no trip proves nothing")
    if test_ma < must_trip:
        return Kept(reading, f"{test_ma:g} mA need not trip a device that must trip at {must_trip:g} mA")
    high = SHORT_OF_TRIPPING * must_trip / 1000
    return Evidence(reading, 0.0, high, NO_TRIP_TOLERANCE * high, 0.0, tester)


def _sequence(reading: Reading, point: PointFacts) -> Weighed:
    if len(point.lines) < LINES_WITH_A_SEQUENCE:
        return Kept(reading, "only three lines have a sequence")
    if reading.measurement.instrument.proved is False:
        return Kept(reading, "this tester was not proved, so it clears nothing")
    value = reading.value or 0.0
    return Evidence(reading, value, value, SEQUENCE_TOLERANCE, 0.0, f"{reading.measurement.instrument.id} sequence")
