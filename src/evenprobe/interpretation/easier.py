"""What is asked before all readings together: the two that lie worst for a condition, first rounded outward.

Fewer readings, and readings that allow more, are met more easily, so what does not meet them meets all nowhere. Whether
it can follows from them alone, so it is remembered for the next reading, and rounded for the next outlet.
"""

from collections.abc import Hashable, Sequence
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.conditions import Condition
from evenprobe.interpretation.doubts import Doubt, doubts_of
from evenprobe.interpretation.ensemble import Ensemble
from evenprobe.interpretation.local_search import ENDS, FITS
from evenprobe.interpretation.misfit import best_scale, misfits, worst_two
from evenprobe.interpretation.outward import rounded_outward, whenever, whoever
from evenprobe.interpretation.pursuit import STAGES, Found, pursue, said
from evenprobe.interpretation.samples import Span
from evenprobe.quantities import Evidence, in_order

Array = NDArray[Any]


def by_two(
    ensemble: Ensemble, evidence: Sequence[Evidence], predicted: Span, doubts: Sequence[Doubt]
) -> dict[str, Found]:
    """What is found for each condition in doubt, by its id: what misses two readings is not asked about more."""
    of_two: dict[tuple[int, ...], list[Condition]] = {}
    for doubt in doubts:
        block = ensemble.block_of(doubt.condition)
        pair = worst_two(evidence, predicted.of(block), (ensemble.scale[0][block], ensemble.scale[1][block]))
        of_two.setdefault(pair, []).append(doubt.condition)
    found = _remembered(ensemble, [(rounded_outward(_some(evidence, two)), own) for two, own in of_two.items()])
    as_they_are = [
        (whenever(_some(evidence, two)), [c for c in own if found[c.id].misfit <= FITS])
        for two, own in of_two.items()
        if len(two) < max(2, len(evidence))
    ]
    return found | _remembered(ensemble, as_they_are)


def _some(evidence: Sequence[Evidence], which: Sequence[int]) -> list[Evidence]:
    return [evidence[i] for i in which]


def _remembered(
    ensemble: Ensemble, asked: Sequence[tuple[Sequence[Evidence], Sequence[Condition]]]
) -> dict[str, Found]:
    """What is found for conditions that are asked about some evidence, if not now, then before."""
    found: dict[str, Found] = {}
    in_doubt: list[Doubt] = []
    anew: dict[str, Hashable] = {}
    for evidence, conditions in asked:
        ordered = whoever(in_order(evidence))
        key = tuple(said(e) for e in ordered)
        known = {c.id: met for c in conditions if (met := ensemble.met.known((c.id, key))) is not None}
        of_samples, worth_moving = _doubts_among(ensemble, ordered, [c for c in conditions if c.id not in known])
        found |= known | of_samples
        in_doubt += worth_moving
        anew |= {name: (name, key) for name in of_samples}
    found |= pursue(ensemble, in_doubt, STAGES)
    for name, own in anew.items():
        ensemble.met.keep(own, found[name])
    return found


def _doubts_among(
    ensemble: Ensemble, evidence: Sequence[Evidence], conditions: Sequence[Condition]
) -> tuple[dict[str, Found], list[Doubt]]:
    """What each condition's samples miss by as they are, and which conditions are worth moving them."""
    if not conditions:
        return {}, []
    predicted = ensemble.spans(evidence)
    misfit, scale = misfits(evidence, predicted, ensemble.scale), best_scale(evidence, predicted, ensemble.scale)
    found = {c.id: _of_its_samples(ensemble, c, misfit, scale) for c in conditions}
    return found, list(doubts_of(ensemble, conditions, evidence, predicted, misfit, scale))


def _of_its_samples(ensemble: Ensemble, condition: Condition, misfit: Array, scale: Array) -> Found:
    block = ensemble.block_of(condition)
    rows = block.start + np.argsort(misfit[block])[:ENDS]
    return Found(float(misfit[rows[0]]), ensemble.installation.with_source(ensemble.cube[rows], condition, scale[rows]))
