"""What to take again where nothing explains the readings: one of them is a slip, or something changed in between."""

from collections.abc import Sequence

from evenprobe.interpretation.findings import Near, NextMeasurement
from evenprobe.interpretation.sentences import NEXT
from evenprobe.practices import Practice
from evenprobe.quantities import Measurement, Reading

_OFFERED = 3


def taken_again(
    readings: Sequence[Reading], retake: Sequence[str], nearest: Sequence[Near], practice: Practice
) -> tuple[NextMeasurement, ...]:
    """The readings without which something explains the rest, and else those that what comes nearest misses.

    Parameters
    ----------
    readings : sequence of Reading
        All of the point.
    retake : sequence of str
        Readings by id whose removal lets something stand.
    nearest : sequence of Near
        What comes nearest to explaining them all.
    practice : Practice
        Whose words are spoken.

    Returns
    -------
    tuple of NextMeasurement
        At most three, each with what it would bear out.
    """
    by_id = {r.id: r.measurement for r in readings}
    missed_by = {near.reason.reading: near for near in nearest}
    tests: dict[Measurement, NextMeasurement] = {}
    for name in retake or missed_by:
        near, measurement = missed_by.get(name), by_id[name]
        why = (
            NEXT.say("again")
            if near is None
            else NEXT.say("again-for", title=near.condition.name_in(practice), expected=near.reason.text)
        )
        tests[measurement] = NextMeasurement(measurement, (), 0.0, measurement.quantity.seconds(measurement), str(why))
    return tuple(tests.values())[:_OFFERED]
