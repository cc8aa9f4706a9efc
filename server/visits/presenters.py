"""A visit as the front end shows it: its plan made by the core, and how far each step is by the record."""

from collections.abc import Iterable, Sequence
from datetime import datetime
from functools import cached_property
from typing import Any
from uuid import UUID

from django.db.models import Sum
from django.utils import timezone

from base.failures import each_shown
from base.models import Changes
from base.shapes import Named
from base.unchanged import PARTS, changes_of
from crews.models import Crew
from evenprobe.interpretation import WORST_FIRST, Verdict
from evenprobe.planning import WORKS, Plan, PlannedStep, Work, bring, plan, tasks_of
from evenprobe.practices import PRACTICES
from evenprobe.rounding import figures
from evenprobe.testers.purposes import TITLES
from kit.hands import Hands
from readings.models import PointStanding
from readings.settling import settled
from readings.standings import verdict_of
from sites.models import Site
from visits.models import Visit, VisitEvent
from visits.on_site import CircuitRecord, SiteRecord, records_of
from visits.planning import planned_circuit
from visits.progress import DONE, Progress, progress
from visits.services import stands
from visits.shapes import (
    BringOut,
    FitTester,
    GoesDarkOut,
    NoteOut,
    OpenOut,
    PlannableOut,
    VisitLine,
    VisitNext,
    VisitOut,
    VisitStep,
)
from visits.still_open import StillOpen, left_by, still_open


class VisitView:
    """One visit with what is on record of its site. Of a closed one only what it left open itself is told."""

    def __init__(self, visit: Visit, record: SiteRecord, others: Sequence[Visit]) -> None:
        self.visit, self.record = visit, record
        closed = stands(visit) == "closed"
        self.open: list[StillOpen] = left_by(visit) if closed else still_open(record, others)
        self.events = list(visit.events.all())

    def _last(self, kind: str) -> VisitEvent | None:
        return next((e for e in reversed(self.events) if e.kind == kind), None)

    @property
    def begun_at(self) -> datetime | None:
        return next((e.at for e in self.events if e.kind == VisitEvent.Kind.BEGUN), None)

    @property
    def closed_at(self) -> datetime | None:
        last = self._last(VisitEvent.Kind.CLOSED)
        return last.at if last is not None and stands(self.visit) == "closed" else None

    @cached_property
    def asked(self) -> tuple[list[str], list[str]]:
        """Circuits and works of the latest plan."""
        latest = self._last(VisitEvent.Kind.PLANNED)
        entry = latest.entry if latest else {"circuits": self.visit.circuits, "works": self.visit.works}
        return entry["circuits"], entry["works"]

    @cached_property
    def circuits(self) -> list[CircuitRecord]:
        """Those planned that are in use and have points, in the order of the boards."""
        return [own for name, own in self.record.circuits.items() if name in self.asked[0]]

    @cached_property
    def plan(self) -> Plan:
        before = self.begun_at or timezone.now()
        return plan([planned_circuit(c, before) for c in self.circuits], [Work(w) for w in self.asked[1]])

    @cached_property
    def steps(self) -> list[tuple[PlannedStep, Progress]]:
        until = self.closed_at
        return [
            (step, progress(step.work, self.record.circuits[step.circuit.id], self.begun_at, until))
            for step in self.plan.steps
        ]

    @property
    def people(self) -> list[str]:
        """Who planned it, and everybody who recorded something of its circuits since it began."""
        since, until = self.begun_at, self.closed_at or timezone.now()
        names = [self.visit.by_name, *(e.by_name for e in self.events)]
        if since is not None:
            names += [t.by for circuit in self.circuits for t in circuit.taken if since <= t.at <= until]
        return list(dict.fromkeys(filter(None, names)))

    def line(self) -> dict[str, Any]:
        left = [step for step, at in self.steps if at.state != DONE]
        return {
            "id": self.visit.id,
            "site": Named(id=self.visit.site.id, name=self.visit.site.name),
            "why": self.visit.why,
            "planned_for": self.visit.planned_for,
            "state": stands(self.visit),
            "begun_at": self.begun_at,
            "closed_at": self.closed_at,
            "by": self.visit.by_name,
            "steps": len(self.steps),
            "done": len(self.steps) - len(left),
            "minutes": _minutes(sum(step.estimate.minutes for step in left)),
            "next": self._next(),
            "open": len(self.open),
        }

    def _next(self) -> VisitNext | None:
        if self.closed_at is not None:
            return None
        for step, at in self.steps:
            if at.state != DONE:
                title = f"{WORKS[step.work].title}: {step.circuit.name}"
                return VisitNext(title=title, said=at.said, place=at.place, of=at.of)
        return None

    def shown(self, hands: Hands) -> VisitOut:
        return VisitOut(
            **self.line(),
            practice=self.visit.site.practice,
            circuits=[UUID(name) for name in self.asked[0]],
            works=self.asked[1],
            plan=[_step(step, at) for step, at in self.steps],
            warn=[
                GoesDarkOut(circuit=w.circuit.name, places=list(w.places), minutes=_minutes(w.minutes))
                for w in self.plan.warn
            ],
            way=list(self.plan.way),
            bring=self._bring(hands),
            still_open=[
                OpenOut(text=o.text, since=o.since, by=o.by, place=o.place, of=o.of, event=o.event) for o in self.open
            ],
            notes=[
                NoteOut(at=e.at, by=e.by_name, text=e.entry["what"])
                for e in self.events
                if e.kind == VisitEvent.Kind.NOTED
            ],
            people=self.people,
        )

    def _bring(self, hands: Hands) -> list[BringOut]:
        now = timezone.now()
        held = {str(tester.id): entry.held() for tester, entry in hands.all_at(now)}
        practice = PRACTICES[self.visit.site.practice]
        tasks = tasks_of(self.plan.steps, practice, max(self.visit.planned_for, timezone.localdate()))
        found = bring(tasks, list(held.values()))
        alike: dict[tuple[str, ...], BringOut] = {}
        for one in found:
            fit = [FitTester(id=UUID(h.id), label=h.name or h.id, why=[]) for h in one.fit]
            unfit = [FitTester(id=UUID(u.held.id), label=u.held.name or u.held.id, why=list(u.why)) for u in one.unfit]
            key = (TITLES[one.task.purpose], *(str(tester.id) for tester in fit))
            row = alike.setdefault(key, BringOut(purpose=key[0], systems=[], fit=fit, unfit=unfit))
            row.systems = list(dict.fromkeys([*row.systems, one.task.system.title]))
        return list(alike.values())


def _step(step: PlannedStep, at: Progress) -> VisitStep:
    return VisitStep(
        work=str(step.work),
        title=WORKS[step.work].title,
        circuit=Named(id=UUID(step.circuit.id), name=step.circuit.name),
        board=step.circuit.board,
        points=[point.name for point in step.points],
        minutes=_minutes(step.estimate.minutes),
        since=step.estimate.since,
        two_people=step.two_people,
        state=at.state,
        said=at.said,
        place=at.place,
        of=at.of,
    )


def _minutes(exact: float) -> float:
    return float(round(exact)) if exact >= 1 else figures(exact, 1)


def _planned_for(visits: Iterable[Visit]) -> set[str]:
    """The circuits that any plan of these visits was for."""
    plans = ([v.circuits, *(e.entry.get("circuits", ()) for e in v.events.all())] for v in visits)
    return {circuit for plan in plans for circuits in plan for circuit in circuits}


def lines_of(visits: Iterable[Visit]) -> list[VisitLine]:
    """A line a visit, in their order; of a visit at whose site nothing changed it is the one that was made before."""
    settled()
    visits = list(visits)
    keys = _keys(visits)
    lines = {visit.pk: PARTS.known(keys[visit.pk]) for visit in visits if visit.pk in keys}
    for visit, line in _made(visits, [visit for visit in visits if lines.get(visit.pk) is None]):
        lines[visit.pk] = line
        if visit.pk in keys and not line.unshown:
            PARTS.keep(keys[visit.pk], line)
    return [lines[visit.pk] for visit in visits]


def _keys(visits: Sequence[Visit]) -> dict[UUID, tuple[object, ...]]:
    """What the line of each is made of: its site's points as they stand, all else on record, and the day."""
    beside = changes_of(Changes.BESIDE_READINGS)
    if beside is None:
        return {}
    site = "point__circuit__board__supply__site"
    standing = PointStanding.objects.filter(**{f"{site}__in": {visit.site_id for visit in visits}})
    summed = standing.order_by().values(site).annotate(changes=Sum("changes"), made_of=Sum("made_of"))
    of_site = {row[site]: (row["changes"], row["made_of"]) for row in summed}
    about = (beside, timezone.localdate(), tuple(visit.pk for visit in visits))
    return {visit.pk: ("visit", visit.pk, of_site.get(visit.site_id), about) for visit in visits}


def _made(every: Sequence[Visit], wanted: Sequence[Visit]) -> list[tuple[Visit, VisitLine]]:
    """`every`: of the same sites, for what they left open."""
    closed = any(stands(visit) == "closed" for visit in wanted)
    records = records_of({visit.site for visit in wanted}, _planned_for(wanted), with_taken=closed) if wanted else {}
    by_site: dict[UUID, list[Visit]] = {}
    for visit in every:
        by_site.setdefault(visit.site_id, []).append(visit)

    def line(visit: Visit) -> VisitLine:
        return VisitLine(**VisitView(visit, records[visit.site_id], by_site[visit.site_id]).line())

    return list(zip(wanted, each_shown(wanted, line, _unshown), strict=True))


def _unshown(visit: Visit, why: str) -> VisitLine:
    nothing: dict[str, Any] = dict.fromkeys(("begun_at", "closed_at", "next"))
    return VisitLine(
        id=visit.id, site=Named(id=visit.site.id, name=visit.site.name), why=visit.why, planned_for=visit.planned_for,
        state="planned", by=visit.by_name, steps=0, done=0, minutes=0, open=0, unshown=why, **nothing,
    )  # fmt: skip


def shown(visit: Visit, others: Sequence[Visit], crew: Crew) -> VisitOut:
    """`others`: all visits to its site, for what they left open."""
    settled()
    return view_of(visit, others).shown(Hands(crew, timezone.now()))


def view_of(visit: Visit, others: Sequence[Visit]) -> VisitView:
    """`others`: all visits to its site, for what they left open."""
    record = records_of([visit.site], _planned_for([visit]), with_taken=True)[visit.site_id]
    return VisitView(visit, record, others)


def plannable(site: Site) -> list[PlannableOut]:
    """The site's circuits that have points, with when they were last tested."""
    settled()
    return [_plannable(record) for record in records_of([site])[site.id].circuits.values()]


def _plannable(record: CircuitRecord) -> PlannableOut:
    verdicts = [Verdict(verdict_of(point.standing)) for point in record.points]
    tested = [at for point in record.points if (at := point.standing.last_tested) is not None]
    return PlannableOut(
        id=record.circuit.id,
        name=record.circuit.name,
        board=record.circuit.board.name,
        points=len(record.points),
        last_tested=max(tested).date() if tested else None,
        worst=str(min(verdicts, key=WORST_FIRST.index)),
        safe=all(verdict.is_safe for verdict in verdicts),
    )
