"""A case: an installation with something hidden, what is at hand, what the customer says, and what counts as solved."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, field

import numpy as np

from evenprobe.conditions import Condition
from evenprobe.conditions.symptoms import Symptom
from evenprobe.interpretation import PointInterpretation, Verdict, interpret
from evenprobe.interpretation.next_measurement import Obstacle
from evenprobe.practising.hunted import Hunted
from evenprobe.quantities import Reading
from evenprobe.simulation import HiddenPoint, TesterErrors
from evenprobe.testers import Instrument
from evenprobe.testers.fitness import Held
from evenprobe.wiring import PointFacts


@dataclass(frozen=True)
class Case:
    """`truth`: what is hidden, one sample of it by `seed`, which also says how far off the testers are.

    `among`: ids of the conditions that may still stand when it is solved, for what tells them apart is not at hand or
    does not matter; `verdicts`: what it then has to come to, empty where `among` says enough. `at_most`: instead, how
    many may stand, or as few as what is at hand can tell. `to_be_made_dead`: instead, that hands are on it, proved
    dead. `other_feed`: what feeds it beside its own device, by name, if anything. `held`: the kit as it is picked up.
    `minutes`: what a careful person needs at most.
    """

    name: str
    point: PointFacts
    truth: Condition
    seed: int
    kit: tuple[Instrument, ...]
    among: frozenset[str]
    minutes: float
    verdicts: frozenset[Verdict] = frozenset()
    cannot: Collection[Obstacle] = field(default=())
    noticed: Collection[Symptom] = field(default=())
    at_most: int | None = None
    to_be_made_dead: bool = False
    other_feed: str = ""
    hunted: Hunted | None = None
    outlets: "Mapping[str, Case]" = field(default_factory=dict)
    held: tuple[Held, ...] = ()

    def is_solved(self, found: PointInterpretation) -> bool:
        """Whether what the readings leave standing is what may be left, and something is."""
        left = standing(found).keys()
        if self.at_most is not None:
            return 0 < len(left) <= self.at_most or (bool(left) and not found.next_tests)
        return bool(left) and left <= self.among and found.verdict in (self.verdicts or {found.verdict})

    def interpreted(self, readings: Sequence[Reading]) -> PointInterpretation:
        """What the readings mean, with what is at hand."""
        return interpret(self.point, readings, self.kit, cannot=self.cannot, noticed=self.noticed)

    def begun(self) -> tuple[HiddenPoint, TesterErrors]:
        """The point as it is and the testers as they err: the same each time the case is opened."""
        rng = np.random.default_rng(self.seed)
        return HiddenPoint(self.point, self.truth, rng, moves=True), TesterErrors(rng)


def standing(found: PointInterpretation) -> dict[str, Condition]:
    """What still fits, by its id."""
    return {o.condition.id: o.condition for o in found.conditions if o.standing}
