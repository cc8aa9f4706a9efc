"""A capacitor against what is printed on it."""

from typing import Annotated, Literal

from pydantic import Field, model_validator
from typing_extensions import override

from evenprobe.deadtests.components import capacitor
from evenprobe.deadtests.judgement import Outcome
from evenprobe.deadtests.kinds.entry import NotNegativeNumber, OneTest, Some
from evenprobe.deadtests.kinds.row import DEAD_TESTS, DeadTest, Figure
from evenprobe.practices import Practice


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


CAPACITOR = DEAD_TESTS.add(
    DeadTest(
        id="capacitor",
        rank=11,
        title="Capacitor",
        entry=CapacitorTest,
        fields=(
            Figure(key="printed_uf", label="Printed on it", unit="µF", printed=True),
            Figure(key="measured_uf", label="It reads", unit="µF", over_range="over_range", said="{:g} µF"),
        ),
    )
)
