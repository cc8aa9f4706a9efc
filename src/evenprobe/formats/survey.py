"""The survey file: a supply, its points and their readings. Strict: an unknown key is a slip, and is named."""

from collections.abc import Iterator
from datetime import date, datetime
from math import isfinite
from typing import Annotated, Any, Literal

from pydantic import (
    AwareDatetime,
    BaseModel,
    ConfigDict,
    Field,
    StringConstraints,
    field_validator,
    model_validator,
)

from evenprobe.formats.problems import FieldError, FormatError
from evenprobe.formats.units import UNITS_OF, Unit, to_si
from evenprobe.supplies import SYSTEMS, Earthing, PracticeId
from evenprobe.testers import Device, Input, Instrument, InstrumentKind, Measurement, Quantity, Reading
from evenprobe.testers.instruments import TYPED
from evenprobe.testers.showing import LAMP_PAIRS
from evenprobe.wiring import CircuitFacts, PointFacts, PointKind, Terminal, conductor_named

HIGHEST_OHMS = 1e12
HIGHEST_LOAD_A = 1000.0

Name = Annotated[str, StringConstraints(min_length=1, max_length=120, strip_whitespace=True)]
Text = Annotated[str, StringConstraints(max_length=4000)]
Positive = Annotated[float, Field(gt=0)]
NotNegative = Annotated[float, Field(ge=0)]


class Strict(BaseModel):
    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, frozen=True, populate_by_name=True)


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


class ReadingEntry(Strict):
    id: Name | None = None
    quantity: Quantity
    mode: Literal["ac", "dc"] | None = None
    from_: Annotated[str | None, Field(alias="from")] = None
    to: str | None = None
    value: float | bool | dict[str, bool] | None = None
    at_least: float | None = None
    below: float | None = None
    over_range: Literal[True] | None = None
    unit: Unit | None = None
    input: Input | None = None
    instrument: Name | None = None
    test_v: Positive | None = None
    test_ma: Positive | None = None
    ms: NotNegative | None = None
    load_here_a: Annotated[float, Field(gt=0, le=HIGHEST_LOAD_A)] | None = None
    load_elsewhere_a: Annotated[float, Field(gt=0, le=HIGHEST_LOAD_A)] | None = None
    device: Device | None = None
    at: AwareDatetime | None = None
    by: Text | None = None
    note: Text | None = None
    supersedes: Name | None = None
    """The reading this one corrects; both stay in the file, this one counts."""
    withdrawn: Literal[True] | None = None
    """Taken back by whoever took it. It stays in the file and does not count."""

    @model_validator(mode="before")
    @classmethod
    def _numbers_are_numbers(cls, data: Any) -> Any:
        """A number as text is a slip, and true is no number where one is meant."""
        if isinstance(data, dict):
            value = data.get("value")
            if isinstance(value, str | list):
                raise FieldError("value", f"must be a number, not {value!r}")
            if isinstance(value, float) and not isfinite(value):
                raise FieldError("value", "must be a finite number")
            for key in ("at_least", "below", "load_here_a", "load_elsewhere_a"):
                if isinstance(data.get(key), str | bool):
                    raise FieldError(key, f"must be a number, not {data[key]!r}")
        return data

    @model_validator(mode="after")
    def _makes_sense(self) -> "ReadingEntry":
        self._check_ends()
        match self.quantity:
            case Quantity.PRESENCE | Quantity.TRIP:
                if not isinstance(self.value, bool):
                    raise FieldError("value", "must be true or false")
            case Quantity.LAMPS:
                self._check_lamps()
            case _:
                self._check_number()
        return self

    def _check_ends(self) -> None:
        two_ends = self.quantity in (Quantity.VOLTAGE, Quantity.RESISTANCE, Quantity.INSULATION)
        if two_ends or self.quantity is Quantity.PRESENCE:
            if self.from_ is None:
                raise FieldError("from", "is missing: a number without its points is not a reading")
            if two_ends and self.to is None:
                raise FieldError("to", "is missing: a number without both points is not a reading")
        if self.from_ is not None and self.from_ == self.to:
            raise FieldError("to", f"both probes are on {self.to}; put one on another contact")

    def _check_lamps(self) -> None:
        if not isinstance(self.value, dict) or not self.value:
            raise FieldError("value", 'must say which lamps are lit, as {"L-N": true}')
        for lamp in self.value:
            if lamp not in LAMP_PAIRS:
                raise FieldError("value", f"unknown lamp {lamp!r}; use {', '.join(LAMP_PAIRS)}")

    def _check_number(self) -> None:
        units = UNITS_OF[self.quantity]
        if self.unit is not None and self.unit not in units:
            raise FieldError("unit", f"{self.unit} is no unit of {self.quantity}; use {', '.join(units)}")
        if isinstance(self.value, bool | dict):
            raise FieldError("value", "must be a number")
        self._check_given_once()
        for name in ("value", "at_least", "below"):
            number = getattr(self, name)
            if number is None:
                continue
            if number < 0 and not (self.quantity is Quantity.VOLTAGE and self.mode == "dc" and name == "value"):
                what = "an AC voltage" if self.quantity is Quantity.VOLTAGE else f"a {self.quantity}"
                raise FieldError(name, f"{what} cannot be negative: check the sign, or DC was meant")
            if self.quantity in (Quantity.RESISTANCE, Quantity.INSULATION) and self.si(number) > HIGHEST_OHMS:
                raise FieldError(name, "more than any tester shows; if the display showed OL, say over_range")
        if self.at_least is not None and self.below is not None and self.at_least >= self.below:
            raise FieldError("below", "must be above at_least: the first step that stayed dark")

    def _check_given_once(self) -> None:
        stepped = self.at_least is not None or self.below is not None
        given = (self.value is not None) + stepped + (self.over_range is True)
        if given == 0:
            raise FieldError("value", "is missing")
        if given > 1:
            raise FieldError("value", "give a value, or steps, or over_range, not several")
        if self.over_range and self.quantity not in (Quantity.RESISTANCE, Quantity.INSULATION):
            raise FieldError("over_range", "for volts say at_least with the top of the range, and treat it as live")

    def si(self, number: float) -> float:
        return to_si(number, self.unit or UNITS_OF[self.quantity][0])

    def reading(self, name: str, instrument: Instrument) -> Reading:
        """The core's reading; the terminals have been checked to be the point's."""
        has_number = self.quantity in UNITS_OF
        number = float(self.value) if has_number and isinstance(self.value, int | float) else None
        device: Device = self.device or ("open" if self.quantity is Quantity.RESISTANCE else "closed")
        return Reading(
            id=name,
            measurement=Measurement(
                quantity=self.quantity,
                from_=None if self.from_ is None else Terminal(self.from_),
                to=None if self.to is None else Terminal(self.to),
                instrument=instrument,
                input=self.input or "high-z",
                load_here_a=self.load_here_a,
                load_elsewhere_a=self.load_elsewhere_a,
                device=device,
            ),
            value=None if number is None else self.si(number),
            at_least=None if self.at_least is None else self.si(self.at_least),
            below=None if self.below is None else self.si(self.below),
            over_range=self.over_range is True,
            alarm=self.value if isinstance(self.value, bool) else None,
            lit=self.value if isinstance(self.value, dict) else {},
            dc=self.mode == "dc",
        )


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
