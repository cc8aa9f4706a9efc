"""A joint that comes and goes: asked only where one setup was read again and the two lie apart.

At each moment it may be anything from sound to open, so what it shows is the hull of what the same installation shows
sound, with a poor joint and with an open one; a moving supply (IEC 61000-2-2 has 3 % as a rapid change of voltage)
need not be blamed for more.
"""

from collections.abc import Iterator, Sequence
from itertools import combinations
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.conditions import Condition, Severity
from evenprobe.interpretation.elimination import Elimination, standing_by
from evenprobe.interpretation.ensemble import Ensemble
from evenprobe.interpretation.local_search import FITS
from evenprobe.interpretation.misfit import misfits
from evenprobe.interpretation.samples import Span
from evenprobe.quantities import Evidence, Measurement

INTERMITTENT = Condition(
    id="intermittent-joint",
    severity=Severity.DEFECT,
    prior=0.02,
    title="a joint that comes and goes",
    symptom="lamps flicker; the same reading jumps",
    cause="a loose screw or a burnt joint along the run; measure the same at the {board}, for the supply may jump too",
    remedy="isolate, prove dead, remake the joint",
)
_APART = 0.03
_STATES = ("correct", "high-resistance-{wire}", "open-{wire}")
_WIRES = ("line", "neutral", "earth")


def with_intermittent(ensemble: Ensemble, elimination: Elimination) -> Elimination:
    """The same, with a joint that comes and goes among what stands where it explains the evidence."""
    if not jumping(elimination.evidence):
        return elimination
    found = min(_of_each_wire(ensemble, elimination.evidence), key=lambda one: one[0], default=None)
    if found is None or found[0] > FITS:
        return elimination
    _, misfit, start = found
    return elimination.with_standing(standing_by(INTERMITTENT, misfit, start))


def jumping(evidence: Sequence[Evidence]) -> list[Measurement]:
    """What one tester shows two values of, further apart than a supply moves and a tester errs."""
    return [
        one.measurement
        for one, other in combinations([e for e in evidence if e.with_source], 2)
        if one.tester == other.tester
        and one.measurement.setup() == other.measurement.setup()
        and abs(one.low - other.low) > _APART * max(one.low, other.low) + one.tolerance + other.tolerance
    ]


def _of_each_wire(
    ensemble: Ensemble, evidence: Sequence[Evidence]
) -> Iterator[tuple[float, NDArray[np.floating[Any]], int]]:
    """The least misfit with the joint in each wire, that of every sample, and where the poor ones begin."""
    conditions = {c.id: c for c in ensemble.conditions}
    spans = ensemble.spans(evidence)
    for wire in _WIRES:
        names = [state.format(wire=wire) for state in _STATES]
        if not all(name in conditions for name in names):
            continue
        blocks = [ensemble.block_of(conditions[name]) for name in names]
        each = [spans.of(block) for block in blocks]
        hull = Span(
            np.min([span.least for span in each], axis=0),
            np.max([span.most for span in each], axis=0),
            each[0].least_with,
            each[0].most_with,
        )
        scale = ensemble.scale[0][blocks[0]], ensemble.scale[1][blocks[0]]
        misfit = misfits(evidence, hull, scale)
        yield float(misfit.min()), misfit, int(blocks[1].start)
