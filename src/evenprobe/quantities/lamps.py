"""The lamps of a plug-in tester: three between the contacts of a one-line outlet, all connected together.

A lit lamp says there is so much voltage across it; a dark one cannot confirm safe, for it may have failed.
"""

from collections.abc import Sequence
from typing import Any

import numpy as np

from evenprobe.installation.installation import Solved
from evenprobe.network import Load
from evenprobe.quantities.measurement import Measurement, Reading
from evenprobe.quantities.probes import BEYOND, along, pair_of, port_of
from evenprobe.quantities.quantity import QUANTITIES, Array, Quantity
from evenprobe.quantities.simulated import Errors, Hidden
from evenprobe.quantities.sweep import Sweep
from evenprobe.quantities.voltage import DRIFT
from evenprobe.quantities.weighed import Evidence, Weighed, set_aside
from evenprobe.quantities.written import Function, Written
from evenprobe.testers.instrument import TYPED, Instrument
from evenprobe.testers.purposes import Purpose
from evenprobe.wiring import PointFacts, Terminal

_LAMP_OHM = 47e3
LAMP_LIT_SHARE = 0.70
LAMP_DARK_SHARE = 0.55
"""Of nominal voltage: certainly lit from the one on, certainly dark up to the other."""
ENDS_OF: dict[str, tuple[Terminal, Terminal]] = {
    "L-N": (Terminal.L, Terminal.N),
    "L-PE": (Terminal.L, Terminal.PE),
    "N-PE": (Terminal.N, Terminal.PE),
}
"""What each lamp is between, by the name its reading gives it."""


class Lamps(Quantity):
    id = "lamps"
    rank = 3
    title = "Lamps"
    unit = "V"
    purpose = Purpose.LAMPS
    with_source = True
    written = Written(ends="none", seen="lamps")
    functions = (
        Function(
            id="lamps",
            name="Lamps as seen",
            probes="none",
            entered="lamps",
            needs=("one line",),
            hint="Plug the tester in and tap the lamps as they are seen.",
        ),
    )

    def shown(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        """Volts across the lamp that is between the measurement's ends."""
        return np.abs(solved.at.open_volts(_contacts(measurement, solved), _all_lamps(solved)))

    def slopes(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        loads, contacts = _all_lamps(solved), _contacts(measurement, solved)
        volts = solved.at.open_volts(contacts, loads)
        return np.asarray(along(volts) * solved.at.volts_per_siemens(contacts, loads))

    def counts_for(self, reading: Reading, point: PointFacts) -> Sequence[Weighed]:
        instrument = reading.measurement.instrument
        if instrument.proved is False:
            return (set_aside(reading, "not-proved"),)
        lit = [lamp for lamp, on in reading.lit.items() if on]
        if not lit or not instrument.kind.contact:
            return (set_aside(reading, "dark"),)
        from_volts = LAMP_DARK_SHARE * point.system.nominal_volts
        return tuple(
            Evidence(
                reading, from_volts, BEYOND, DRIFT.constant, 0.0, f"{instrument.id} lamps", lamp_of(lamp, instrument)
            )
            for lamp in lit
        )

    def as_seen(self, value: Any, sweep: Sweep | None, at: Terminal | None) -> dict[str, Any]:
        return {"lit": value}

    def read(self, name: str, measurement: Measurement, hidden: Hidden, errors: Errors) -> Reading:
        solved, nominal = hidden.solved(self.mode(measurement)), hidden.point.system.nominal_volts
        lit = {
            lamp: float(self.shown(lamp_of(lamp), solved, hidden.point)[0]) / nominal
            > errors.rng.uniform(LAMP_DARK_SHARE, LAMP_LIT_SHARE)
            for lamp in lamps_on(hidden.point)
        }
        return Reading(name, measurement, lit=lit)


def lamp_of(lamp: str, tester: Instrument = TYPED) -> Measurement:
    """One of the three lamps by its name, with the others connected."""
    return Measurement(LAMPS, *ENDS_OF[lamp], tester)


def lamps_on(point: PointFacts) -> tuple[str, ...]:
    """The lamps a three-lamp tester has contacts for at this point; it is made for one line."""
    if len(point.lines) != 1:
        return ()
    here = {"L"} | {port_of(t) for t in point.terminals}
    return tuple(lamp for lamp in ENDS_OF if set(lamp.split("-")) <= here)


def _contacts(measurement: Measurement, solved: Solved) -> tuple[str, str]:
    """The ports of a lamp's ends, whatever the line's contact is called."""
    line = solved.at.ports[0]
    one, other = pair_of(measurement)
    return line if one == "L" else one, other


def _all_lamps(solved: Solved) -> list[Load]:
    line, neutral, earth, *_ = solved.at.ports
    lamp = np.full_like(solved.contact_ohm, 1 / _LAMP_OHM)
    return [Load(pair, lamp) for pair in ((line, neutral), (line, earth), (neutral, earth))]


LAMPS = QUANTITIES.add(Lamps())
