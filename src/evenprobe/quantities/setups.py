"""All that can be measured at a point with a tester: every pair it reaches, as found, under load, and dead."""

from collections.abc import Iterable
from functools import lru_cache

from evenprobe.quantities.measurement import Measurement
from evenprobe.quantities.quantity import QUANTITIES, Quantity
from evenprobe.testers.instrument import Instrument
from evenprobe.wiring import PointFacts


def setups_with(point: PointFacts, tester: Instrument) -> Iterable[Measurement]:
    """Of every quantity, in their order."""
    for quantity in QUANTITIES.values():
        yield from _setups_of(quantity, point, tester)


@lru_cache(maxsize=1024)
def _setups_of(quantity: Quantity, point: PointFacts, tester: Instrument) -> tuple[Measurement, ...]:
    """The same every time, and asked after every reading."""
    return tuple(quantity.setups(point, tester))
