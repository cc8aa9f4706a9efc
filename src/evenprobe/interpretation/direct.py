"""Direct voltage where the supply is alternating: what feeds it is none of the supply's, so it is certain by itself.

IEC 61140 and IEC 60364-4-41 for what a hand may touch. Only a direct zero on an alternating circuit says nothing.
"""

from collections.abc import Sequence
from dataclasses import replace

from evenprobe.conditions import Condition, Severity
from evenprobe.interpretation.findings import ConditionOutcome
from evenprobe.interpretation.sentences import DIRECT
from evenprobe.limits.voltages import DRY_TOUCH_DC_VOLTS
from evenprobe.practices import Practice
from evenprobe.quantities import Direct, Kept
from evenprobe.quantities.weighed import FEEDS_DIRECT
from evenprobe.sentences import Sentence

_PRESENT = Condition(
    id="direct-voltage-present",
    severity=Severity.HAZARD,
    prior=0.01,
    title="direct voltage present",
    symptom="a tester shows direct voltage where the supply is alternating",
    cause="solar panels, a battery, a rectifier or a charged capacitor",
    remedy="switch off every source, lock, let it discharge, measure direct and alternating voltage again",
)
_LIKELIHOOD = 0.9
"""It was measured; what else is true of the wiring shares the rest."""


def direct_voltage(directs: Sequence[Direct], kept: Sequence[Kept]) -> list[Direct]:
    """Direct voltages that low impedance did not bring to nothing in the same place, the highest on metalwork first."""
    collapsed = {
        k.reading.measurement.setup("input") for k in kept if k.no_direct and k.reading.measurement.at_low_impedance
    }
    found = [
        d
        for d in directs
        if d.reading.measurement.at_low_impedance or d.reading.measurement.setup("input") not in collapsed
    ]
    return sorted(found, key=lambda d: (-d.metal, -d.volts, d.reading.id))


def on_metal(directs: Sequence[Direct]) -> bool:
    """Whether any is on metalwork and more than a dry hand may touch."""
    return any(d.metal and d.volts > DRY_TOUCH_DC_VOLTS for d in directs)


def with_direct(outcomes: Sequence[ConditionOutcome], directs: Sequence[Direct]) -> tuple[ConditionOutcome, ...]:
    """The same, with direct voltage standing before all else where one stands."""
    if not directs:
        return tuple(outcomes)
    severity = Severity.DANGER if on_metal(directs) else _PRESENT.severity
    share = _LIKELIHOOD if any(o.standing for o in outcomes) else 1.0
    found = ConditionOutcome(_PRESENT, severity, standing=True, strained=False, likelihood=share)
    return (found, *(replace(o, likelihood=o.likelihood * (1 - share)) for o in outcomes))


def direct_sentence(directs: Sequence[Direct], practice: Practice) -> Sentence | None:
    """What is said of the worst direct voltage that stands; None where none does."""
    if not directs:
        return None
    worst = directs[0]
    m = worst.reading.measurement
    ends = practice.between(m.from_, m.to, word="and")
    feeds = f"{FEEDS_DIRECT[0].upper()}{FEEDS_DIRECT[1:]}"
    where = "on-metal" if on_metal(directs[:1]) else "elsewhere"
    return DIRECT.say(where, shown=worst.shows, ends=ends, feeds=feeds)
