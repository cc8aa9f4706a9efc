"""Parts checked alone: capacitors, batteries, sensors, coils, heating elements, filaments."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field, model_validator
from typing_extensions import override

from evenprobe.deadtests import Accuracy, Outcome
from evenprobe.deadtests.components import battery, capacitor, coil, element, temperature_sensor
from evenprobe.formats.tests.one_test import Celsius, NotNegativeNumber, Number, Ohms, OneTest, Some, Volts
from evenprobe.practices import Practice

Chemistry = Literal["lead-acid-12", "alkaline-1.5"]


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
    def outcome(self, practice: Practice) -> Outcome:
        shown = self.accuracy.beyond() if self.measured_uf is None else self.accuracy.shows(self.measured_uf)
        return capacitor(self.printed_uf, shown, self.tolerance_percent)


class BatteryTest(OneTest):
    usual: ClassVar[Accuracy] = Accuracy(0.0)

    kind: Literal["battery"]
    chemistry: Chemistry
    volts: Annotated[float, Field(strict=True, ge=-1e5, le=1e5)]

    @override
    def outcome(self, practice: Practice) -> Outcome:
        return battery(self.chemistry, self.accuracy.shows(self.volts))


class TemperatureSensorTest(OneTest):
    usual: ClassVar[Accuracy] = Accuracy(0.0)

    kind: Literal["temperature-sensor"]
    pairs: Annotated[list[tuple[Celsius, Number]], Field(min_length=1)]
    tolerance_c: Annotated[float, Field(strict=True, gt=0, le=100)] | None = None

    @override
    def outcome(self, practice: Practice) -> Outcome:
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
    def outcome(self, practice: Practice) -> Outcome:
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
    def outcome(self, practice: Practice) -> Outcome:
        shown = self.accuracy.beyond() if self.measured_ohm is None else self.accuracy.shows(self.measured_ohm)
        return element(self.rated_v, self.rated_w, shown, self.null_ohm, self.what)
