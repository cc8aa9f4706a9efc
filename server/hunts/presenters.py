"""A hunt as the front end shows it: the run with every share, what comes next, and what comes after each outcome."""

from collections.abc import Iterable, Sequence
from dataclasses import replace
from functools import cached_property
from typing import Any

from django.utils import timezone

from base.failures import each_shown
from base.shapes import Named
from evenprobe.formats.answers import RunHuntOut
from evenprobe.formats.circuits.run import DropEntry
from evenprobe.hunting.findings import Hunt as Found
from evenprobe.hunting.findings import HuntState, Joint, NextPlace
from evenprobe.hunting.intake import HAPPENED, HUNTED, MARKS, Hunted
from evenprobe.hunting.run import BOARD, Place
from evenprobe.hunting.said import said_of
from evenprobe.hunting.sentences import JOINTS
from evenprobe.hunting.steps import said_of_task, steps_after, steps_at
from evenprobe.isolation import State
from evenprobe.practices import PRACTICES, Practice
from evenprobe.sentences import Sentence
from hunts.logs import RunFile, content_of, file_of, stands
from hunts.models import Hunt, HuntEvent
from hunts.shapes import (
    CLOSED,
    MENDED,
    AheadOut,
    HappenedOut,
    HuntChoice,
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
        now = {str(point.id): point.name for point in hunt.circuit.points.all()}
        self.names = {BOARD: f"the {board}", **hunt.names, **now}

    @cached_property
    def answer(self) -> RunHuntOut:
        return RunHuntOut.of(self.file.run, self.found)

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
            return self._named(self.found.contradiction.why)
        if self.found.state is HuntState.CLEAR:
            return "nothing left to hunt along this run"
        if self.found.state is HuntState.FOUND:
            return self.place(max(self.found.share, key=self.found.share.__getitem__))
        return self.task(self.found.next) if self.found.next else "nothing more tells them apart"

    def task(self, following: NextPlace) -> str:
        return said_of_task(following.task, self.names[following.at])

    def _named(self, sentence: Sentence) -> str:
        """With the places it speaks of by their names."""
        return str(replace(sentence, about=tuple((key, self.names.get(it, it)) for key, it in sentence.about)))

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
            hunted=HUNTED[hunt.kind].title,
            first=self.practice.in_words(happened.first) if happened else "",
            between=list(between),
            told=hunt.told,
            answer=self.answer,
            next_title=self.task(found.next) if found.next else "",
            next_name=self.names[found.next.at] if found.next else "",
            saved_minutes=round(max(0.0, found.in_order_minutes - minutes), 1) if found.next else 0.0,
            advice=self._named(found.advice) if found.advice else "",
            joints=[self._joint(joint) for joint in found.joints],
            load_a=self._load_a(),
            steps=list(self._steps()),
            points=self._points(),
            seen=self._seen(),
            last=self._last(),
            ahead=list(self._ahead()),
            proof=proof[0] if proof else None,
            proof_state=proof[1] if proof else "",
        )

    def _load_a(self) -> float | None:
        """Of the last volts under a load: it stays the same all along."""
        drops = (entry for entry in reversed(self.file.seen) if isinstance(entry, DropEntry))
        return next((entry.load_a for entry in drops if entry.load_a is not None), None)

    def _joint(self, joint: Joint) -> str:
        conductor = " and ".join(self.practice.letters[wire] for wire in joint.conductor.split(" and "))
        least, most = joint.ohm
        return str(
            JOINTS.say("joint", conductor=conductor, least=least, most=most, watts=joint.watts, amperes=joint.amperes)
        )

    def _steps(self) -> Sequence[str]:
        if self.state in (MENDED, CLOSED) or self.found.next is None:
            return () if self.state == CLOSED else steps_after(self.found.state)
        return steps_at(self.hunt.kind, self.found.next.task, self.practice, self.file.between or ("L", "PE"))

    def _points(self) -> list[HuntPoint]:
        run, share = self.file.run, self.found.share
        marks = {e.entry["point"]: e.entry for e in self.standing if e.kind == HuntEvent.Kind.MARKED}
        hidden = {point.id: point.hidden for point in self.file.points}
        saw: dict[str, list[str]] = {}
        for entry in self.file.seen:
            saw.setdefault(entry.at, []).append(said_of(entry.seen(), self.names, self.practice.letters))
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
                text=f"{self.names[entry.at]}: {said_of(entry.seen(), self.names, self.practice.letters)}",
                at=event.at,
                by=event.by_name,
                contradicts=number in pair,
            )
            for number, (event, entry) in enumerate(zip(events, self.file.seen, strict=True))
        ]

    def _last(self) -> HuntSeen | None:
        """What was told last and not taken back."""
        if not self.standing:
            return None
        event = self.standing[-1]
        if event.kind == HuntEvent.Kind.SEEN:
            return self._seen()[-1]
        text = str(event.kind)
        if event.kind == HuntEvent.Kind.MARKED:
            marks = [MARKS[event.entry[key]].title for key in ("box", "cable") if key in event.entry]
            text = f"{self.names[event.entry['point']]}: {', '.join(marks) or 'hidden'}"
        return HuntSeen(event=event.id, text=text, at=event.at, by=event.by_name, contradicts=False)

    def _ahead(self) -> Iterable[AheadOut]:
        """What comes after each outcome of what comes next."""
        following = self.answer.next
        for outcome in following.outcomes if following else ():
            if following is None or outcome.seen is None:
                continue
            content = {**self.content, "seen": [*self.content["seen"], outcome.seen], "standing_at": following.at}
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


def _choice(hunted: Hunted) -> HuntChoice:
    return HuntChoice(id=str(hunted), title=hunted.title, between=list(hunted.between))


def intake_in(practice: Practice) -> IntakeOut:
    """The short question, in the practice's words."""
    return IntakeOut(
        happened=[
            HappenedOut(
                id=str(row),
                title=practice.in_words(row.title),
                first=practice.in_words(row.first),
                hunts=[_choice(HUNTED[hunt]) for hunt in row.hunts if hunt in HUNTED],
            )
            for row in HAPPENED.values()
        ],
        marks=[SuspicionMark(id=str(mark), title=mark.title) for mark in MARKS.values()],
    )
