"""Resistance between two points of a dead circuit, by the tester's own source.

Low-ohm testers: IEC 61557-4. An over-range display says only that it is more than the range holds.
"""

from collections.abc import Iterable, Sequence
from dataclasses import replace
from itertools import product
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.installation.installation import Solved
from evenprobe.installation.modes import DEAD, NEUTRAL_LIFTED, UNPLUGGED, Mode
from evenprobe.network import Load
from evenprobe.quantities.indication import Drift, autoranged, displayed
from evenprobe.quantities.measurement import Measurement, Reading
from evenprobe.quantities.probes import BEYOND, BOARD_S, NOTHING_ELSE_S, pair_of, touching
from evenprobe.quantities.quantity import QUANTITIES, Quantity
from evenprobe.quantities.simulated import Errors, Hidden
from evenprobe.quantities.weighed import Evidence, Weighed, set_aside
from evenprobe.quantities.written import Function, Written
from evenprobe.testers.instrument import Instrument
from evenprobe.testers.kinds import HIGHEST_OHMS
from evenprobe.testers.purposes import Purpose
from evenprobe.wiring import PointFacts, Terminal, contact_pairs
from evenprobe.wiring.circumstances import Neutral
from evenprobe.wiring.points import BOARD_END

Array = NDArray[Any]

TOUCH = Drift(0.02, 0.01)
"""The resistance of a probe's touch is another one each time."""
_OVER_RANGE_OHM = 40e6
OPEN_S, LIFTED_S = 150.0, 60.0
"""Seconds to open and prove dead, and to take the neutral off its bar."""
_JOINED_SIEMENS = 100.0
"""Of a short wire and two clips."""


class OnADeadCircuit(Quantity):
    """What a tester's own source finds between two points; the installation is solved at DC, its sources at zero."""

    unit = "ohm"
    dead = True

    def mode(self, measurement: Measurement) -> Mode:
        mode = NEUTRAL_LIFTED if measurement.neutral == "lifted" else DEAD
        return UNPLUGGED[mode] if measurement.nothing_else_on else mode

    def shown(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        pair = pair_of(measurement)
        joined = _joined(measurement, solved)
        through = (
            np.real(solved.at.impedance(pair, joined)) if pair[0] != pair[1] else np.zeros_like(solved.contact_ohm)
        )
        return np.asarray(through + touching(pair, solved))

    def slopes(self, measurement: Measurement, solved: Solved, point: PointFacts) -> Array:
        return np.asarray(solved.at.ohms_per_siemens(pair_of(measurement), _joined(measurement, solved)))

    def said(self, value: float) -> str:
        return "over range" if value >= _OVER_RANGE_OHM else super().said(value)

    def seconds(self, measurement: Measurement) -> float:
        to_the_board = bool(measurement.ends & set(BOARD_END.values()))
        lifted, joined = measurement.neutral == "lifted", measurement.far_ends == "joined"
        unplugged = NOTHING_ELSE_S * measurement.nothing_else_on
        return OPEN_S + BOARD_S * (to_the_board or joined) + LIFTED_S * lifted + unplugged


def _joined(measurement: Measurement, solved: Solved) -> list[Load]:
    """What joins the two conductors at the board, where that is how it is measured."""
    if measurement.far_ends == "apart":
        return []
    one, other = (str(BOARD_END[end]) for end in (measurement.from_, measurement.to) if end is not None)
    return [Load((one, other), np.full_like(solved.contact_ohm, _JOINED_SIEMENS))]


class Resistance(OnADeadCircuit):
    id = "resistance"
    rank = 4
    title = "Resistance"
    purpose = Purpose.CONTINUITY
    written = Written(
        ends="two",
        units=("ohm", "kohm", "Mohm"),
        at_board=True,
        over_range=True,
        most_si=HIGHEST_OHMS,
        device_open=True,
        device=True,
        neutral_lifted=True,
        joins=True,
        unplugged=True,
    )
    functions = (
        Function(id="ohms", name="Ohms, device open", on_a_wire=True),
        Function(
            id="ohms-joined",
            name="Ohms, joined at the board",
            fixes=(("far_ends", "joined"),),
            may_reach_the_board=False,
            hint="Join the two conductors to each other at the board: what you read is both of them.",
        ),
    )

    def counts_for(self, reading: Reading, point: PointFacts) -> Sequence[Weighed]:
        measurement = reading.measurement
        ability = measurement.instrument.ohms()
        if ability is None:
            return (set_aside(reading, "does-not-measure", kind=measurement.instrument.kind, what="ohms"),)
        if measurement.instrument.proved is False:
            return (set_aside(reading, "not-proved"),)
        if measurement.device == "closed":
            return (set_aside(reading, "supply-measured-too"),)
        tester, gain_share = f"{measurement.instrument.id} ohms", ability.percent / 100
        if reading.over_range:
            return (Evidence(reading, ability.top, BEYOND, 0.1 * ability.top, gain_share, tester),)
        value = reading.value or 0.0
        tolerance = ability.counts * autoranged(ability.resolution, value) + TOUCH.constant + TOUCH.share * value
        return (Evidence(reading, value, value, tolerance, gain_share, tester),)

    def setups(self, point: PointFacts, tester: Instrument) -> Iterable[Measurement]:
        """Between contacts, each conductor end to end, and with the neutral lifted what may then be joined.

        Two conductors joined at the board are measured with everything unplugged: equipment lies across them.
        """
        if tester.ohms() is None or tester.proved is False:
            return

        def ohms(a: Terminal, b: Terminal, neutral: Neutral = "connected") -> Measurement:
            return Measurement(self, a, b, tester, device="open", neutral=neutral)

        yield from (ohms(a, b) for a, b in contact_pairs(point.terminals))
        for terminal in point.terminals:
            if terminal in BOARD_END:
                yield ohms(terminal, BOARD_END[terminal])
                yield ohms(terminal, BOARD_END[terminal], "lifted")
        if {Terminal.N, Terminal.PE} <= set(point.terminals):
            yield ohms(Terminal.N, Terminal.PE, "lifted")
        for line, other in product(point.lines, (Terminal.PE, Terminal.N)):
            if other in point.terminals:
                yield replace(ohms(line, other), far_ends="joined", nothing_else_on=True)
                yield replace(ohms(line, other, "lifted"), far_ends="joined", nothing_else_on=True)

    def read(self, name: str, measurement: Measurement, hidden: Hidden, errors: Errors) -> Reading:
        true = float(self.shown(measurement, hidden.solved(self.mode(measurement)), hidden.point)[0])
        return ohms_displayed(name, measurement, true, errors)


def ohms_displayed(name: str, measurement: Measurement, true: float, errors: Errors) -> Reading:
    """What a tester shows of so many ohms."""
    ability = measurement.instrument.ohms()
    if ability is None or true > _OVER_RANGE_OHM:
        return Reading(name, measurement, over_range=True)
    return Reading(name, measurement, value=displayed(true, measurement, ability, TOUCH, errors, autoranging=True))


RESISTANCE = QUANTITIES.add(Resistance())
