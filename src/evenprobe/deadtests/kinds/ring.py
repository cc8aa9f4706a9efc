"""A ring circuit: its ends, and each outlet with the ends cross-joined. BS 7671, IEC 60364-6."""

from collections.abc import Iterable
from typing import Literal

from pydantic import model_validator
from typing_extensions import override

from evenprobe.deadtests.judgement import Outcome
from evenprobe.deadtests.kinds.entry import Ohms, OneTest
from evenprobe.deadtests.kinds.row import DEAD_TESTS, DeadTest, Figure
from evenprobe.deadtests.rings import RingOutlet, ring
from evenprobe.deadtests.sheet import Line, SheetCircuit, Step
from evenprobe.entries import FieldError, Name, Strict, Text
from evenprobe.practices import Practice

RingEnd = Literal["r1", "rn", "r2"]


class RingOutletEntry(Strict):
    id: Name
    label: Text | None = None
    r1_rn: Ohms | None = None
    r1_r2: Ohms | None = None


class RingTest(OneTest):
    """`over_range`: the ends that are not joined."""

    kind: Literal["ring"]
    r1: Ohms | None = None
    rn: Ohms | None = None
    r2: Ohms | None = None
    over_range: list[RingEnd] = []
    points: list[RingOutletEntry] = []

    @model_validator(mode="after")
    def _every_end(self) -> "RingTest":
        for end in ("r1", "rn", "r2"):
            if (getattr(self, end) is None) == (end not in self.over_range):
                text = "is missing; or name it in over_range" if getattr(self, end) is None else "is over-range as well"
                raise FieldError(end, text)
        ids = [p.id for p in self.points]
        for i, name in enumerate(ids):
            if name in ids[:i]:
                raise FieldError(f"points[{i}].id", f"{name!r} stands twice")
        return self

    @override
    def outcome(self, practice: Practice) -> Outcome:
        ends = {"r1": self.r1, "rn": self.rn, "r2": self.r2}
        return ring(ends, [RingOutlet(p.id, p.r1_rn, p.r1_r2, p.label or "") for p in self.points])


def _the_ring(circuit: SheetCircuit) -> Iterable[Line]:
    """The circuit, where it is one."""
    if circuit.ring:
        outlets = [{"id": p.id, "label": p.name} for p in circuit.points]
        why = "Ends first; then cross-joined, each outlet reads a quarter of both ends."
        yield Line("ring", Step.CONTINUITY, "ring", "The ring, ends and outlets", {"points": outlets}, why)


RING = DEAD_TESTS.add(
    DeadTest(
        id="ring",
        rank=2,
        title="Ring",
        entry=RingTest,
        step=Step.CONTINUITY,
        lines=_the_ring,
        fields=tuple(
            Figure(key=end, label=f"{end}, end to end", unit="ohm", said=f"{end} {{:g}} Ω")
            for end in ("r1", "rn", "r2")
        ),
    )
)
