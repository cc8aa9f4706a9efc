"""The quick set of a point: what is measured at every outlet before anything else.

With a meter or a two-pole tester every pair of contacts as it is found: line to neutral, line to earth, neutral to
earth, on several lines each of them and the lines against each other. A plug tester gives its lamps, or its pairs
and, where its button drives enough for the device there is, a trip.
"""

from evenprobe.interpretation.setups import setups_with
from evenprobe.testers import KINDS, Instrument, InstrumentKind, Measurement, Quantity, lamps_on
from evenprobe.wiring import PointFacts, contact_pairs


def quick_set(point: PointFacts, tester: Instrument) -> tuple[Measurement, ...]:
    """In the order it is taken; empty where the tester has no contacts or no range for the point."""
    if tester.kind is InstrumentKind.LAMP_TESTER:
        return (Measurement(Quantity.LAMPS, None, None, tester),) if lamps_on(point) else ()
    if tester.volts() is None:
        return ()
    if KINDS[tester.kind].plugs_in and not lamps_on(point):
        return ()
    pairs = tuple(Measurement(Quantity.VOLTAGE, a, b, tester) for a, b in contact_pairs(point.terminals))
    return (*pairs, *_trips(point, tester)) if KINDS[tester.kind].plugs_in else pairs


def _trips(point: PointFacts, tester: Instrument) -> list[Measurement]:
    """Which comes last: everything behind the device goes dark."""
    return [m for m in setups_with(point, tester) if m.quantity is Quantity.TRIP]
