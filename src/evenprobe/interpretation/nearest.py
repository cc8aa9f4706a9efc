"""Where nothing explains all the readings: what comes nearest, which reading it misses, and by how much."""

from evenprobe.interpretation.elimination import Elimination, reason_for
from evenprobe.interpretation.ensemble import Ensemble
from evenprobe.interpretation.findings import Near

_NAMED = 2


def nearest(ensemble: Ensemble, elimination: Elimination) -> tuple[Near, ...]:
    """The two conditions with the least misfit, where none stands; misfit is in tolerances."""
    if elimination.standing:
        return ()
    missed_by = elimination.missed_by
    by_misfit = sorted(elimination.fallen, key=lambda c: (missed_by[c.id], -c.prior_at(ensemble.point)))
    taken = {e.reading.id: e.reading.measurement for e in elimination.evidence}
    found = []
    for condition in by_misfit[:_NAMED]:
        reason = reason_for(ensemble, elimination, condition)
        found.append(Near(condition, missed_by[condition.id], reason, taken[reason.reading]))
    return tuple(found)
