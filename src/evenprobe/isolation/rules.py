"""The rules a proof of isolation is held to: the handbook's, or a crew's own.

A crew may tighten them as it likes. Looser than the handbook needs a written reason, which stays on the proof.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date

from evenprobe.isolation.sentences import RULES
from evenprobe.limits.isolation import PROOF_WINDOW_MIN, UNATTENDED_MIN
from evenprobe.practices import Practice
from evenprobe.sentences import Sentence
from evenprobe.supplies import SupplySystem
from evenprobe.testers import Kind
from evenprobe.testers.purposes import Purpose
from evenprobe.testers.ratings import Place
from evenprobe.testers.tasks import Task

LONGEST_WINDOW_MIN, LONGEST_UNATTENDED_MIN = 60.0, 240.0


@dataclass(frozen=True)
class HouseRules:
    """Minutes; `dead_kinds` None: as the practice has it; `least_rating`: refuse what is below the house rule."""

    window_min: float = PROOF_WINDOW_MIN
    unattended_min: float = UNATTENDED_MIN
    dead_kinds: tuple[Kind, ...] | None = None
    least_rating: bool = False
    reason: str = ""

    def task(self, practice: Practice, system: SupplySystem, place: Place, on: date) -> Task:
        """What a tester has to be fit for to prove something dead under these rules."""
        return Task(
            Purpose.PROVE_DEAD,
            place,
            system,
            practice,
            on=on,
            house_rule=self.least_rating,
            dead_kinds=self.dead_kinds,
        )

    def loosened(self, practice: Practice) -> tuple[str, ...]:
        """Each rule that is looser than the handbook's, in words."""
        return tuple(str(said) for said in self._loosened(practice))

    def _loosened(self, practice: Practice) -> Iterator[Sentence]:
        if self.window_min > PROOF_WINDOW_MIN:
            yield RULES.say("window", minutes=self.window_min, usual=PROOF_WINDOW_MIN)
        if self.unattended_min > UNATTENDED_MIN:
            yield RULES.say("unattended", minutes=self.unattended_min, usual=UNATTENDED_MIN)
        usual = practice.dead_kinds
        for kind in self.dead_kinds or ():
            if kind.id not in usual:
                yield RULES.say("dead-kind", kind=kind.with_article)


HANDBOOK = HouseRules()
