"""The sequence of three lines: L1–L2–L3, or reversed. IEC 61557-7."""

from collections.abc import Iterable, Sequence
from typing import Any

import numpy as np

from evenprobe.installation.installation import Solved
from evenprobe.quantities.measurement import Measurement, Reading
from evenprobe.quantities.quantity import LIVE_EXPOSURE, QUANTITIES, Array, Quantity
from evenprobe.quantities.simulated import Errors, Hidden
from evenprobe.quantities.sweep import Sweep
from evenprobe.quantities.weighed import Evidence, Weighed, set_aside
from evenprobe.quantities.written import Function, Written
from evenprobe.testers.instrument import TYPED, Instrument
from evenprobe.testers.purposes import Purpose
from evenprobe.wiring import PointFacts, Terminal

LINES_WITH_A_SEQUENCE = 3
_FORWARDS = "L1–L2–L3"
_CLEAR_TURN = 0.2
"""Sine of the least angle between two line-to-line voltages that shows which comes first."""
_SEQUENCE_TOLERANCE = 0.6
"""Between forwards and reversed, so that no sequence at all agrees with either."""
_SEQUENCE_S = 20.0


class PhaseSequence(Quantity):
    """Shown as 1 forwards, 0 reversed, and a half where there is none."""

    id = "sequence"
    rank = 11
    title = "Phase sequence"
    unit = ""
    purpose = Purpose.LIVE_VOLTAGE
    written = Written(ends="none", seen="yes or no")
    functions = (
        Function(
            id="sequence",
            name="Phase sequence",
            probes="none",
            entered="pick",
            answers=((True, _FORWARDS), (False, "reversed")),
            needs=("three lines",),
            hint="All three lines at once, in order.",
        ),
    )

    def shown(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        """Whether the second line-to-line voltage lags the first or leads it."""
        one, two, three, *_ = solved.at.ports
        first, second = solved.at.open_volts((one, two)), solved.at.open_volts((two, three))
        turn = np.imag(second * np.conj(first)) / np.maximum(np.abs(first) * np.abs(second), 1.0)
        return np.where(turn < -_CLEAR_TURN, 1.0, np.where(turn > _CLEAR_TURN, 0.0, 0.5))

    def slopes(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        """None: it changes in steps."""
        first, second, *_ = solved.at.ports
        return np.zeros_like(solved.at.volts_per_siemens((first, second)))

    def counts_for(self, reading: Reading, point: PointFacts) -> Sequence[Weighed]:
        instrument = reading.measurement.instrument
        if len(point.lines) < LINES_WITH_A_SEQUENCE:
            return (set_aside(reading, "no-sequence"),)
        if instrument.proved is False:
            return (set_aside(reading, "not-proved"),)
        value = reading.value or 0.0
        return (Evidence(reading, value, value, _SEQUENCE_TOLERANCE, 0.0, f"{instrument.id} sequence"),)

    def setups(self, point: PointFacts, tester: Instrument) -> Iterable[Measurement]:
        if len(point.lines) == LINES_WITH_A_SEQUENCE and (tester == TYPED or tester.kind.shows_sequence):
            yield Measurement(self, None, None, tester)

    def seconds(self, measurement: Measurement) -> float:
        return _SEQUENCE_S * LIVE_EXPOSURE

    def said(self, value: float) -> str:
        return _FORWARDS if value > 0.5 else "reversed"

    def as_seen(self, value: Any, sweep: Sweep | None, at: Terminal | None) -> dict[str, Any]:
        return {"value": float(value is True)}

    def read(self, name: str, measurement: Measurement, hidden: Hidden, errors: Errors) -> Reading:
        true = self.shown(measurement, hidden.solved(self.mode(measurement)), hidden.point)[0]
        return Reading(name, measurement, value=float(np.round(true)))


SEQUENCE = QUANTITIES.add(PhaseSequence())
