"""The rules a proof of isolation is held to: the handbook's, or a crew's own.

A crew may tighten them as it likes. Looser than the handbook needs a written reason, which stays on the proof.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date

from evenprobe.limits.isolation import PROOF_WINDOW_MIN, UNATTENDED_MIN
from evenprobe.practices import Practice
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
        return tuple(self._loosened(practice))

    def _loosened(self, practice: Practice) -> Iterator[str]:
        if self.window_min > PROOF_WINDOW_MIN:
            yield f"{self.window_min:g} min between a proof and its readings, not {PROOF_WINDOW_MIN:g}"
        if self.unattended_min > UNATTENDED_MIN:
            yield f"no longer valid after {self.unattended_min:g} min away, not {UNATTENDED_MIN:g}"
        usual = practice.dead_kinds
        for kind in self.dead_kinds or ():
            if kind.id not in usual:
                yield f"{kind.with_article} is accepted to prove dead"


HANDBOOK = HouseRules()
