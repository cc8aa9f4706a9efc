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
    if not ranked:
        return ()
    volts = potentials(ensemble, elimination, np.concatenate([s.rows for s in ranked]), terminals)
    of_each = np.split(volts, np.cumsum([len(s.rows) for s in ranked[:-1]]), axis=1)
    for standing, own in zip(ranked, of_each, strict=True):
        low_middle_high = np.quantile(own, [0.05, 0.5, 0.95], axis=1).T.tolist()
        spread = {t: (low, middle, high) for t, (low, middle, high) in zip(terminals, low_middle_high, strict=True)}
        for story in told:
            apart = max(abs(story.spread[t][1] - spread[t][1]) for t in terminals)
            if apart < ALIKE * ensemble.point.system.nominal_volts:
                story.members.append(standing.condition.id)
                break
        else:
            told.append(_Told([standing.condition.id], spread, int(standing.rows[0])))
    worst_next = sorted(told[1:], key=lambda story: -_worst(story.members, outcome))
    chosen = [*told[:1], *worst_next][:MOST]
    rows = np.array([story.row for story in chosen])
    phasors = (ensemble.phasors(terminals, rows) * elimination.scale[rows]).T.tolist()
    return tuple(
        Story(
            outcome[story.members[0]].condition.title_in(ensemble.point.practice),
            tuple(story.members),
            outcome[story.members[0]].severity,
            story.spread,
            dict(zip(terminals, own, strict=True)),
        )
        for story, own in zip(chosen, phasors, strict=True)
    )


@dataclass(frozen=True)
class _Told:
    """Conditions that put the conductors alike, and where: by the first of them."""

    members: list[str]
    spread: dict[Terminal, tuple[float, float, float]]
    row: int


def _worst(members: Sequence[str], outcome: dict[str, ConditionOutcome]) -> Severity:
    return max(outcome[member].severity for member in members)
