"""A detector held to metalwork: three seconds, and its alarm finds a danger; its silence proves nothing.

So it is offered last, beside what decides, while a danger stands and nobody has held one there.
"""

from collections.abc import Collection, Sequence

from evenprobe.interpretation.findings import NextMeasurement
from evenprobe.interpretation.sentences import NEXT
from evenprobe.quantities import Measurement, Reading
from evenprobe.quantities.presence import PRESENCE
from evenprobe.testers import Instrument
from evenprobe.wiring import PointFacts
from evenprobe.wiring.points import METALWORK

_SCREEN_S = 3.0


def to_be_screened(point: PointFacts, taken: Sequence[Reading], kit: Collection[Instrument]) -> NextMeasurement | None:
    """The metal of a point that no detector was held to; None where there is none, or nothing to hold."""
    screened = {r.measurement.from_ for r in taken if r.measurement.quantity is PRESENCE}
    metal = next((t for t in METALWORK if t in point.terminals and t not in screened), None)
    detector = next((tester for tester in kit if tester.kind.screens and tester.proved is not False), None)
    if metal is None or detector is None:
        return None
    return NextMeasurement(Measurement(PRESENCE, metal, None, detector), (), 0.0, _SCREEN_S, str(NEXT.say("screen")))
