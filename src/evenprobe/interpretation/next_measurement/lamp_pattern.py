"""A lamp tester plugged in: three pairs at a glance. A lit lamp strikes out; a dark one says nothing."""

from collections.abc import Collection, Mapping, Sequence
from itertools import compress

from evenprobe.interpretation.elimination import Elimination
from evenprobe.interpretation.ensemble import Ensemble
from evenprobe.interpretation.findings import NextMeasurement
from evenprobe.interpretation.next_measurement.information import dark_where_lit, likeliest
from evenprobe.interpretation.next_measurement.way_to_safe import why_taken
from evenprobe.quantities import LAMPS, Measurement, Reading
from evenprobe.quantities.lamps import lamps_on
from evenprobe.testers import Instrument

_LAMPS_S = 5.0


def to_be_plugged_in(
    ensemble: Ensemble,
    elimination: Elimination,
    likelihood: Mapping[str, float],
    taken: Sequence[Reading],
    kit: Collection[Instrument],
) -> NextMeasurement | None:
    """The lamps of a tester in the kit that nobody plugged in here; None where they would strike out nothing."""
    plugged = {r.measurement.instrument.kind for r in taken if r.measurement.quantity is LAMPS}
    able = (t for t in kit if LAMPS.purpose in t.kind.purposes and t.proved is not False and t.kind not in plugged)
    tester = next(able, None)
    standing = elimination.standing
    if tester is None or not lamps_on(ensemble.point):
        return None
    gone = dark_where_lit(ensemble, standing, likeliest(ensemble, standing, likelihood), tester)
    ids = tuple(compress([s.condition.id for s in standing], gone))
    if not ids:
        return None
    why = str(why_taken(ensemble, standing, ids))
    return NextMeasurement(Measurement(LAMPS, None, None, tester), ids, 0.0, _LAMPS_S, why)
