"""Which stories of the potentials still fit: pair voltages fix distances, not where zero is."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from evenprobe.conditions import Severity
from evenprobe.interpretation.elimination import Elimination, potentials
from evenprobe.interpretation.ensemble import Ensemble
from evenprobe.interpretation.findings import ConditionOutcome, Story
from evenprobe.wiring import Terminal

MOST = 3
ALIKE = 0.3
"""Stories whose potentials agree within this share of nominal are one."""


def stories(ensemble: Ensemble, elimination: Elimination, outcomes: Sequence[ConditionOutcome]) -> tuple[Story, ...]:
    """At most three: the likeliest first, then the worst of those that lie differently."""
    outcome = {o.condition.id: o for o in outcomes}
    terminals: list[Terminal] = [t for t in ensemble.point.terminals if t is not Terminal.REF]
    told: list[_Told] = []
    ranked = sorted(elimination.standing, key=lambda s: -outcome[s.condition.id].likelihood)
    for standing in ranked:
        spread: dict[Terminal, tuple[float, float, float]] = {}
        for terminal in terminals:
            volts = potentials(ensemble, elimination, standing, terminal)
            low, middle, high = np.quantile(volts, [0.05, 0.5, 0.95])
            spread[terminal] = (float(low), float(middle), float(high))
        for story in told:
            apart = max(abs(story.spread[t][1] - spread[t][1]) for t in terminals)
            if apart < ALIKE * ensemble.point.system.nominal_volts:
                story.members.append(standing.condition.id)
                break
        else:
            row = int(standing.rows[0])
            factor = float(elimination.scale[row])
            phasors = {t: factor * ensemble.phasor(t, row) for t in terminals}
            told.append(_Told([standing.condition.id], spread, phasors))
    worst_next = sorted(told[1:], key=lambda story: -_worst(story.members, outcome))
    return tuple(
        Story(
            outcome[story.members[0]].condition.title_in(ensemble.point.practice),
            tuple(story.members),
            outcome[story.members[0]].severity,
            story.spread,
            story.phasors,
        )
        for story in [*told[:1], *worst_next][:MOST]
    )


@dataclass(frozen=True)
class _Told:
    """Conditions that put the conductors alike, and where: by the first of them."""

    members: list[str]
    spread: dict[Terminal, tuple[float, float, float]]
    phasors: dict[Terminal, complex]


def _worst(members: Sequence[str], outcome: dict[str, ConditionOutcome]) -> Severity:
    return max(outcome[member].severity for member in members)
