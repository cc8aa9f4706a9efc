"""Current round a conductor, or in it. Where a conductor leaves the board it says by which way a load comes and goes.

Clamps: IEC 61010-2-032. Round two conductors at once the fields cancel, so a clamp then shows what leaks (Ampère).
"""

from collections.abc import Iterable, Sequence
from typing import Any

from numpy.typing import NDArray

from evenprobe.installation.admittances import CLAMPED_SIEMENS
from evenprobe.installation.installation import Solved, bar_port
from evenprobe.installation.modes import Mode
from evenprobe.network import Pair
from evenprobe.quantities.indication import Drift, displayed
from evenprobe.quantities.measurement import Measurement, Reading
from evenprobe.quantities.probes import BOARD_S, LOAD_HERE_S, BetweenProbes, pair_of
from evenprobe.quantities.quantity import LIVE_EXPOSURE, QUANTITIES
from evenprobe.quantities.sentences import NOT_PROVED
from evenprobe.quantities.simulated import Errors, Hidden
from evenprobe.quantities.usual_load import usual_load_a
from evenprobe.quantities.weighed import Evidence, Weighed, set_aside
from evenprobe.quantities.written import Function, Written
from evenprobe.testers.instrument import Instrument
from evenprobe.testers.purposes import Purpose
from evenprobe.wiring import PointFacts
from evenprobe.wiring.points import BOARD_END, board_ends

Array = NDArray[Any]

DRIFT = Drift(0.05, 0.01)
"""What the loads draw moves between one reading and the next."""


class Current(BetweenProbes):
    id = "current"
    rank = 6
    title = "Current"
    unit = "A"
    purpose = Purpose.CURRENT
    with_source = True
    flows = True
    written = Written(ends="none", units=("A", "mA"), at_board=True, extremes=True, load=True)
    functions = (
        Function(
            id="amps",
            name="Current, clamped",
            probes="one",
            hint="Tap the conductor the clamp is closed round.",
            hint_at="Close the clamp round {at} alone: round two their fields cancel.",
        ),
    )

    def mode(self, measurement: Measurement) -> Mode:
        return super().mode(measurement).at_the_board()

    def pair(self, measurement: Measurement, point: PointFacts) -> Pair:
        """Between a conductor's bar and its end at the board."""
        end = measurement.from_
        return pair_of(measurement) if end is None else (bar_port(str(end)), str(end))

    def across(self, measurement: Measurement, point: PointFacts) -> complex:
        return 0.0

    def per_volt(self, measurement: Measurement, pair: Pair, solved: Solved, point: PointFacts) -> Array | float:
        """The conductor's own volts are amperes."""
        return CLAMPED_SIEMENS

    def counts_for(self, reading: Reading, point: PointFacts) -> Sequence[Weighed]:
        return (clamped(reading, _says_nothing_of_wires(reading)),)

    def setups(self, point: PointFacts, tester: Instrument) -> Iterable[Measurement]:
        if tester.kind.clamps and tester.proved is not False:
            load = usual_load_a(point)
            yield from (Measurement(self, e, None, tester, load_here_a=load) for e in board_ends(point.terminals))

    def seconds(self, measurement: Measurement) -> float:
        return (BOARD_S + LOAD_HERE_S) * LIVE_EXPOSURE

    def read(self, name: str, measurement: Measurement, hidden: Hidden, errors: Errors) -> Reading:
        return as_clamped(name, measurement, hidden, errors)


def clamped(reading: Reading, says_nothing: str = "") -> Weighed:
    """What a clamp's reading counts for; `says_nothing`: the reason why that is nothing, where there is one."""
    measurement = reading.measurement
    ability = measurement.instrument.amps()
    if ability is None:
        return set_aside(reading, "does-not-measure", kind=measurement.instrument.kind, what="current")
    if measurement.instrument.proved is False:
        return measurement.quantity.of_one_unfit(reading, NOT_PROVED)
    if says_nothing:
        return set_aside(reading, says_nothing)
    value = reading.value or 0.0
    tolerance = ability.counts * ability.resolution + DRIFT.constant + DRIFT.share * value
    return Evidence(reading, value, value, tolerance, ability.percent / 100, f"{measurement.instrument.id} amps")


def as_clamped(name: str, measurement: Measurement, hidden: Hidden, errors: Errors) -> Reading:
    """What a clamp would show of a point whose truth is known. Raises ValueError for a tester that has none."""
    ability, quantity = measurement.instrument.amps(), measurement.quantity
    if ability is None:
        raise ValueError(f"a {measurement.instrument.kind} shows no {quantity}")
    true = float(quantity.shown(measurement, hidden.solved(quantity.mode(measurement)), hidden.point)[0])
    return Reading(name, measurement, value=displayed(true, measurement, ability, DRIFT, errors))


def _says_nothing_of_wires(reading: Reading) -> str:
    """Why a current says nothing of how the wires lie; empty where it does."""
    measurement = reading.measurement
    if measurement.to is not None:
        return "fields-cancel"
    if measurement.from_ not in BOARD_END.values():
        return "not-at-the-board"
    if reading.value is None:
        return "only-the-start"
    if measurement.dc:
        return "nothing-flows"
    return ""


CURRENT = QUANTITIES.add(Current())
