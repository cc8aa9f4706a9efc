"""The stages in which a condition is looked for, until one of its samples fits or none is found.

The first stage moves the samples that come nearest; the next hop away from where those end, with some unknowns drawn
anew; the patient ones give up later what still moves. What a stage takes up, where it starts from and how patient it is
stands in `STAGES`.
"""

import hashlib
from collections.abc import Callable, Hashable, Iterable, Sequence
from dataclasses import dataclass
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from evenprobe.interpretation.doubts import Doubt
from evenprobe.interpretation.ensemble import Ensemble
from evenprobe.interpretation.local_search import FITS, Arrival, Start, search_from
from evenprobe.interpretation.movement import moment_of
from evenprobe.quantities import Evidence, in_order
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
"""Before nothing at all is said to explain the readings."""
_HOP_SHARES = (0.1, 0.8)
"""Of the unknowns drawn anew in a hop: from close by to nearly anywhere, evenly."""


class Found(NamedTuple):
    """What was found for a condition: the least misfit, and the samples (E, unknowns) nearest to fitting."""

    misfit: float
    ends: Array


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


NEAREST_FIRST = Stage(
    "nearest",
    takes=lambda _pursued, _readings: True,
    starts=lambda pursued, _ways, _rng, _readings: pursued.doubt.starts,
)
STAGES = (
    NEAREST_FIRST,
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
LAST = Stage(
    "last",
    takes=lambda pursued, _readings: pursued.doubt.distance <= NEAR,
    starts=lambda pursued, _ways, rng, _readings: hops(pursued.doubt.nearest, _LAST_HOPS, rng),
    patient=True,
)
"""Where otherwise nothing at all would be left standing."""


def pursue(ensemble: Ensemble, doubts: Iterable[Doubt], stages: Sequence[Stage]) -> dict[str, Found]:
    """What is found for each condition; a stage takes up what the one before it took up and did not fit.

    All are moved together, each by the evidence it is in doubt of; whoever else is tried makes no difference.
    """
    every_way = ensemble.installation.unknowns.every_way
    pursued = {d.condition.id: Pursued(d) for d in doubts}
    of_each = {name: {said(e): e for e in p.doubt.evidence} for name, p in pursued.items()}
    every = {key: e for own in of_each.values() for key, e in own.items()}
    evidence = in_order(list(every.values()))
    found: dict[str, Found] = {}
    for stage in stages:
        taken = {n: p for n, p in pursued.items() if p.least > FITS and stage.takes(p, len(p.doubt.evidence))}
        starts = [
            Start(
                p.doubt.condition,
                stage.starts(p, every_way, _dice(f"{name} {stage.name}", p.doubt.evidence), len(p.doubt.evidence)),
                np.array([said(e) in of_each[name] for e in evidence]),
            )
            for name, p in taken.items()
        ]
        arrived = search_from(ensemble.installation, evidence, starts, patient=stage.patient)
        pursued = {name: taken[name].after(arrival) for name, arrival in arrived.items()}
        found |= {name: Found(p.least, _ends(p)) for name, p in pursued.items()}
    return found


def said(e: Evidence) -> Hashable:
    """What makes two pieces of evidence the same: what they say, and of which moment."""
    return e.key, moment_of(e)


def _ends(pursued: Pursued) -> Array:
    assert pursued.ends is not None, "only after a stage"
    return pursued.ends


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
