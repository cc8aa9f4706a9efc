"""What an interpretation says of a point: value objects, in SI units, unrounded."""

from dataclasses import dataclass
from enum import StrEnum

from evenprobe.conditions import Condition, Severity
from evenprobe.limits import Limit
from evenprobe.practices import Practice
from evenprobe.quantities import Measurement, Quantity
from evenprobe.sentences import Sentence
from evenprobe.wiring import Terminal


class Verdict(StrEnum):
    """What a point comes to, of what still stands."""

    UNTESTED = "untested"
    CONTRADICTORY = "contradictory"
    CORRECT = "correct"
    SAFE = "safe"
    UNCONFIRMED = "unconfirmed"
    DEFECT = "defect"
    HAZARD = "hazard"
    DANGER = "danger"

    @property
    def is_safe(self) -> bool:
        """Whether nothing dangerous still fits."""
        return self in (Verdict.SAFE, Verdict.CORRECT)


WORST_FIRST = (
    Verdict.DANGER,
    Verdict.CONTRADICTORY,
    Verdict.HAZARD,
    Verdict.DEFECT,
    Verdict.UNCONFIRMED,
    Verdict.UNTESTED,
    Verdict.SAFE,
    Verdict.CORRECT,
)
"""By what needs doing."""


class JudgementResult(StrEnum):
    """A value against a limit. `BORDERLINE`: the tester's error decides."""

    PASS = "pass"
    FAIL = "fail"
    BORDERLINE = "borderline"


@dataclass(frozen=True)
class Reason:
    """Why a condition fell: the reading that excludes it, what it would have shown, what was seen.

    `seen` is the value, or for a step the end of its interval that excludes.
    """

    reading: str
    would_show: tuple[float, float]
    quantity: Quantity
    seen: float

    @property
    def text(self) -> str:
        """The range in words."""
        low, high = (self.quantity.said(value) for value in self.would_show)
        return low if low == high else f"{low} to {high}"


@dataclass(frozen=True)
class Near:
    """A condition that comes near to explaining readings nothing explains, in tolerances, and what it misses most.

    `missed`: the measurement that it misses most by.
    """

    condition: Condition
    misfit: float
    reason: Reason
    missed: Measurement


@dataclass(frozen=True)
class ConditionOutcome:
    """`likelihood` sums to 1 over what stands; it orders, and never decides.

    `lines`: of a condition about one line of several, those it can be about; empty where that is not known.
    """

    condition: Condition
    severity: Severity
    standing: bool
    strained: bool
    likelihood: float
    reasons: tuple[Reason, ...] = ()
    lines: tuple[tuple[str, ...], ...] = ()


@dataclass(frozen=True)
class Judgement:
    """One reading against one limit. `interval`: every true value the reading allows."""

    limit: Limit
    reading: str
    result: JudgementResult
    interval: tuple[float, float]
    text: str


@dataclass(frozen=True)
class NextMeasurement:
    measurement: Measurement
    rules_out: tuple[str, ...]
    information_bits: float
    seconds: float
    why: str


@dataclass(frozen=True)
class Story:
    """One way the potentials can lie: volts against the mass of earth by terminal, (low, middle, high).

    `phasors`: where that sample puts them that comes nearest the readings, the first line's source at no angle.
    """

    title: str
    conditions: tuple[str, ...]
    severity: Severity
    potentials: dict[Terminal, tuple[float, float, float]]
    phasors: dict[Terminal, complex]


@dataclass(frozen=True)
class NotCounted:
    """`warns`: it cannot confirm safe and strikes nothing out, and makes the verdict worse all the same."""

    reading: str
    why: str
    warns: bool = False


class State(StrEnum):
    """What a question beside the wiring comes to."""

    NOT_TESTED = "not-tested"
    NOT_PRESENT = "not-present"
    PASS = "pass"
    BORDERLINE = "borderline"
    FAIL = "fail"


@dataclass(frozen=True)
class BesideWiring:
    """`reading`: the one that decides, None where there is none."""

    state: State
    why: str
    reading: str | None = None


@dataclass(frozen=True)
class PointInterpretation:
    """`verdict` is of the wiring; `insulation` and `protection` have answers of their own."""

    practice: Practice
    verdict: Verdict
    said: tuple[Sentence, ...]
    insulation: BesideWiring
    protection: BesideWiring
    conditions: tuple[ConditionOutcome, ...] = ()
    judgements: tuple[Judgement, ...] = ()
    retake: tuple[str, ...] = ()
    nearest: tuple[Near, ...] = ()
    next_tests: tuple[NextMeasurement, ...] = ()
    next_tests_note: str = ""
    stories: tuple[Story, ...] = ()
    not_counted: tuple[NotCounted, ...] = ()
    healthy_band: tuple[float, float] | None = None
    direct: Sentence | None = None
    """What is said of a direct voltage, where one stands."""

    @property
    def summary(self) -> str:
        """The verdict in words."""
        return " ".join(str(sentence) for sentence in self.said)
