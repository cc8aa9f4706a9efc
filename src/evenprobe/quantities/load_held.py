"""A load held: a known load is on at the point, and the circuit's residual-current device stays in.

IEC 61008-1, UL 943: what such a device must trip at did not go missing, so the load comes back by it, and not by the
earth nor by another circuit's neutral. A device that trips under a load may have had too much of it.
"""

from collections.abc import Iterable, Sequence
from typing import Any

import numpy as np

from evenprobe.installation.installation import Solved
from evenprobe.limits.protective_devices import residual_span_ma
from evenprobe.quantities.measurement import (
    LIVE_EXPOSURE,
    QUANTITIES,
    Array,
    Measurement,
    Reading,
    Weighed,
    set_aside,
)
from evenprobe.quantities.probes import LOAD_HERE_S
from evenprobe.quantities.residual import Missing
from evenprobe.quantities.simulated import Errors, Hidden
from evenprobe.quantities.sweep import Sweep
from evenprobe.quantities.trip import APART_A, APART_SHARE, stayed_in
from evenprobe.quantities.usual_load import usual_load_a
from evenprobe.quantities.written import Function, Written
from evenprobe.testers.instrument import Instrument
from evenprobe.testers.purposes import Purpose
from evenprobe.wiring import PointFacts, Terminal


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
            hint="Switch a known load on here for a minute, then look at the device.",
        ),
    )

    def shown(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        return np.asarray(super().shown(measurement, solved, point) * solved.device_sees)

    def slopes(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        return np.asarray(super().slopes(measurement, solved, point) * solved.device_sees)

    def counts_for(self, reading: Reading, point: PointFacts) -> Sequence[Weighed]:
        rated_ma = point.circuit.residual_ma
        if reading.measurement.load_here_a is None:
            return (set_aside(reading, "held.no-load"),)
        if reading.tripped:
            return (set_aside(reading, "held.tripped"),)
        if rated_ma is None:
            return (set_aside(reading, "held.no-device", **point.practice.named),)
        return (stayed_in(reading, residual_span_ma(rated_ma)[1]),)

    def setups(self, point: PointFacts, tester: Instrument) -> Iterable[Measurement]:
        """It takes no tester; whoever has one that shows volts may look at the device as well."""
        if point.circuit.residual_ma and tester.volts() is not None:
            yield Measurement(self, None, None, tester, load_here_a=usual_load_a(point))

    def seconds(self, measurement: Measurement) -> float:
        return LOAD_HERE_S * LIVE_EXPOSURE

    def apart(self, measurement: Measurement, point: PointFacts) -> tuple[float, float]:
        return APART_A, APART_SHARE

    def as_seen(self, value: Any, sweep: Sweep | None, at: Terminal | None) -> dict[str, Any]:
        return {"tripped": not value}

    def read(self, name: str, measurement: Measurement, hidden: Hidden, errors: Errors) -> Reading:
        missing_ma = 1000 * float(self.shown(measurement, hidden.solved(self.mode(measurement)), hidden.point)[0])
        trips_at = errors.rng.uniform(*residual_span_ma(hidden.point.circuit.residual_ma or _USUAL_MA))
        return Reading(name, measurement, tripped=missing_ma >= trips_at)


_USUAL_MA = 30.0

LOAD_HELD = QUANTITIES.add(LoadHeld())
