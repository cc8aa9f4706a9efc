"""A sheet as the core reads it: its circuit, its lines, and what is in force of what was put down."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime
from functools import cached_property
from typing import Any

from django.db.models import Prefetch, QuerySet

from evenprobe.deadtests.energising import Lock, SheetRecord, Taken
from evenprobe.deadtests.history import Visit
from evenprobe.deadtests.kinds import DEAD_TESTS
from evenprobe.deadtests.lines import lines_of
from evenprobe.deadtests.sheet import Line, SheetCircuit, SheetPoint, pair_id
from evenprobe.practices import PRACTICES
from evenprobe.supplies import SYSTEMS
from evenprobe.wiring import Terminal
from kit.faults import as_known
from kit.strangers import UNLISTED
from proofs.logs import dead_at
from proofs.models import Proof
from sheets.completing import outcome_of, why_unfit
from sheets.models import Sheet, SheetEntry
from sites.models import Circuit


@dataclass(frozen=True)
class PairVisit:
    """A value of insulation of one pair of a circuit, on some sheet."""

    pair: str
    sheet: Sheet
    visit: Visit


class SheetView:
    """Everything read off one sheet from `with_record`, each thing once."""

    def __init__(self, sheet: Sheet) -> None:
        self.sheet = sheet
        self.site = sheet.circuit.board.supply.site
        self.system = sheet.circuit.board.supply.system
        self.practice = self.site.practice

    @cached_property
    def entries(self) -> list[SheetEntry]:
        """All of them, in order of time."""
        return list(self.sheet.entries.all())

    @cached_property
    def in_force(self) -> list[SheetEntry]:
        return [e for e in self.entries if e.entry is not None and not hasattr(e, "superseded_by")]

    def of(self, kind: str) -> list[SheetEntry]:
        return [e for e in self.in_force if e.entry["type"] == kind]

    def latest(self, kind: str) -> dict[str, Any] | None:
        found = self.of(kind)
        return found[-1].entry if found else None

    @cached_property
    def circuit(self) -> SheetCircuit:
        return _circuit_of(self.sheet, {})

    @cached_property
    def lines(self) -> tuple[Line, ...]:
        """Without what earlier visits found, which takes reading them all."""
        return lines_of(self.circuit)

    @cached_property
    def _titles(self) -> dict[str, str]:
        return {line.id: f"{line.title}, {line.step}" for line in self.lines}

    def line_title(self, name: str) -> str:
        """What a line is called, with its step."""
        return self._titles.get(name, name)

    def title_of(self, entry: SheetEntry) -> str:
        """What a test is called: by its line, or where it is of none by its kind."""
        line = entry.entry.get("line")
        return self.line_title(line) if line else DEAD_TESTS[entry.entry["test"]["kind"]].title

    @cached_property
    def visits(self) -> list[PairVisit]:
        """What insulation was found on every sheet of the circuit, this one among them."""
        return _insulation_visits(self.sheet.circuit)

    def visits_by_pair(self) -> dict[str, list[PairVisit]]:
        """The same of each pair."""
        found: dict[str, list[PairVisit]] = {}
        for visit in self.visits:
            found.setdefault(visit.pair, []).append(visit)
        return found

    def between(self, pair: str) -> str:
        """A pair by the letters on its contacts."""
        return PRACTICES[self.practice].between(*pair.split("-"), word="to")

    @cached_property
    def lines_with_history(self) -> tuple[Line, ...]:
        before = (v for v in self.visits if v.sheet.begun_at < self.sheet.begun_at)
        return lines_of(_circuit_of(self.sheet, {v.pair: v.visit.mohm_20c for v in before}))

    def line(self, name: str | None) -> Line | None:
        return next((one for one in self.lines_with_history if one.id == name), None)

    @cached_property
    def loads(self) -> dict[str, Any] | None:
        return self.latest("loads")

    @cached_property
    def null_ohm(self) -> float | None:
        said = self.latest("leads")
        return said["null_ohm"] if said else None

    @cached_property
    def tests(self) -> dict[str, SheetEntry]:
        """The test in force of each line: the last of them."""
        return {e.entry["line"]: e for e in self.of("tested") if e.entry.get("line")}

    @cached_property
    def taken(self) -> dict[str, Taken]:
        return {line: self.taken_by(entry) for line, entry in self.tests.items()}

    def taken_by(self, entry: SheetEntry) -> Taken:
        """One test with what it is worth."""
        test = entry.entry["test"]
        return Taken(
            outcome_of(self.practice, test),
            self.dead(entry.at),
            _why_strange(entry) or why_unfit(self.practice, self.system, test, _held(entry), entry.at),
            any(b.entry["test"] == str(entry.id) for b in self.of("believed")),
        )

    @cached_property
    def proofs(self) -> list[Proof]:
        """The one the sheet was begun with, and all of its circuit, the latest first."""
        own = list(self.sheet.circuit.proofs.all())
        found = own if self.sheet.proof is None or self.sheet.proof in own else [*own, self.sheet.proof]
        return [proof for proof in found if proof.brought_at is None]

    @cached_property
    def proof(self) -> Proof | None:
        """The one that is open now, the latest; else the one it was begun with."""
        is_open = (p for p in self.proofs if not any(e.type == "closed" for e in p.events.all()))
        return next(is_open, next((p for p in self.proofs if p == self.sheet.proof), None))

    def dead(self, at: datetime) -> bool:
        return any(dead_at(proof, at) for proof in self.proofs)

    @cached_property
    def record(self) -> SheetRecord:
        charged = [e.number for e in self.of("tested") if DEAD_TESTS[e.entry["test"]["kind"]].charges]
        discharged = [e.number for e in self.of("discharged")]
        return SheetRecord(
            lines=self.lines,
            taken=self.taken,
            look={e.entry["item"]: e.entry["good"] for e in self.of("looked")},
            left={e.entry["line"]: e.entry["reason"] for e in self.of("left")},
            said={e.entry["what"] for e in self.of("said")},
            locks=tuple(locks_of(self.proof).values()) if self.proof else (),
            discharged=max(discharged, default=0) > max(charged) if charged else None,
            loads_out=None if self.loads is None else self.loads["loads"] == "disconnected",
            null_ohm=self.null_ohm,
        )


def _why_strange(entry: SheetEntry) -> str:
    """Of what came from a file with no tester of the kit."""
    return UNLISTED if entry.brought_id is not None and entry.tester is None else ""


def _held(entry: SheetEntry) -> dict[str, Any] | None:
    """The tester of an entry as it was then, with what was found of it since."""
    held: dict[str, Any] | None = entry.held
    if held is None or entry.tester is None:
        return held
    return as_known(held, entry.tester, entry.at)


def _circuit_of(sheet: Sheet, previous: dict[str, float]) -> SheetCircuit:
    circuit = sheet.circuit
    supply = circuit.board.supply
    return SheetCircuit(
        practice=PRACTICES[supply.site.practice],
        system=SYSTEMS[supply.system],
        points=tuple(
            SheetPoint(str(p.id), p.name, tuple(Terminal(t) for t in p.terminals), p.length_m)
            for p in circuit.points.all()
        ),
        conductor=circuit.conductor or None,
        wiring=sheet.wiring,
        ring=sheet.ring,
        temperature_c=sheet.temperature_c,
        previous=previous,
    )


ENTRIES = Prefetch("entries", SheetEntry.objects.select_related("tester", "superseded_by", "brought"))


def of_circuit(way: str) -> "list[str | Prefetch[Any]]":
    """What a query of anything is to look up beside it, of the circuits at the end of `way`: points, proofs, sheets."""
    return [f"{way}__points", *done_on_circuit(f"{way}__")]


def done_on_circuit(way: str = "") -> "list[Prefetch[Any]]":
    """The same without the points; `way`: to the circuits, `__` after it."""
    return [
        Prefetch(f"{way}proofs", Proof.objects.select_related("site").prefetch_related("events")),
        Prefetch(f"{way}sheets", Sheet.objects.prefetch_related(ENTRIES, "proof__site", "proof__events")),
    ]


def with_record(sheets: QuerySet[Sheet]) -> QuerySet[Sheet]:
    """The sheets with all that a `SheetView` reads off them, in as many queries for a hundred as for one."""
    beside = [ENTRIES, "proof__site", "proof__events", *of_circuit("circuit")]
    return sheets.select_related("circuit__board__supply__site__crew").prefetch_related(*beside)


def _insulation_visits(circuit: Circuit) -> list[PairVisit]:
    """What insulation was found on every sheet of a circuit, at 20 °C, the earliest first."""
    found = []
    practice = circuit.board.supply.site.practice
    for sheet in reversed(circuit.sheets.all()):
        by_pair: dict[str, Visit] = {}
        for entry in SheetView(sheet).of("tested"):
            test = entry.entry["test"]
            if not DEAD_TESTS[test["kind"]].followed or "from" not in test or "to" not in test:
                continue
            held = outcome_of(practice, test).held
            if held is not None and held.value != float("inf"):
                by_pair[pair_id(test["from"], test["to"])] = Visit(entry.at, held.value, held.beyond)
        found += [PairVisit(pair, sheet, visit) for pair, visit in by_pair.items()]
    return found


def locks_of(proof: Proof) -> dict[str, Lock]:
    """Each source's lock, by the source: who put it and who took it off, as the proof's events have it."""
    put: dict[str, Lock] = {}
    for event in proof.events.all():
        source = event.entry.get("source", "")
        if event.type == "locked":
            put[source] = Lock(event.entry.get("lock") or _label(proof, source), event.by_name)
        elif event.type == "unlocked" and source in put:
            put[source] = Lock(put[source].name, put[source].put_by, event.by_name)
    return put


def _label(proof: Proof, source: str) -> str:
    labels: Iterable[str] = (s["label"] for s in proof.sources if s["id"] == source)
    return f"on {next(iter(labels), source)}"
