"""Insulation between conductors at a direct test voltage. IEC 60364-6 table 6A."""

from collections.abc import Iterable
from itertools import combinations
from math import inf
from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field, model_validator
from typing_extensions import override

from evenprobe.deadtests.accuracy import Accuracy
from evenprobe.deadtests.insulation import insulation
from evenprobe.deadtests.judgement import Outcome
from evenprobe.deadtests.kinds.entry import Celsius, Megohms, Metres, OneTest, Volts, board_ends_of
from evenprobe.deadtests.kinds.row import DEAD_TESTS, Choice, DeadTest, Figure
from evenprobe.deadtests.sheet import Line, SheetCircuit, Step, pair_id
from evenprobe.entries import FieldError, SystemId
from evenprobe.limits.dead_tests import insulation_rule
from evenprobe.practices import Practice
from evenprobe.supplies import SYSTEMS
from evenprobe.testers.kinds import HIGHEST_OHMS
from evenprobe.testers.purposes import Purpose
from evenprobe.wiring import Terminal
from evenprobe.wiring.circumstances import Loads, Neutral

InsulationKind = Literal["ordinary", "selv", "surge-protected", "equipment-250", "equipment-600"]


class InsulationTest(OneTest):
    usual: ClassVar[Accuracy] = Accuracy(5.0, 3, 0.01)

    kind: Literal["insulation"]
    system: SystemId | None = None
    circuit: InsulationKind = "ordinary"
    test_v: Volts | None = None
    measured_mohm: Megohms | None = None
    at_least_mohm: Megohms | None = None
    over_range: Literal[True] | None = None
    temperature_c: Celsius | None = None
    previous_mohm_20c: Annotated[float, Field(strict=True, gt=0, le=HIGHEST_OHMS / 1e6)] | None = None
    loads: Loads | None = None
    length_m: Metres | None = None
    neutral: Neutral | None = None
    from_: Annotated[Terminal | None, Field(alias="from")] = None
    to: Terminal | None = None

    @model_validator(mode="after")
    def _measured(self) -> "InsulationTest":
        if self.system is None and self.circuit == "ordinary":
            raise FieldError("system", "is missing: ordinary wiring is tested by its supply's voltage")
        if self.over_range and self.at_least_mohm is not None and self.measured_mohm is None:
            return self
        self._exactly_one("measured_mohm", "at_least_mohm", "over_range")
        return self

    @override
    def outcome(self, practice: Practice) -> Outcome:
        if self.measured_mohm is not None:
            shown = self.accuracy.shows(self.measured_mohm)
        else:
            shown = self.accuracy.beyond(inf if self.at_least_mohm is None else self.at_least_mohm)
        return insulation(
            shown,
            insulation_rule(self.circuit, SYSTEMS[self.system] if self.system else None),
            self.test_v,
            temperature_c=self.temperature_c,
            previous_mohm_20c=self.previous_mohm_20c,
            loads=self.loads,
            length_m=self.length_m,
        )

    @override
    def as_reading(self, outcome: Outcome) -> dict[str, Any] | None:
        """In megohms, with the voltage it was made at and whether the loads were in."""
        ends = board_ends_of(self.from_, self.to)
        if ends is None:
            return None
        said = {
            "neutral": self.neutral,
            "test_v": self.test_v,
            "loads": self.loads,
            "value": self.measured_mohm,
            "at_least": self.at_least_mohm,
            "over_range": self.over_range,
        }
        reading = {"from": ends[0], "to": ends[1], "device": "open", "quantity": "insulation", "unit": "Mohm"}
        return reading | {key: value for key, value in said.items() if value is not None}


def every_pair(circuit: SheetCircuit) -> Iterable[Line]:
    """Each two conductors, at the voltage their circuit is tested at."""
    for a, b in combinations(circuit.conductors, 2):
        preset = {
            "system": circuit.system.id,
            "circuit": circuit.wiring,
            "from": str(a),
            "to": str(b),
            "test_v": circuit.rule.test_volts,
            "temperature_c": circuit.temperature_c,
            "length_m": max((p.length_m or 0.0 for p in circuit.points), default=0.0) or None,
            "previous_mohm_20c": circuit.previous.get(pair_id(a, b)),
        }
        title = f"{circuit.letter(a)} to {circuit.letter(b)}"
        name, why = f"insulation {pair_id(a, b)}", f"{circuit.rule.why}."
        yield Line(name, Step.INSULATION, "insulation", title, preset, why)


INSULATION = DEAD_TESTS.add(
    DeadTest(
        id="insulation",
        rank=5,
        title="Insulation",
        entry=InsulationTest,
        step=Step.INSULATION,
        lines=every_pair,
        fields=(
            Figure(
                key="measured_mohm",
                label="It reads",
                unit="Mohm",
                over_range="over_range",
                at_least="at_least_mohm",
                said="{:g} MΩ",
            ),
            Choice(
                key="test_v",
                label="Test voltage, V DC",
                answers=((250.0, "250", ""), (500.0, "500", ""), (1000.0, "1000", "")),
                preset=True,
            ),
        ),
        purpose=Purpose.INSULATION,
        known=frozenset({"neutral", "loads"}),
        followed=True,
        charges=True,
    )
)
