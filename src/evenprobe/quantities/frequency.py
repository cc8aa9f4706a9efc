"""Frequency of the supply, EN 50160, ISO 8528-5: held against its own limit, it decides no condition."""

from collections.abc import Sequence

from evenprobe.installation.installation import Solved
from evenprobe.quantities.measurement import Measurement, Reading
from evenprobe.quantities.quantity import QUANTITIES, Array, Quantity
from evenprobe.quantities.simulated import Errors, Hidden
from evenprobe.quantities.weighed import Weighed, set_aside
from evenprobe.quantities.written import Function, Written
from evenprobe.testers.purposes import Purpose
from evenprobe.wiring import PointFacts


class Frequency(Quantity):
    id = "frequency"
    rank = 8
    title = "Frequency"
    unit = "Hz"
    purpose = Purpose.LIVE_VOLTAGE
    written = Written(ends="none", units=("Hz",))
    functions = (Function(id="hertz", name="Frequency", probes="none", hint="Between any line and the neutral."),)

    def shown(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        raise ValueError("the network says nothing of the frequency")

    def slopes(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        raise ValueError("the network says nothing of the frequency")

    def counts_for(self, reading: Reading, point: PointFacts) -> Sequence[Weighed]:
        return (set_aside(reading, "decides-nothing"),)

    def read(self, name: str, measurement: Measurement, hidden: Hidden, errors: Errors) -> Reading:
        raise ValueError("the frequency is no part of a hidden point")


FREQUENCY = QUANTITIES.add(Frequency())
