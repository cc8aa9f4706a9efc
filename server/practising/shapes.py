"""What the routes of practice take and give."""

from collections.abc import Sequence
from datetime import date, datetime
from typing import Annotated, Any
from uuid import UUID

from ninja import Schema
from pydantic import Field

from base.shapes import Named
from evenprobe.entries.documented import Among
from evenprobe.formats import CaseFile
from evenprobe.formats.answers.debrief import MetOut
from evenprobe.formats.said import shown_said
from evenprobe.formats.shown import as_entry, typed
from evenprobe.formats.words import PracticeWord
from evenprobe.practices import Practice
from evenprobe.practising import Conclusion, Doing, Progress
from evenprobe.quantities import Reading
from practising.models import Practised
from practising.sandbox import circuit_id, hunt_id, place_id, point_id, site_id

ConclusionWord = Annotated[str, Among(Conclusion)]


class CaseLine(Schema):
    """A case that comes with the program. `times`: how often it was gone through; `due`: when it should come back."""

    name: str
    title: str
    complaint: str
    step: int
    practice: PracticeWord
    minutes: float
    times: int
    mastered: bool
    due: date | None


class WentThrough(Schema):
    """A case somebody went through, or is at. `conclusion`: empty while it is not over."""

    id: UUID
    title: str
    begun_at: datetime
    over: bool
    conclusion: str
    mastered: bool


class MetOne(Schema):
    """Something that was met in practice, by name."""

    name: str
    mastered: bool


class LearntOut(Schema):
    """What was met, and what of it is mastered: what cases were about, testers that were used, slips that were made."""

    about: list[MetOne]
    testers: list[MetOne]
    slips: list[MetOne]


class Learner(Schema):
    """What somebody of the crew practised: how many cases, and how they get on."""

    name: str
    cases: int
    learnt: LearntOut
    last: date | None


class PracticeList(Schema):
    """`next`: the name of the case to go through next. `learners`: of the crew, for whoever answers for them."""

    cases: list[CaseLine]
    went_through: list[WentThrough]
    learnt: LearntOut
    next: str
    learners: list[Learner]


class DrawnIn(Schema):
    """One of the cases without end: how hard, and which."""

    step: int
    seed: int


class CaseBeginIn(Schema):
    """A case that ships by its name, one drawn, or one of a file."""

    name: str = ""
    drawn: DrawnIn | None = None
    case: dict[str, Any] | None = None


class CaseMadeIn(Schema):
    """`hidden`: what is true there. `complaint`: what the customer says; what is usual for it where it is empty."""

    hidden: str
    title: str
    step: int
    complaint: str = ""


class PossibleOut(Schema):
    """What can be true at the point, in words."""

    id: str
    title: str


class FeedOut(Schema):
    """What feeds the circuit beside its own device, once somebody found it."""

    name: str
    device: Annotated[str, Among(("open", "closed"))]
    locked: bool


class ShownOut(Schema):
    """What the tester shows. `entry`: what is recorded when it is captured as it stands; none of one that is broken.

    `typed`: what is typed of a dead test.
    """

    said: str
    entry: dict[str, Any] | None = Field(default=None)
    typed: str = ""

    @classmethod
    def of(cls, reading: Reading | None, practice: Practice) -> "ShownOut":
        if reading is None:
            return cls(said="")
        entry = {**as_entry(reading), "source": "captured"}
        return cls(said=shown_said(reading, practice), entry=entry, typed=typed(reading))


class OutletOut(Schema):
    """`id`: the point's in the sandbox; `mark`: what it is called among what can be ruled out."""

    id: UUID
    mark: str


class CaseOut(Schema):
    """How far a case is. `device`: how the circuit's own is; `blown`: testers that show nothing any more.

    `to_be_made_dead`: it is over with hands on it, proved dead. `hunt`: instead, what is hunted in it, whose boxes of
    these ids are `opened`. `outlets`: instead, of a round. `looked`: for what else feeds it; `feed`: if found.
    `shown`: whether what the readings allow may be seen. `display`: what the tester shows whose probes were just put
    on, in the answer to that alone. `ended`: why it is over, where that was no conclusion.
    """

    id: UUID
    title: str
    complaint: str
    step: int
    site: UUID
    circuit: UUID
    point: Named
    begun_at: datetime
    claimed_minutes: float
    to_be_made_dead: bool
    hunt: UUID | None
    outlets: list[OutletOut]
    opened: list[UUID]
    device: Annotated[str, Among(("open", "closed"))]
    locked: bool
    looked: bool
    feed: FeedOut | None
    touched: bool
    blown: list[str]
    dangers: list[MetOut]
    hints: list[str]
    shown: bool
    possible: list[PossibleOut]
    ruled_out: list[str]
    over: bool
    ended: str
    display: ShownOut | None = None

    @classmethod
    def of(cls, practised: Practised, file: CaseFile, found: Progress, testers: dict[str, str]) -> "CaseOut":
        points = file.installation.points
        dangers, feed = [MetOut.of(met, testers) for met in found.met], file.hidden.other_feed
        return cls(
            id=practised.pk,
            title=file.title,
            complaint=file.complaint,
            step=file.step,
            site=site_id(practised.pk),
            circuit=circuit_id(practised.pk),
            point=Named(id=practised.point, name=points[0].label or file.title),
            begun_at=practised.begun_at,
            claimed_minutes=file.minutes,
            to_be_made_dead=file.solved.dead,
            hunt=hunt_id(practised.pk) if file.hunted else None,
            outlets=[
                OutletOut(id=point_id(practised.pk, file, n), mark=point.id)
                for n, point in enumerate(points)
                if file.solved.each
            ],
            opened=sorted(place_id(practised.pk, box) for box in found.opened),
            device=found.device,
            locked=found.locked,
            looked=found.looked,
            feed=FeedOut(name=feed, device=found.feed, locked=found.feed_locked) if feed and found.looked else None,
            touched=found.touched,
            blown=sorted(found.blown),
            dangers=dangers,
            hints=[hint.said for hint in found.hints],
            shown=found.shown,
            possible=[PossibleOut(id=id, title=title) for id, title in file.possible().items()],
            ruled_out=sorted(found.ruled_out),
            over=found.is_over,
            ended=dangers[-1].text if found.ended else "",
        )


class ActIn(Schema):
    """`conditions`: of marks what is ruled out, of a conclusion what it is. `entry`, `tester`: of probes put on.

    `entry` of a box that is opened: `at`, where it is. `point`: of a round, at which outlet.
    """

    doing: Doing
    conditions: list[str] = []
    entry: dict[str, Any] = {}
    tester: UUID | None = None
    point: UUID | None = None


class ShownIn(Schema):
    """A reading as the survey format has it, without what was seen; none on a known source. And what is in the hand.

    Of a dead test the `sheet` and its `line`, with what was picked as `test`; without a line, the tips together. Of a
    hunt the `hunt`, where they are (`at`), the `side` of an open box, the `function`, and `from` and `to`. Of a round
    the `point`.
    """

    entry: dict[str, Any] | None = None
    tester: UUID | None = None
    point: UUID | None = None


def went_through(rows: Sequence[Practised]) -> list[WentThrough]:
    return [
        WentThrough(
            id=row.pk,
            title=row.case["title"],
            begun_at=row.begun_at,
            over=hasattr(row, "debrief"),
            conclusion=row.debrief.conclusion if hasattr(row, "debrief") else "",
            mastered=hasattr(row, "debrief") and row.debrief.mastered,
        )
        for row in rows
    ]
