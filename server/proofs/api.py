"""Proofs of isolation over HTTP: begin one, record what happens, see how it stands; and the log as a file."""

from datetime import datetime, timedelta
from typing import Any
from uuid import UUID, uuid5

from django.db.models import QuerySet
from django.http import HttpRequest
from django.utils import timezone
from ninja import Router

from base.failures import each_shown
from base.problems import Problems
from crews.models import Crew
from crews.services import crew_of
from evenprobe.formats.isolation import RulesEntry
from evenprobe.isolation import QUESTIONS
from evenprobe.limits.isolation import WARN_BEFORE_END_MIN
from evenprobe.practices import PRACTICES
from evenprobe.supplies import SYSTEMS
from evenprobe.testers import KINDS
from evenprobe.testers.fitness import fitness
from evenprobe.testers.ratings import Place
from kit.hands import in_hands
from proofs.importing import bring_in
from proofs.logs import log_of, state_of
from proofs.models import Proof, ProofEvent
from proofs.services import FIELDS_OF_AN_EVENT, begin, proof_of, put_rules, record_event
from proofs.shapes import (
    HISTORY,
    UNSHOWN,
    EventIn,
    LogIn,
    ProofIn,
    ProofLine,
    ProofOut,
    ProofReference,
    ProofTester,
    QuestionOut,
    RulesIn,
    RulesOut,
    StateOut,
)

router = Router(tags=["proofs"])

_CLOCK_MAY_BE_OFF = timedelta(seconds=60)
ORDER = ("proved-dead", UNSHOWN, "energised", "void", "proving", "isolated", "closed", HISTORY)
"""What stands first on a list: what runs, then what went wrong, then what is under way."""


@router.get("/reference/proofs", response=ProofReference)
def proof_reference(request: HttpRequest) -> ProofReference:  # noqa: ARG001
    """What to ask before a proof begins, and the handbook's own rules."""
    own = RulesEntry()
    return ProofReference(
        questions=[QuestionOut(kind=q.kind, asks=q.asks, isolate=q.isolate) for q in QUESTIONS],
        whats=list(Proof.What.values),
        handbook={"proof_window_min": own.proof_window_min, "unattended_min": own.unattended_min},
    )


@router.get("/proofs", response=list[ProofLine])
def proofs(request: HttpRequest) -> list[ProofLine]:
    return lines_of(Proof.objects.filter(site__crew=crew_of(request)))


@router.get("/proofs/{proof_id}", response={200: ProofOut, 404: Problems}, by_alias=True)
def proof(request: HttpRequest, proof_id: UUID) -> dict[str, Any]:
    return _proof_out(proof_of(crew_of(request), proof_id))


@router.put("/proofs/{proof_id}", response={200: ProofOut, 404: Problems, 409: Problems, 422: Problems}, by_alias=True)
def begin_proof(request: HttpRequest, proof_id: UUID, data: ProofIn) -> dict[str, Any]:
    content = data.dict(exclude={"supply", "circuit"})
    return _proof_out(begin(crew_of(request), request.user, proof_id, data.supply, data.circuit, content))


@router.put(
    "/proofs/{proof_id}/events/{event_id}",
    response={200: ProofOut, 404: Problems, 409: Problems, 422: Problems},
    by_alias=True,
)
def record_proof_event(request: HttpRequest, proof_id: UUID, event_id: UUID, data: EventIn) -> dict[str, Any]:
    kept = record_event(
        crew_of(request), request.user, proof_id, event_id, data.entry,
        data.tester, data.leads, data.adapters, data.at, data.sent_at,
    )  # fmt: skip
    return {**_proof_out(kept), "clock": _clock(data.sent_at)}


@router.get("/proofs/{proof_id}/log", response={200: dict[str, Any], 404: Problems})
def proof_log(request: HttpRequest, proof_id: UUID) -> dict[str, Any]:
    """The proof as an isolation log, for a file."""
    return log_of(proof_of(crew_of(request), proof_id), timezone.now())


@router.put(
    "/proofs/{proof_id}/log", response={200: ProofOut, 404: Problems, 409: Problems, 422: Problems}, by_alias=True
)
def bring_log_in(request: HttpRequest, proof_id: UUID, data: LogIn) -> dict[str, Any]:
    return _proof_out(bring_in(crew_of(request), request.user, proof_id, data.supply, data.log))


@router.get("/rules", response=RulesOut)
def rules(request: HttpRequest) -> dict[str, Any]:
    return _rules_out(crew_of(request))


@router.put("/rules", response={200: RulesOut, 422: Problems})
def save_rules(request: HttpRequest, data: RulesIn) -> dict[str, Any]:
    """The crew's own rules for the proofs begun from now on. Looser than the handbook's needs a written reason."""
    return _rules_out(put_rules(crew_of(request), data.dict(exclude_none=True)))


def lines_of(proofs: QuerySet[Proof]) -> list[ProofLine]:
    """What runs and what went wrong first."""
    now = timezone.now()

    def line(one: Proof) -> ProofLine:
        found = state_of(one, now)
        return _line(
            one,
            now,
            state=found.state,
            said=found.problems[-1].text if found.problems else "",
            next=found.next.text,
            expires_at=found.expires_at,
            warn_at=found.expires_at and found.expires_at - timedelta(minutes=WARN_BEFORE_END_MIN),
            stated_by=found.stated_by,
        )

    def unshown(one: Proof, why: str) -> ProofLine:
        return _line(one, now, state=UNSHOWN, said=f"{why} Treat as live.", unshown=why)

    lines = each_shown(proofs.select_related("site").prefetch_related("events"), line, unshown)
    far = now + timedelta(days=1)
    return sorted(lines, key=lambda line: (ORDER.index(line.state), line.expires_at or far))


def _line(one: Proof, now: datetime, **found: Any) -> ProofLine:
    about = {"id": one.id, "name": one.name, "what": one.what, "site": one.site.name, "by": one.by_name}
    return ProofLine.model_validate({**about, "brought_at": one.brought_at, "now": now, **found})


def _proof_out(one: Proof) -> dict[str, Any]:
    now = timezone.now()
    found = state_of(one, now)
    rules_then = RulesEntry.model_validate(one.rules)
    return {
        "id": one.id,
        "name": one.name,
        "what": one.what,
        "site": {"id": one.site.id, "name": one.site.name},
        "circuit": {"id": one.circuit.id, "name": one.circuit.name} if one.circuit else None,
        "practice": one.site.practice,
        "system_title": SYSTEMS[one.system].title,
        "terminals": one.terminals,
        "place": one.place,
        "wet": one.wet,
        "asked": one.asked,
        "begun_at": one.begun_at,
        "by": one.by_name,
        "brought_at": one.brought_at,
        "now": now,
        "clock": "",
        "window_min": rules_then.proof_window_min,
        "unattended_min": rules_then.unattended_min,
        "state": found,
        "events": _events_of_file(one, found)
        if one.file
        else [_event_out(i, e, found) for i, e in enumerate(one.events.select_related("tester"))],
        "testers": [] if one.brought_at else _testers(one, rules_then, now),
    }


def _event_out(index: int, event: ProofEvent, found: StateOut) -> dict[str, Any]:
    return {
        "id": event.id,
        "type": event.type,
        "entry": event.entry,
        "tester": event.tester_id,
        "tester_label": str(event.tester) if event.tester else "",
        "at": event.at,
        "by": event.by_name,
        "counts": index in found.counted,
        "why": found.said_of(index),
    }


def _events_of_file(one: Proof, found: StateOut) -> list[dict[str, Any]]:
    """As the file tells them; its testers are words, and so are the names in it."""
    labels = {t["id"]: t.get("label") or KINDS[t["kind"]].name for t in one.file["testers"]}
    return [
        {
            "id": uuid5(one.id, str(index)),
            "type": event["type"],
            "entry": {key: value for key, value in event.items() if key not in FIELDS_OF_AN_EVENT},
            "tester": None,
            "tester_label": labels.get(event.get("tester"), event.get("tester", "")),
            "at": event["at"],
            "by": event.get("by", ""),
            "counts": index in found.counted,
            "why": found.said_of(index),
        }
        for index, event in enumerate(one.file["events"])
    ]


def _testers(one: Proof, rules_then: RulesEntry, now: datetime) -> list[ProofTester]:
    """The crew's testers, those that are fit for this proof first."""
    task = rules_then.rules().task(
        PRACTICES[one.site.practice], SYSTEMS[one.system], Place(one.place), timezone.localdate()
    )
    found = []
    for tester, entry in in_hands(one.site.crew, now):
        if entry.kind.proves:
            continue
        fit = fitness(task, entry.held())
        ability = entry.instrument().volts()
        whole = fit.effective
        found.append(
            ProofTester(
                id=tester.id,
                label=entry.label or entry.kind.name,
                screens=entry.kind.screens,
                kind_name=entry.kind.name,
                fit=fit.fit,
                problems=[p.text for p in fit.problems],
                warnings=[w.text for w in fit.warnings],
                rating=f"category {whole.category.name} {whole.volts:g} V" if whole.category and whole.volts else "",
                steps_v=entry.steps_v or [],
                low_z=ability is not None and ability.low_input_ohm is not None,
                sets=not entry.kind.tells_direct,
            )
        )
    return sorted(found, key=lambda t: (not t.fit, t.label))


def _clock(sent_at: datetime | None) -> str:
    """Words for a device whose clock is off."""
    if sent_at is None or abs(timezone.now() - sent_at) < _CLOCK_MAY_BE_OFF:
        return ""
    minutes = round((sent_at - timezone.now()).total_seconds() / 60)
    return f"This device's clock is {abs(minutes)} min {'fast' if minutes > 0 else 'slow'}; the server's clock counts."


def _rules_out(crew: Crew) -> dict[str, Any]:
    return RulesEntry.model_validate(crew.rules).model_dump(mode="json")
