"""A walk along a guided hunt: what was seen, step by step, and where that leads. A pure function of what was seen."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

from evenprobe.hunting.findings import Contradiction, HuntState
from evenprobe.hunting.guided.sentences import CONTRADICTIONS, SAID
from evenprobe.hunting.guided.step import Ending, Facts, Figures, Guide, Judged, Outcome, Step
from evenprobe.hunting.intake import Conductor
from evenprobe.sentences import Sentence


@dataclass(frozen=True)
class Told:
    """What was seen at a step: the outcome somebody tapped, or figures, of one of several by its name."""

    step: str
    outcome: str | None = None
    name: str = ""
    figures: Figures = field(default_factory=dict)
    photo: str | None = None


@dataclass(frozen=True)
class Passed:
    """A step that was done: what it showed, and what that was chosen by.

    `number`: of what was told. `outcome`: none where the step goes on.
    """

    number: int
    step: Step
    outcome: Outcome | None
    name: str
    said: Sentence
    photo: str | None = None


@dataclass(frozen=True)
class Walk:
    """How far a guided hunt is.

    Parameters
    ----------
    guide
        What is walked along.
    state
        Hunting until an ending is reached.
    passed
        Every step that was done, with the reading that chose its outcome.
    at
        The step that comes next, none at an ending.
    ending
        Where it has led.
    which
        What it was by name, where one was told.
    between
        Conductors that what is left to hunt is between.
    gone_through
        At the step that comes next: outcome or none by name, of those that were gone through.
    left
        Of the points to go round, those not told yet.
    contradiction
        Of what was seen.
    """

    guide: Guide
    state: HuntState
    passed: Sequence[Passed] = ()
    at: Step | None = None
    ending: Ending | None = None
    which: str = ""
    between: tuple[Conductor, Conductor] | None = None
    gone_through: Mapping[str, Passed] = field(default_factory=dict)
    left: Sequence[str] = ()
    contradiction: Contradiction | None = None


def walk(guide: Guide, seen: Sequence[Told], facts: Facts, points: Sequence[str] = ()) -> Walk:
    """Where what was seen leads.

    Parameters
    ----------
    guide
        The guided hunt.
    seen
        What was told, in order. What is told twice alike counts once.
    facts
        What is on record of the circuit.
    points
        Of the run, to go round.

    Returns
    -------
    Walk
        Up to what contradicts, where something does.

    Examples
    --------
    >>> from evenprobe.hunting.guided.tripped import TRIPPED
    >>> told = [Told("off", "dead"), Told("device", "welded")]
    >>> found = walk(TRIPPED, told, Facts(230.0))
    >>> str(found.state), found.ending.title
    ('found', 'The device does not open: treat the circuit as live')
    """
    on = _Walking(guide, facts, points)
    for number, told in enumerate(seen):
        if (why := on.go(number, told)) is not None:
            return on.stands(why)
    return on.stands(None)


class _Walking:
    def __init__(self, guide: Guide, facts: Facts, points: Sequence[str]) -> None:
        self.guide, self.facts, self.points = guide, facts, points
        self.at: Step | None = guide.steps[0]
        self.ending: Ending | None = None
        self.passed: list[Passed] = []
        self.numbers: list[tuple[int, Told]] = []
        self.first: dict[str, Figures] = {}
        self.each: dict[str, tuple[Figures, Passed]] = {}
        self.which = ""
        self.between: tuple[Conductor, Conductor] | None = None

    def go(self, number: int, told: Told) -> Contradiction | None:
        """Take one step, or say why it cannot be."""
        if self.at is None or told.step != self.at.id:
            return self._out_of_order(number, told)
        step = self.at
        before = self.each.get(told.name)
        if before is not None and step.each == "point":
            return self._told_again(number, told, before[1])
        earlier = {name: figures for name, (figures, _) in self.each.items() if name != told.name}
        judged = self._judged(step, told, earlier)
        outcome = next((o for o in step.outcomes if o.id == judged.outcome), None)
        passed = Passed(number, step, outcome, told.name, judged.said, told.photo)
        self.passed.append(passed)
        self.numbers.append((number, told))
        if judged.between is not None:
            self.between = judged.between
        if told.figures and not step.each:
            self.first[step.id] = told.figures
        to = step.id if outcome is None else outcome.to
        if step.each and told.name:
            self.each[told.name] = told.figures, passed
        if told.name and to != step.id:
            self.which = told.name
        if to != step.id:
            self.each = {}
            self.at, self.ending = self.guide.step(to), self.guide.ending(to)
            if self.ending and self.ending.between:
                self.between = self.ending.between
        return None

    @staticmethod
    def _told_again(number: int, told: Told, before: Passed) -> Contradiction | None:
        """A point was told already: alike it counts once, and otherwise they cannot both be."""
        if before.outcome is not None and before.outcome.id == told.outcome:
            return None
        why = CONTRADICTIONS.say("two-outcomes", step=before.step.title)
        return Contradiction((before.number, number), why)

    def _judged(self, step: Step, told: Told, earlier: Mapping[str, Figures]) -> Judged:
        if told.figures and step.judge is not None:
            facts = replace(self.facts, earlier=earlier, first=self.first)
            return step.judge(told.figures, facts)
        outcome = next(o for o in step.outcomes if o.id == told.outcome)
        return Judged(outcome.id, SAID.say("tapped", outcome=outcome.title))

    def _out_of_order(self, number: int, told: Told) -> Contradiction | None:
        step = self.guide.step(told.step)
        title = step.title if step else told.step
        for earlier, other in reversed(self.numbers):
            if (other.step, other.name) == (told.step, told.name):
                alike = (other.outcome, dict(other.figures)) == (told.outcome, dict(told.figures))
                why = CONTRADICTIONS.say("two-outcomes", step=title)
                return None if alike else Contradiction((earlier, number), why)
        now = self.at.title if self.at else (self.ending.title if self.ending else "")
        last = self.numbers[-1][0] if self.numbers else number
        return Contradiction((last, number), CONTRADICTIONS.say("not-there", step=title, now=now))

    def stands(self, why: Contradiction | None) -> Walk:
        led = self.ending.state if self.ending else HuntState.HUNTING
        state = HuntState.CONTRADICTORY if why is not None else led
        told = {name: passed for name, (_, passed) in self.each.items()}
        left = [point for point in self.points if point not in told] if self.at and self.at.each == "point" else []
        return Walk(self.guide, state, self.passed, self.at, self.ending, self.which, self.between, told, left, why)
