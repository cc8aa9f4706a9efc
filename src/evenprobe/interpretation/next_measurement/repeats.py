"""A reading taken again, where what keeps two explanations apart is that the supply moved in between.

What moved shows when the earlier of the two readings is repeated right after the later one.
"""

from collections.abc import Sequence

from evenprobe.interpretation.elimination import Elimination, Standing
from evenprobe.interpretation.ensemble import Ensemble
from evenprobe.interpretation.findings import NextMeasurement
from evenprobe.interpretation.moving import moved_between
from evenprobe.interpretation.sentences import NEXT
from evenprobe.quantities import Reading


def to_be_repeated(ensemble: Ensemble, elimination: Elimination, taken: Sequence[Reading]) -> NextMeasurement | None:
    """The earlier of two readings between which the supply must have moved; None where that is not the doubt.

    It is the doubt where some of what stands needs it and some does not. Nothing is repeated twice. If all is well it
    rules out what needs it; where what is well needs it itself, it rules out nothing and may accuse.
    """
    between = {s.condition: _moved_between(s, ensemble, elimination) for s in elimination.standing if s.moved}
    moved = {condition: pair for condition, pair in between.items() if pair}
    earlier = next(filter(None, (_earlier_of(pair, taken) for pair in moved.values())), None)
    if earlier is None or len(moved) == len(elimination.standing):
        return None
    measurement = earlier.measurement
    fine_moved = any(condition.severity_at(ensemble.point).is_fine for condition in moved)
    ids = () if fine_moved else tuple(condition.id for condition in moved)
    return NextMeasurement(measurement, ids, 0.0, measurement.quantity.seconds(measurement), str(NEXT.say("repeat")))


def _moved_between(s: Standing, ensemble: Ensemble, elimination: Elimination) -> set[str]:
    """The two readings, by id, that no sample of the condition brings together unless the supply moved."""
    evidence, block = elimination.evidence, ensemble.block_of(s.condition)
    scale = ensemble.scale[0][block], ensemble.scale[1][block]
    return {e.reading.id for e in moved_between(evidence, ensemble.spans(evidence).of(block), scale)}


def _earlier_of(pair: set[str], taken: Sequence[Reading]) -> Reading | None:
    """Of two readings; None where one of them was taken again already."""
    setups = [r.measurement.setup() for r in taken]
    both = [r for r in taken if r.id in pair]
    if any(setups.count(r.measurement.setup()) > 1 for r in both):
        return None
    return min(both, key=lambda r: 0.0 if r.at is None else r.at, default=None)
