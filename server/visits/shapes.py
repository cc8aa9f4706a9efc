"""What the routes of visits take and give."""

from datetime import date, datetime
from typing import Annotated, Any
from uuid import UUID

from ninja import Schema

from base.shapes import Named, ToldLater
from evenprobe.entries import Day
from evenprobe.entries.documented import Among
from evenprobe.formats.words import PracticeWord, VerdictWord
from evenprobe.planning import Work
from visits.models import VisitEvent

WorkWord = Annotated[str, Among(Work)]
StandsWord = Annotated[str, Among(("planned", "begun", "closed"))]
PlaceWord = Annotated[
    str, Among(("proof", "new-proof", "sheet", "new-sheet", "point", "hunt", "round", "visit", "circuit"))
]
"""Where something is done, or closed."""


class VisitNext(Schema):
    """The one next thing. `place`, `of`: where it is done."""

    title: str
    said: str
    place: PlaceWord
    of: UUID


class VisitLine(Schema):
    """`done` of `steps`; `open`: how many things are open there; `minutes`: what is left takes, one by one."""

    id: UUID
    site: Named
    why: str
    planned_for: date
    state: StandsWord
    begun_at: datetime | None
    closed_at: datetime | None
    by: str
    steps: int
    done: int
    minutes: float
    next: VisitNext | None
    open: int
    unshown: str = ""
    """Why it cannot be shown, with a reference."""


class VisitStep(Schema):
    """`since`: the day its minutes are known from; none where they are the house table's."""

    work: WorkWord
    title: str
    circuit: Named
    board: str
    points: list[str]
    minutes: float
    since: date | None
    two_people: str
    state: Annotated[str, Among(("left", "under-way", "done"))]
    said: str
    place: PlaceWord
    of: UUID


class GoesDarkOut(Schema):
    circuit: str
    places: list[str]
    minutes: float


class FitTester(Schema):
    """`why`: what keeps it from being fit; empty where it is."""

    id: UUID
    label: str
    why: list[str]


class BringOut(Schema):
    """What a tester is wanted for, those that are fit for it the best first, and those that are not, with why."""

    purpose: str
    systems: list[str]
    fit: list[FitTester]
    unfit: list[FitTester]


class OpenOut(Schema):
    text: str
    since: datetime
    by: str
    place: PlaceWord
    of: UUID
    event: UUID | None


class NoteOut(Schema):
    at: datetime
    by: str
    text: str


class VisitOut(VisitLine):
    practice: PracticeWord
    circuits: list[UUID]
    works: list[WorkWord]
    plan: list[VisitStep]
    warn: list[GoesDarkOut]
    way: list[str]
    bring: list[BringOut]
    still_open: list[OpenOut]
    notes: list[NoteOut]
    people: list[str]


class PlannableOut(Schema):
    """A circuit to plan. `last_tested`: the last reading or dead test; `worst`: the verdict of its points."""

    id: UUID
    name: str
    board: str
    points: int
    last_tested: date | None
    worst: VerdictWord
    safe: bool


class VisitIn(Schema):
    site: UUID
    why: str
    planned_for: Day
    circuits: list[UUID]
    works: list[WorkWord]


class VisitEventIn(ToldLater):
    kind: Annotated[str, Among(VisitEvent.Kind.values)]
    entry: dict[str, Any] = {}
