"""Clear to energise: what still stands in the way of the one attempt.

Nothing joined that should not be, insulation judged or knowingly left, the device works, boxes closed, people
told, locks off by those who put them (EN 50110-1 clause 6.2.7; NFPA 70E article 120). What is in the way is said;
it can be passed only with a written reason, which is for whoever keeps the record.
"""

from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass

from evenprobe.deadtests.judgement import Outcome, Result
from evenprobe.deadtests.sentences import IN_DOUBT, OUTSTANDING
from evenprobe.deadtests.sheet import LOOK_FOR, Line, Step
from evenprobe.sentences import Sentence

MAY_BE_LEFT = (Step.CONTINUITY, Step.INSULATION)
"""What may knowingly be left, with a reason; what is joined that should not be, and the device, may not."""
SHORTEST_REASON = 12
"""Characters of a written reason: a word is no reason."""

STATEMENTS: dict[str, str] = {
    "boxes-closed": "Boxes and covers closed",
    "people-told": "Others warned",
}
"""What a person says is so, beside what was measured."""


@dataclass(frozen=True)
class Taken:
    """The reading in force of a line. `dead`: whether it was proved dead then; `unfit`: why the tester was not fit.

    `believed`: somebody was asked about its question and stands by it.
    """

    outcome: Outcome
    dead: bool
    unfit: str = ""
    believed: bool = False

    @property
    def clears(self) -> bool:
        """It passes, and whoever made it could tell."""
        return self.outcome.result in (Result.PASS, Result.NOTE) and not self.in_doubt

    @property
    def in_doubt(self) -> str:
        """Why it could not clear anything, whatever it shows."""
        if not self.dead:
            return str(IN_DOUBT.say("not-proved-dead"))
        if self.unfit:
            return self.unfit
        if self.outcome.question and not self.believed:
            return self.outcome.question
        return ""


@dataclass(frozen=True)
class Lock:
    """`taken_by` None: it is still on."""

    name: str
    put_by: str
    taken_by: str | None = None


@dataclass(frozen=True)
class InTheWay:
    code: str
    said: Sentence
    line: str | None = None

    @property
    def text(self) -> str:
        return str(self.said)


@dataclass(frozen=True)
class SheetRecord:
    """All that is on a sheet. `look`: good or not by item; `left`: why a line was knowingly left, by line.

    `said`: statements made; `discharged`: since the last insulation test, None where there was none. `loads_out`
    and `null_ohm`: None where nobody said.
    """

    lines: Sequence[Line]
    taken: Mapping[str, Taken]
    look: Mapping[str, bool]
    left: Mapping[str, str]
    said: Collection[str]
    locks: Sequence[Lock]
    discharged: bool | None = None
    loads_out: bool | None = None
    null_ohm: float | None = None


def in_the_way(record: SheetRecord) -> tuple[InTheWay, ...]:
    """Everything that keeps the circuit from being clear to energise, in the order of the work."""
    return (*_look(record), *_tests(record), *_discharge(record), *_statements(record), *_locks(record))


def steps_done(record: SheetRecord) -> dict[Step, bool]:
    """Of each step whether nothing more is to be done there, in the order of the work."""
    step_of = {line.id: line.step for line in record.lines}
    open_steps = {step_of.get(found.line or "", found.line) for found in in_the_way(record)}
    said = {Step.LOADS: record.loads_out is True, Step.LEADS: record.null_ohm is not None}
    said[Step.DISCHARGE] = record.discharged is True
    return {step: said.get(step, step not in open_steps) for step in Step}


def _look(record: SheetRecord) -> Iterable[InTheWay]:
    unseen = [item for item in LOOK_FOR if item.id not in record.look]
    if unseen:
        said = OUTSTANDING.say("not-looked", left=len(unseen), all=len(LOOK_FOR))
        yield InTheWay("not-looked", said, Step.LOOK)
    for item in LOOK_FOR:
        if record.look.get(item.id) is False:
            what = f"{item.title[0].lower()}{item.title[1:]}"
            yield InTheWay("seen", OUTSTANDING.say("seen", what=what), Step.LOOK)


def _tests(record: SheetRecord) -> Iterable[InTheWay]:
    for line in record.lines:
        taken = record.taken.get(line.id)
        if taken is None:
            if not _left(record, line) and not _told_by_insulation(record, line):
                yield InTheWay("not-tested", OUTSTANDING.say("not-tested", line=_named(line)), line.id)
        elif taken.outcome.result is Result.FAIL:
            yield InTheWay("fails", _of_a_test(line, taken.outcome.text), line.id)
        elif not taken.clears and not _told_by_insulation(record, line) and not _left(record, line):
            code = "does-not-count" if taken.in_doubt else str(taken.outcome.result)
            yield InTheWay(code, _of_a_test(line, taken.in_doubt or taken.outcome.text), line.id)


def _of_a_test(line: Line, said: str) -> Sentence:
    return OUTSTANDING.say("of-a-test", line=_named(line), said=said)


def _left(record: SheetRecord, line: Line) -> bool:
    return line.id in record.left and line.step in MAY_BE_LEFT


def _told_by_insulation(record: SheetRecord, line: Line) -> bool:
    """Two conductors that insulate are not joined."""
    if line.step is not Step.SEPARATION:
        return False
    other = record.taken.get(line.id.replace("apart", "insulation", 1))
    return other is not None and other.clears


def _named(line: Line) -> str:
    what = {Step.SEPARATION: ", separation", Step.INSULATION: ", insulation"}.get(line.step, "")
    return f"{line.title}{what}"


def _discharge(record: SheetRecord) -> Iterable[InTheWay]:
    if record.discharged is False:
        yield InTheWay("not-discharged", OUTSTANDING.say("not-discharged"), Step.DISCHARGE)


def _statements(record: SheetRecord) -> Iterable[InTheWay]:
    for key, title in STATEMENTS.items():
        if key not in record.said:
            yield InTheWay(key, OUTSTANDING.say("not-said", statement=title), Step.CLEAR)


def _locks(record: SheetRecord) -> Iterable[InTheWay]:
    for lock in record.locks:
        if lock.taken_by is None:
            yield InTheWay("lock-on", OUTSTANDING.say("lock-on", lock=lock.name, by=lock.put_by), Step.CLEAR)
        elif lock.taken_by != lock.put_by:
            said = OUTSTANDING.say("lock-taken-by-another", lock=lock.name, by=lock.put_by, taken_by=lock.taken_by)
            yield InTheWay("lock-taken-by-another", said, Step.CLEAR)
