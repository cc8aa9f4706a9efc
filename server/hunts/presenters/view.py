"""What every hunt shows, whatever it is along: its state, what was seen, what one tap takes back, its proof."""

from abc import ABC, abstractmethod
from collections.abc import Sequence
from dataclasses import replace
from typing import Any, Generic, TypeVar

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
from proofs.logs import state_of as proof_state
from proofs.models import Proof

File = TypeVar("File", bound=CircuitFile | GuidedFile)


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
    def found_state(self) -> HuntState:
        """How far it is by what was seen."""

    @property
    @abstractmethod
    def contradiction(self) -> Contradiction | None:
        """What of what was seen cannot both be."""

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
        return state_of(self.hunt, self.standing, self.found_state)

    def said(self) -> str:
        """In a few words where it is, or what comes next."""
        if self.state in (MENDED, CLOSED):
            return self.state
        return self.named(self.contradiction.why) if self.contradiction else self.now()

    def named(self, sentence: Sentence) -> str:
        """With the places it speaks of by their names."""
        about = tuple((key, self.names.get(it, it) if isinstance(it, str) else it) for key, it in sentence.about)
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
        hunt, proof, seen = self.hunt, _proof_of(self.hunt), self._seen()
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
            proof=proof[0] if proof else None,
            proof_state=proof[1] if proof else "",
            **self.along(),
        )

    def _seen(self) -> list[HuntSeen]:
        events = [e for e in self.standing if e.kind == HuntEvent.Kind.SEEN]
        pair = self.contradiction.between if self.contradiction else ()
        return [
            HuntSeen(event=event.id, text=text, at=event.at, by=event.by_name, contradicts=number in pair)
            for number, (event, text) in enumerate(zip(events, self.seen_texts(), strict=True))
        ]

    def _last(self, seen: Sequence[HuntSeen]) -> HuntSeen | None:
        """What was told last and not taken back."""
        if not self.standing:
            return None
        event = self.standing[-1]
        if event.kind == HuntEvent.Kind.SEEN:
            return seen[-1]
        text = str(event.kind)
        if event.kind == HuntEvent.Kind.MARKED:
            marks = [MARKS[event.entry[key]].title for key in ("box", "cable") if key in event.entry]
            text = f"{self.names[event.entry['point']]}: {', '.join(marks) or 'hidden'}"
        return HuntSeen(event=event.id, text=text, at=event.at, by=event.by_name, contradicts=False)


def _proof_of(hunt: Hunt) -> tuple[Any, str] | None:
    """The latest proof of isolation of the circuit that still says something."""
    if hunt.circuit is None:
        return None
    now = timezone.now()
    for proof in Proof.objects.filter(circuit=hunt.circuit, brought_at=None).prefetch_related("events")[:3]:
        state = str(proof_state(proof, now).state)
        if state != State.CLOSED:
            return proof.id, state
    return None
