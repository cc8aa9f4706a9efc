"""Residual-current devices, loads against their device, and the supply's frequency."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field, model_validator
from typing_extensions import override

from evenprobe.deadtests import Accuracy, Outcome
from evenprobe.deadtests.protective import DeviceType, frequency, load, residual_current
from evenprobe.formats.problems import FieldError
from evenprobe.formats.supply import SystemId
from evenprobe.formats.tests.one_test import NotNegativeNumber, OneTest, Some
from evenprobe.practices import Practice
from evenprobe.supplies import SYSTEMS

Curve = Literal["B", "C", "D", "thermal-magnetic"]


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
    def outcome(self, practice: Practice) -> Outcome:
        after = None if self.ms is None else self.accuracy.shows(self.ms)
        return residual_current(self.type, self.rated_ma, self.test_ma, tripped=self.tripped, after_ms=after)


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
    def outcome(self, practice: Practice) -> Outcome:
        running = None if self.running_a is None else self.accuracy.shows(self.running_a)
        start = None if self.start_a is None else self.accuracy.shows(self.start_a)
        return load(self.rating_a, running, start, self.curve, practice, continuous=self.continuous)


class FrequencyTest(OneTest):
    usual: ClassVar[Accuracy] = Accuracy(0.1)

    kind: Literal["frequency"]
    system: SystemId
    hz: Annotated[float, Field(strict=True, ge=0, le=1e6)]

    @override
    def outcome(self, practice: Practice) -> Outcome:
        return frequency(self.hz, SYSTEMS[self.system], practice, self.accuracy)
