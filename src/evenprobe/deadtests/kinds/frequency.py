"""The frequency of a supply. EN 50160, ISO 8528-5."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field
from typing_extensions import override

from evenprobe.deadtests.accuracy import Accuracy
from evenprobe.deadtests.judgement import Outcome
from evenprobe.deadtests.kinds.entry import OneTest
from evenprobe.deadtests.kinds.row import DEAD_TESTS, DeadTest, Figure
from evenprobe.deadtests.protective import frequency
from evenprobe.entries import SystemId
from evenprobe.practices import Practice
from evenprobe.supplies import SYSTEMS
from evenprobe.testers.purposes import Purpose


class FrequencyTest(OneTest):
    usual: ClassVar[Accuracy] = Accuracy(0.1)

    kind: Literal["frequency"]
    system: SystemId
    hz: Annotated[float, Field(strict=True, ge=0, le=1e6)]

    @override
    def outcome(self, practice: Practice) -> Outcome:
        return frequency(self.hz, SYSTEMS[self.system], practice, self.accuracy)


FREQUENCY = DEAD_TESTS.add(
    DeadTest(
        id="frequency",
        rank=10,
        title="Frequency",
        entry=FrequencyTest,
        fields=(Figure(key="hz", label="It reads", unit="Hz", said="{:g} Hz"),),
        purpose=Purpose.LIVE_VOLTAGE,
    )
)
