"""What somebody did at a case: acts beside reading, and what happened at the board by its proofs of death."""

from collections.abc import Iterator

from django.db.models import QuerySet

from evenprobe.isolation import SourceKind
from evenprobe.practising import Act, Danger, Doing, done_said
from practising.models import Practised, PractisedAct
from proofs.models import ProofEvent
from proofs.words import event_in_words

_OWN, _ANY = (SourceKind.DEVICE,), tuple(SourceKind)
_OTHERS = tuple(kind for kind in SourceKind if kind is not SourceKind.DEVICE)
_AT_THE_BOARD: tuple[tuple[str, tuple[SourceKind, ...], Doing], ...] = (
    ("off", _OWN, Doing.OFF), ("off", _OTHERS, Doing.FEED_OFF),
    ("locked", _OWN, Doing.LOCKED), ("locked", _OTHERS, Doing.FEED_LOCKED),
    ("unlocked", _OWN, Doing.UNLOCKED), ("unlocked", _OTHERS, Doing.FEED_UNLOCKED),
    ("re-energised", _OWN, Doing.ON), ("re-energised", _OTHERS, Doing.FEED_ON),
    ("source-found", _ANY, Doing.LOOKED),
)  # fmt: skip
"""What happened to a proof, with a source of which kind, and what was done at the board by it."""


def acts_of(practised: Practised, *, tripped: bool) -> list[Act]:
    """What was done, in seconds since the case was opened; switching and locks of its proofs of death among it.

    `tripped`: whether its device was off before anybody came.
    """
    of_proofs = [
        Act(doing, (e.at - practised.begun_at).total_seconds(), danger=_onto_fault(doing) if tripped else None)
        for e in _of_proofs(practised)
        for kind, of, doing in _AT_THE_BOARD
        if kind == e.type and not _kinds(e).isdisjoint(of)
    ]
    before = [Act(Doing.OFF, 0.0)] if tripped else []
    by_hand = [_act(practised, row) for row in practised.acts.all()]
    return sorted([*before, *by_hand, *of_proofs], key=lambda act: act.at_s)


def _onto_fault(doing: Doing) -> Danger | None:
    """What comes of closing a device that trips."""
    return Danger.ONTO_FAULT if doing is Doing.ON else None


def _kinds(event: ProofEvent) -> set[SourceKind]:
    """Of the source that it is about, or of all where it names none."""
    known = {source["id"]: source.get("kind", SourceKind.DEVICE) for source in event.proof.sources}
    found = event.entry.get("source")
    kinds = known.values() if found is None else [known.get(found, SourceKind.SECOND_FEED)]
    return {SourceKind(kind) for kind in kinds}


def _act(practised: Practised, row: PractisedAct) -> Act:
    entry = row.entry
    return Act(
        Doing(row.doing),
        (row.at - practised.begun_at).total_seconds(),
        tester=entry.get("tester", ""),
        box=entry.get("box", ""),
        danger=Danger(entry["danger"]) if entry.get("danger") else None,
        conditions=frozenset(entry.get("conditions", [])),
        said=entry.get("said", ""),
        ends=entry.get("ends", False),
    )


def did(practised: Practised) -> list[tuple[float, str]]:
    """The same in words, with each step of the proofs, by seconds since the case was opened."""
    of_proofs = [((e.at - practised.begun_at).total_seconds(), event_in_words(e)) for e in _of_proofs(practised)]
    return sorted([*of_proofs, *_in_words(practised)])


def _in_words(practised: Practised) -> Iterator[tuple[float, str]]:
    for row in practised.acts.all():
        act = _act(practised, row)
        said = done_said(act.doing, act.box)
        if said:
            yield act.at_s, said


def _of_proofs(practised: Practised) -> QuerySet[ProofEvent]:
    of_the_case = ProofEvent.objects.filter(proof__site__crew=practised.sandbox_id)
    return of_the_case.select_related("proof__site", "tester")
