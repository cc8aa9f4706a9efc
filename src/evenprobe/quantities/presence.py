"""Presence of a field near one terminal, as a detector tells without touching metal, at a place or along a walk.

Any alarm counts; silence cannot confirm safe, for a field is easily shielded and a detector easily flat.
"""

from collections.abc import Sequence
from typing import Any

from evenprobe.installation.installation import Solved
from evenprobe.quantities.measurement import Measurement, Reading
from evenprobe.quantities.probes import potential
from evenprobe.quantities.quantity import QUANTITIES, Array, Quantity
from evenprobe.quantities.sentences import KEPT
from evenprobe.quantities.simulated import Errors, Hidden
from evenprobe.quantities.sweep import Sweep
from evenprobe.quantities.weighed import Alarm, Kept, Weighed, set_aside
from evenprobe.quantities.written import Function, Written
from evenprobe.testers.purposes import Purpose
from evenprobe.wiring import PointFacts, Terminal
from evenprobe.wiring.points import METALWORK

ALARM_CERTAIN_VOLTS = 90.0
_ALARM_POSSIBLE_VOLTS = 40.0


class Presence(Quantity):
    id = "presence"
    rank = 2
    title = "Presence"
    unit = "V"
    purpose = Purpose.SCREEN
    written = Written(ends="one", seen="yes or no", walked=True)
    functions = (
        Function(
            id="presence",
            name="Presence",
            probes="one",
            entered="pick",
            answers=((True, "alarm"), (False, "silent")),
            hint="Tap where the detector is held.",
            hint_at="Hold the detector at {at}.",
        ),
        Function(
            id="sweep",
            name="Presence, walked along",
            probes="one",
            entered="walk",
            hint="Tap what it is walked along: the line for its cable, the casing for metalwork.",
            hint_at="Walk the detector along {at}, and say at each place what it does.",
        ),
    )

    def shown(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        """Volts of the terminal against the mass of earth."""
        if measurement.from_ is None:
            raise ValueError("presence is what a detector says of one terminal")
        return potential(measurement.from_, solved)

    def slopes(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        raise ValueError("a detector's alarm is no evidence that samples are moved by")

    def weigh(self, reading: Reading, point: PointFacts) -> Sequence[Weighed]:
        return self.counts_for(reading, point)

    def counts_for(self, reading: Reading, point: PointFacts) -> Sequence[Weighed]:
        terminal, instrument = reading.measurement.from_, reading.measurement.instrument
        if terminal is None:
            return (set_aside(reading, "nowhere"),)
        if reading.alarm:
            return (Alarm(reading, terminal, _ALARM_POSSIBLE_VOLTS),)
        if reading.unfit:
            return (set_aside(reading, "silence-unfit", why=reading.unfit),)
        if instrument.kind.screens and instrument.proved:
            return (Kept(reading, str(KEPT.say("silence")), terminal),)
        return (set_aside(reading, "silence-not-proved"),)

    def as_seen(self, value: Any, sweep: Sweep | None, at: Terminal | None) -> dict[str, Any]:
        """Of a walk along metal whether it sounds anywhere, along a cable whether it does at its end."""
        if sweep is None:
            return {"alarm": value}
        return {"alarm": sweep.sounds if at in METALWORK else sweep.at_the_end}

    def read(self, name: str, measurement: Measurement, hidden: Hidden, errors: Errors) -> Reading:
        if measurement.from_ is None or measurement.instrument.kind.contact:
            raise ValueError("presence is what a non-contact detector says of one terminal")
        volts = float(self.shown(measurement, hidden.solved(self.mode(measurement)), hidden.point)[0])
        alarm = volts > errors.rng.uniform(_ALARM_POSSIBLE_VOLTS, ALARM_CERTAIN_VOLTS)
        return Reading(name, measurement, alarm=alarm)


PRESENCE = QUANTITIES.add(Presence())
