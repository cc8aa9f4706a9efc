"""What a log amounts to: the state, what is missing, what went wrong, and the next step."""

from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum

from evenprobe.isolation.log import Mode, Source
from evenprobe.isolation.sentences import STEPS
from evenprobe.sentences import Sentence
from evenprobe.wiring import Terminal


class State(StrEnum):
    """How a proof of isolation stands."""

    ENERGISED = "energised"
    ISOLATED = "isolated"
    PROVING = "proving"
    PROVED_DEAD = "proved-dead"
    VOID = "void"
    CLOSED = "closed"


@dataclass(frozen=True)
class Missing:
    code: str
    said: Sentence
    source: str | None = None
    pair: tuple[Terminal, Terminal] | None = None
    mode: Mode | None = None

    @property
    def text(self) -> str:
        return str(self.said)


@dataclass(frozen=True)
class Problem:
    """`event`: index in the log. `reasons`: kit codes, where a tester is unfit."""

    code: str
    said: Sentence
    event: int
    reasons: tuple[str, ...] = ()

    @property
    def text(self) -> str:
        return str(self.said)


@dataclass(frozen=True)
class Doubt:
    """A pair that showed more than nothing and less than the touch limit.

    `tester`: who has to repeat it on low impedance; empty where any fit one may, for it cannot confirm safe itself.
    """

    problem: Problem
    points: tuple[Terminal, Terminal]
    tester: str
    mode: Mode


@dataclass(frozen=True)
class PairState:
    """`volts`: as last shown; `below`: the step that stayed dark, on a tester without a value."""

    pair: tuple[Terminal, Terminal]
    done: bool
    volts: float | None = None
    below: float | None = None
    needs: Mode | None = None
    """The mode still to be read on this pair."""
    unexplained: bool = False


@dataclass(frozen=True)
class SourceState:
    source: Source
    off: bool
    locked: bool
    lock: str = ""


class StepKind(StrEnum):
    """What the next step of a proof is."""

    FIND_SOURCE = "find-source"
    SWITCH_OFF = "switch-off"
    LOCK = "lock"
    PROVE = "prove"
    TEST = "test"
    LOW_IMPEDANCE = "low-impedance"
    PROVE_AGAIN = "prove-again"
    STATE = "state"
    KEEP = "keep"
    NOTHING = "nothing"


@dataclass(frozen=True)
class Step:
    """The one next step. `tester`: the one to go on with."""

    kind: StepKind
    said: Sentence
    source: str | None = None
    pair: tuple[Terminal, Terminal] | None = None
    mode: Mode | None = None
    tester: str | None = None

    @property
    def text(self) -> str:
        return str(self.said)


CLOSED = Step(StepKind.NOTHING, STEPS.say("closed"))


@dataclass(frozen=True)
class Isolation:
    """`history`: problems that have been settled since. `prove_again_by`: the readings wait for a proof till then."""

    state: State
    proved_at: datetime | None
    expires_at: datetime | None
    missing: tuple[Missing, ...]
    problems: tuple[Problem, ...]
    pairs: tuple[PairState, ...]
    sources: tuple[SourceState, ...]
    ahead: tuple[Step, ...] = (CLOSED,)
    """What to do next, and what after it if all goes well."""
    history: tuple[Problem, ...] = ()
    counted: tuple[int, ...] = ()
    """Events whose reading or proof holds the state up."""
    tester: str | None = None
    prove_again_by: datetime | None = None
    stated_at: datetime | None = None
    stated_by: str = ""
    was_proved_at: datetime | None = None
    loosened: tuple[str, ...] = ()
    reason: str = ""

    @property
    def next_step(self) -> Step:
        """The one next thing to do."""
        return self.ahead[0]
