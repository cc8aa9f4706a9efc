"""Each conductor end to end: what must be joined is, and how well. IEC 60364-6 clause 6.4.3.2."""

from collections.abc import Iterable
from typing import Any, Literal

from typing_extensions import override

from evenprobe.deadtests.continuity import continuity
from evenprobe.deadtests.judgement import Outcome
from evenprobe.deadtests.kinds.entry import OhmTest
from evenprobe.deadtests.kinds.row import DEAD_TESTS, DeadTest, Figure
from evenprobe.deadtests.sheet import Line, SheetCircuit, Step
from evenprobe.practices import Practice
from evenprobe.wiring import Terminal
from evenprobe.wiring.points import BOARD_END, LINES


class ContinuityTest(OhmTest):
    kind: Literal["continuity"]

    @override
    def outcome(self, practice: Practice) -> Outcome:
        return continuity(self.shown, self.null_ohm, self.run)

    @override
    def as_reading(self, outcome: Outcome) -> dict[str, Any] | None:
        return self.between(str(self.from_), str(self.to), outcome) if self.from_ and self.to else None


def _end_to_end(circuit: SheetCircuit) -> Iterable[Line]:
    """The protective conductor to every point; lines and neutral to the furthest, which has them all in it."""
    if circuit.ring:
        return
    furthest = max(circuit.points, key=lambda p: p.length_m or 0.0, default=None)
    for point in circuit.points:
        for terminal in (Terminal.PE, *LINES, Terminal.N):
            protective = terminal is Terminal.PE
            if terminal not in point.terminals or not (protective or point is furthest):
                continue
            preset: dict[str, Any] = {"from": str(terminal), "conductor": circuit.conductor}
            preset |= {"length_m": point.length_m, "temperature_c": circuit.temperature_c}
            if terminal in BOARD_END:
                preset["to"] = str(BOARD_END[terminal])
            yield Line(
                f"joined {terminal} {point.id}",
                Step.CONTINUITY,
                "continuity",
                f"{circuit.letter(terminal)} to {point.name}",
                preset,
                why="" if protective else "The furthest point has the whole run in it.",
                point=point.id,
            )


CONTINUITY = DEAD_TESTS.add(
    DeadTest(
        id="continuity",
        rank=1,
        title="Continuity",
        entry=ContinuityTest,
        step=Step.CONTINUITY,
        lines=_end_to_end,
        fields=(Figure(key="measured_ohm", label="It reads", unit="ohm", over_range="over_range", said="{:g} Ω"),),
        known=frozenset({"null_ohm", "accuracy", "neutral"}),
    )
)
