"""Insulation of several circuits measured together. Conductances in parallel add."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field
from typing_extensions import override

from evenprobe.deadtests.accuracy import Accuracy
from evenprobe.deadtests.insulation import CircuitInsulation, several
from evenprobe.deadtests.judgement import Outcome
from evenprobe.deadtests.kinds.entry import Megohms, OneTest
from evenprobe.deadtests.kinds.insulation import InsulationKind, InsulationTest
from evenprobe.deadtests.kinds.row import DEAD_TESTS, DeadTest, Figure
from evenprobe.entries import Name, Strict, SystemId
from evenprobe.limits.dead_tests import insulation_rule
from evenprobe.practices import Practice
from evenprobe.supplies import SYSTEMS
from evenprobe.testers.purposes import Purpose


class CircuitEntry(Strict):
    id: Name
    mohm_20c: Megohms | None = None


class ParallelTest(OneTest):
    """Several circuits measured together, at 20 °C."""

    usual: ClassVar[Accuracy] = InsulationTest.usual

    kind: Literal["parallel"]
    system: SystemId
    circuit: InsulationKind = "ordinary"
    measured_mohm: Megohms | None = None
    circuits: Annotated[list[CircuitEntry], Field(min_length=2)]

    @override
    def outcome(self, practice: Practice) -> Outcome:
        shown = None if self.measured_mohm is None else self.accuracy.shows(self.measured_mohm)
        known = [CircuitInsulation(c.id, c.mohm_20c) for c in self.circuits]
        return several(known, shown, insulation_rule(self.circuit, SYSTEMS[self.system]))


PARALLEL = DEAD_TESTS.add(
    DeadTest(
        id="parallel",
        rank=7,
        title="Circuits together",
        entry=ParallelTest,
        fields=(Figure(key="measured_mohm", label="Together they read", unit="Mohm", said="{:g} MΩ"),),
        purpose=Purpose.INSULATION,
    )
)
