"""What can be true only where a supply has two or three lines, a row a condition.

Split phase, star and high-leg delta; see `supplies.systems`. Single faults of one line are in `one_line`.
"""

from evenprobe.wiring.arrangements import (
    OPEN,
    high_leg_misplaced,
    lost_or_failing,
    one_line_lost,
    other_legs,
    two_lines_exchanged,
    two_on_one_leg,
)
from evenprobe.wiring.condition import Condition, Severity
from evenprobe.wiring.unknowns import Range

FAILING_SERVICE = Range(1.0, 200.0, "log")
ONE_TAP = "120"
SPLIT_PHASE = "120/240"
HIGH_LEG = "240-high-leg"
STARS = ("208Y/120", "480Y/277", "230/400")

SEVERAL_LINES: tuple[Condition, ...] = (
    Condition(
        "same-leg",
        Severity.HAZARD,
        0.02,
        "two {line} contacts on one leg",
        "line-to-line equipment does nothing; the shared neutral carries the sum and runs hot",
        "both devices on one bar of the board, or a two-pole device in the wrong slot",
        "isolate, prove dead, move one line to the other leg",
        ways=two_on_one_leg,
        lines=(2, 3),
    ),
    Condition(
        "same-leg-open-earth",
        Severity.HAZARD,
        0.001,
        "two {line} contacts on one leg, {earth} open",
        "line-to-line equipment does nothing, and metalwork is not protected",
        "an old cable used again with a conductor too few",
        "isolate, prove dead, move one line to the other leg and restore the protective conductor",
        ways=two_on_one_leg,
        joints={"earth": OPEN},
        lines=(2, 3),
    ),
    Condition(
        "leg-open",
        Severity.DEFECT,
        0.03,
        "one leg lost at the supply",
        "half of the board is dead, or lives at odd voltage while line-to-line equipment is on",
        "a fuse or joint at the origin, a worn bar or one pole of the main device",
        "switch off line-to-line equipment; report it or isolate and remake the joint",
        ways=one_line_lost,
        lines=(2,),
    ),
    Condition(
        "phase-missing",
        Severity.DEFECT,
        0.03,
        "one phase missing at the supply",
        "motors hum and do not start, or run hot; a third of the board is dead or at odd voltage",
        "a fuse or joint at the origin or one pole of the device",
        "switch motors off at once; find the open pole",
        ways=one_line_lost,
        lines=(3,),
    ),
    Condition(
        "two-legs-of-star",
        Severity.NOTE,
        0.05,
        "two legs of a star, not a split phase",
        "208 V between lines where 240 V was expected: heaters give three quarters of their power",
        "the board: three lines, or the building's service",
        "nothing to mend; see that the equipment is made for it",
        ways=other_legs,
        lines=(2,),
        systems=(SPLIT_PHASE,),
    ),
    Condition(
        "line-to-line-on-high-leg",
        Severity.NOTE,
        0.3,
        "one {line} is the high leg",
        "nothing: between lines it is like any other",
        "the middle bar of a delta board, 208 V to earth",
        "nothing to mend; nothing made for line to neutral may ever be joined to it",
        ways=other_legs,
        lines=(2,),
        systems=(HIGH_LEG,),
    ),
    Condition(
        "neutral-open-at-source",
        Severity.DANGER,
        0.004,
        "{neutral} lost or failing at the source",
        "lamps on one leg too bright, on the other too dim; metalwork may carry the return current",
        "the neutral at the origin, the meter or the transformer; both legs odd with their sum right",
        "switch off now and report it: nothing may be used until the neutral is whole",
        ways=lost_or_failing,
        joints={"service": FAILING_SERVICE},
        disturbs=("neutral",),
        systems=(SPLIT_PHASE, HIGH_LEG, *STARS),
    ),
    Condition(
        "phase-sequence-reversed",
        Severity.DEFECT,
        0.05,
        "phase sequence reversed",
        "motors run backwards",
        "two lines exchanged here or at the board; only a rotation indicator shows it",
        "isolate, prove dead, exchange two lines",
        ways=two_lines_exchanged,
        lines=(3,),
    ),
    Condition(
        "high-leg-on-single-phase",
        Severity.DANGER,
        0.01,
        "high leg where an ordinary {line} belongs",
        "single-phase equipment burns out at once",
        "the middle bar of a delta board, 208 V to neutral",
        "switch off now, isolate, move it to an ordinary leg",
        ways=high_leg_misplaced,
        systems=(HIGH_LEG, SPLIT_PHASE, ONE_TAP),
        priors=dict.fromkeys((SPLIT_PHASE, ONE_TAP), 0.0005),
    ),
    Condition(
        "neutral-and-line-swapped-at-board",
        Severity.DANGER,
        0.004,
        "{neutral} and a {line} swapped at the board",
        "equipment between the other line and neutral gets line to line",
        "the neutral's conductor on the device and a line's on the neutral bar",
        "switch off now, lock, put them right",
        contacts=("neutral", "line", "earth"),
        taps_too=True,
        lines=(2, 3),
    ),
)
