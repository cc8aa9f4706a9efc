"""The quick set of a point: what is measured at every outlet before anything else.

With a meter or a two-pole tester every pair of contacts as it is found: line to neutral, line to earth, neutral to
earth, on several lines each of them and the lines against each other. A plug tester gives its lamps, or its pairs
and, where its button drives enough for the device there is, a trip.
"""

from evenprobe.quantities import LAMPS, TRIP, VOLTAGE, Measurement
from evenprobe.quantities.lamps import lamps_on
from evenprobe.quantities.setups import setups_with
from evenprobe.testers import Instrument
from evenprobe.wiring import PointFacts, contact_pairs


def quick_set(point: PointFacts, tester: Instrument) -> tuple[Measurement, ...]:
    """What is measured at every outlet before anything else.

    Parameters
    ----------
    point : PointFacts
        The outlet.
    tester : Instrument
        What the round is made with.

    Returns
    -------
    tuple of Measurement
        In the order they are taken; empty where the tester has no contacts or no range for the point.

    Examples
    --------
    >>> from evenprobe.practices import BRITISH
    >>> from evenprobe.supplies import SYSTEMS, Earthing
    >>> from evenprobe.wiring import PointFacts, PointKind, Terminal
    >>> contacts = (Terminal.L, Terminal.N, Terminal.PE)
    >>> outlet = PointFacts(BRITISH, SYSTEMS["230"], Earthing.TN_S, PointKind.OUTLET, contacts)
    >>> from evenprobe.testers import TYPED
    >>> [f"{m.from_}-{m.to}" for m in quick_set(outlet, TYPED)]
    ['L-N', 'L-PE', 'N-PE']
    """
    if tester.kind.plugs_in and not lamps_on(point):
        return ()
    if tester.volts() is None:
        return (Measurement(LAMPS, None, None, tester),) if LAMPS.purpose in tester.kind.purposes else ()
    pairs = tuple(Measurement(VOLTAGE, a, b, tester) for a, b in contact_pairs(point.terminals))
    return (*pairs, *_trips(point, tester)) if tester.kind.plugs_in else pairs


def _trips(point: PointFacts, tester: Instrument) -> list[Measurement]:
    """Which comes last: everything behind the device goes dark."""
    recorded = point.circuit.residual_ma is not None
    return [m for m in setups_with(point, tester) if recorded and m.quantity is TRIP]
