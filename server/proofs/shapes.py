"""What the routes of the proofs of isolation take and give."""

from datetime import datetime
from typing import Annotated, Any
from uuid import UUID

from ninja import Schema

from base.shapes import Named, ToldLater
from evenprobe.entries.documented import Among, WrittenAs
from evenprobe.formats.answers import IsolationOut
from evenprobe.formats.answers.isolation import NextOut
from evenprobe.formats.isolation import EventDetails, Happening
from evenprobe.formats.words import PlaceWord, PracticeWord
from evenprobe.isolation.log import EventType, SourceKind
from evenprobe.isolation.standing import State
from proofs.models import Proof

HISTORY = "history"
"""The state of what came from a file, whatever the file says of it: it never runs and nothing rests on it."""
UNSHOWN = "unshown"

WhatWord = Annotated[str, Among(Proof.What.values)]
StandingWord = Annotated[str, Among((*State, HISTORY, UNSHOWN))]


class StateOut(IsolationOut):
    """`was`: of what came from a file, how it stood by the file; else empty. `ahead`: after `next`, all going well.

    A device without a line goes on by what is ahead; how the proof stands it is only told by the server.
    """

    state: Annotated[str, Among((*State, HISTORY))]

    was: str = ""
    ahead: list[NextOut] = []


class EventOut(Schema):
    """`counts`: it holds the state up. `why`: why it does not, or what it raised."""

    id: UUID
    type: Annotated[str, Among(EventType)]
    entry: Annotated[dict[str, Any], WrittenAs(EventDetails)]
    tester: UUID | None
    tester_label: str
    at: datetime
    by: str
    counts: bool
    why: list[str]


class ProofTester(Schema):
    """A tester of the crew, for this proof.

    `sets`: whether function and range must be asked at each proof. `screens`: whether it sees a field without touching.
    """

    id: UUID
    label: str
    screens: bool
    kind_name: str
    fit: bool
    problems: list[str]
    warnings: list[str]
    rating: str
    steps_v: list[float]
    low_z: bool
    sets: bool


class ProofOut(Schema):
    id: UUID
    name: str
    what: WhatWord
    site: Named
    circuit: Named | None
    practice: PracticeWord
    system_title: str
    terminals: list[str]
    place: PlaceWord
    wet: bool
    asked: dict[str, bool]
    begun_at: datetime
    by: str
    brought_at: datetime | None
    now: datetime
    clock: str
    window_min: float
    unattended_min: float
    state: StateOut
    events: list[EventOut]
    testers: list[ProofTester]


class ProofLine(Schema):
    id: UUID
    name: str
    what: WhatWord
    site: str
    state: StandingWord
    said: str
    next: str = ""
    expires_at: datetime | None = None
    warn_at: datetime | None = None
    """From when on it is to be told that it runs out."""
    stated_by: str = ""
    unshown: str = ""
    """Why it cannot be shown, with a reference."""
    by: str
    brought_at: datetime | None
    now: datetime


class SourceIn(Schema):
    id: str
    label: str
    kind: Annotated[str, Among(SourceKind)] = "device"


class ProofIn(Schema):
    supply: UUID
    circuit: UUID | None = None
    name: str
    what: WhatWord
    terminals: list[str]
    place: PlaceWord = "installation"
    wet: bool = False
    sources: list[SourceIn]
    asked: dict[str, bool]


class EventIn(ToldLater):
    """What happened, and with what. `entry`: as the isolation format writes it, without time, author and tester."""

    entry: Annotated[dict[str, Any], WrittenAs(Happening)]
    tester: UUID | None = None
    leads: UUID | None = None
    adapters: list[UUID] = []


class LogIn(Schema):
    """An isolation log, and the supply of the crew's it was made on."""

    supply: UUID
    log: dict[str, Any]


class QuestionOut(Schema):
    kind: Annotated[str, Among(SourceKind)]
    asks: str
    isolate: str


class ProofReference(Schema):
    questions: list[QuestionOut]
    whats: list[str]
    handbook: dict[str, float]


class RulesOut(Schema):
    proof_window_min: float
    unattended_min: float
    dead_kinds: list[str] | None
    least_rating: bool
    reason: str


class RulesIn(Schema):
    """What is left out is the handbook's."""

    proof_window_min: float | None = None
    unattended_min: float | None = None
    dead_kinds: list[str] | None = None
    least_rating: bool = False
    reason: str = ""
