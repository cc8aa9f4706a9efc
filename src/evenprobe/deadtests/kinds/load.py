"""What a load draws, running and starting, against its device. IEC 60898-1."""

from typing import Literal

from pydantic import model_validator
from typing_extensions import override

from evenprobe.deadtests.judgement import Outcome
from evenprobe.deadtests.kinds.entry import NotNegativeNumber, OneTest, Some
from evenprobe.deadtests.kinds.row import DEAD_TESTS, DeadTest, Figure
from evenprobe.deadtests.protective import load
from evenprobe.entries import FieldError, YesNo
from evenprobe.limits.protective_devices import Curve
from evenprobe.practices import Practice
from evenprobe.testers.purposes import Purpose


class LoadTest(OneTest):
    kind: Literal["load"]
    rating_a: Some
    running_a: NotNegativeNumber | None = None
    start_a: NotNegativeNumber | None = None
    curve: Curve | None = None
    continuous: YesNo = False

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


LOAD = DEAD_TESTS.add(
    DeadTest(
        id="load",
        rank=9,
        title="Load",
        entry=LoadTest,
        fields=(
            Figure(key="rating_a", label="Rating of the device", unit="A", printed=True),
            Figure(key="running_a", label="Running", unit="A", said="{:g} A"),
            Figure(key="start_a", label="Starting", unit="A", said="starting {:g} A"),
        ),
        purpose=Purpose.CURRENT,
    )
)
