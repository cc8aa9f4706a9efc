"""Dead tests of a circuit: continuity, separation, contacts, insulation, rings."""

from math import inf
from typing import Annotated, ClassVar, Literal

from pydantic import Field, field_validator, model_validator
from typing_extensions import override

from evenprobe.deadtests import Accuracy, Outcome, Shown
from evenprobe.deadtests.continuity import Run, closed_contact, continuity, separation
from evenprobe.deadtests.insulation import CircuitInsulation, insulation, ratios, several
from evenprobe.deadtests.rings import RingOutlet, ring
from evenprobe.formats.fields import Name, Strict, Text
from evenprobe.formats.problems import FieldError
from evenprobe.formats.supply import SystemId
from evenprobe.formats.tests.one_test import LOW_OHM_ACCURACY, Celsius, Megohms, Metres, Ohms, OneTest, Some, Volts
from evenprobe.limits.dead_tests import insulation_rule
from evenprobe.practices import Practice
from evenprobe.quantities.measurement import Neutral
from evenprobe.quantities.resistance import HIGHEST_OHMS
from evenprobe.supplies import SYSTEMS
from evenprobe.wiring import Terminal, conductor_named
from evenprobe.wiring.conductors import Conductor, Material

InsulationKind = Literal["ordinary", "selv", "surge-protected", "equipment-250", "equipment-600"]
RingEnd = Literal["r1", "rn", "r2"]


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
    def outcome(self, practice: Practice) -> Outcome:
        return continuity(self.shown, self.null_ohm, self.run)


class SeparationTest(OhmTest):
    kind: Literal["separation"]
    system: SystemId

    @override
    def outcome(self, practice: Practice) -> Outcome:
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
    def outcome(self, practice: Practice) -> Outcome:
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
    def outcome(self, practice: Practice) -> Outcome:
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
    def outcome(self, practice: Practice) -> Outcome:
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
    def outcome(self, practice: Practice) -> Outcome:
        shown = None if self.measured_mohm is None else self.accuracy.shows(self.measured_mohm)
        known = [CircuitInsulation(c.id, c.mohm_20c) for c in self.circuits]
        return several(known, shown, insulation_rule(self.circuit, SYSTEMS[self.system]))


class RingOutletEntry(Strict):
    id: Name
    label: Text | None = None
    r1_rn: Ohms | None = None
    r1_r2: Ohms | None = None


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
    def outcome(self, practice: Practice) -> Outcome:
        ends = {"r1": self.r1, "rn": self.rn, "r2": self.r2}
        return ring(ends, [RingOutlet(p.id, p.r1_rn, p.r1_r2, p.label or "") for p in self.points])
