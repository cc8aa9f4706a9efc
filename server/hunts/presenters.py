"""A hunt as the front end shows it: the run with every share, what comes next, and what comes after each outcome."""

from collections.abc import Iterable, Sequence
from typing import Any

from django.utils import timezone

from base.failures import each_shown
from base.shapes import Named
from evenprobe.formats.answers import RunHuntOut
from evenprobe.hunting.findings import Hunt as Found
from evenprobe.hunting.findings import HuntState, NextPlace
from evenprobe.hunting.intake import HAPPENED, MARKS
from evenprobe.hunting.run import BOARD, Place
from evenprobe.hunting.said import said_of
from evenprobe.hunting.steps import steps_after, steps_at
from evenprobe.isolation import State
from evenprobe.practices import PRACTICES, Practice
from hunts.logs import RunFile, content_of, file_of, stands
from hunts.models import Hunt, HuntEvent
from hunts.shapes import (
    CLOSED,
    MENDED,
    RUN_KINDS,
    AheadOut,
    HappenedOut,
    HuntLine,
    HuntOut,
    HuntPoint,
    HuntSeen,
    IntakeOut,
    SuspicionMark,
)
from proofs.logs import state_of
from proofs.models import Proof


class _View:
    """A hunt with all that is asked of it several times."""

    def __init__(self, hunt: Hunt) -> None:
        self.hunt = hunt
        self.practice: Practice = PRACTICES[hunt.site.practice]
        self.standing = stands(hunt.events.all())
        self.content = content_of(hunt, self.standing)
        self.file: RunFile = file_of(self.content)
        self.found: Found = self.file.hunted()
        board = self.practice.named["board"]
        self.names = {BOARD: f"the {board}", **{str(p.id): p.name for p in hunt.circuit.points.all()}}

    @property
    def state(self) -> str:
        kinds = {event.kind for event in self.standing}
        if HuntEvent.Kind.CLOSED in kinds:
            return CLOSED
        return MENDED if HuntEvent.Kind.MENDED in kinds else str(self.found.state)

    def place(self, place: Place) -> str:
        box = self.file.run.box[place.box]
        name = self.names[place.box]
        return f"between {self.names[box.after]} and {name}" if place.stretch else name

    def said(self) -> str:
        """In a few words where it is, or what comes next."""
        if self.state in (MENDED, CLOSED):
            return self.state
        if self.found.contradiction is not None:
            return self._named(str(self.found.contradiction.why))
        if self.found.state is HuntState.CLEAR:
            return "nothing left to hunt along this run"
        if self.found.state is HuntState.FOUND:
            return self.place(max(self.found.share, key=self.found.share.__getitem__))
        return self.task(self.found.next) if self.found.next else "nothing more tells them apart"

    def task(self, following: NextPlace) -> str:
        return f"{following.task} {self.names[following.at]}"

    def _named(self, text: str) -> str:
        for name, called in self.names.items():
            text = text.replace(name, called)
        return text

    def line(self) -> dict[str, Any]:
        hunt = self.hunt
        happened = HAPPENED.get(hunt.happened)
        return {
            "id": hunt.id,
            "title": str(hunt),
            "site": Named(id=hunt.site.id, name=hunt.site.name),
            "happened": self.practice.in_words(happened.title) if happened else hunt.happened,
            "kind": hunt.kind,
            "state": self.state,
            "said": self.said(),
            "begun_at": hunt.begun_at,
            "by": hunt.by_name,
        }

    def shown(self) -> HuntOut:
        hunt, found = self.hunt, self.found
        happened = HAPPENED.get(hunt.happened)
        minutes = found.next.minutes if found.next else 0.0
        proof, between = _proof_of(hunt), self.file.between or ("L", "PE")
        return HuntOut(
            **self.line(),
            practice=str(self.practice),
            circuit=Named(id=hunt.circuit.id, name=hunt.circuit.name),
            first=self.practice.in_words(happened.first) if happened else "",
            between=list(between),
            told=hunt.told,
            answer=RunHuntOut.of(self.file.run, found),
            next_name=self.names[found.next.at] if found.next else "",
            saved_minutes=round(max(0.0, found.in_order_minutes - minutes), 1) if found.next else 0.0,
            advice=self._named(str(found.advice)) if found.advice else "",
            steps=list(self._steps()),
            points=self._points(),
            seen=self._seen(),
            ahead=list(self._ahead()),
            proof=proof[0] if proof else None,
            proof_state=proof[1] if proof else "",
        )

    def _steps(self) -> Sequence[str]:
        if self.state in (MENDED, CLOSED) or self.found.next is None:
            return steps_after(self.found.state) if self.state != CLOSED else ()
        return steps_at(self.hunt.kind, self.found.next.task, self.practice, self.file.between or ("L", "PE"))

    def _points(self) -> list[HuntPoint]:
        run, share = self.file.run, self.found.share
        marks = {e.entry["point"]: e.entry for e in self.standing if e.kind == HuntEvent.Kind.MARKED}
        hidden = {point.id: point.hidden for point in self.file.points}
        saw: dict[str, list[str]] = {}
        for entry in self.file.seen:
            saw.setdefault(entry.at, []).append(said_of(entry.seen(), self.names))
        at_board = HuntPoint(
            id=BOARD, name=self.names[BOARD], after="", length_m=0, at_m=0, share=0, cable_share=0,
            hidden=False, box_mark="", cable_mark="", saw=saw.get(BOARD, []),
        )  # fmt: skip
        return [at_board] + [
            HuntPoint(
                id=box.id,
                name=self.names[box.id],
                after=box.after,
                length_m=box.length_m,
                at_m=round(run.distance_m[box.id], 1),
                share=round(share.get(Place(box.id), 0.0), 3),
                cable_share=round(share.get(Place(box.id, stretch=True), 0.0), 3),
                hidden=hidden[box.id],
                box_mark=marks.get(box.id, {}).get("box", ""),
                cable_mark=marks.get(box.id, {}).get("cable", ""),
                saw=saw.get(box.id, []),
            )
            for box in run.boxes
        ]

    def _seen(self) -> list[HuntSeen]:
        events = [e for e in self.standing if e.kind == HuntEvent.Kind.SEEN]
        pair = self.found.contradiction.between if self.found.contradiction else ()
        return [
            HuntSeen(
                event=event.id,
                text=f"{self.names[entry.at]}: {said_of(entry.seen(), self.names)}",
                at=event.at,
                by=event.by_name,
                contradicts=number in pair,
            )
            for number, (event, entry) in enumerate(zip(events, self.file.seen, strict=True))
        ]

    def _ahead(self) -> Iterable[AheadOut]:
        """What comes after each outcome of what comes next."""
        answer = RunHuntOut.of(self.file.run, self.found)
        if answer.next is None:
            return
        for outcome in answer.next.outcomes:
            if outcome.seen is None:
                continue
            content = {**self.content, "seen": [*self.content["seen"], outcome.seen], "standing_at": answer.next.at}
            then = file_of(content).hunted()
            if then.next is not None:
                said = self.task(then.next)
            elif then.share:
                said = f"found: {self.place(max(then.share, key=then.share.__getitem__))}"
            else:
                said = "nothing left to hunt along this run"
            yield AheadOut(when=outcome.when, then=said)


def _proof_of(hunt: Hunt) -> tuple[Any, str] | None:
    """The latest proof of isolation of the circuit that still says something."""
    now = timezone.now()
    for proof in Proof.objects.filter(circuit=hunt.circuit, brought_at=None).prefetch_related("events")[:3]:
        state = str(state_of(proof, now).state)
        if state != State.CLOSED:
            return proof.id, state
    return None


def shown(hunt: Hunt) -> HuntOut:
    return _View(hunt).shown()


def lines_of(hunts: Iterable[Hunt]) -> list[HuntLine]:
    """A line a hunt, in their order."""
    return each_shown(hunts, lambda hunt: HuntLine(**_View(hunt).line()), _unshown)


def _unshown(hunt: Hunt, why: str) -> HuntLine:
    return HuntLine(
        id=hunt.id,
        title=str(hunt),
        site=Named(id=hunt.site.id, name=hunt.site.name),
        happened=hunt.happened,
        kind=hunt.kind,
        state=str(HuntState.HUNTING),
        said=why,
        begun_at=hunt.begun_at,
        by=hunt.by_name,
        unshown=why,
    )


def intake_in(practice: Practice) -> IntakeOut:
    """The short question, in the practice's words."""
    return IntakeOut(
        happened=[
            HappenedOut(
                id=str(row),
                title=practice.in_words(row.title),
                first=practice.in_words(row.first),
                hunts=[hunt for hunt in row.hunts if hunt in RUN_KINDS],
            )
            for row in HAPPENED.values()
        ],
        marks=[SuspicionMark(id=str(mark), title=mark.title) for mark in MARKS.values()],
    )
