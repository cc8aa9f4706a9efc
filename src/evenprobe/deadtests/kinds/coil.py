"""A coil energised, and whether its winding is open. IEC 60947-4-1."""

from typing import Annotated, Literal

from pydantic import Field, model_validator
from typing_extensions import override

from evenprobe.deadtests.components import coil
from evenprobe.deadtests.judgement import Outcome
from evenprobe.deadtests.kinds.entry import OneTest, Volts
from evenprobe.deadtests.kinds.row import DEAD_TESTS, DeadTest, Figure
from evenprobe.entries import YesNo
from evenprobe.practices import Practice
from evenprobe.testers.purposes import Purpose


class CoilTest(OneTest):
    kind: Literal["coil"]
    rated_v: Volts
    measured_v: Annotated[float, Field(strict=True, ge=0, le=10_000)] | None = None
    energised: YesNo = True
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


COIL = DEAD_TESTS.add(
    DeadTest(
        id="coil",
        rank=14,
        title="Coil",
        entry=CoilTest,
        fields=(
            Figure(key="rated_v", label="Rated voltage", unit="V", printed=True),
            Figure(key="measured_v", label="Across it", unit="V", over_range="over_range", said="{:g} V"),
        ),
        purpose=Purpose.LIVE_VOLTAGE,
    )
)
