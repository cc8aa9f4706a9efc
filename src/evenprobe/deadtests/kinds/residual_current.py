"""A residual-current device: whether and how fast it trips. IEC 61008-1, IEC 61009-1, UL 943."""

from typing import ClassVar, Literal

from pydantic import model_validator
from typing_extensions import override

from evenprobe.deadtests.accuracy import Accuracy
from evenprobe.deadtests.judgement import Outcome
from evenprobe.deadtests.kinds.entry import NotNegativeNumber, OneTest, Some
from evenprobe.deadtests.kinds.row import DEAD_TESTS, Choice, DeadTest, Figure
from evenprobe.deadtests.protective import DeviceType, residual_current
from evenprobe.entries import FieldError, YesNo
from evenprobe.practices import Practice
from evenprobe.testers.purposes import Purpose


class ResidualCurrentTest(OneTest):
    usual: ClassVar[Accuracy] = Accuracy(1.0, 1, 1.0)

    kind: Literal["residual-current"]
    type: DeviceType
    rated_ma: Some
    test_ma: Some
    tripped: YesNo
    ms: NotNegativeNumber | None = None

    @model_validator(mode="after")
    def _times_a_trip(self) -> "ResidualCurrentTest":
        if self.ms is not None and not self.tripped:
            raise FieldError("ms", "stands beside tripped: false; a time belongs to a trip")
        return self

    @override
    def outcome(self, practice: Practice) -> Outcome:
        after = None if self.ms is None else self.accuracy.shows(self.ms)
        return residual_current(
            self.type, self.rated_ma, self.test_ma, tripped=self.tripped, practice=practice, after_ms=after
        )


RESIDUAL_CURRENT = DEAD_TESTS.add(
    DeadTest(
        id="residual-current",
        rank=8,
        title="Residual-current device",
        entry=ResidualCurrentTest,
        fields=(
            Figure(key="rated_ma", label="Rated", unit="mA", printed=True),
            Figure(key="test_ma", label="Test current", unit="mA", printed=True),
            Choice(
                key="tripped",
                label="It",
                answers=((True, "Tripped", "tripped"), (False, "Did not trip", "did not trip")),
            ),
            Figure(key="ms", label="After", unit="ms", said="{:g} ms"),
        ),
        purpose=Purpose.RESIDUAL_CURRENT,
    )
)
