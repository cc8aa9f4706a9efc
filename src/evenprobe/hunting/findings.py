"""What a hunt has come to: where the fault can still be, and where to go next."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from enum import StrEnum

from evenprobe.hunting.evidence import Looked, Presence, Split
from evenprobe.hunting.run import Place
from evenprobe.sentences import Sentence

Seen = Split | Presence | Looked


class HuntState(StrEnum):
    """How far a hunt is."""

    HUNTING = "hunting"
    FOUND = "found"
    CLEAR = "clear"
    CONTRADICTORY = "contradictory"


class Task(StrEnum):
    """What is to be done at the next place."""

    OPEN = "open"
    PROBE = "probe"
    MEASURE = "measure"


@dataclass(frozen=True)
class Chance:
    """One outcome of what is done next, how likely it is, and what was seen where it comes to that."""

    when: str
    share: float
    seen: Seen | None = None


@dataclass(frozen=True)
class NextPlace:
    """Where to go next.

    `minutes`: expected of the whole plan from here. `outcomes`: what may show there.
    """

    at: str
    task: Task
    minutes: float
    outcomes: tuple[Chance, ...]
    why: Sentence


@dataclass(frozen=True)
class Contradiction:
    """Two of what was seen, by number, that cannot both be."""

    between: tuple[int, int]
    why: Sentence


@dataclass(frozen=True)
class Joint:
    """A poor joint by what it drops.

    `ohm`: what it has beyond a sound run, least and most. `watts`: what it turns into heat at the load's `amperes`.
    """

    conductor: str
    ohm: tuple[float, float]
    watts: float
    amperes: float


@dataclass(frozen=True)
class Hunt:
    """What a hunt has come to.

    Parameters
    ----------
    state
        How far it is.
    share
        Of what can still be at fault, how likely; they sum to one.
    next
        Where to go, None where it is over or nothing tells any more.
    exact
        Whether no other plan takes fewer minutes, by reckoning all of them.
    in_order_minutes
        What opening one after another takes, expected.
    energise_up_to
        The last opened point before which everything is clear.
    distance_m
        Of cable from the board to the nearest and the farthest place it can be at.
    joints
        Poor joints that were measured.
    contradiction
        Of what was seen.
    advice
        What has to be thought of besides, such as a load that is still in.
    """

    state: HuntState
    share: Mapping[Place, float] = field(default_factory=dict)
    next: NextPlace | None = None
    exact: bool = True
    in_order_minutes: float = 0.0
    energise_up_to: str | None = None
    distance_m: tuple[float, float] | None = None
    joints: Sequence[Joint] = ()
    contradiction: Contradiction | None = None
    advice: Sentence | None = None
