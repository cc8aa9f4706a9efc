"""The tests file: dead tests, trips, loads and components, each with what it is judged by."""

from collections.abc import Iterable
from math import inf, isfinite
from typing import Annotated, Any, ClassVar, Literal

from pydantic import AwareDatetime, Field, field_validator, model_validator
from typing_extensions import override

from evenprobe.deadtests import Accuracy, Outcome, Shown
from evenprobe.deadtests.components import battery, capacitor, coil, element, temperature_sensor
from evenprobe.deadtests.continuity import Run, closed_contact, continuity, separation
from evenprobe.deadtests.insulation import CircuitInsulation, insulation, ratios, several
from evenprobe.deadtests.protective import DeviceType, frequency, load, residual_current
from evenprobe.deadtests.rings import RingOutlet, ring
from evenprobe.formats.fields import Name, Strict, Text
from evenprobe.formats.problems import FieldError
from evenprobe.formats.reading import HIGHEST_OHMS
from evenprobe.formats.rounding import figures
from evenprobe.formats.supply import SystemId
from evenprobe.supplies import SYSTEMS, Limit, PracticeId
from evenprobe.supplies.test_limits import insulation_rule
from evenprobe.testers.measurement import Neutral
from evenprobe.wiring import Terminal, conductor_named
from evenprobe.wiring.conductors import Conductor, Material

COMPUTED_FIGURES = 4

Number = Annotated[float, Field(strict=True)]
Ohms = Annotated[float, Field(strict=True, ge=0, le=HIGHEST_OHMS)]
Megohms = Annotated[float, Field(strict=True, ge=0, le=HIGHEST_OHMS / 1e6)]
Some = Annotated[float, Field(strict=True, gt=0, le=1e9)]
Volts = Annotated[float, Field(strict=True, gt=0, le=10_000)]
NotNegativeNumber = Annotated[float, Field(strict=True, ge=0, le=1e9)]
Celsius = Annotated[float, Field(strict=True, ge=-60, le=250)]
Metres = Annotated[float, Field(strict=True, gt=0, le=5000)]
InsulationKind = Literal["ordinary", "selv", "surge-protected", "equipment-250", "equipment-600"]
Chemistry = Literal["lead-acid-12", "alkaline-1.5"]
Curve = Literal["B", "C", "D", "thermal-magnetic"]


BEYOND_KEYS = ("over_range", "closed_over_range")


class OneTest(Strict):
    """What every kind may say. `usual`: the error of the tester it takes, unless the entry gives one."""

    usual: ClassVar[Accuracy] = Accuracy(1.0)

    id: Name
    accuracy_percent: Annotated[float, Field(strict=True, ge=0, le=50)] | None = None
    accuracy_counts: Annotated[float, Field(strict=True, ge=0, le=1000)] | None = None
    resolution: Some | None = None
    at: AwareDatetime | None = None
    by: Text | None = None
    note: Text | None = None

    @model_validator(mode="before")
    @classmethod
    def _not_beyond(cls, data: Any) -> Any:
        """A display that is said not to be over-range says no more than its value."""
        if not isinstance(data, dict):
            return data
        return {key: value for key, value in data.items() if not (key in BEYOND_KEYS and value is False)}

    @property
    def accuracy(self) -> Accuracy:
        usual = self.usual
        return Accuracy(
            usual.percent if self.accuracy_percent is None else self.accuracy_percent,
            usual.counts if self.accuracy_counts is None else self.accuracy_counts,
            usual.resolution if self.resolution is None else self.resolution,
        )

    def outcome(self, practice: PracticeId) -> Outcome:
        raise NotImplementedError

    def _exactly_one(self, *names: str) -> None:
        given = [n for n in names if getattr(self, n) is not None]
        if not given:
            raise FieldError(names[0], "is missing" + (f"; or say {' or '.join(names[1:])}" if names[1:] else ""))
        if len(given) > 1:
            raise FieldError(given[1], f"stands beside {given[0]}; give one of them")


LOW_OHM_ACCURACY = Accuracy(2.0, 3, 0.01)
"""As `testers.instruments` has it of a low-ohm tester."""


class OhmTest(OneTest):
    """One with a low-ohm tester, a run and two ends."""

    usual: ClassVar[Accuracy] = LOW_OHM_ACCURACY

    measured_ohm: Ohms | None = None
    over_range: Literal[True] | None = None
    null_ohm: Ohms | None = None
    conductor: str | None = None
    length_m: Metres | None = None
    temperature_c: Celsius | None = None
    material: Material = "copper"
    neutral: Neutral | None = None
    from_: Annotated[Terminal | None, Field(alias="from")] = None
    to: Terminal | None = None

    @field_validator("conductor")
    @classmethod
    def _known(cls, size: str | None) -> str | None:
        return None if size is None else conductor_named(size).name

    @model_validator(mode="after")
    def _measured(self) -> "OhmTest":
        self._exactly_one("measured_ohm", "over_range")
        return self

    @property
    def shown(self) -> Shown:
        return self.accuracy.beyond() if self.measured_ohm is None else self.accuracy.shows(self.measured_ohm)

    @property
    def run(self) -> Run:
        size: Conductor | None = None if self.conductor is None else conductor_named(self.conductor)
        return Run(size, self.length_m, self.temperature_c, self.material)


class ContinuityTest(OhmTest):
    kind: Literal["continuity"]

    @override
    def outcome(self, practice: PracticeId) -> Outcome:
        return continuity(self.shown, self.null_ohm, self.run)


class SeparationTest(OhmTest):
    kind: Literal["separation"]
    system: SystemId

    @override
    def outcome(self, practice: PracticeId) -> Outcome:
        between = (str(self.from_ or "L"), str(self.to or "N"))
        return separation(self.shown, self.null_ohm, self.run, SYSTEMS[self.system], between)


class ClosedContactTest(OneTest):
    usual: ClassVar[Accuracy] = LOW_OHM_ACCURACY

    kind: Literal["closed-contact"]
    what: Annotated[str, Field(min_length=1, max_length=60)]
    open_over_range: Annotated[bool, Field(strict=True)] | None = None
    closed_ohm: Ohms | None = None
    closed_over_range: Literal[True] | None = None
    null_ohm: Ohms | None = None
    latches: Annotated[bool, Field(strict=True)] | None = None

    @model_validator(mode="after")
    def _measured(self) -> "ClosedContactTest":
        if self.closed_ohm is not None or self.closed_over_range:
            self._exactly_one("closed_ohm", "closed_over_range")
        elif self.open_over_range is None and self.latches is None:
            raise FieldError("closed_ohm", "is missing; or say open_over_range")
        return self

    @override
    def outcome(self, practice: PracticeId) -> Outcome:
        closed = None if self.closed_ohm is None else self.accuracy.shows(self.closed_ohm)
        if self.closed_over_range:
            closed = self.accuracy.beyond()
        return closed_contact(self.what, closed, self.null_ohm, self.open_over_range, latches=self.latches)


class InsulationTest(OneTest):
    usual: ClassVar[Accuracy] = Accuracy(5.0, 3, 0.01)

    kind: Literal["insulation"]
    system: SystemId | None = None
    circuit: InsulationKind = "ordinary"
    test_v: Volts | None = None
    measured_mohm: Megohms | None = None
    at_least_mohm: Megohms | None = None
    over_range: Literal[True] | None = None
    temperature_c: Celsius | None = None
    previous_mohm_20c: Annotated[float, Field(strict=True, gt=0, le=HIGHEST_OHMS / 1e6)] | None = None
    loads: Literal["connected", "disconnected"] | None = None
    length_m: Metres | None = None
    neutral: Neutral | None = None
    from_: Annotated[Terminal | None, Field(alias="from")] = None
    to: Terminal | None = None

    @model_validator(mode="after")
    def _measured(self) -> "InsulationTest":
        if self.system is None and self.circuit == "ordinary":
            raise FieldError("system", "is missing: ordinary wiring is tested by its supply's voltage")
        if self.over_range and self.at_least_mohm is not None and self.measured_mohm is None:
            return self
        self._exactly_one("measured_mohm", "at_least_mohm", "over_range")
        return self

    @override
    def outcome(self, practice: PracticeId) -> Outcome:
        if self.measured_mohm is not None:
            shown = self.accuracy.shows(self.measured_mohm)
        else:
            shown = self.accuracy.beyond(inf if self.at_least_mohm is None else self.at_least_mohm)
        return insulation(
            shown,
            insulation_rule(self.circuit, SYSTEMS[self.system] if self.system else None),
            self.test_v,
            temperature_c=self.temperature_c,
            previous_mohm_20c=self.previous_mohm_20c,
            loads=self.loads,
            length_m=self.length_m,
        )


class InsulationRatioTest(OneTest):
    kind: Literal["insulation-ratio"]
    r30_mohm: Some | None = None
    r60_mohm: Some
    r600_mohm: Some | None = None

    @model_validator(mode="after")
    def _measured(self) -> "InsulationRatioTest":
        if self.r30_mohm is None and self.r600_mohm is None:
            raise FieldError("r30_mohm", "is missing; or say r600_mohm: a ratio takes two values")
        return self

    @override
    def outcome(self, practice: PracticeId) -> Outcome:
        return ratios(self.r30_mohm, self.r60_mohm, self.r600_mohm)


class CircuitEntry(Strict):
    id: Name
    mohm_20c: Megohms | None = None


class ParallelTest(OneTest):
    """Several circuits measured together, at 20 °C."""

    usual: ClassVar[Accuracy] = InsulationTest.usual

    kind: Literal["parallel"]
    system: SystemId
    circuit: InsulationKind = "ordinary"
    measured_mohm: Megohms | None = None
    circuits: Annotated[list[CircuitEntry], Field(min_length=2)]

    @override
    def outcome(self, practice: PracticeId) -> Outcome:
        shown = None if self.measured_mohm is None else self.accuracy.shows(self.measured_mohm)
        known = [CircuitInsulation(c.id, c.mohm_20c) for c in self.circuits]
        return several(known, shown, insulation_rule(self.circuit, SYSTEMS[self.system]))


class ResidualCurrentTest(OneTest):
    usual: ClassVar[Accuracy] = Accuracy(1.0, 1, 1.0)

    kind: Literal["residual-current"]
    type: DeviceType
    rated_ma: Some
    test_ma: Some
    tripped: Annotated[bool, Field(strict=True)]
    ms: NotNegativeNumber | None = None

    @model_validator(mode="after")
    def _times_a_trip(self) -> "ResidualCurrentTest":
        if self.ms is not None and not self.tripped:
            raise FieldError("ms", "stands beside tripped: false; a time belongs to a trip")
        return self

    @override
    def outcome(self, practice: PracticeId) -> Outcome:
        after = None if self.ms is None else self.accuracy.shows(self.ms)
        return residual_current(self.type, self.rated_ma, self.test_ma, tripped=self.tripped, after_ms=after)


class RingOutletEntry(Strict):
    id: Name
    label: Text | None = None
    r1_rn: Ohms | None = None
    r1_r2: Ohms | None = None


RingEnd = Literal["r1", "rn", "r2"]


class RingTest(OneTest):
    """`over_range`: the ends that are not joined."""

    kind: Literal["ring"]
    r1: Ohms | None = None
    rn: Ohms | None = None
    r2: Ohms | None = None
    over_range: list[RingEnd] = []
    points: list[RingOutletEntry] = []

    @model_validator(mode="after")
    def _every_end(self) -> "RingTest":
        for end in ("r1", "rn", "r2"):
            if (getattr(self, end) is None) == (end not in self.over_range):
                text = "is missing; or name it in over_range" if getattr(self, end) is None else "is over-range as well"
                raise FieldError(end, text)
        ids = [p.id for p in self.points]
        for i, name in enumerate(ids):
            if name in ids[:i]:
                raise FieldError(f"points[{i}].id", f"{name!r} stands twice")
        return self

    @override
    def outcome(self, practice: PracticeId) -> Outcome:
        ends = {"r1": self.r1, "rn": self.rn, "r2": self.r2}
        return ring(ends, [RingOutlet(p.id, p.r1_rn, p.r1_r2, p.label or "") for p in self.points])


class LoadTest(OneTest):
    kind: Literal["load"]
    rating_a: Some
    running_a: NotNegativeNumber | None = None
    start_a: NotNegativeNumber | None = None
    curve: Curve | None = None
    continuous: Annotated[bool, Field(strict=True)] = False

    @model_validator(mode="after")
    def _measured(self) -> "LoadTest":
        if self.running_a is None and self.start_a is None:
            raise FieldError("running_a", "is missing; or say start_a")
        return self

    @override
    def outcome(self, practice: PracticeId) -> Outcome:
        running = None if self.running_a is None else self.accuracy.shows(self.running_a)
        start = None if self.start_a is None else self.accuracy.shows(self.start_a)
        return load(self.rating_a, running, start, self.curve, practice, continuous=self.continuous)


class CapacitorTest(OneTest):
    kind: Literal["capacitor"]
    printed_uf: Some
    tolerance_percent: Annotated[float, Field(strict=True, gt=0, le=100)] | None = None
    measured_uf: NotNegativeNumber | None = None
    over_range: Literal[True] | None = None

    @model_validator(mode="after")
    def _measured(self) -> "CapacitorTest":
        self._exactly_one("measured_uf", "over_range")
        return self

    @override
    def outcome(self, practice: PracticeId) -> Outcome:
        shown = self.accuracy.beyond() if self.measured_uf is None else self.accuracy.shows(self.measured_uf)
        return capacitor(self.printed_uf, shown, self.tolerance_percent)


class BatteryTest(OneTest):
    usual: ClassVar[Accuracy] = Accuracy(0.0)

    kind: Literal["battery"]
    chemistry: Chemistry
    volts: Annotated[float, Field(strict=True, ge=-1e5, le=1e5)]

    @override
    def outcome(self, practice: PracticeId) -> Outcome:
        return battery(self.chemistry, self.accuracy.shows(self.volts))


class TemperatureSensorTest(OneTest):
    usual: ClassVar[Accuracy] = Accuracy(0.0)

    kind: Literal["temperature-sensor"]
    pairs: Annotated[list[tuple[Celsius, Number]], Field(min_length=1)]
    tolerance_c: Annotated[float, Field(strict=True, gt=0, le=100)] | None = None

    @override
    def outcome(self, practice: PracticeId) -> Outcome:
        return temperature_sensor(self.pairs, self.tolerance_c, self.accuracy)


class CoilTest(OneTest):
    kind: Literal["coil"]
    rated_v: Volts
    measured_v: Annotated[float, Field(strict=True, ge=0, le=10_000)] | None = None
    energised: Annotated[bool, Field(strict=True)] = True
    over_range: Literal[True] | None = None
    """Ohms of the winding show more than the range: it is open."""

    @model_validator(mode="after")
    def _measured(self) -> "CoilTest":
        self._exactly_one("measured_v", "over_range")
        return self

    @override
    def outcome(self, practice: PracticeId) -> Outcome:
        shown = None if self.measured_v is None else self.accuracy.shows(self.measured_v)
        winding = self.accuracy.beyond() if self.over_range else None
        return coil(self.rated_v, shown, energised=self.energised, winding=winding)


class ElementTest(OneTest):
    usual: ClassVar[Accuracy] = Accuracy(1.0, 3, 0.1)

    kind: Literal["element"]
    what: Literal["element", "filament"] = "element"
    rated_v: Volts
    rated_w: Some
    measured_ohm: Ohms | None = None
    over_range: Literal[True] | None = None
    null_ohm: Ohms | None = None

    @model_validator(mode="after")
    def _measured(self) -> "ElementTest":
        self._exactly_one("measured_ohm", "over_range")
        return self

    @override
    def outcome(self, practice: PracticeId) -> Outcome:
        shown = self.accuracy.beyond() if self.measured_ohm is None else self.accuracy.shows(self.measured_ohm)
        return element(self.rated_v, self.rated_w, shown, self.null_ohm, self.what)


class FrequencyTest(OneTest):
    usual: ClassVar[Accuracy] = Accuracy(0.1)

    kind: Literal["frequency"]
    system: SystemId
    hz: Annotated[float, Field(strict=True, ge=0, le=1e6)]

    @override
    def outcome(self, practice: PracticeId) -> Outcome:
        return frequency(self.hz, SYSTEMS[self.system], practice, self.accuracy)


TestEntry = Annotated[
    ContinuityTest
    | SeparationTest
    | ClosedContactTest
    | InsulationTest
    | InsulationRatioTest
    | ParallelTest
    | ResidualCurrentTest
    | RingTest
    | LoadTest
    | CapacitorTest
    | BatteryTest
    | TemperatureSensorTest
    | CoilTest
    | ElementTest
    | FrequencyTest,
    Field(discriminator="kind"),
]


class TestsFile(Strict):
    format: Literal["even-probe/tests"]
    version: Literal[1]
    practice: PracticeId
    label: Text | None = None
    tests: list[TestEntry]

    @field_validator("tests")
    @classmethod
    def _each_once(cls, tests: list[TestEntry]) -> list[TestEntry]:
        seen: set[str] = set()
        for index, test in enumerate(tests):
            if test.id in seen:
                raise FieldError(f"[{index}].id", f"{test.id!r} stands twice")
            seen.add(test.id)
        return tests

    def outcomes(self) -> Iterable[tuple[str, Outcome]]:
        return [(test.id, test.outcome(self.practice)) for test in self.tests]


def outcome_answer(outcome: Outcome) -> dict[str, Any]:
    answer = {
        "result": str(outcome.result),
        "limit": None if outcome.limit is None else limit_answer(outcome.limit),
        "computed": {name: _rounded(value) for name, value in outcome.computed.items()},
        "text": outcome.text,
    }
    return {**answer, "question": outcome.question} if outcome.question else answer


def tests_answer(outcomes: Iterable[tuple[str, Outcome]]) -> dict[str, Any]:
    return {"tests": [{"id": name, **outcome_answer(outcome)} for name, outcome in outcomes]}


def limit_answer(limit: Limit) -> dict[str, Any]:
    """`value`: the one bound there is, both where there are two, null where only over-range passes."""
    bounds = [b for b in (limit.band.low, limit.band.high) if isfinite(b)]
    if limit.band.low == 0:
        bounds = bounds[1:]
    value = None if not bounds else bounds[0] if len(bounds) == 1 else bounds
    return {"id": limit.id, "value": _rounded(value), "unit": limit.unit, "source": limit.source}


def _rounded(value: Any) -> Any:
    if isinstance(value, bool) or not isinstance(value, float):
        return [_rounded(v) for v in value] if isinstance(value, list) else value
    return figures(value, COMPUTED_FIGURES)
