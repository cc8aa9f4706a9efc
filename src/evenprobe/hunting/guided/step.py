"""What a guided hunt is made of: steps, what each may show, and where that leads. Data."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import ClassVar

from evenprobe.hunting.findings import HuntState
from evenprobe.hunting.intake import Conductor
from evenprobe.registry import Listed
from evenprobe.sentences import Sentence

OVER = float("inf")
"""What an ohmmeter's over-range comes to."""
Figures = Mapping[str, float]


@dataclass(frozen=True)
class Asked:
    """A number that is measured at a step.

    Parameters
    ----------
    id
        As files write it.
    title
        What it is of, with what the practice names in braces.
    unit
        Its unit.
    may_be_over
        Whether the display may show over-range.
    """

    id: str
    title: str
    unit: str
    may_be_over: bool = False


@dataclass(frozen=True)
class Facts:
    """What is on record of the circuit, and what was measured at this step before.

    `earlier`: figures of each name that was gone through. `first`: those of the steps that were measured once, by step.
    """

    volts: float
    rating_a: float | None = None
    residual_ma: float | None = None
    curve: str | None = None
    earlier: Mapping[str, Figures] | None = None
    first: Mapping[str, Figures] | None = None


@dataclass(frozen=True)
class Judged:
    """What figures come to: the outcome, none where the step goes on, and what is said of them."""

    outcome: str | None
    said: Sentence
    between: tuple[Conductor, Conductor] | None = None


@dataclass(frozen=True)
class Outcome:
    """What a step may show.

    Parameters
    ----------
    id, title
        As files write it, and as it is tapped.
    to
        The step or the ending it leads to; the step itself where it is of one of several.
    of_all
        At a step that goes through several: whether it is of all of them, not of one by name.
    """

    id: str
    title: str
    to: str
    of_all: bool = False


@dataclass(frozen=True)
class Step:
    """One thing to do.

    Parameters
    ----------
    id, title
        As files write it, and what it is in a few words.
    do
        How, sentence by sentence.
    outcomes
        What it may show. Those that figures decide are not tapped.
    dead
        Whether a hand goes in: only where the circuit is proved dead.
    asks
        What is measured.
    judge
        What the figures come to.
    each
        What is gone through one after another at this step: `appliance` or `circuit`, told by name, or `point`, those
        of the run.
    names
        Whose name is told with the outcome; empty where none is.
    picture
        What a picture may be kept of; empty where of nothing.
    """

    id: str
    title: str
    do: tuple[str, ...]
    outcomes: tuple[Outcome, ...]
    dead: bool = False
    asks: tuple[Asked, ...] = ()
    judge: Callable[[Figures, Facts], Judged] | None = None
    each: str = ""
    names: str = ""
    picture: str = ""

    @property
    def to_tap(self) -> tuple[Outcome, ...]:
        """Outcomes that somebody tells; the others follow from figures."""
        return tuple(o for o in self.outcomes if not self.asks or o.of_all)


@dataclass(frozen=True)
class Ending:
    """Where a guided hunt leads.

    Parameters
    ----------
    id, title
        As answers write it, and what was found.
    do
        What is left to do.
    state
        Found, or clear where nothing was.
    hunt, between
        What is hunted from here on, a kind of hunt, and between which; empty where nothing is, or the usual two.
    """

    id: str
    title: str
    do: tuple[str, ...]
    state: HuntState = HuntState.FOUND
    hunt: str = ""
    between: tuple[Conductor, Conductor] | None = None


@dataclass(frozen=True, eq=False)
class Guide(Listed):
    """A guided hunt.

    Parameters
    ----------
    id
        As a circuit file's `hunt` says it.
    steps
        The first is where it begins.
    endings
        Where it can lead.
    """

    listed_as: ClassVar[str] = "guide"

    id: str
    steps: tuple[Step, ...]
    endings: tuple[Ending, ...]

    def step(self, name: str) -> Step | None:
        return next((step for step in self.steps if step.id == name), None)

    def title_of(self, name: str) -> str:
        """Of a step or an ending."""
        found = self.step(name) or self.ending(name)
        return found.title if found else ""

    def ending(self, name: str) -> Ending | None:
        return next((ending for ending in self.endings if ending.id == name), None)
