"""Before a condition is struck out it is looked at again, in stages, until one of its samples fits or none is found.

The first stage moves the samples that come nearest; the next hop away from where those end, with some unknowns drawn
anew; the patient ones give up later what still moves. What a stage takes up, where it starts from and how patient it is
stands in `_STAGES`. What is not found here is held to be nowhere, and the survival bench decides whether it is.
"""

import hashlib
from collections.abc import Callable, Hashable, Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import combinations
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from evenprobe.conditions import Condition
from evenprobe.interpretation.doubts import Doubt, doubts_of
from evenprobe.interpretation.ensemble import Ensemble
from evenprobe.interpretation.local_search import FITS, Arrival, Start, search_from
from evenprobe.interpretation.misfit import best_scale, misfits
from evenprobe.interpretation.samples import Span
from evenprobe.quantities import Evidence
from evenprobe.quantities.evidence import seen

Array = NDArray[Any]

_HOPS = 48
_WORTH_HOPPING = 60.0
"""A least misfit above FITS and up to this is worth hops away from the ends."""
_EASILY_MET = 2
"""So few readings are met by a hop or never."""
PATIENT_HOPS_A_READING, MOST_PATIENT_HOPS = 16, 128
"""The fewer readings there are to meet, the fewer starts it takes."""
_NEARLY_FITS = 4.0
NEAR = 3.0
"""What then misses by no more, or had a sample at no greater distance, is hopped from once more, patiently."""
_LAST_HOPS = 512
_LAST_CONDITIONS = 3
"""Before nothing at all is said to explain the readings the nearest few are hopped from as often as this."""
_HOP_SHARES = (0.1, 0.8)
"""Of the unknowns drawn anew in a hop: from close by to nearly anywhere, evenly."""
_BRIEF_CONDITIONS = 3


class Found(NamedTuple):
    """What a search found for a condition: the least misfit, and the samples (E, unknowns) it ended at, if it moved."""

    misfit: float
    ends: Array | None = None


@dataclass(frozen=True)
class Pursued:
    """A condition in doubt as far as it was looked at: the least misfit so far, and where the last stage ended."""

    doubt: Doubt
    least: float = np.inf
    ends: Array | None = None

    def after(self, arrival: Arrival) -> "Pursued":
        return Pursued(self.doubt, min(self.least, arrival.misfit), arrival.cube)


@dataclass(frozen=True)
class Stage:
    """`takes`: whether it takes up a condition that does not fit yet, by how many readings there are to meet.

    `starts`: the samples (K, unknowns) it sets out from, given every way of a sample and the stage's own dice.
    """

    name: str
    takes: Callable[[Pursued, int], bool]
    starts: Callable[[Pursued, Callable[[Array], Array], np.random.Generator, int], Array]
    patient: bool = False


_NEAREST_FIRST = Stage(
    "nearest",
    takes=lambda _pursued, _readings: True,
    starts=lambda pursued, _ways, _rng, _readings: pursued.doubt.starts,
)
_STAGES = (
    _NEAREST_FIRST,
    Stage(
        "hops",
        takes=lambda pursued, _readings: pursued.least <= _WORTH_HOPPING,
        starts=lambda pursued, ways, rng, _readings: np.concatenate(
            [ways(_ends(pursued)[0]), hops(_ends(pursued), _HOPS, rng)]
        ),
    ),
    Stage(
        "patient",
        takes=lambda pursued, readings: (
            readings > _EASILY_MET and (pursued.least <= _NEARLY_FITS or pursued.doubt.distance <= NEAR)
        ),
        starts=lambda pursued, _ways, rng, readings: hops(
            np.concatenate([_ends(pursued), pursued.doubt.nearest]),
            min(MOST_PATIENT_HOPS, PATIENT_HOPS_A_READING * readings),
            rng,
        ),
        patient=True,
    ),
)
_LAST = Stage(
    "last",
    takes=lambda pursued, _readings: pursued.doubt.distance <= NEAR,
    starts=lambda pursued, _ways, rng, _readings: hops(pursued.doubt.nearest, _LAST_HOPS, rng),
    patient=True,
)
"""Where otherwise nothing at all would be left standing."""


def look_again(
    ensemble: Ensemble,
    evidence: Sequence[Evidence],
    predicted: Span,
    misfit: Array,
    scale: Array,
    *,
    briefly: bool = False,
) -> dict[str, float]:
    """The least misfit found by moving samples of each condition that none fits as it is.

    `briefly`: only of the nearest few conditions, and without hops.
    """
    doubts = list(doubts_of(ensemble, ensemble.conditions, evidence, predicted, misfit, scale))
    if briefly:
        return _least(_pursue(ensemble, evidence, _nearest(doubts, _BRIEF_CONDITIONS), (_NEAREST_FIRST,)))
    by_two = _by_two(ensemble, evidence, predicted, doubts)
    least = {name: missed for name, missed in _least(by_two).items() if missed > FITS}
    in_doubt = [_beginning_at(by_two.get(d.condition.id), d) for d in doubts if d.condition.id not in least]
    least |= _least(_pursue(ensemble, evidence, in_doubt, _STAGES))
    if misfit.min() > 1.0 and min(least.values(), default=0.0) > FITS:
        near = _nearest((d for d in in_doubt if d.distance <= NEAR), _LAST_CONDITIONS)
        found = _least(_pursue(ensemble, evidence, near, (_LAST,)))
        least |= {name: min(least[name], misfit_now) for name, misfit_now in found.items()}
    return least


def _least(found: Mapping[str, Found]) -> dict[str, float]:
    return {name: one.misfit for name, one in found.items()}


def _beginning_at(found: Found | None, doubt: Doubt) -> Doubt:
    """Samples that meet the worst two readings are mostly near to meeting all."""
    if found is None or found.ends is None:
        return doubt
    return replace(doubt, starts=np.concatenate([found.ends, doubt.starts]))


def _pursue(
    ensemble: Ensemble, evidence: Sequence[Evidence], doubts: Iterable[Doubt], stages: Sequence[Stage]
) -> dict[str, Found]:
    """What is found for each condition; a stage takes up what the one before it took up and did not fit.

    All are moved together, each by the evidence it is in doubt of; whoever else is tried makes no difference.
    """
    every_way = ensemble.installation.unknowns.every_way
    pursued = {d.condition.id: Pursued(d) for d in doubts}
    evidence = [e for e in evidence if any(e in p.doubt.evidence for p in pursued.values())]
    found: dict[str, Found] = {}
    for stage in stages:
        taken = {n: p for n, p in pursued.items() if p.least > FITS and stage.takes(p, len(p.doubt.evidence))}
        starts = [
            Start(
                p.doubt.condition,
                stage.starts(p, every_way, _dice(f"{name} {stage.name}", p.doubt.evidence), len(p.doubt.evidence)),
                np.array([e in p.doubt.evidence for e in evidence]),
            )
            for name, p in taken.items()
        ]
        arrived = search_from(ensemble.installation, evidence, starts, patient=stage.patient)
        pursued = {name: taken[name].after(arrival) for name, arrival in arrived.items()}
        found |= {name: Found(p.least, p.ends) for name, p in pursued.items()}
    return found


def _ends(pursued: Pursued) -> Array:
    assert pursued.ends is not None, "the first stage starts from the nearest samples"
    return pursued.ends


def _nearest(doubts: Iterable[Doubt], count: int) -> list[Doubt]:
    return sorted(doubts, key=lambda d: d.distance)[:count]


def _by_two(
    ensemble: Ensemble, evidence: Sequence[Evidence], predicted: Span, doubts: Sequence[Doubt]
) -> dict[str, Found]:
    """What is found for the two readings that lie worst together for a condition.

    Two are met more easily than all, so what does not meet them meets all nowhere; and which two they are, and whether
    they can be met, follows from them alone, so it is remembered for the next reading.
    """
    by_pair: dict[tuple[int, ...], list[Condition]] = {}
    for doubt in doubts:
        pair = _worst_two(ensemble, evidence, predicted, ensemble.block_of(doubt.condition))
        if len(pair) < len(evidence):
            by_pair.setdefault(pair, []).append(doubt.condition)
    found: dict[str, Found] = {}
    in_doubt: list[Doubt] = []
    anew: dict[str, Hashable] = {}
    for pair, conditions in by_pair.items():
        two = [evidence[i] for i in pair]
        keys = {c.id: (c.id, *(e.key for e in two)) for c in conditions}
        known = {name: met for name, key in keys.items() if (met := ensemble.met.known(key)) is not None}
        of_samples, worth_moving = _doubts_among(ensemble, two, [c for c in conditions if c.id not in known])
        found |= known | of_samples
        in_doubt += worth_moving
        anew |= {name: keys[name] for name in of_samples}
    found |= _pursue(ensemble, evidence, in_doubt, _STAGES)
    for name, key in anew.items():
        ensemble.met.keep(key, found[name])
    return found


def _worst_two(ensemble: Ensemble, evidence: Sequence[Evidence], predicted: Span, block: slice) -> tuple[int, ...]:
    """The one or two readings whose least misfit among a condition's samples is the greatest."""
    scale = ensemble.scale[0][block], ensemble.scale[1][block]
    best = {
        pair: float(misfits([evidence[i] for i in pair], predicted.of(block).readings(pair), scale).min())
        for pair in (*((i,) for i in range(len(evidence))), *combinations(range(len(evidence)), 2))
    }
    return max(best, key=lambda pair: best[pair])


def _doubts_among(
    ensemble: Ensemble, evidence: Sequence[Evidence], conditions: Sequence[Condition]
) -> tuple[dict[str, Found], list[Doubt]]:
    """What each condition's samples miss by as they are, and which conditions are worth moving them."""
    if not conditions:
        return {}, []
    predicted = ensemble.spans(evidence)
    misfit, scale = misfits(evidence, predicted, ensemble.scale), best_scale(evidence, predicted, ensemble.scale)
    found = {c.id: Found(float(misfit[ensemble.block_of(c)].min())) for c in conditions}
    return found, list(doubts_of(ensemble, conditions, evidence, predicted, misfit, scale))


def _dice(stage_of_condition: str, evidence: Sequence[Evidence]) -> np.random.Generator:
    """Random numbers for a condition's stage: of the ordered evidence, whoever else is tried."""
    told = repr([seen(e) for e in evidence])
    return np.random.default_rng(int.from_bytes(hashlib.sha256(f"{stage_of_condition} {told}".encode()).digest()))


def hops(from_: Array, count: int, rng: np.random.Generator) -> Array:
    """Samples (count, unknowns) with some unknowns of one of `from_` (N, unknowns) and the others anywhere.

    Wales and Doye, J. Phys. Chem. A 101, 1997.
    """
    origin = from_[rng.integers(len(from_), size=count)]
    share = np.linspace(*_HOP_SHARES, count)[:, None]
    return np.where(rng.random(origin.shape) < share, rng.random(origin.shape), origin)
