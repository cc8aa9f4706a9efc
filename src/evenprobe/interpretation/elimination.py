"""Elimination: a condition stands while some sample of it reproduces all the counted readings together."""

from collections import Counter
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from evenprobe.conditions import Condition
from evenprobe.conditions.symptoms import Symptom, likelier
from evenprobe.installation.admittances import variant_of
from evenprobe.interpretation.ensemble import Ensemble
from evenprobe.interpretation.exclusion import look_again
from evenprobe.interpretation.findings import Reason
from evenprobe.interpretation.local_search import FITS
from evenprobe.interpretation.misfit import best_scale, gap, misfits, misfits_without_each
from evenprobe.interpretation.moving import with_the_supply_moving
from evenprobe.interpretation.samples import Span
from evenprobe.quantities import Alarm, Evidence, Kept, confining, in_order
from evenprobe.quantities.presence import ALARM_CERTAIN_VOLTS
from evenprobe.wiring import Terminal

Array = NDArray[Any]

_WORTH_KNOWING = 60.0
_NEIGHBOURS = 48
"""Samples kept for each standing condition, to predict what it would show next."""
_NEIGHBOUR_SLACK = 0.6
_FEWEST = np.arange(_NEIGHBOURS) < 16
"""So many are kept however far off, for a forecast from one or two samples is too sure of itself."""
_NOTHING_SHOWN = Span(*2 * (np.empty((0, 0)),), *2 * (np.empty((0, 0), dtype=np.intp),))
_LEAST_FITTING = 0.5
"""Samples that are taken to fit of a condition of which the search found one and no sample does."""
_AGREEING = 8
"""Samples that agree best with all readings but one, which then tell what that one ought to be."""
_QUIET_FACTOR = 0.2
"""How much a proved detector's silence lowers the rank of a condition that puts line voltage there."""


@dataclass(frozen=True)
class Standing:
    """A condition that stands: the ensemble's rows nearest the readings, and its share that fits.

    `moved`: every sample that fits does so only because the supply moved between readings.
    """

    condition: Condition
    rows: NDArray[np.intp]
    share: float
    moved: bool = False


@dataclass(frozen=True)
class Elimination:
    """`misfit` (ensemble rows,) of each sample, exact up to where it matters; `scale` the best factor on its source.

    `shown`: what each sample can show of each piece of the evidence.
    `missed_by`: the least misfit found of each condition that fell, by its id.
    """

    evidence: tuple[Evidence, ...]
    shown: Span
    misfit: Array
    scale: Array
    standing: tuple[Standing, ...]
    fallen: tuple[Condition, ...]
    missed_by: Mapping[str, float] = field(default_factory=dict)

    def with_standing(self, more: Standing) -> "Elimination":
        return replace(self, standing=(*self.standing, more))

    def standing_again(self, fallen: Standing) -> "Elimination":
        """With what fell standing all the same."""
        others = tuple(c for c in self.fallen if c.id != fallen.condition.id)
        return replace(self, standing=(*self.standing, fallen), fallen=others)

    def stands(self, condition_id: str) -> bool:
        return any(s.condition.id == condition_id for s in self.standing)


def anything_stands(ensemble: Ensemble, evidence: Sequence[Evidence]) -> bool:
    """Whether any condition explains the evidence, by its samples or, looked at again briefly, near them."""
    against = held_against(ensemble, evidence)
    return bool((against.misfit <= 1.0).any()) or any(
        found <= FITS for found in look_again(ensemble, *against, briefly=True).values()
    )


class Held(NamedTuple):
    """What confines of the evidence; of every sample of the ensemble what it shows, misses by, and its best scale."""

    evidence: tuple[Evidence, ...]
    predicted: Span
    misfit: Array
    scale: Array


def held_against(ensemble: Ensemble, evidence: Sequence[Evidence]) -> Held:
    """Every sample of the ensemble against the evidence, before any is moved."""
    confined = confining(in_order(evidence))
    predicted = ensemble.spans(confined)
    misfit = misfits(confined, predicted, ensemble.scale, worth_knowing=_WORTH_KNOWING)
    return Held(confined, predicted, misfit, best_scale(confined, predicted, ensemble.scale))


def eliminate(ensemble: Ensemble, evidence: Sequence[Evidence]) -> Elimination:
    """Strike out every condition that no sample, even refined, makes fit the evidence."""
    if not evidence:
        rows = np.arange(_NEIGHBOURS)
        everything = tuple(Standing(c, block.start + rows, 1.0) for c, block in ensemble.blocks)
        nothing = np.zeros(len(ensemble.cube))
        return Elimination((), _NOTHING_SHOWN, nothing, nothing + 1, everything, ())
    held = held_against(ensemble, evidence)
    likely = with_the_supply_moving(held.evidence, held.predicted, ensemble.scale, held.misfit)
    refined = look_again(ensemble, *held)
    standing, fallen, missed_by = [], [], {}
    for condition, block in ensemble.blocks:
        own = held.misfit[block]
        best = float(own.min())
        if best > 1.0 and refined.get(condition.id, np.inf) > FITS:
            fallen.append(condition)
            missed_by[condition.id] = min(best, refined.get(condition.id, best))
            continue
        standing.append(standing_by(condition, own, block.start, likely[block]))
    return Elimination(*held, tuple(standing), tuple(fallen), missed_by)


def standing_by(condition: Condition, misfit: Array, start: int, likely: Array | float = 1.0) -> Standing:
    """A condition that stands by the misfits of its samples (samples,), whose rows begin at `start`.

    `likely`: of those that fit, how likely what the supply has to do for it is.
    """
    nearest = np.argsort(misfit)[:_NEIGHBOURS]
    near = nearest[(misfit[nearest] <= max(1.0, float(misfit.min())) + _NEIGHBOUR_SLACK) | _FEWEST]
    fitting = (misfit <= 1.0) * likely
    share = max(float(fitting.sum()), _LEAST_FITTING) / len(misfit)
    return Standing(condition, start + near, share, moved=0.0 < fitting.max() < 1.0)


def reason_for(ensemble: Ensemble, elimination: Elimination, condition: Condition) -> Reason:
    """The reading that excludes a fallen condition most plainly.

    First each reading alone, over all the condition's samples; where no single one does, each reading
    against the samples that agree best with the others.
    """
    block = ensemble.block_of(condition)
    number = ensemble.number_of(block)
    best: tuple[float, Reason] | None = None
    for e in elimination.evidence:
        seen = ensemble.shown_range(e)
        best = _plainer(best, e, float(seen.least[number]), float(seen.most[number]))
    if best is None:
        raise ValueError(f"{condition.id} cannot fall without a reading")
    if best[0] > 1.0 or len(elimination.evidence) == 1:
        return best[1]
    best = None
    scale = ensemble.scale[0][block], ensemble.scale[1][block]
    shown = elimination.shown.of(block)
    by_agreement = np.argsort(misfits_without_each(elimination.evidence, shown, scale), axis=1)
    for number, (left_out, nearest) in enumerate(zip(elimination.evidence, by_agreement, strict=True)):
        others = [i for i in range(len(elimination.evidence)) if i != number]
        agreeing = shown.of(nearest[:_AGREEING])
        factor: Array | float = 1.0
        if left_out.with_source:
            own = scale[0][nearest[:_AGREEING]], scale[1][nearest[:_AGREEING]]
            factor = best_scale([elimination.evidence[i] for i in others], agreeing.readings(others), own)
        least, most = agreeing.least[number] * factor, agreeing.most[number] * factor
        best = _plainer(best, left_out, float(least.min()), float(most.max()))
    assert best is not None
    return best[1]


def _plainer(best: tuple[float, Reason] | None, e: Evidence, least: float, most: float) -> tuple[float, Reason]:
    beyond = gap(e, least, most)
    if best is not None and best[0] >= beyond:
        return best
    seen = e.low if e.low > most else e.high
    return beyond, Reason(e.reading.id, (least, most), e.quantity, seen)


def agrees_with(ensemble: Ensemble, elimination: Elimination, standing: Standing, alarm: Alarm) -> bool:
    """Whether the condition, as the readings leave it, can put the alarm's voltage at its terminal."""
    return bool((potentials(ensemble, elimination, standing.rows, [alarm.terminal]) >= alarm.volts).any())


def lines_of(ensemble: Ensemble, elimination: Elimination, standing: Standing) -> tuple[tuple[str, ...], ...]:
    """Which lines it is about in those of the ensemble's samples that fit, likeliest first; empty where none does."""
    variants = standing.condition.variants_at(ensemble.point.layout)
    rows = standing.rows[elimination.misfit[standing.rows] <= 1.0]
    share = ensemble.cube[rows, ensemble.installation.unknowns.names.index("variant")]
    found = Counter(variants[number].lines for number in variant_of(share, len(variants)))
    return tuple(lines for lines, _ in found.most_common() if lines)


def potentials(
    ensemble: Ensemble, elimination: Elimination, rows: NDArray[np.intp], terminals: Sequence[Terminal]
) -> Array:
    """Volts to earth of terminals (T, S) in some of the samples (S,), source scaled to the readings."""
    return np.asarray(ensemble.potentials(terminals, rows) * elimination.scale[rows])


def likelihoods(
    ensemble: Ensemble, elimination: Elimination, kept: Sequence[Kept], noticed: Collection[Symptom] = ()
) -> dict[str, float]:
    """Share of samples that fit times the prior; what was noticed raises it, a proved detector's silence lowers it.

    Sums to 1.
    """
    raw = {}
    for standing in elimination.standing:
        condition = standing.condition
        weight = standing.share * condition.prior_at(ensemble.point) * likelier(condition.id, noticed)
        for quiet in kept:
            if quiet.quiet_at is not None:
                volts = potentials(ensemble, elimination, standing.rows, [quiet.quiet_at])
                if np.median(volts) > ALARM_CERTAIN_VOLTS:
                    weight *= _QUIET_FACTOR
        raw[standing.condition.id] = weight
    total = sum(raw.values())
    return {name: weight / total for name, weight in raw.items()} if total else raw
