"""A trip test: a known current from a line to earth, and whether the residual-current device opens.

IEC 61008-1, IEC 61009-1, UL 943. A trip says that the test current did not come back by the device; that none came
may be the device's own fault. Whatever tripped is no less sensitive than the device recorded, or than any there is,
and stayed in until it was pressed.
"""

from collections.abc import Iterable, Sequence
from dataclasses import replace
from typing import Any

import numpy as np

from evenprobe.installation.installation import Solved
from evenprobe.installation.modes import Mode
from evenprobe.limits.protective_devices import residual_span_ma
from evenprobe.network import Load
from evenprobe.quantities.measurement import Measurement, Reading
from evenprobe.quantities.probes import BEYOND, along, known_loads, port_of, seconds_at_contacts
from evenprobe.quantities.quantity import QUANTITIES, Array, Quantity
from evenprobe.quantities.residual import residual, residual_per_siemens
from evenprobe.quantities.simulated import Errors, Hidden
from evenprobe.quantities.sweep import Sweep
from evenprobe.quantities.weighed import Evidence, Weighed, set_aside
from evenprobe.quantities.written import Function, Written
from evenprobe.testers.instrument import Instrument
from evenprobe.testers.purposes import Purpose
from evenprobe.wiring import PointFacts, Terminal

_DRIVES_FROM_SHARE = 0.8
"""A trip tester drives its current from so much of nominal voltage on, and no more than it above."""
_SMALLEST_DEVICE_MA = 5.0
"""Rated residual current of the most sensitive device there is."""
_DEVICES_MA = (5.0, 10.0, 30.0)
"""Those there may be where none is recorded."""
SHORT_OF_TRIPPING, NO_TRIP_TOLERANCE = 0.95, 0.03
"""Share of what a device must trip at that it certainly has not seen when it did not, and the doubt in it."""
STANDING_SHARE = 0.75
"""Of what a device may trip at: as much may be missing on its circuit already, and the press adds the rest."""
APART_A, APART_SHARE = 0.002, 0.1
"""Residual currents that a trip tells apart: as good as none, and enough."""
_TRIP_S = 60.0


class Trip(Quantity):
    id = "trip"
    rank = 9
    title = "Trip test"
    unit = "A"
    purpose = Purpose.RESIDUAL_CURRENT
    with_source = True
    flows = True
    written = Written(ends="line to earth", seen="yes or no", timed=True)
    functions = (
        Function(
            id="trip",
            name="Trip button",
            probes="none",
            entered="pick",
            answers=((True, "tripped"), (False, "did not trip")),
            needs=("test current",),
            hint="Warn first: everything behind the device goes dark. Press, then say what the device did.",
        ),
    )

    def mode(self, measurement: Measurement) -> Mode:
        return super().mode(measurement).at_the_board()

    def shown(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        """What of the test current does not come back by the device, and is seen by it."""
        before, pressed = (residual(solved, loads, point) for loads in _loads(measurement, solved, point))
        return np.asarray(np.abs(pressed - before) * solved.device_sees)

    def slopes(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        on = _loads(measurement, solved, point)
        before, pressed = (residual(solved, loads, point) for loads in on)
        each_before, each_pressed = (residual_per_siemens(solved, loads, point) for loads in on)
        return np.asarray(along(pressed - before) * (each_pressed - each_before) * solved.device_sees)

    def counts_for(self, reading: Reading, point: PointFacts) -> Sequence[Weighed]:
        measurement = reading.measurement
        test_ma, rated_ma = measurement.test_ma, point.circuit.residual_ma
        stays_in, must_trip = residual_span_ma(rated_ma or _SMALLEST_DEVICE_MA)
        tester = f"{measurement.instrument.id} trip"
        if test_ma is None:
            return (set_aside(reading, "trip.current-unknown"),)
        if reading.tripped:
            if test_ma < stays_in:
                return (set_aside(reading, "trip.by-something-else", test=test_ma),)
            low = stays_in / 1000
            return (Evidence(reading, low, BEYOND, STANDING_SHARE * low, 0.0, tester),)
        if measurement.instrument.proved is False:
            return (set_aside(reading, "trip.not-proved"),)
        if rated_ma is None:
            return (set_aside(reading, "trip.no-device", **point.practice.named),)
        if test_ma < must_trip:
            return (set_aside(reading, "trip.need-not", test=test_ma, must=must_trip),)
        return (stayed_in(reading, must_trip),)

    def setups(self, point: PointFacts, tester: Instrument) -> Iterable[Measurement]:
        """With a current that must trip the device there is."""
        rated_ma = point.circuit.residual_ma
        drives = tester.test_ma if self.purpose in tester.kind.purposes else None
        needed = residual_span_ma(rated_ma or _SMALLEST_DEVICE_MA)[1]
        if drives and Terminal.PE in point.terminals and drives >= needed:
            yield Measurement(self, point.lines[0], Terminal.PE, tester, test_ma=drives)

    def seconds(self, measurement: Measurement) -> float:
        return seconds_at_contacts(measurement, _TRIP_S)

    def apart(self, measurement: Measurement, point: PointFacts) -> tuple[float, float]:
        return APART_A, APART_SHARE

    def warning(self, measurement: Measurement, point: PointFacts) -> str:
        return "Warn first: everything behind the device goes dark."

    def as_seen(self, value: Any, sweep: Sweep | None, at: Terminal | None) -> dict[str, Any]:
        return {"tripped": value}

    def read(self, name: str, measurement: Measurement, hidden: Hidden, errors: Errors) -> Reading:
        """The circuit's own device, or where none is recorded one of those there are."""
        rated_ma = hidden.point.circuit.residual_ma or float(errors.rng.choice(_DEVICES_MA))
        trips_at = errors.rng.uniform(*residual_span_ma(rated_ma))
        solved = hidden.solved(self.mode(measurement))
        missing = [residual(solved, loads, hidden.point) for loads in _loads(measurement, solved, hidden.point)]
        was_in, stays_in = (1000 * float((np.abs(a) * solved.device_sees)[0]) < trips_at for a in missing)
        return Reading(name, measurement if was_in else replace(measurement, test_ma=None), tripped=not stays_in)


def stayed_in(reading: Reading, must_trip_ma: float) -> Evidence:
    """What a device that stayed in says of what is missing: less than it must trip at."""
    high = SHORT_OF_TRIPPING * must_trip_ma / 1000
    return Evidence(reading, 0.0, high, NO_TRIP_TOLERANCE * high, 0.0, f"{reading.measurement.instrument.id} trip")


def _loads(measurement: Measurement, solved: Solved, point: PointFacts) -> tuple[list[Load], list[Load]]:
    """What is known to be on before it is pressed, and while it is: from the first line to earth, or as it says."""
    before = known_loads(measurement, solved, point)
    siemens = (measurement.test_ma or 0.0) / 1000 / (_DRIVES_FROM_SHARE * point.system.nominal_volts)
    ends = port_of(measurement.from_ or point.lines[0]), port_of(measurement.to or Terminal.PE)
    return before, [*before, Load(ends, siemens * np.ones_like(solved.contact_ohm))]


TRIP = QUANTITIES.add(Trip())
