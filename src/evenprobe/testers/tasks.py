"""A task for a tester, and the kinds that can answer it.

What proves dead is the practice's, or a crew's own rule; for anything else a kind says what it answers.
"""

from dataclasses import dataclass
from datetime import date

from evenprobe.practices import Practice
from evenprobe.supplies import SupplySystem
from evenprobe.testers.kinds import KINDS, Kind
from evenprobe.testers.purposes import Purpose
from evenprobe.testers.ratings import Place


@dataclass(frozen=True)
class Task:
    """What a tester is wanted for. `device_ma`: rated residual current; `test_volts`: insulation test, DC."""

    purpose: Purpose
    place: Place
    system: SupplySystem
    practice: Practice
    line_to_line: bool | None = None
    device_ma: float | None = None
    test_volts: float | None = None
    on: date | None = None
    house_rule: bool = False
    """Whether the crew refuses less than category III 600 V on building wiring, not only warns of it."""
    dead_kinds: tuple[Kind, ...] | None = None
    """Kinds the crew accepts to prove dead; None: the practice's own."""


def _kinds_for(purpose: Purpose) -> tuple[Kind, ...]:
    """Kinds of tester that can answer a question at all, but for proving dead."""
    return tuple(kind for kind in KINDS.values() if purpose in kind.purposes)


def kinds_accepted(task: Task) -> tuple[Kind, ...]:
    """Kinds of tester that can answer the task's question."""
    if task.purpose is Purpose.PROVE_DEAD:
        accepted = task.dead_kinds
        return tuple(KINDS[k] for k in task.practice.dead_kinds) if accepted is None else accepted
    return _kinds_for(task.purpose)
