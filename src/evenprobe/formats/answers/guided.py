"""How far a guided hunt is: what was done and what chose its way, what to do now, or where it has led."""

from typing import Annotated

from evenprobe.entries.documented import Among
from evenprobe.formats.answers.answer import Answer, unless_none
from evenprobe.formats.answers.hunt import ContradictionOut
from evenprobe.hunting.findings import HuntState
from evenprobe.hunting.guided.step import Asked, Ending, Step
from evenprobe.hunting.guided.walk import Passed, Walk
from evenprobe.hunting.guided.wording import in_words, said_in
from evenprobe.hunting.intake import Conductor
from evenprobe.practices import Practice


class PassedOut(Answer):
    """A step that was done. `number`: of what was seen; `said`: the reading or outcome that chose what came then."""

    number: int
    step: str
    title: str
    outcome: str | None
    name: str
    said: str
    photo: str | None = unless_none()

    @classmethod
    def of(cls, practice: Practice, passed: Passed) -> "PassedOut":
        return cls(
            number=passed.number,
            step=passed.step.id,
            title=in_words(practice, passed.step.title),
            outcome=passed.outcome.id if passed.outcome else None,
            name=passed.name,
            said=said_in(practice, passed.said),
            photo=passed.photo,
        )


class OutcomeToTap(Answer):
    """`of_all`: of everything that is gone through at a step, not of one of it by name. `then`: what comes after it."""

    id: str
    title: str
    of_all: bool
    then: str


class AskedOut(Answer):
    id: str
    title: str
    unit: str
    may_be_over: bool

    @classmethod
    def of(cls, practice: Practice, asked: Asked) -> "AskedOut":
        title = in_words(practice, asked.title)
        return cls(id=asked.id, title=title, unit=asked.unit, may_be_over=asked.may_be_over)


class GuideStepOut(Answer):
    """What to do. `dead`: only where the circuit is proved dead. `each`: what is gone through; `left`: points to go.

    `names`: what the name that is told with the outcome is of. `picture`: what a picture may be kept of.
    """

    step: str
    title: str
    do: list[str]
    dead: bool
    each: str
    names: str
    picture: str
    outcomes: list[OutcomeToTap]
    asks: list[AskedOut]
    gone_through: list[PassedOut]
    left: list[str]

    @classmethod
    def of(cls, practice: Practice, step: Step, walk: Walk) -> "GuideStepOut":
        return cls(
            step=step.id,
            title=in_words(practice, step.title),
            do=[in_words(practice, text) for text in step.do],
            dead=step.dead,
            each=step.each,
            names=in_words(practice, step.names),
            picture=step.picture,
            outcomes=[
                OutcomeToTap(
                    id=o.id,
                    title=in_words(practice, o.title),
                    of_all=o.of_all,
                    then="" if o.to == step.id else in_words(practice, walk.guide.title_of(o.to)),
                )
                for o in step.to_tap
            ],
            asks=[AskedOut.of(practice, asked) for asked in step.asks],
            gone_through=[PassedOut.of(practice, passed) for passed in walk.gone_through.values()],
            left=list(walk.left),
        )


class EndingOut(Answer):
    """Where it led. `hunt`, `between`: what to hunt from here on. `name`: which of several it was."""

    id: str
    title: str
    do: list[str]
    name: str
    hunt: str | None = unless_none()
    between: list[Conductor] | None = unless_none()

    @classmethod
    def of(cls, practice: Practice, ending: Ending, walk: Walk) -> "EndingOut":
        return cls(
            id=ending.id,
            title=in_words(practice, ending.title),
            do=[in_words(practice, text) for text in ending.do],
            name=walk.which,
            hunt=ending.hunt or None,
            between=list(walk.between) if ending.hunt and walk.between else None,
        )


class GuidedHuntOut(Answer):
    """Of a guided hunt. `path`: what was done, in order."""

    state: Annotated[str, Among(HuntState)]
    path: list[PassedOut]
    next: GuideStepOut | None
    ending: EndingOut | None
    contradiction: ContradictionOut | None

    @classmethod
    def of(cls, practice: Practice, walk: Walk) -> "GuidedHuntOut":
        contradiction = ContradictionOut.of(walk.contradiction)
        if contradiction and walk.contradiction:
            contradiction.why = said_in(practice, walk.contradiction.why)
        return cls(
            state=str(walk.state),
            path=[PassedOut.of(practice, passed) for passed in walk.passed],
            next=GuideStepOut.of(practice, walk.at, walk) if walk.at else None,
            ending=EndingOut.of(practice, walk.ending, walk) if walk.ending else None,
            contradiction=contradiction,
        )
