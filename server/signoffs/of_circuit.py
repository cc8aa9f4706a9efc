"""One circuit as it is reported: its points with their answers, its dead tests and proofs, what was not tested."""

from collections.abc import Iterator, Mapping, Sequence
from datetime import datetime
from uuid import UUID

from evenprobe.deadtests.kinds import DEAD_TESTS
from evenprobe.formats import ReadingEntry, parse
from evenprobe.formats.answers import InterpretationOut
from evenprobe.formats.said import circuit_said, how_said, limit_said, next_said, seen_said, where_said
from evenprobe.formats.signed import (
    BesideSigned,
    CouldBe,
    NotTested,
    SignedCircuit,
    SignedLimit,
    SignedPhoto,
    SignedPoint,
    SignedProof,
    SignedReading,
    SignedTest,
    ToDo,
)
from evenprobe.interpretation import WORST_FIRST, Verdict
from evenprobe.interpretation.findings import State
from evenprobe.limits.titles import title_of
from evenprobe.planning import BY_WHEN
from evenprobe.practices import Practice
from evenprobe.supplies import SYSTEMS
from kit.models import Tester
from photos.models import PhotoOn
from proofs.logs import state_of
from proofs.models import Proof
from readings.interpretations import interpretation_of
from readings.models import Reading
from readings.point_view import PointView
from readings.surveys import COUNTS, source_of, status_of, tester_said
from sheets.models import SheetEntry
from sheets.records import SheetView, locks_of
from visits.on_site import CircuitRecord

_MOST_POSSIBLE = 5
"""Of what is still possible at a point, that are named."""
Photos = Mapping[UUID, Sequence[PhotoOn]]


class OfCircuit:
    """A circuit, each thing of it worked out once."""

    def __init__(
        self, record: CircuitRecord, since: datetime | None, practice: Practice, now: datetime, photos: Photos
    ) -> None:
        self.record, self.practice, self.now, self.photos = record, practice, now, photos
        self.answers = {view.point.id: interpretation_of(view) for view in record.views}
        sheets = record.sheets
        self.sheets = [s for s in sheets if since is None or s.sheet.begun_at >= since] or sheets[:1]
        self.sheets = self.sheets[:1]
        told = [proof for proof in record.proofs if proof.events.all()]
        self.proofs = [proof for proof in told if since is None or proof.begun_at >= since][:1]

    def signed(self) -> SignedCircuit:
        circuit = self.record.circuit
        supply = circuit.board.supply
        points = [self._point(view) for view in self.record.views]
        return SignedCircuit(
            id=str(circuit.id),
            name=circuit.name,
            board=circuit.board.name,
            supply=f"{supply.name}, {SYSTEMS[supply.system].title}, {supply.earthing}",
            schedule=circuit_said(
                self.practice, circuit.rating_a, circuit.curve, circuit.residual_ma, circuit.conductor,
                max((view.point.length_m or 0.0 for view in self.record.views), default=0.0) or None,
            ),
            verdict=min((p.verdict for p in points), key=worst, default=str(Verdict.UNTESTED)),
            points=points,
            dead_tests=[test for sheet in self.sheets for test in self._tests(sheet)],
            proofs=[self._proof(proof) for proof in self.proofs],
            photos=self._hung(circuit.id, *(entry.id for sheet in self.sheets for entry in sheet.entries)),
        )  # fmt: skip

    def _point(self, view: PointView) -> SignedPoint:
        point, answer = view.point, self.answers[view.point.id]
        safe = Verdict(answer.verdict).is_safe
        return SignedPoint(
            id=str(point.id),
            name=point.name,
            room=point.room,
            kind=point.kind,
            terminals=point.terminals,
            length_m=point.length_m,
            verdict=answer.verdict,
            insulation=BesideSigned(state=answer.insulation.state, text=answer.insulation.why),
            protection=BesideSigned(state=answer.protection.state, text=answer.protection.why),
            summary=answer.summary,
            decides="" if safe or not answer.next_tests else next_said(answer.next_tests[0], self.practice),
            could_be=[] if safe or not view.counting() else list(_possible(answer)),
            readings=list(self._readings(view, answer)),
            photos=self._hung(point.id, *(row.id for row in view.rows)),
        )

    def _hung(self, *of: UUID) -> list[SignedPhoto]:
        """What hangs on any of these."""
        return [
            SignedPhoto(id=str(hung.photo_id), sha256=hung.photo.sha256, on=hung.note, taken_at=hung.photo.taken_at)
            for one in of
            for hung in self.photos.get(one, ())
        ]

    def _readings(self, view: PointView, answer: InterpretationOut) -> Iterator[SignedReading]:
        why = {n.reading: n.why for n in answer.not_counted}
        counting = view.counting()
        for row in view.rows:
            if row.entry is None:
                continue
            name = str(row.id)
            said = parse(ReadingEntry, row.entry)
            status = status_of(row)
            yield SignedReading(
                id=name,
                where=where_said(said.quantity, said.from_, said.to, self.practice),
                seen=seen_said(said),
                how=how_said(said, self.practice),
                at=row.taken_at,
                by=row.by_name,
                tester=tester_said(row),
                source=source_of(row),
                counts=name in counting and name not in why,
                why=why.get(name, "") if status == COUNTS else status,
            )

    def _tests(self, sheet: SheetView) -> Iterator[SignedTest]:
        for entry in sheet.of("tested"):
            test, taken = entry.entry["test"], sheet.taken_by(entry)
            limit = taken.outcome.limit
            yield SignedTest(
                id=str(entry.id),
                title=sheet.title_of(entry),
                shown=DEAD_TESTS[test["kind"]].shown(test),
                result=str(taken.outcome.result),
                text=taken.outcome.text,
                limit=limit_said(limit.band.low, limit.band.high, limit.unit) if limit else "",
                source=limit.source if limit else "",
                at=entry.at,
                by=entry.by_name,
                tester=str(entry.tester) if entry.tester else "",
                doubt=taken.in_doubt,
            )

    def _proof(self, proof: Proof) -> SignedProof:
        state = state_of(proof, self.now)
        return SignedProof(
            id=str(proof.id),
            name=proof.name,
            state=state.state,
            proved_at=state.proved_at or state.was_proved_at,
            stated_by=state.stated_by,
            sources=[source.label for source in state.sources],
            locks=[f"{lock.name}, {lock.put_by}" for lock in locks_of(proof).values()],
        )

    def not_tested(self) -> Iterator[NotTested]:
        """Points nobody measured, answers nobody asked for, lines of the sheet that are left."""
        circuit = self.record.circuit
        for view in self.record.views:
            answer = self.answers[view.point.id]
            name = f"{circuit.name}, {view.point.name}"
            if answer.verdict == Verdict.UNTESTED:
                yield NotTested(id=str(view.point.id), what=f"{name}: nothing measured")
                continue
            missing = [words for words, beside in _beside(answer) if beside == State.NOT_TESTED]
            if missing:
                yield NotTested(id=f"{view.point.id} beside", what=f"{name}: {' and '.join(missing)} not tested")
        if not self.sheets:
            yield NotTested(id=f"{circuit.id} dead", what=f"{circuit.name}: no dead tests")
        for sheet in self.sheets:
            for line in sheet.lines:
                if line.id not in sheet.taken:
                    left = sheet.record.left.get(line.id, "")
                    what = f"{circuit.name}, {line.title}, {line.step}: not tested"
                    yield NotTested(id=f"{sheet.sheet.id} {line.id}", what=what, why=left)

    def to_do(self) -> Iterator[tuple[Verdict, ToDo]]:
        """What has to be done, with the verdict that asks for it."""
        circuit = self.record.circuit.name
        for view in self.record.views:
            answer = self.answers[view.point.id]
            verdict = Verdict(answer.verdict)
            if verdict in BY_WHEN and verdict is not Verdict.UNTESTED:
                what = f"{circuit}, {view.point.name}: {self._asks_for(answer)}"
                yield verdict, ToDo(what=what, by_when=BY_WHEN[verdict])
        for sheet in self.sheets:
            for test in self._tests(sheet):
                if test.result == "fail":
                    what = f"{circuit}, {test.title}: {test.text}"
                    yield Verdict.HAZARD, ToDo(what=what, by_when=BY_WHEN[Verdict.HAZARD])

    def _asks_for(self, answer: InterpretationOut) -> str:
        """The repair where only one fault is left, else the reading that decides."""
        standing = [c for c in answer.conditions if c.standing and not c.fine]
        if len(standing) == 1 and standing[0].mend:
            return standing[0].mend
        if answer.next_tests:
            return f"next reading: {next_said(answer.next_tests[0], self.practice)}"
        return answer.summary

    def testers(self) -> Iterator[Tester]:
        rows: list[Reading | SheetEntry] = [row for view in self.record.views for row in view.rows]
        rows += [entry for sheet in self.sheets for entry in sheet.entries]
        yield from (row.tester for row in rows if row.tester is not None)

    def limits(self) -> Iterator[SignedLimit]:
        for answer in self.answers.values():
            for judged in answer.judgements:
                yield self._limit(judged.limit, limit_said(judged.low, judged.high, judged.unit), judged.source)
        for limit in (taken.outcome.limit for sheet in self.sheets for taken in sheet.taken.values()):
            if limit is not None:
                yield self._limit(limit.id, limit_said(limit.band.low, limit.band.high, limit.unit), limit.source)

    def _limit(self, name: str, says: str, source: str) -> SignedLimit:
        title = self.practice.in_words(title_of(name))
        return SignedLimit(id=name, title=f"{title[0].upper()}{title[1:]}", says=says, source=source)


def worst(verdict: str) -> int:
    """Where it stands, the worst first."""
    return WORST_FIRST.index(Verdict(verdict))


def _beside(answer: InterpretationOut) -> tuple[tuple[str, str], ...]:
    return ("insulation", answer.insulation.state), ("protective device", answer.protection.state)


def _possible(answer: InterpretationOut) -> Iterator[CouldBe]:
    """The likeliest of what stands and is no fine state."""
    standing = sorted((c for c in answer.conditions if c.standing and not c.fine), key=lambda c: -c.likelihood)
    for one in standing[:_MOST_POSSIBLE]:
        yield CouldBe(title=one.title, severity=one.severity, look_for=one.look_for, mend=one.mend)
