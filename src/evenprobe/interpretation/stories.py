"""Which stories of the potentials still fit: pair voltages fix distances, not where zero is."""

from collections.abc import Sequence

import numpy as np

from evenprobe.interpretation.bank import Bank
from evenprobe.interpretation.elimination import Elimination, potentials
from evenprobe.interpretation.outcome import ConditionOutcome, Story
from evenprobe.wiring import Severity, Terminal

MOST = 3
ALIKE = 0.3
"""Stories whose potentials agree within this share of nominal are one."""


def stories(bank: Bank, elimination: Elimination, outcomes: Sequence[ConditionOutcome]) -> tuple[Story, ...]:
    """At most three: the likeliest first, then the worst of those that lie differently."""
    outcome = {o.condition.id: o for o in outcomes}
    terminals = [t for t in bank.point.terminals if t is not Terminal.REF]
    told: list[tuple[list[str], dict[Terminal, tuple[float, float, float]]]] = []
    ranked = sorted(elimination.standing, key=lambda s: -outcome[s.condition.id].likelihood)
    for standing in ranked:
        spread: dict[Terminal, tuple[float, float, float]] = {}
        for terminal in terminals:
            volts = potentials(bank, elimination, standing, terminal)
            low, middle, high = np.quantile(volts, [0.05, 0.5, 0.95])
            spread[terminal] = (float(low), float(middle), float(high))
        for members, known in told:
            apart = max(abs(known[t][1] - spread[t][1]) for t in terminals)
            if apart < ALIKE * bank.point.system.nominal_volts:
                members.append(standing.condition.id)
                break
        else:
            told.append(([standing.condition.id], spread))
    worst_next = sorted(told[1:], key=lambda story: -_worst(story[0], outcome))
    return tuple(
        Story(
            outcome[members[0]].condition.in_words(outcome[members[0]].condition.title, bank.point.practice),
            tuple(members),
            _worst(members, outcome),
            spread,
        )
        for members, spread in [*told[:1], *worst_next][:MOST]
    )


def _worst(members: Sequence[str], outcome: dict[str, ConditionOutcome]) -> Severity:
    return max(outcome[member].severity for member in members)
