"""Solar panels in series, at open circuit: what they add up to, and which way round."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field
from typing_extensions import override

from evenprobe.deadtests.accuracy import Accuracy
from evenprobe.deadtests.components import panel_string
from evenprobe.deadtests.judgement import Outcome
from evenprobe.deadtests.kinds.entry import OneTest
from evenprobe.deadtests.kinds.row import DEAD_TESTS, DeadTest, Figure
from evenprobe.practices import Practice
from evenprobe.testers.purposes import Purpose


class PanelStringTest(OneTest):
    usual: ClassVar[Accuracy] = Accuracy(0.0)

    kind: Literal["panel-string"]
    panels: Annotated[float, Field(strict=True, ge=1, le=100, multiple_of=1)]
    panel_v: Annotated[float, Field(strict=True, gt=0, le=1000)]
    volts: Annotated[float, Field(strict=True, ge=-1e5, le=1e5)]

    @override
    def outcome(self, practice: Practice) -> Outcome:
        return panel_string(round(self.panels), self.panel_v, self.accuracy.shows(self.volts))


PANEL_STRING = DEAD_TESTS.add(
    DeadTest(
        id="panel-string",
        rank=16,
        title="String of panels",
        entry=PanelStringTest,
        fields=(
            Figure(key="panels", label="Panels in series", unit="", printed=True),
            Figure(key="panel_v", label="Each at open circuit", unit="V", printed=True),
            Figure(key="volts", label="It reads", unit="V", said="{:g} V"),
        ),
        purpose=Purpose.LIVE_VOLTAGE,
    )
)
