"""A heating element or a filament against its rated power."""

from typing import ClassVar, Literal

from pydantic import model_validator
from typing_extensions import override

from evenprobe.deadtests.accuracy import Accuracy
from evenprobe.deadtests.components import element
from evenprobe.deadtests.judgement import Outcome
from evenprobe.deadtests.kinds.entry import Ohms, OneTest, Some, Volts
from evenprobe.deadtests.kinds.row import DEAD_TESTS, DeadTest, Figure
from evenprobe.practices import Practice


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


ELEMENT = DEAD_TESTS.add(
    DeadTest(
        id="element",
        rank=15,
        title="Heating element",
        entry=ElementTest,
        fields=(
            Figure(key="rated_v", label="Rated voltage", unit="V", printed=True),
            Figure(key="rated_w", label="Rated power", unit="W", printed=True),
            Figure(key="measured_ohm", label="It reads", unit="ohm", over_range="over_range", said="{:g} Ω"),
        ),
    )
)
