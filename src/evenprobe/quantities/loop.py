"""Loop impedance: what is between two live contacts and the source, by the dip that a tester's own load makes.

IEC 61557-3. One reading says what volts with and without a load say in two: what is in the line and in its way back.
Whatever else is on lies in parallel.
"""

from collections.abc import Iterable, Sequence
from itertools import product

import numpy as np

from evenprobe.installation.installation import BesideBranches, Solved
from evenprobe.quantities.indication import Drift, displayed
from evenprobe.quantities.measurement import Measurement, Reading
from evenprobe.quantities.probes import BEYOND, along, pair_of, seconds_at_contacts, touching
from evenprobe.quantities.quantity import QUANTITIES, Array, Quantity
from evenprobe.quantities.sentences import WARNINGS
from evenprobe.quantities.simulated import Errors, Hidden
from evenprobe.quantities.weighed import Evidence, Weighed, set_aside
from evenprobe.quantities.written import Function, Written
from evenprobe.testers.instrument import Instrument
from evenprobe.testers.kinds import HIGHEST_OHMS
from evenprobe.testers.purposes import Purpose
from evenprobe.wiring import PointFacts, Terminal

_NOISE = Drift(0.03, 0.02)
"""The supply dips by itself while the tester makes it dip."""
_LOOP_S = 20.0


class LoopImpedance(Quantity):
    id = "loop"
    rank = 12
    title = "Loop impedance"
    unit = "ohm"
    purpose = Purpose.LIVE_VOLTAGE
    flows = True
    written = Written(
        ends="two", units=("ohm", "kohm"), called="a loop impedance", over_range=True, most_si=HIGHEST_OHMS
    )
    functions = (
        Function(
            id="loop",
            name="Loop impedance",
            may_reach_the_board=False,
            hint="Leads nulled. Where a device might trip, use the setting that does not.",
        ),
    )

    def shown(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        pair = pair_of(measurement)
        return np.asarray(np.abs(solved.at.impedance(pair)) + touching(pair, solved))

    def slopes(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        pair = pair_of(measurement)
        return np.asarray(along(solved.at.impedance(pair)) * solved.at.ohms_per_siemens(pair))

    def beside_branches(self, measurement: Measurement) -> Iterable[BesideBranches]:
        yield "contact_ohm"

    def counts_for(self, reading: Reading, point: PointFacts) -> Sequence[Weighed]:
        instrument = reading.measurement.instrument
        ability = instrument.loop()
        if ability is None:
            return (set_aside(reading, "does-not-measure", kind=instrument.kind, what="loops"),)
        if instrument.proved is False:
            return (set_aside(reading, "not-proved"),)
        tester, gain_share = f"{instrument.id} loop", ability.percent / 100
        if reading.over_range:
            return (Evidence(reading, ability.top, BEYOND, 0.1 * ability.top, gain_share, tester),)
        value = reading.value or 0.0
        tolerance = ability.counts * ability.resolution + _NOISE.of(value)
        return (Evidence(reading, value, value, tolerance, gain_share, tester),)

    def setups(self, point: PointFacts, tester: Instrument) -> Iterable[Measurement]:
        """Of each line, by the neutral and by the earth."""
        if tester.loop() is None or tester.proved is False:
            return
        for line, back in product(point.lines, (Terminal.N, Terminal.PE)):
            if back in point.terminals:
                yield Measurement(self, line, back, tester)

    def seconds(self, measurement: Measurement) -> float:
        return seconds_at_contacts(measurement, _LOOP_S)

    def warning(self, measurement: Measurement, point: PointFacts) -> str:
        to_earth = Terminal.PE in measurement.ends
        return str(WARNINGS.say("loop-may-trip", **point.practice.named)) if to_earth else ""

    def read(self, name: str, measurement: Measurement, hidden: Hidden, errors: Errors) -> Reading:
        ability = measurement.instrument.loop()
        if ability is None:
            raise ValueError(f"a {measurement.instrument.kind} shows no loop")
        true = float(self.shown(measurement, hidden.solved(self.mode(measurement)), hidden.point)[0])
        if true > ability.top:
            return Reading(name, measurement, over_range=True)
        return Reading(name, measurement, value=displayed(true, measurement, ability, _NOISE, errors))


LOOP = QUANTITIES.add(LoopImpedance())
