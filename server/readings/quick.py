"""The quick set of an outlet as the front end takes it, each measurement with the reading that is it."""

from collections.abc import Mapping

from evenprobe.quantities import Measurement, Reading
from readings.models import Reading as Recorded
from readings.shapes import QuickOut


def quick_out(wanted: Measurement, reading: Reading | None, recorded: Mapping[str, Recorded]) -> QuickOut:
    """`recorded`: by id, the record's readings."""
    taken = recorded.get(reading.id) if reading else None
    return QuickOut.model_validate(
        {
            "quantity": str(wanted.quantity),
            "from": wanted.from_ and str(wanted.from_),
            "to": wanted.to and str(wanted.to),
            "test_ma": wanted.test_ma,
            "reading": taken and taken.id,
            "entry": taken and taken.entry,
        }
    )
