"""Absorption and polarisation: insulation after 30 s, 60 s and 10 min. IEEE 43."""

from typing import Literal

from pydantic import model_validator
from typing_extensions import override

from evenprobe.deadtests.insulation import ratios
from evenprobe.deadtests.judgement import Outcome
from evenprobe.deadtests.kinds.entry import OneTest, Some
from evenprobe.deadtests.kinds.row import DEAD_TESTS, DeadTest, Figure
from evenprobe.entries import FieldError
from evenprobe.practices import Practice
from evenprobe.testers.purposes import Purpose


class InsulationRatioTest(OneTest):
    kind: Literal["insulation-ratio"]
    r30_mohm: Some | None = None
    r60_mohm: Some
    r600_mohm: Some | None = None

    @model_validator(mode="after")
    def _measured(self) -> "InsulationRatioTest":
        if self.r30_mohm is None and self.r600_mohm is None:
            raise FieldError("r30_mohm", "is missing; or say r600_mohm: a ratio takes two values")
        return self

    @override
    def outcome(self, practice: Practice) -> Outcome:
        return ratios(self.r30_mohm, self.r60_mohm, self.r600_mohm)


INSULATION_RATIO = DEAD_TESTS.add(
    DeadTest(
        id="insulation-ratio",
        rank=6,
        title="Insulation over time",
        entry=InsulationRatioTest,
        fields=(
            Figure(key="r30_mohm", label="After 30 s", unit="Mohm", said="30 s {:g} MΩ"),
            Figure(key="r60_mohm", label="After 60 s", unit="Mohm", said="60 s {:g} MΩ"),
            Figure(key="r600_mohm", label="After 10 min", unit="Mohm", said="10 min {:g} MΩ"),
        ),
        purpose=Purpose.INSULATION,
    )
)
