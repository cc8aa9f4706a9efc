"""A battery at rest, by its chemistry."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field
from typing_extensions import override

from evenprobe.deadtests.accuracy import Accuracy
from evenprobe.deadtests.components import battery
from evenprobe.deadtests.judgement import Outcome
from evenprobe.deadtests.kinds.entry import OneTest
from evenprobe.deadtests.kinds.row import DEAD_TESTS, DeadTest, Figure
from evenprobe.practices import Practice
from evenprobe.testers.purposes import Purpose

Chemistry = Literal["lead-acid-12", "alkaline-1.5"]


class BatteryTest(OneTest):
    usual: ClassVar[Accuracy] = Accuracy(0.0)

    kind: Literal["battery"]
    chemistry: Chemistry
    volts: Annotated[float, Field(strict=True, ge=-1e5, le=1e5)]

    @override
    def outcome(self, practice: Practice) -> Outcome:
        return battery(self.chemistry, self.accuracy.shows(self.volts))


BATTERY = DEAD_TESTS.add(
    DeadTest(
        id="battery",
        rank=12,
        title="Battery",
        entry=BatteryTest,
        fields=(Figure(key="volts", label="It reads", unit="V", said="{:g} V"),),
        purpose=Purpose.LIVE_VOLTAGE,
    )
)
