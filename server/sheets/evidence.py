"""What a circuit's sheet says of its points: dead tests in force, as readings of the survey format.

What passed counts from the latest sheet only; what failed stays until it is tested again, for a new sheet is no
mending. Only what was taken while it was proved dead, and at each conductor's own ends: what is measured at the
board is measured at the board's ends.
"""

from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from evenprobe.deadtests import Result
from evenprobe.deadtests.gate import Taken
from evenprobe.deadtests.sheet import Line
from evenprobe.practices import PRACTICES
from evenprobe.rounding import figures
from evenprobe.wiring import PointKind, Terminal
from evenprobe.wiring.points import BOARD_END
from kit.models import Tester
from sheets.models import SheetEntry
from sheets.records import Reading, sheets_of
from sites.models import Circuit, Point


@dataclass(frozen=True)
class DeadTest:
    """A test of a sheet in the shape a reading of the Bench has. `title`: what it is called on its sheet."""

    id: UUID
    title: str
    entry: dict[str, Any]
    tester: Tester | None
    held: dict[str, Any] | None
    taken_at: datetime
    by_name: str
    point: str | None


def dead_tests(circuit: Circuit) -> list[DeadTest]:
    """Of the circuit's latest sheet, and of earlier ones what failed and was not tested since."""
    found: dict[str, DeadTest | None] = {}
    for number, sheet in enumerate(sheets_of(circuit)):
        reading = Reading(sheet)
        for line in reading.lines:
            entry, taken = reading.tests.get(line.id), reading.taken.get(line.id)
            if entry is None or taken is None or line.id in found:
                continue
            if number == 0 or taken.outcome.result is Result.FAIL:
                found[line.id] = _dead_test(line, entry, taken)
    return [test for test in found.values() if test is not None]


def _dead_test(line: Line, entry: SheetEntry, taken: Taken) -> DeadTest | None:
    as_reading = _as_reading(entry.entry["test"], taken)
    if as_reading is None:
        return None
    return DeadTest(
        entry.id, line.title, as_reading, entry.tester, entry.held, entry.at, entry.by_name, line.point
    )  # fmt: skip


def of_point(tests: list[DeadTest], point: Point) -> list[DeadTest]:
    """Those made at the point, and those of the whole circuit whose conductors come here.

    Where a plug fits both ways a sheet says which conductor was read, not at which contact: only the Bench knows that.
    """
    ends = {str(BOARD_END[Terminal(t)]) for t in point.terminals if Terminal(t) in BOARD_END}
    here = {*point.terminals, *ends}
    known = PRACTICES[point.circuit.board.supply.site.practice].polarised_plugs
    if point.kind == PointKind.OUTLET and not known:
        tests = [t for t in tests if t.point is None or t.entry["from"] == Terminal.PE]
    return [t for t in tests if t.point in (None, str(point.id)) and {t.entry["from"], t.entry["to"]} <= here]


def _as_reading(test: dict[str, Any], taken: Taken) -> dict[str, Any] | None:
    """Ohms less their leads, or insulation; None for what says nothing of conductors, or was not taken dead."""
    kind, a, b = test["kind"], test.get("from"), test.get("to")
    if kind not in ("continuity", "separation", "insulation") or not (a and b and taken.dead):
        return None
    if kind != "continuity":
        a, b = BOARD_END.get(Terminal(a)), BOARD_END.get(Terminal(b))
        if a is None or b is None:
            return None
    reading: dict[str, Any] = {"from": str(a), "to": str(b), "device": "open"}
    if "neutral" in test:
        reading["neutral"] = test["neutral"]
    if kind == "insulation":
        reading |= {"quantity": "insulation", "unit": "Mohm"}
        reading |= {key: test[key] for key in ("test_v", "loads") if key in test}
        known = {"value": "measured_mohm", "at_least": "at_least_mohm", "over_range": "over_range"}
        return reading | {name: test[key] for name, key in known.items() if key in test}
    reading |= {"quantity": "resistance", "unit": "ohm"}
    if "over_range" in test:
        return reading | {"over_range": True}
    if taken.outcome.result is Result.INVALID:
        return None
    return reading | {"value": figures(taken.outcome.computed["corrected_ohm"], 4)}
