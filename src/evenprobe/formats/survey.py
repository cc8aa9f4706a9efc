"""The survey file: a supply, its points and their readings. Strict: an unknown key is a slip, and is named."""

from collections.abc import Iterator
from datetime import date, datetime
from typing import Annotated, Literal

from pydantic import (
    Field,
    field_validator,
    model_validator,
)

from evenprobe.formats.fields import Name, Positive, Strict, Text
from evenprobe.formats.problems import FieldError, FormatError
from evenprobe.formats.reading import ReadingEntry
from evenprobe.supplies import SYSTEMS, Earthing, PracticeId
from evenprobe.testers import Instrument, InstrumentKind, Quantity, Reading
from evenprobe.testers.instruments import TYPED
from evenprobe.wiring import CircuitFacts, PointFacts, PointKind, Terminal, conductor_named


class SupplyEntry(Strict):
    system: str
    earthing: Earthing = Earthing.TN_C_S

    @field_validator("system")
    @classmethod
    def _known(cls, system: str) -> str:
        if system not in SYSTEMS:
            raise ValueError(f"unknown supply system {system!r}; use one of {', '.join(SYSTEMS)}")
        return system


class InstrumentEntry(Strict):
    id: Name
    kind: InstrumentKind
    proved: bool | None = None
    input_ohm: Positive | None = None
    accuracy_percent: Annotated[float, Field(ge=0, le=50)] | None = None
    accuracy_counts: Annotated[float, Field(ge=0, le=1000)] | None = None
    resolution: Positive | None = None
    label: Text | None = None
    category: Literal["II", "III", "IV"] | None = None
    rated_v: Positive | None = None
    functions: list[str] | None = None
    steps_v: list[Positive] | None = None
    battery: Literal["ok", "low", "unknown"] | None = None
    self_check: bool | None = None
    calibration_due: date | None = None
    damage: bool | None = None
    always_on_light: bool | None = None
    test_ma: Positive | None = None
    test_v: list[Positive] | None = None
    known_issue: Text | None = None

    def instrument(self) -> Instrument:
        return Instrument(
            id=self.id,
            kind=self.kind,
            proved=self.proved,
            input_ohm=self.input_ohm,
            accuracy_percent=self.accuracy_percent,
            accuracy_counts=self.accuracy_counts,
            resolution=self.resolution,
            rated_volts=self.rated_v,
        )


class CircuitEntry(Strict):
    label: Text | None = None
    board: Text | None = None
    rating_a: Annotated[float, Field(gt=0, le=6300)] | None = None
    conductor: str | None = None
    length_m: Annotated[float, Field(gt=0, le=5000)] | None = None

    @field_validator("conductor")
    @classmethod
    def _known(cls, size: str | None) -> str | None:
        return None if size is None else conductor_named(size).name

    def facts(self) -> CircuitFacts:
        conductor = None if self.conductor is None else conductor_named(self.conductor)
        return CircuitFacts(self.rating_a, conductor, self.length_m)


class PointEntry(Strict):
    id: Name
    kind: PointKind
    label: Text | None = None
    terminals: Annotated[tuple[Terminal, ...], Field(min_length=2)]
    circuit: CircuitEntry | None = None
    supply: SupplyEntry | None = None
    """This point's own supply, where a site has several; the file's otherwise."""
    readings: list[ReadingEntry] = []

    @field_validator("terminals")
    @classmethod
    def _plausible(cls, terminals: tuple[Terminal, ...]) -> tuple[Terminal, ...]:
        if len(set(terminals)) < len(terminals):
            raise ValueError("names a terminal twice")
        if Terminal.REF in terminals:
            raise ValueError("REF is an earth brought along, not a terminal of the point")
        if Terminal.L in terminals and {Terminal.L1, Terminal.L2, Terminal.L3} & set(terminals):
            raise ValueError("use L alone, or L1, L2, L3")
        return terminals

    @model_validator(mode="after")
    def _reading_ends(self) -> "PointEntry":
        problems = []
        for index, entry in enumerate(self.readings):
            for key, end in (("from", entry.from_), ("to", entry.to)):
                if end is not None and end not in (*self.terminals, Terminal.REF):
                    names = ", ".join((*self.terminals, Terminal.REF))
                    problems.append((f"readings[{index}].{key}", f"{end!r} is no terminal of this point; use {names}"))
        if problems:
            path, text = problems[0]
            raise FieldError(path, text)
        return self


class SurveyFile(Strict):
    """The whole file, checked."""

    format: Literal["even-probe/survey"]
    version: Literal[1]
    practice: PracticeId
    supply: SupplyEntry
    instruments: list[InstrumentEntry] = []
    points: Annotated[list[PointEntry], Field(min_length=1)]
    label: Text | None = None
    exported_at: datetime | None = None

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
        named = instruments[entry.instrument].instrument() if entry.instrument else TYPED
        ability = named.volts()
        if entry.quantity is Quantity.VOLTAGE and ability is not None:
            for key in ("value", "at_least"):
                number = getattr(entry, key)
                if isinstance(number, float) and abs(entry.si(number)) > ability.top:
                    yield (
                        f"{path}.{key}",
                        f"{entry.si(number):g} V is more than this tester shows ({ability.top:g} V): "
                        "check the number and the unit",
                    )

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
        kit = {i.id: i for i in self.kit()}
        superseded = {entry.supersedes for entry in point.readings if entry.supersedes}
        found: dict[str, Reading] = {}
        for index, entry in enumerate(point.readings):
            name = entry.id or f"readings[{index}]"
            if name not in superseded and not entry.withdrawn:
                found[name] = entry.reading(name, kit[entry.instrument] if entry.instrument else TYPED)
        return list(found.values())

    def single_point(self) -> PointEntry:
        """The point of a survey that must have just one."""
        if len(self.points) != 1:
            raise FormatError([("points", f"must hold one point here, not {len(self.points)}")])
        return self.points[0]
