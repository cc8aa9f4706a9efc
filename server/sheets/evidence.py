"""What a circuit's sheet says of its points: dead tests in force, as readings of the survey format."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from evenprobe.deadtests import evidence
from evenprobe.deadtests.energising import Taken
from evenprobe.deadtests.sheet import Line
from evenprobe.practices import PRACTICES
from evenprobe.wiring import PointKind, Terminal
from kit.models import Tester
from sheets.completing import checked
from sheets.records import SheetView
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
    """Those in force on the sheets of a circuit, looked up with `of_circuit`, that say something of its conductors."""
    views = [SheetView(sheet) for sheet in circuit.sheets.all()]
    found = []
    for (view, line), taken in evidence.in_force([_in_order(view) for view in views]):
        entry = view.tests[line.id]
        as_reading = evidence.as_reading(checked(view.practice, entry.entry["test"]), taken)
        if as_reading is not None:
            found.append(
                DeadTest(
                    entry.id, line.title, as_reading, entry.tester, entry.held, entry.at, entry.by_name, line.point
                )
            )
    return found


def _in_order(view: SheetView) -> dict[str, tuple[tuple[SheetView, Line], Taken]]:
    """The test in force of each line, in the order of the work, by the line's id."""
    return {line.id: ((view, line), view.taken[line.id]) for line in view.lines if line.id in view.taken}


def of_point(tests: list[DeadTest], point: Point) -> list[DeadTest]:
    """Those made at the point, and those of the whole circuit whose conductors come here."""
    terminals = [Terminal(t) for t in point.terminals]
    polarised = PRACTICES[point.circuit.board.supply.site.practice].polarised_plugs
    known = point.kind != PointKind.OUTLET or polarised
    return [
        t
        for t in tests
        if t.point in (None, str(point.id))
        and evidence.belongs_to(t.entry, terminals, at_the_point=t.point is not None, which_contact_is_known=known)
    ]
