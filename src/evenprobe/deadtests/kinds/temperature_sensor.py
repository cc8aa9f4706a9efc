"""A temperature sensor beside a thermometer."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field
from typing_extensions import override

from evenprobe.deadtests.accuracy import Accuracy
from evenprobe.deadtests.components import temperature_sensor
from evenprobe.deadtests.judgement import Outcome
from evenprobe.deadtests.kinds.entry import Celsius, Number, OneTest
from evenprobe.deadtests.kinds.row import DEAD_TESTS, DeadTest, Pairs
from evenprobe.practices import Practice


class TemperatureSensorTest(OneTest):
    usual: ClassVar[Accuracy] = Accuracy(0.0)

    kind: Literal["temperature-sensor"]
    pairs: Annotated[list[tuple[Celsius, Number]], Field(min_length=1)]
    tolerance_c: Annotated[float, Field(strict=True, gt=0, le=100)] | None = None

    @override
    def outcome(self, practice: Practice) -> Outcome:
        return temperature_sensor(self.pairs, self.tolerance_c, self.accuracy)


TEMPERATURE_SENSOR = DEAD_TESTS.add(
    DeadTest(
        id="temperature-sensor",
        rank=13,
        title="Temperature sensor",
        entry=TemperatureSensorTest,
        fields=(Pairs(key="pairs", labels=("the thermometer", "the sensor"), unit="°C", rows=2),),
    )
)
