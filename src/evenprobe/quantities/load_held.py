"""A load held: a known load is on at the point, and the circuit's residual-current device stays in.

IEC 61008-1, UL 943: what such a device must trip at did not go missing, so the load comes back by it, and not by the
earth nor by another circuit's neutral. A device that trips may have had too much load; where there is nothing else on
and its rating is not reached it trips on what goes missing. What a device holds that nobody has seen trip clears
nothing: it may be one that never does.
"""

from collections.abc import Iterable, Sequence
from typing import Any

import numpy as np

from evenprobe.installation.installation import Solved
from evenprobe.limits.protective_devices import residual_span_ma
from evenprobe.quantities.measurement import Measurement, Reading
from evenprobe.quantities.probes import BEYOND, LOAD_HERE_S, NOTHING_ELSE_S
from evenprobe.quantities.quantity import LIVE_EXPOSURE, QUANTITIES, Array
from evenprobe.quantities.residual import Missing
from evenprobe.quantities.simulated import Errors, Hidden
from evenprobe.quantities.sweep import Sweep
from evenprobe.quantities.trip import APART_A, APART_SHARE, STANDING_SHARE, stayed_in
from evenprobe.quantities.usual_load import usual_load_a
from evenprobe.quantities.weighed import Evidence, Weighed, set_aside
from evenprobe.quantities.written import Function, Written
from evenprobe.testers.instrument import Instrument
from evenprobe.testers.purposes import Purpose
from evenprobe.wiring import PointFacts, Terminal
from evenprobe.wiring.unknowns import assumed_rating_a


class LoadHeld(Missing):
    id = "load-held"
    rank = 10
    title = "Load held"
    unit = "A"
    purpose = Purpose.LIVE_VOLTAGE
    written = Written(ends="none", seen="yes or no", load=True)
    functions = (
        Function(
            id="load-held",
            name="Device under load",
            probes="none",
            entered="pick",
            answers=((True, "stayed in"), (False, "tripped")),
            needs=("residual device",),
            hint="Switch a known load on here for a minute, then look at the device.",
        ),
    )

    def phasor(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        return np.asarray(super().phasor(measurement, solved, point) * solved.device_sees)

    def slopes(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        return np.asarray(super().slopes(measurement, solved, point) * solved.device_sees)

    def counts_for(self, reading: Reading, point: PointFacts) -> Sequence[Weighed]:
        rated_ma = point.circuit.residual_ma
        if reading.measurement.load_here_a is None:
            return (set_aside(reading, "held.no-load"),)
        if rated_ma is None:
            return (set_aside(reading, "held.no-device", **point.practice.named),)
        stays_in, must_trip = residual_span_ma(rated_ma)
        if not reading.tripped:
            return (stayed_in(reading, must_trip),)
        if not reading.measurement.nothing_else_on or reading.measurement.load_here_a > assumed_rating_a(point):
            return (set_aside(reading, "held.tripped"),)
        low = stays_in / 1000
        tester = f"{reading.measurement.instrument.id} trip"
        return (Evidence(reading, low, BEYOND, STANDING_SHARE * low, 0.0, tester),)

    def setups(self, point: PointFacts, tester: Instrument) -> Iterable[Measurement]:
        """It takes no tester; whoever has one that shows volts may look at the device as well."""
        if point.circuit.residual_ma and tester.volts() is not None:
            load = usual_load_a(point)
            yield Measurement(self, None, None, tester, load_here_a=load)
            yield Measurement(self, None, None, tester, load_here_a=load, nothing_else_on=True)

    def seconds(self, measurement: Measurement) -> float:
        return (LOAD_HERE_S + NOTHING_ELSE_S * measurement.nothing_else_on) * LIVE_EXPOSURE

    def apart(self, measurement: Measurement, point: PointFacts) -> tuple[float, float]:
        return APART_A, APART_SHARE

    def as_seen(self, value: Any, sweep: Sweep | None, at: Terminal | None) -> dict[str, Any]:
        return {"tripped": not value}

    def read(self, name: str, measurement: Measurement, hidden: Hidden, errors: Errors) -> Reading:
        missing_ma = 1000 * float(self.shown(measurement, hidden.solved(self.mode(measurement)), hidden.point)[0])
        trips_at = errors.rng.uniform(*residual_span_ma(hidden.point.circuit.residual_ma or _USUAL_MA))
        return Reading(name, measurement, tripped=missing_ma >= trips_at)


def by_devices_that_trip(weighed: Sequence[Weighed], point: PointFacts) -> list[Weighed]:
    """The same; a load that was held clears only where the device was seen to trip, at this point or under a load."""
    trips = any(isinstance(w, Evidence) and w.reading.tripped for w in weighed)
    return [w if trips or not _is_held(w) else _of_a_device_nobody_tripped(w, point) for w in weighed]


def _is_held(w: Weighed) -> bool:
    return isinstance(w, Evidence) and w.quantity is LOAD_HELD and not w.reading.tripped


def _of_a_device_nobody_tripped(w: Weighed, point: PointFacts) -> Weighed:
    return set_aside(w.reading, "held.never-tripped", **point.practice.named)


_USUAL_MA = 30.0

LOAD_HELD = QUANTITIES.add(LoadHeld())
