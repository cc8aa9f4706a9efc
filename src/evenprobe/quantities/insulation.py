"""Insulation resistance at a direct test voltage, IEC 61557-2, IEC 60364-6.

As evidence it tells what is not joined to what, no more: how well it insulates is for its own limit to say.
"""

from collections.abc import Sequence

from evenprobe.quantities.measurement import Measurement, Reading
from evenprobe.quantities.probes import BEYOND
from evenprobe.quantities.quantity import QUANTITIES
from evenprobe.quantities.resistance import TOUCH, OnADeadCircuit
from evenprobe.quantities.simulated import Errors, Hidden
from evenprobe.quantities.weighed import Evidence, Weighed, set_aside
from evenprobe.quantities.written import Written
from evenprobe.testers.instrument import TYPED
from evenprobe.testers.kinds import HIGHEST_OHMS
from evenprobe.testers.purposes import Purpose
from evenprobe.wiring import PointFacts

_NOT_JOINED_OHMS = 1e6
"""More than this an insulation reading says nothing of what is joined to what."""
GAIN_SHARE = 0.05
"""An insulation tester's usual error."""


class Insulation(OnADeadCircuit):
    id = "insulation"
    rank = 5
    title = "Insulation"
    purpose = Purpose.INSULATION
    written = Written(
        ends="two",
        units=("Mohm", "kohm", "ohm"),
        called="an insulation",
        at_board=True,
        over_range=True,
        most_si=HIGHEST_OHMS,
        device_open=True,
        neutral_lifted=True,
    )
    functions = ()

    def counts_for(self, reading: Reading, point: PointFacts) -> Sequence[Weighed]:
        measurement = reading.measurement
        instrument = measurement.instrument
        if instrument != TYPED and self.purpose not in instrument.kind.purposes:
            return (set_aside(reading, "no-test-voltage", kind=instrument.kind),)
        if instrument.proved is False:
            return (set_aside(reading, "not-proved"),)
        if measurement.device == "closed":
            return (set_aside(reading, "board-measured-too"),)
        least = reading.at_least or (_NOT_JOINED_OHMS if reading.over_range else reading.value or 0.0)
        least = min(least, _NOT_JOINED_OHMS)
        tolerance = 0.1 * least + TOUCH.constant
        return (Evidence(reading, least, BEYOND, tolerance, GAIN_SHARE, f"{instrument.id} insulation"),)

    def read(self, name: str, measurement: Measurement, hidden: Hidden, errors: Errors) -> Reading:
        raise ValueError("how well it insulates is no part of a hidden point")


INSULATION = QUANTITIES.add(Insulation())
