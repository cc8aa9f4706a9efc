"""All that can be measured at a point with a tester: every pair it reaches, as found, under load, and dead."""

from collections.abc import Iterable

from evenprobe.quantities.measurement import Measurement
from evenprobe.quantities.quantity import QUANTITIES
from evenprobe.testers.instrument import Instrument
from evenprobe.wiring import PointFacts


def setups_with(point: PointFacts, tester: Instrument) -> Iterable[Measurement]:
    """Of every quantity, in their order."""
    for quantity in QUANTITIES.values():
        yield from quantity.setups(point, tester)
