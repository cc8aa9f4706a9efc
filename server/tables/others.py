"""Circuits with their points, dead tests, and kit, a row each."""

from collections.abc import Iterator
from typing import Any

from crews.models import Crew
from evenprobe.deadtests.kinds import DEAD_TESTS
from evenprobe.formats.said import limit_said
from evenprobe.formats.tables import CIRCUITS, DEAD_TEST_ROWS, KIT
from kit.models import Part, Tester
from sheets.models import SheetEntry
from sheets.records import SheetView
from sheets.services import sheets_of
from sites.models import Point, Site


def circuit_rows(crew: Crew, site: Site | None) -> Iterator[list[Any]]:
    """A row a point, with the circuit it is on."""
    points = Point.objects.in_use().filter(circuit__board__supply__site__crew=crew)
    if site is not None:
        points = points.filter(circuit__board__supply__site=site)
    order = (
        "circuit__board__supply__site__name",
        "circuit__board__supply__position",
        "circuit__board__position",
        "circuit__position",
        "position",
    )
    beside = points.select_related("circuit__board__supply__site", "brought").order_by(*order)
    for point in beside.iterator(chunk_size=500):
        yield CIRCUITS.row(circuit_row(point))


def circuit_row(point: Point) -> dict[str, Any]:
    """What is known of a point and of what it hangs on."""
    circuit, supply = point.circuit, point.circuit.board.supply
    return {
        "site": supply.site.name, "supply": supply.name, "system": supply.system, "earthing": supply.earthing,
        "board": circuit.board.name, "circuit": circuit.name, "rating_a": circuit.rating_a,
        "curve": circuit.curve or None, "residual_ma": circuit.residual_ma, "conductor": circuit.conductor or None,
        "point": point.name, "kind": point.kind, "room": point.room or None, "terminals": point.terminals,
        "length_m": point.length_m, "protected_by": point.protected_by or None,
        "from file": point.brought.said if point.brought else None,
    }  # fmt: skip


def dead_test_rows(crew: Crew, site: Site | None) -> Iterator[list[Any]]:
    """The tests in force on every sheet, with what each comes to."""
    sheets = sheets_of(crew) if site is None else sheets_of(crew).filter(circuit__board__supply__site=site)
    for sheet in sheets:
        view = SheetView(sheet)
        for entry in view.of("tested"):
            test, taken = entry.entry["test"], view.taken_by(entry)
            limit = taken.outcome.limit
            yield DEAD_TEST_ROWS.row(
                {
                    **dead_test_row(entry),
                    "test": view.title_of(entry),
                    "shown": DEAD_TESTS[test["kind"]].shown(test),
                    "result": taken.outcome.result,
                    "limit": limit_said(limit.band.low, limit.band.high, limit.unit) if limit else None,
                    "source": limit.source if limit else None,
                    "does not count because": taken.in_doubt or None,
                }
            )


def dead_test_row(entry: SheetEntry) -> dict[str, Any]:
    """What was put down of a test: where, with what, by whom, and everything that was typed."""
    sheet, file = entry.sheet, entry.brought
    circuit = sheet.circuit
    names, point = {str(p.id): p.name for p in circuit.points.all()}, str(entry.entry.get("point") or "")
    return {
        **entry.entry["test"],
        "id": entry.known_as or entry.id,
        "made at": entry.at,
        "site": circuit.board.supply.site.name,
        "board": circuit.board.name,
        "circuit name": circuit.name,
        "sheet": sheet.known_as or sheet.id,
        "line": str(entry.entry.get("line") or "").removesuffix(point).strip() or None,
        "point": names.get(point),
        "tester": entry.tester,
        "by": file.unmarked(entry.by_name) if file else entry.by_name,
        "from file": file.said if file else None,
    }


def kit_rows(crew: Crew) -> Iterator[list[Any]]:
    """Testers, then leads and adapters, those out of use among them."""
    for tester in Tester.objects.filter(crew=crew).select_related("usual_leads", "brought"):
        yield KIT.row(tester_row(tester))
    for part in Part.objects.filter(crew=crew).select_related("brought"):
        yield KIT.row(part_row(part))


def tester_row(tester: Tester) -> dict[str, Any]:
    """What the register knows of a tester."""
    more = {"usual leads": tester.usual_leads, "faulty": tester.fault or None, "suspect from": tester.suspect_from}
    return {**_kit_row(tester), **more}


def part_row(part: Part) -> dict[str, Any]:
    """What the register knows of leads or of an adapter."""
    return {**_kit_row(part), "kind": part.role}


def _kit_row(one: Tester | Part) -> dict[str, Any]:
    return {
        **one.entry,
        "id": one.known_as or one.id,
        "in use": one.retired_at is None,
        "from file": one.brought.said if one.brought else None,
    }
