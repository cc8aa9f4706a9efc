"""A clamp closed round all live conductors of a circuit at its board: what goes out and does not come back by them.

IEC 61010-2-032; the fields of what comes back cancel (Ampere). A sound circuit shows nothing but what its filters and
cables leak, loaded or not.
"""

from collections.abc import Iterable, Sequence

from evenprobe.quantities.current import as_clamped, clamped
from evenprobe.quantities.measurement import Measurement, Reading
from evenprobe.quantities.probes import BOARD_S, LOAD_HERE_S
from evenprobe.quantities.quantity import LIVE_EXPOSURE, QUANTITIES
from evenprobe.quantities.residual import Missing
from evenprobe.quantities.simulated import Errors, Hidden
from evenprobe.quantities.usual_load import usual_load_a
from evenprobe.quantities.weighed import Weighed
from evenprobe.quantities.written import Function, Written
from evenprobe.testers.instrument import Instrument
from evenprobe.testers.purposes import Purpose
from evenprobe.wiring import PointFacts


class ResidualCurrent(Missing):
    id = "residual-current"
    rank = 7
    title = "Residual current"
    unit = "A"
    purpose = Purpose.CURRENT
    written = Written(ends="none", units=("A", "mA"), load=True)
    functions = (
        Function(
            id="residual-amps",
            name="Current, all clamped",
            probes="none",
            hint="Close the clamp round all live conductors of this circuit at once, at the board.",
        ),
    )

    def counts_for(self, reading: Reading, point: PointFacts) -> Sequence[Weighed]:
        return (clamped(reading),)

    def setups(self, point: PointFacts, tester: Instrument) -> Iterable[Measurement]:
        if tester.kind.clamps and tester.proved is not False:
            yield Measurement(self, None, None, tester, load_here_a=usual_load_a(point))

    def seconds(self, measurement: Measurement) -> float:
        return (BOARD_S + LOAD_HERE_S) * LIVE_EXPOSURE

    def read(self, name: str, measurement: Measurement, hidden: Hidden, errors: Errors) -> Reading:
        return as_clamped(name, measurement, hidden, errors)


RESIDUAL_CURRENT = QUANTITIES.add(ResidualCurrent())
