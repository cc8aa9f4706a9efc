"""A joint too good to be a poor one and too poor to be sound: asked only where the wiring cannot be sound.

Joints are continuous (see `conditions.slight`). While `correct` stands a slight one may be there too and does no harm;
where it has fallen, a conductor that measures a little too much must not leave nothing at all that explains it.
"""

from collections.abc import Sequence
from functools import lru_cache

from evenprobe.conditions import conditions_for, with_slight_joint
from evenprobe.interpretation.elimination import Elimination, eliminate, standing_by
from evenprobe.interpretation.ensemble import Ensemble
from evenprobe.quantities import Evidence
from evenprobe.wiring import PointFacts


def with_slight_joints(ensemble: Ensemble, elimination: Elimination, evidence: Sequence[Evidence]) -> Elimination:
    """The same, with poor joints that fell standing again where a slight one explains the evidence."""
    fallen = [c for c in elimination.fallen if with_slight_joint(c) is not None]
    if not fallen or any(s.condition.severity_at(ensemble.point).is_fine for s in elimination.standing):
        return elimination
    slight = eliminate(_slight(ensemble.point, ensemble.samples), evidence)
    for condition in fallen:
        if slight.stands(condition.id):
            block = ensemble.block_of(condition)
            elimination = elimination.standing_again(standing_by(condition, elimination.misfit[block], block.start))
    return elimination


@lru_cache(maxsize=12)
def _slight(point: PointFacts, samples: int) -> Ensemble:
    found = (with_slight_joint(condition) for condition in conditions_for(point))
    return Ensemble(point, samples, tuple(condition for condition in found if condition is not None))
