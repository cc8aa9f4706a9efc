"""The last digit of a voltmeter whose display nobody described: where all it showed is whole, it shows whole volts.

Cheap displays show 119 and 0 where a better one shows 119.4 and 0.2; taken for tenths they accuse a sound outlet. A
tester whose resolution is on record is taken at that.
"""

from collections.abc import Sequence
from dataclasses import replace

from evenprobe.quantities.measurement import Reading
from evenprobe.quantities.voltage import VOLTAGE

_WHOLE = 1.0


def with_last_digits(readings: Sequence[Reading]) -> list[Reading]:
    """A point's readings, those of a tester that showed nothing but whole volts taken at a volt."""
    tenths = {r.measurement.instrument for r in readings if _is_number(r) and not float(r.value or 0.0).is_integer()}
    return [_at_a_volt(r) if _is_number(r) and r.measurement.instrument not in tenths else r for r in readings]


def _is_number(reading: Reading) -> bool:
    is_described = reading.measurement.instrument.resolution is not None
    return reading.measurement.quantity is VOLTAGE and reading.value is not None and not is_described


def _at_a_volt(reading: Reading) -> Reading:
    measurement = reading.measurement
    return replace(
        reading, measurement=replace(measurement, instrument=replace(measurement.instrument, resolution=_WHOLE))
    )
