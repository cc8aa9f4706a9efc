"""Voltage between two points: alternating, direct, or as the steps of a two-pole tester.

Testers: IEC 61010-2-033 (meters), IEC 61243-3 (two-pole testers). Direct voltage is none of the supply's: whatever
feeds it is something else (IEC 60364-7-712 for solar), so it can only make a verdict worse.
"""

from collections.abc import Iterable, Sequence
from math import pi

import numpy as np

from evenprobe.installation.installation import Solved
from evenprobe.installation.modes import Mode
from evenprobe.limits.voltages import DRY_TOUCH_VOLTS
from evenprobe.quantities.along_the_run import least_metres
from evenprobe.quantities.indication import STEP_LIGHTS_FROM, Drift, displayed, stepped
from evenprobe.quantities.measurement import Measurement, Reading
from evenprobe.quantities.probes import BEYOND, BOARD_S, Array, BetweenProbes, pair_of, port_of
from evenprobe.quantities.quantity import LIVE_EXPOSURE, QUANTITIES
from evenprobe.quantities.sentences import BEYOND_TESTER, KEPT, NOT_PROVED, WARNINGS
from evenprobe.quantities.simulated import Errors, Hidden
from evenprobe.quantities.usual_load import usual_load_a
from evenprobe.quantities.weighed import Alarm, Direct, Evidence, Kept, Weighed, set_aside
from evenprobe.quantities.written import Function, Written
from evenprobe.testers.instrument import Instrument
from evenprobe.testers.kinds import Ability
from evenprobe.testers.purposes import Purpose
from evenprobe.wiring import PointFacts, Terminal, contact_pairs
from evenprobe.wiring.circumstances import Input
from evenprobe.wiring.points import BOARD_END, METALWORK

DRIFT = Drift(0.1, 0.0)
"""A display's last digit is never quite still; what the supply does meanwhile is its moment's."""
_DIRECT_FROM_VOLTS = 1.0
"""Direct voltage above this and the tester's error is there; below it is an offset of the range."""
_WANDERS = 0.2
_STEADY_OHM, _HANGING_OHM = 1e5, 3e5
"""Behind a pair: up to the first its voltage stands still, from the other on it wanders by all of the share above."""
_PIPE_OFF_VOLTS = 5.0
"""By how much pipework that is not bonded may be off the earth bar, in a sound installation."""
DC_OFFSET_VOLTS = 0.3
"""What a DC range may show of a live AC conductor."""


class Voltage(BetweenProbes):
    id = "voltage"
    rank = 1
    title = "Voltage"
    unit = "V"
    purpose = Purpose.LIVE_VOLTAGE
    with_source = True
    written = Written(
        ends="two",
        units=("V", "mV", "kV"),
        called="an AC voltage",
        at_board=True,
        signed_direct=True,
        device=True,
        load=True,
        reference=True,
    )
    functions = (
        Function(id="volts", name="AC volts", fixes=(("mode", "ac"),), on_a_wire=True),
        Function(
            id="low-z",
            name="AC volts, low impedance",
            fixes=(("mode", "ac"), ("input", "low-z")),
            needs=("low impedance",),
            on_a_wire=True,
        ),
        Function(
            id="board-volts",
            name="AC volts at the board",
            fixes=(("mode", "ac"),),
            at_the_board=True,
            hint="Tap the contacts whose conductors the probes are on, where they leave the board.",
        ),
        Function(id="dc", name="DC volts", fixes=(("mode", "dc"),), on_a_wire=True),
        Function(id="steps", name="Volt steps", entered="steps", fixes=(("mode", "ac"),)),
    )

    def mode(self, measurement: Measurement) -> Mode:
        """At the board where the conductors leave it, after the device, or against its earth bar."""
        mode = super().mode(measurement)
        return mode.at_the_board() if _at_the_board(measurement) or measurement.to_the_bar else mode

    def across(self, measurement: Measurement, point: PointFacts) -> complex:
        ability = measurement.instrument.volts()
        if ability is None:
            raise ValueError(f"a {measurement.instrument.kind} shows no voltage between two points")
        if measurement.input == "low-z" and ability.low_input_ohm is not None:
            return 1 / ability.low_input_ohm
        return 1 / ability.input_ohm + 2j * pi * point.system.frequency_hz * ability.input_farad

    def wander(self, measurement: Measurement, solved: Solved) -> Array:
        """What hangs on capacitances alone follows a hand and the damp."""
        behind = np.abs(solved.at.impedance(pair_of(measurement)))
        return np.asarray(_WANDERS * np.clip((behind - _STEADY_OHM) / (_HANGING_OHM - _STEADY_OHM), 0.0, 1.0))

    def weigh(self, reading: Reading, point: PointFacts) -> Sequence[Weighed]:
        return (_direct(reading),) if reading.measurement.dc else super().weigh(reading, point)

    def counts_for(self, reading: Reading, point: PointFacts) -> Sequence[Weighed]:
        instrument = reading.measurement.instrument
        ability = instrument.volts()
        if ability is None:
            return (set_aside(reading, "does-not-measure", kind=instrument.kind, what="volts"),)
        if instrument.proved is False:
            return (self.of_one_unfit(reading, NOT_PROVED),)
        if _at_the_board(reading.measurement) and reading.measurement.device == "open":
            return (set_aside(reading, "board-device-open"),)
        if reading.value is None:
            low = 0.0 if reading.measurement.is_at_most else STEP_LIGHTS_FROM * (reading.at_least or 0.0)
            high = BEYOND if reading.below is None else reading.below
            tolerance = DRIFT.of(max(low, reading.below or 0.0))
            return (Evidence(reading, low, high, tolerance, 0.0, f"{instrument.id} steps"),)
        value = reading.value
        low, off = (0.0, _PIPE_OFF_VOLTS) if reading.measurement.is_at_most else (value, 0.0)
        tolerance = off + ability.counts * ability.resolution + DRIFT.constant + DRIFT.share * value
        return (Evidence(reading, low, value, tolerance, ability.percent / 100, f"{instrument.id} volts"),)

    def of_one_unfit(self, reading: Reading, why: str) -> Weighed:
        """It may still raise an alarm: volts on metalwork against an independent earth."""
        measurement = reading.measurement
        seen = reading.value if reading.value is not None else reading.at_least
        if measurement.of_metal_to_reference and seen is not None and seen > DRY_TOUCH_VOLTS:
            metal = next(end for end in METALWORK if end in measurement.ends)
            return Alarm(reading, metal, DRY_TOUCH_VOLTS)
        return super().of_one_unfit(reading, why)

    def beyond(self, tester: Instrument, value: float) -> str:
        ability = tester.volts()
        if ability is None or abs(value) <= ability.top:
            return ""
        return str(BEYOND_TESTER.say("volts", value=value, top=ability.top))

    def setups(self, point: PointFacts, tester: Instrument) -> Iterable[Measurement]:
        ability = tester.volts()
        if ability is None or tester.proved is False:
            return
        pairs, plugs_in, load = contact_pairs(point.terminals), tester.kind.plugs_in, usual_load_a(point)
        references = [] if plugs_in else [(t, Terminal.REF) for t in point.terminals if t is not Terminal.REF]
        inputs: list[Input] = ["high-z", "low-z"] if ability.low_input_ohm else ["high-z"]
        for a, b in [*pairs, *references]:
            yield from (Measurement(self, a, b, tester, i) for i in inputs)
        for a, b in pairs:
            yield Measurement(self, a, b, tester, nothing_else_on=True)
            if not plugs_in:
                yield Measurement(self, a, b, tester, load_here_a=load)
                yield Measurement(self, a, b, tester, load_here_a=load, nothing_else_on=True)
            elsewhere = Measurement(self, a, b, tester, load_elsewhere_a=load)
            if least_metres(elsewhere, point) is not None:
                yield elsewhere
        if plugs_in or Terminal.N not in point.terminals:
            return
        for line in point.lines:
            ends = BOARD_END[line], Terminal.BOARD_N
            yield Measurement(self, *ends, tester, nothing_else_on=True)
            yield Measurement(self, *ends, tester, load_here_a=load, nothing_else_on=True)

    def seconds(self, measurement: Measurement) -> float:
        return super().seconds(measurement) + BOARD_S * LIVE_EXPOSURE * _at_the_board(measurement)

    def warning(self, measurement: Measurement, point: PointFacts) -> str:
        if Terminal.REF in measurement.ends:
            return str(WARNINGS.say("without-a-rod", **point.practice.named))
        if measurement.load_elsewhere_a is not None and (metres := least_metres(measurement, point)) is not None:
            said = point.practice.length_unit.said(metres)
            return str(WARNINGS.say("along-the-run", metres=said, **point.practice.named))
        return ""

    def read(self, name: str, measurement: Measurement, hidden: Hidden, errors: Errors) -> Reading:
        if measurement.dc:
            return Reading(name, measurement, value=_direct_shown(measurement, hidden, errors))
        true = float(self.shown(measurement, hidden.solved(self.mode(measurement)), hidden.point)[0])
        return volts_displayed(name, measurement, true, errors)


def volts_displayed(name: str, measurement: Measurement, true: float, errors: Errors) -> Reading:
    """What a tester shows of so many volts. Raises ValueError for one that shows none."""
    ability = _ability(measurement)
    if measurement.instrument.kind.stepped:
        return stepped(name, measurement, true, errors)
    return Reading(name, measurement, value=displayed(true, measurement, ability, DRIFT, errors))


def _ability(measurement: Measurement) -> Ability:
    ability = measurement.instrument.volts()
    if ability is None:
        raise ValueError(f"a {measurement.instrument.kind} shows no volts")
    return ability


def _at_the_board(measurement: Measurement) -> bool:
    return bool(measurement.ends & set(BOARD_END.values()))


def _direct(reading: Reading) -> Weighed:
    """Only a DC zero says nothing on an AC circuit."""
    instrument = reading.measurement.instrument
    ability = instrument.volts()
    if ability is None:
        return set_aside(reading, "does-not-measure", kind=instrument.kind, what="volts")
    in_steps = reading.value is None
    shows = STEP_LIGHTS_FROM * (reading.at_least or 0.0) if in_steps else abs(reading.value or 0.0)
    error = 0.0 if in_steps else ability.error(shows)
    if shows - error > _DIRECT_FROM_VOLTS:
        most = max(shows, reading.below or reading.at_least or 0.0) if in_steps else shows
        return Direct(reading, most, f"{max(shows, reading.at_least or 0):g} V direct")
    counts = instrument.proved is not False and not reading.unfit
    return Kept(reading, str(KEPT.say("direct-is-blind")), no_direct=counts and not in_steps)


def _direct_shown(measurement: Measurement, hidden: Hidden, errors: Errors) -> float:
    """With its sign. On an AC conductor a DC range shows its offset and no more; the casing hangs on the earth."""
    ability = _ability(measurement)
    ends = (Terminal(port_of(end)) for end in (measurement.from_, measurement.to) if end is not None)
    at, against = (hidden.direct_volts.get(end, 0.0) for end in ends)
    offset = errors.rng.uniform(-1, 1) * DC_OFFSET_VOLTS
    exact = (at - against) * (1 + errors.gain(measurement.instrument, measurement.quantity) * ability.percent / 100)
    return float(np.round(np.round((exact + offset) / ability.resolution) * ability.resolution, 6))


VOLTAGE = QUANTITIES.add(Voltage())
