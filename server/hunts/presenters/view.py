"""What every hunt shows, whatever it is along: its state, what was seen, what one tap takes back, its proof."""

from abc import ABC, abstractmethod
from collections.abc import Sequence
from dataclasses import replace
from typing import Any, Generic, Protocol, TypeVar
from uuid import UUID

from django.utils import timezone

from base.shapes import Named
from evenprobe.formats import CircuitFile
from evenprobe.formats.circuits import GuidedFile
from evenprobe.hunting.findings import Contradiction, HuntState
from evenprobe.hunting.intake import HAPPENED, HUNTED, MARKS, Happened
from evenprobe.hunting.run import BOARD
from evenprobe.isolation import State
from evenprobe.practices import PRACTICES, Practice
from evenprobe.sentences import Sentence
from hunts.logs import CLOSED, MENDED, state_of
from hunts.models import Hunt, HuntEvent
from hunts.shapes import HuntOut, HuntSeen
from proofs.logs import state_of as state_of_proof
from proofs.models import Proof

_PROOFS = 3
"""Of a circuit, that are looked at."""
File = TypeVar("File", bound=CircuitFile | GuidedFile)


class Comes(Protocol):
    """What every hunt has come to."""

    @property
    def state(self) -> HuntState: ...

    @property
    def contradiction(self) -> Contradiction | None: ...


class HuntView(ABC, Generic[File]):
    """A hunt with all that is asked of it several times."""

    def __init__(self, hunt: Hunt, standing: Sequence[HuntEvent], content: dict[str, Any], file: File) -> None:
        self.hunt, self.standing, self.content, self.file = hunt, standing, content, file
        self.practice: Practice = PRACTICES[hunt.site.practice]
        now = {str(p.id): p.name for c in hunt.board.circuits.all() for p in c.points.all()}
        ways = {str(c.id): c.name for c in hunt.board.circuits.all()}
        self.names: dict[str, str] = {BOARD: f"the {self.practice.named['board']}", **hunt.names, **ways, **now}

    @property
    @abstractmethod
    def found(self) -> Comes:
        """What was seen comes to."""

    @abstractmethod
    def now(self) -> str:
        """In a few words what it was, or what comes next, of one that neither contradicts itself nor is over."""

    @abstractmethod
    def seen_texts(self) -> Sequence[str]:
        """Of each thing seen, in its order, in a few words with its place."""

    @abstractmethod
    def steps(self) -> Sequence[str]:
        """What to do at what comes next, or once it was found."""

    @abstractmethod
    def along(self) -> dict[str, Any]:
        """The part of the answer that is this sort of hunt's own, by its name there."""

    @property
    def happened(self) -> Happened | None:
        return HAPPENED.get(self.hunt.happened)

    @property
    def state(self) -> str:
        return state_of(self.hunt, self.standing, self.found.state)

    def said(self) -> str:
        """In a few words where it is, or what comes next."""
        if self.state in (MENDED, CLOSED):
            return self.state
        return self.named(self.found.contradiction.why) if self.found.contradiction else self.now()

    def name(self, what: str) -> str:
        """Of a point, a way or an element; what has no other is called by its id."""
        return self.names.get(what, what)

    def named(self, sentence: Sentence) -> str:
        """With the places it speaks of by their names."""
        about = tuple((key, self.name(it) if isinstance(it, str) else it) for key, it in sentence.about)
        return str(replace(sentence, about=about))

    def line(self) -> dict[str, Any]:
        hunt = self.hunt
        return {
            "id": hunt.id,
            "title": str(hunt),
            "site": Named(id=hunt.site.id, name=hunt.site.name),
            "happened": self.practice.in_words(self.happened.title) if self.happened else hunt.happened,
            "kind": hunt.kind,
            "state": self.state,
            "said": self.said(),
            "begun_at": hunt.begun_at,
            "by": hunt.by_name,
        }

    def shown(self) -> HuntOut:
        hunt, seen = self.hunt, self._seen()
        return HuntOut(
            **self.line(),
            practice=str(self.practice),
            circuit=Named(id=hunt.circuit.id, name=hunt.circuit.name) if hunt.circuit else None,
            board=Named(id=hunt.board.id, name=hunt.board.name),
            hunted=self.practice.in_words(HUNTED[hunt.kind].title),
            first=self.practice.in_words(self.happened.first) if self.happened else "",
            told=hunt.told,
            happening=hunt.happened,
            steps=list(self.steps()),
            seen=seen,
            last=self._last(seen),
            proof=_proof_of(hunt),
            **self.along(),
        )

    def _seen(self) -> list[HuntSeen]:
        events = [e for e in self.standing if e.kind == HuntEvent.Kind.SEEN]
        pair = self.found.contradiction.between if self.found.contradiction else ()
        return [
            HuntSeen(event=event.id, text=text, at=event.at, by=event.by_name, contradicts=number in pair)
            for number, (event, text) in enumerate(zip(events, self.seen_texts(), strict=True))
        ]

    def _last(self, seen: Sequence[HuntSeen]) -> HuntSeen | None:
        """What was told last and can be taken back."""
        event = self.standing[-1] if self.standing else None
        if event is None or event.kind == HuntEvent.Kind.SCHEDULED:
            return None
        if event.kind == HuntEvent.Kind.SEEN:
            return seen[-1]
        text = str(event.kind)
        if event.kind == HuntEvent.Kind.MARKED:
            marks = [MARKS[event.entry[key]].title for key in ("box", "cable") if key in event.entry]
            text = f"{self.names[event.entry['point']]}: {', '.join(marks) or 'hidden'}"
        return HuntSeen(event=event.id, text=text, at=event.at, by=event.by_name, contradicts=False)


def _proof_of(hunt: Hunt) -> UUID | None:
    """The latest proof of isolation of the circuit that is not closed; how it stands is told with the proofs."""
    if hunt.circuit is None:
        return None
    now = timezone.now()
    proofs = Proof.objects.filter(circuit=hunt.circuit, brought_at=None).prefetch_related("events")
    open_ones = (proof.id for proof in proofs[:_PROOFS] if state_of_proof(proof, now).state is not State.CLOSED)
    return next(open_ones, None)
