"""What must not be joined, on the highest ohm range with the neutral disconnected at the board."""

from collections.abc import Iterable
from itertools import combinations
from typing import Any, Literal

from typing_extensions import override

from evenprobe.deadtests.continuity import separation
from evenprobe.deadtests.judgement import Outcome
from evenprobe.deadtests.kinds.entry import OhmTest, board_ends_of
from evenprobe.deadtests.kinds.row import DEAD_TESTS, DeadTest, Figure
from evenprobe.deadtests.sheet import Line, SheetCircuit, Step, pair_id
from evenprobe.entries import SystemId
from evenprobe.practices import Practice
from evenprobe.supplies import SYSTEMS


class SeparationTest(OhmTest):
    kind: Literal["separation"]
    system: SystemId

    @override
    def outcome(self, practice: Practice) -> Outcome:
        between = (str(self.from_ or "L"), str(self.to or "N"))
        return separation(self.shown, self.null_ohm, self.run, SYSTEMS[self.system], between, practice.length_unit)

    @override
    def as_reading(self, outcome: Outcome) -> dict[str, Any] | None:
        ends = board_ends_of(self.from_, self.to)
        return self.between(*ends, outcome) if ends else None


def every_pair(circuit: SheetCircuit) -> Iterable[Line]:
    """Each two conductors."""
    for a, b in combinations(circuit.conductors, 2):
        preset = {"system": circuit.system.id, "from": str(a), "to": str(b), "conductor": circuit.conductor}
        title = f"{circuit.letter(a)} to {circuit.letter(b)}"
        yield Line(f"apart {pair_id(a, b)}", Step.SEPARATION, "separation", title, preset)


SEPARATION = DEAD_TESTS.add(
    DeadTest(
        id="separation",
        rank=3,
        title="Separation",
        entry=SeparationTest,
        step=Step.SEPARATION,
        lines=every_pair,
        fields=(
            Figure(
                key="measured_ohm",
                label="It reads",
                unit="ohm",
                units=("ohm", "kohm", "Mohm"),
                over_range="over_range",
                said="{:g} Ω",
            ),
        ),
        known=frozenset({"null_ohm", "accuracy", "neutral"}),
    )
)
