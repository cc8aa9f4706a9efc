"""What can be true only where a supply has two or three lines, a row a condition.

Split phase, star and high-leg delta; see `supplies.systems`. Single faults of one line are in `one_line`.
"""

from evenprobe.conditions.condition import Condition, Severity
from evenprobe.conditions.variants import (
    OPEN,
    high_leg_misplaced,
    lost_or_failing,
    one_line_lost,
    other_legs,
    two_lines_exchanged,
    two_on_one_leg,
)
from evenprobe.wiring.unknowns import Range

_FAILING_SERVICE = Range(1.0, 200.0, "log")
_ONE_TAP = "120"
SPLIT_PHASE = "120/240"
HIGH_LEG = "240-high-leg"
_STARS = ("208Y/120", "480Y/277", "230/400")

SEVERAL_LINES: tuple[Condition, ...] = (
    Condition(
        id="same-leg",
        severity=Severity.HAZARD,
        prior=0.02,
        title="two {line} contacts on one leg",
        symptom="line-to-line equipment does nothing; the shared neutral carries the sum and runs hot",
        cause="both devices on one bar of the {board}, or a two-pole device in the wrong slot",
        remedy="isolate, prove dead, move one line to the other leg",
        variants=two_on_one_leg,
        lines=(2, 3),
    ),
    Condition(
        id="same-leg-open-earth",
        severity=Severity.HAZARD,
        prior=0.001,
        title="two {line} contacts on one leg, {earth} open",
        symptom="line-to-line equipment does nothing, and metalwork is not protected",
        cause="an old cable used again with a conductor too few",
        remedy="isolate, prove dead, move one line to the other leg and restore the {protective}",
        variants=two_on_one_leg,
        joints={"earth": OPEN},
        lines=(2, 3),
    ),
    Condition(
        id="leg-open",
        severity=Severity.DEFECT,
        prior=0.03,
        title="one leg lost at the supply",
        symptom="half of the {board} is dead, or lives at odd voltage while line-to-line equipment is on",
        cause="a fuse or joint at the origin, a worn bar or one pole of the main device",
        remedy="switch off line-to-line equipment; report it or isolate and remake the joint",
        variants=one_line_lost,
        lines=(2,),
    ),
    Condition(
        id="phase-missing",
        severity=Severity.DEFECT,
        prior=0.03,
        title="one phase missing at the supply",
        symptom="motors hum and do not start, or run hot; a third of the {board} is dead or at odd voltage",
        cause="a fuse or joint at the origin or one pole of the device",
        remedy="switch motors off at once; find the open pole",
        variants=one_line_lost,
        lines=(3,),
    ),
    Condition(
        id="two-legs-of-star",
        severity=Severity.NOTE,
        prior=0.05,
        title="two legs of a star, not a split phase",
        symptom="208 V between lines where 240 V was expected: heaters give three quarters of their power",
        cause="the {board}: three lines, or the building's service",
        remedy="nothing to mend; see that the equipment is made for it",
        variants=other_legs,
        lines=(2,),
        systems=(SPLIT_PHASE,),
    ),
    Condition(
        id="line-to-line-on-high-leg",
        severity=Severity.NOTE,
        prior=0.3,
        title="one {line} is the high leg",
        symptom="nothing: between lines it is like any other",
        cause="the middle bar of a delta {board}, 208 V to {earth}",
        remedy="nothing to mend; nothing made for line to neutral may ever be joined to it",
        variants=other_legs,
        lines=(2,),
        systems=(HIGH_LEG,),
    ),
    Condition(
        id="neutral-open-at-source",
        severity=Severity.DANGER,
        prior=0.004,
        title="{neutral} lost or failing at the source",
        symptom="lamps on one leg too bright, on the other too dim; metalwork may carry the return current",
        cause="the neutral at the origin, the meter or the transformer; both legs odd with their sum right",
        remedy="switch off now and report it: nothing may be used until the neutral is whole",
        variants=lost_or_failing,
        joints={"service": _FAILING_SERVICE},
        disturbs=("neutral",),
        systems=(SPLIT_PHASE, HIGH_LEG, *_STARS),
    ),
    Condition(
        id="phase-sequence-reversed",
        severity=Severity.DEFECT,
        prior=0.05,
        title="phase sequence reversed",
        symptom="motors run backwards",
        cause="two lines exchanged here or at the {board}; only a rotation indicator shows it",
        remedy="isolate, prove dead, exchange two lines",
        variants=two_lines_exchanged,
        lines=(3,),
    ),
    Condition(
        id="high-leg-on-single-phase",
        severity=Severity.DANGER,
        prior=0.01,
        title="high leg where an ordinary {line} belongs",
        symptom="single-phase equipment burns out at once",
        cause="the middle bar of a delta {board}, 208 V to neutral",
        remedy="switch off now, isolate, move it to an ordinary leg",
        variants=high_leg_misplaced,
        systems=(HIGH_LEG, SPLIT_PHASE, _ONE_TAP),
        priors=dict.fromkeys((SPLIT_PHASE, _ONE_TAP), 0.0005),
    ),
    Condition(
        id="neutral-and-line-swapped-at-board",
        severity=Severity.DANGER,
        prior=0.004,
        title="{neutral} and a {line} swapped at the {board}",
        symptom="equipment between the other line and neutral gets line to line",
        cause="the neutral's conductor on the device and a line's on the neutral bar",
        remedy="switch off now, lock, put them right",
        contacts=("neutral", "line", "earth"),
        taps_too=True,
        lines=(2, 3),
    ),
)
