"""The survey file: a supply, its points and their readings. Strict: an unknown key is a slip, and is named."""

from collections.abc import Iterator
from dataclasses import replace
from typing import Annotated, Any, Literal

from pydantic import (
    Field,
    StringConstraints,
    field_validator,
    model_validator,
)

from evenprobe.entries import FieldError, FormatError, Name, Strict, Text, Time, parse
from evenprobe.formats.fields import PracticeName, SymptomId, Terminals
from evenprobe.formats.kit import InstrumentEntry
from evenprobe.formats.reading import ReadingEntry
from evenprobe.formats.supply import SupplyEntry
from evenprobe.interpretation.next_measurement import Obstacle
from evenprobe.limits.protective_devices import Curve
from evenprobe.quantities import Reading
from evenprobe.quantities.fit_here import why_unfit
from evenprobe.supplies import SYSTEMS
from evenprobe.testers import TYPED, Instrument
from evenprobe.wiring import CircuitFacts, PointFacts, PointKind, Terminal, conductor_named
from evenprobe.wiring.points import LINES, board_ends


class CircuitEntry(Strict):
    label: Text | None = None
    board: Text | None = None
    rating_a: Annotated[float, Field(gt=0, le=6300)] | None = None
    conductor: str | None = None
    length_m: Annotated[float, Field(gt=0, le=5000)] | None = None
    residual_ma: Annotated[float, Field(gt=0, le=30_000)] | None = None
    """Rated residual current of the device that protects the circuit, where there is one."""
    curve: Curve | None = None
    """Trip curve, where it is known."""

    @field_validator("conductor")
    @classmethod
    def _known(cls, size: str | None) -> str | None:
        return None if size is None else conductor_named(size).name

    def facts(self) -> CircuitFacts:
        conductor = None if self.conductor is None else conductor_named(self.conductor)
        return CircuitFacts(self.rating_a, conductor, self.length_m, self.residual_ma)


class PointEntry(Strict):
    """A point of a survey with its readings."""

    id: Name
    kind: PointKind
    label: Text | None = None
    room: Annotated[str, StringConstraints(min_length=1, max_length=120)] | None = None
    """Where it is, for going round all of one room."""
    terminals: Terminals
    circuit: CircuitEntry | None = None
    supply: SupplyEntry | None = None
    """This point's own supply, where a site has several; the file's otherwise."""
    cannot: list[Obstacle] = []
    """What is not to be had or not allowed here, so that no next test needs it."""
    noticed: list[SymptomId] = []
    """What was noticed of its circuit: it orders what stands and strikes nothing out."""
    readings: list[ReadingEntry] = []

    @model_validator(mode="after")
    def _reading_ends(self) -> "PointEntry":
        for index, entry in enumerate(self.readings):
            for key, text in self.misplaced(entry):
                raise FieldError(f"readings[{index}].{key}", text)
        return self

    def misplaced(self, entry: ReadingEntry) -> Iterator[tuple[str, str]]:
        """What of a reading cannot be of this point: the key, and why."""
        ends = (*self.terminals, Terminal.REF, *board_ends(self.terminals))
        for key, end in (("from", entry.from_), ("to", entry.to)):
            if end is not None and end not in ends:
                yield key, f"{end!r} is no terminal of this point; use {', '.join(ends)}"
        loaded = entry.load_between
        if loaded is not None and (len(set(loaded)) < 2 or not set(loaded) <= set(self._live)):
            yield "load_between", f"a load is between two of {', '.join(self._live)}"

    @property
    def _live(self) -> tuple[Terminal, ...]:
        """What equipment is connected between: the lines and the neutral."""
        return tuple(t for t in self.terminals if t in (*LINES, Terminal.N))


class SurveyFile(Strict):
    """The whole file, checked."""

    format: Literal["even-probe/survey"]
    version: Literal[1]
    practice: PracticeName
    supply: SupplyEntry
    instruments: list[InstrumentEntry] = []
    points: Annotated[list[PointEntry], Field(min_length=1)]
    label: Text | None = None
    exported_at: Time | None = None

    @model_validator(mode="after")
    def _refers_to_what_is_there(self) -> "SurveyFile":
        problems: list[tuple[str, str]] = []
        instruments: dict[str, InstrumentEntry] = {}
        for i, instrument in enumerate(self.instruments):
            if instrument.id in instruments:
                problems.append((f"instruments[{i}].id", f"{instrument.id!r} stands twice"))
            instruments[instrument.id] = instrument
        points: set[str] = set()
        seen: dict[str, ReadingEntry] = {}
        for i, point in enumerate(self.points):
            if point.id in points:
                problems.append((f"points[{i}].id", f"{point.id!r} stands twice"))
            points.add(point.id)
            for j, entry in enumerate(point.readings):
                path = f"points[{i}].readings[{j}]"
                problems += self._reading_problems(path, f"{point.id}/{entry.id}", entry, instruments, seen)
        if problems:
            path, text = problems[0]
            raise FieldError(path, text)
        return self

    @staticmethod
    def _reading_problems(
        path: str,
        name: str,
        entry: ReadingEntry,
        instruments: dict[str, InstrumentEntry],
        seen: dict[str, ReadingEntry],
    ) -> Iterator[tuple[str, str]]:
        if entry.id is not None:
            if name in seen and seen[name] != entry:
                yield f"{path}.id", f"{entry.id!r} stands twice with different content"
            seen[name] = entry
        if entry.instrument is not None and entry.instrument not in instruments:
            yield f"{path}.instrument", f"{entry.instrument!r} is not among the instruments"
            return
        for key, text in entry.not_shown_by(instruments[entry.instrument].instrument() if entry.instrument else TYPED):
            yield f"{path}.{key}", text

    def kit(self) -> list[Instrument]:
        return [entry.instrument() for entry in self.instruments]

    def facts(self, point: PointEntry) -> PointFacts:
        """What decides the samples of a point."""
        supply = point.supply or self.supply
        return PointFacts(
            practice=self.practice,
            system=SYSTEMS[supply.system],
            earthing=supply.earthing,
            kind=point.kind,
            terminals=point.terminals,
            circuit=point.circuit.facts() if point.circuit else CircuitFacts(),
        )

    def readings(self, point: PointEntry) -> list[Reading]:
        """The point's readings that stand: a retry once, a corrected one not at all."""
        kit = {entry.id: entry for entry in self.instruments}
        facts = self.facts(point)
        superseded = {entry.supersedes for entry in point.readings if entry.supersedes}
        found: dict[str, Reading] = {}
        for index, entry in enumerate(point.readings):
            name = entry.id or f"readings[{index}]"
            if name in superseded or entry.withdrawn:
                continue
            if entry.instrument is None:
                found[name] = entry.reading(name, TYPED)
                continue
            tester = kit[entry.instrument]
            on = entry.at.date() if entry.at else None
            why = why_unfit(facts, entry.quantity, tester.held(), on, entry.test_v)
            found[name] = replace(entry.reading(name, tester.instrument()), unfit=why)
        return list(found.values())

    def single_point(self) -> PointEntry:
        """The point of a survey that must have just one."""
        if len(self.points) != 1:
            raise FormatError([("points", f"must hold one point here, not {len(self.points)}")])
        return self.points[0]


def reading_at(point: PointEntry, data: Any, instrument: InstrumentEntry | None) -> ReadingEntry:
    """One reading, checked against its point and what it was taken with, without the other readings.

    Parameters
    ----------
    point : PointEntry
        Where it was taken.
    data : dict
        The reading as the survey format has it; what it names as `instrument` is not looked for.
    instrument : InstrumentEntry or None
        What it was taken with; None where nobody said.

    Returns
    -------
    ReadingEntry
        As `PointEntry.readings` holds it.

    Raises
    ------
    FormatError
        With the reading's own keys as paths.

    Examples
    --------
    >>> outlet = parse(PointEntry, {"id": "p1", "kind": "outlet", "terminals": ["L", "N", "PE"]})
    >>> reading_at(outlet, {"quantity": "voltage", "from": "L", "to": "L2", "value": 231.0}, None)  # doctest: +ELLIPSIS
    Traceback (most recent call last):
    evenprobe.entries.problems.FormatError: to: 'L2' is no terminal of this point; use L, N, PE, ...
    """
    entry = parse(ReadingEntry, data)
    problems = [*point.misplaced(entry), *entry.not_shown_by(instrument.instrument() if instrument else TYPED)]
    if problems:
        raise FormatError(problems)
    return entry
