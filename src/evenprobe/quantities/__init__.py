"""What can be measured, a module a quantity: how it is taken, what it shows and how that moves, what it counts for."""

from collections.abc import Sequence

from evenprobe.quantities.evidence import confining, in_order
from evenprobe.quantities.measurement import Measurement, Reading
from evenprobe.quantities.quantity import QUANTITIES, Quantity
from evenprobe.quantities.weighed import Alarm, Direct, Evidence, Kept, Weighed
from evenprobe.registry import add_modules_of
from evenprobe.wiring import PointFacts

add_modules_of(__name__, __path__)

from evenprobe.quantities.current import CURRENT  # noqa: E402
from evenprobe.quantities.frequency import FREQUENCY  # noqa: E402
from evenprobe.quantities.insulation import INSULATION  # noqa: E402
from evenprobe.quantities.lamps import LAMPS  # noqa: E402
from evenprobe.quantities.load_held import LOAD_HELD, by_devices_that_trip  # noqa: E402
from evenprobe.quantities.loop import LOOP  # noqa: E402
from evenprobe.quantities.presence import PRESENCE  # noqa: E402
from evenprobe.quantities.references import by_references_that_agree  # noqa: E402
from evenprobe.quantities.residual_current import RESIDUAL_CURRENT  # noqa: E402
from evenprobe.quantities.resistance import RESISTANCE  # noqa: E402
from evenprobe.quantities.sequence import SEQUENCE  # noqa: E402
from evenprobe.quantities.trip import TRIP  # noqa: E402
from evenprobe.quantities.voltage import VOLTAGE  # noqa: E402
from evenprobe.quantities.whole_volts import with_last_digits  # noqa: E402

__all__ = [
    "CURRENT",
    "FREQUENCY",
    "INSULATION",
    "LAMPS",
    "LOAD_HELD",
    "LOOP",
    "PRESENCE",
    "QUANTITIES",
    "RESIDUAL_CURRENT",
    "RESISTANCE",
    "SEQUENCE",
    "TRIP",
    "VOLTAGE",
    "Alarm",
    "Direct",
    "Evidence",
    "Kept",
    "Measurement",
    "Quantity",
    "Reading",
    "Weighed",
    "confining",
    "in_order",
    "weigh",
    "weigh_all",
]


def weigh(reading: Reading, point: PointFacts) -> Sequence[Weighed]:
    """What a reading counts for; a lamp pattern counts once for each lit lamp.

    Parameters
    ----------
    reading : Reading
        In SI units.
    point : PointFacts
        Where it was taken.

    Returns
    -------
    sequence of Evidence, Alarm, Direct or Kept
        Evidence confines what the installation can be; an alarm and a direct voltage only make a verdict worse; what is
        kept strikes out nothing, and says why.

    Examples
    --------
    >>> from evenprobe.practices import BRITISH
    >>> from evenprobe.supplies import SYSTEMS, Earthing
    >>> from evenprobe.wiring import PointFacts, PointKind, Terminal
    >>> contacts = (Terminal.L, Terminal.N, Terminal.PE)
    >>> outlet = PointFacts(BRITISH, SYSTEMS["230"], Earthing.TN_S, PointKind.OUTLET, contacts)
    >>> from evenprobe.quantities import VOLTAGE, Measurement, Reading
    >>> from evenprobe.testers import TYPED
    >>> volts = Reading("r1", Measurement(VOLTAGE, Terminal.L, Terminal.N, TYPED), value=231.0)
    >>> [evidence] = weigh(volts, outlet)
    >>> evidence.low <= 231.0 <= evidence.high
    True
    """
    return reading.measurement.quantity.weigh(reading, point)


def weigh_all(readings: Sequence[Reading], point: PointFacts) -> list[Weighed]:
    """What all readings of a point count for together.

    Each tester's last digit is inferred where it is not on record, a load held clears only by a device that trips, a
    reference earth that may be at fault itself only once another agrees.

    Parameters
    ----------
    readings : sequence of Reading
        In SI units.
    point : PointFacts
        Where they were taken.

    Returns
    -------
    list of Evidence, Alarm, Direct or Kept
        As `weigh` has them.

    Examples
    --------
    >>> from evenprobe.practices import BRITISH
    >>> from evenprobe.supplies import SYSTEMS, Earthing
    >>> from evenprobe.wiring import PointFacts, PointKind, Terminal
    >>> contacts = (Terminal.L, Terminal.N, Terminal.PE)
    >>> outlet = PointFacts(BRITISH, SYSTEMS["230"], Earthing.TN_S, PointKind.OUTLET, contacts)
    >>> from evenprobe.quantities import VOLTAGE, Measurement, Reading
    >>> volts = Measurement(VOLTAGE, Terminal.L, Terminal.N)
    >>> whole, tenths = (weigh_all([Reading("r1", volts, value=v)], outlet)[0] for v in (231.0, 231.2))
    >>> whole.tolerance > 3 * tenths.tolerance
    True
    """
    weighed = [w for r in with_last_digits(readings) for w in weigh(r, point)]
    return by_devices_that_trip(by_references_that_agree(weighed, point), point)
