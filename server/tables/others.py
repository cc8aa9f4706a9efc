"""Circuits with their points, dead tests, and kit, a row each."""

from collections.abc import Iterator
from typing import Any

from crews.models import Crew
from evenprobe.deadtests.kinds import DEAD_TESTS
from evenprobe.formats.said import limit_said
from kit.models import Tester
from sheets.records import SheetView
from sheets.services import sheets_of
from sites.models import Point, Site

CIRCUITS = (
    "site", "supply", "system", "earthing", "board", "circuit", "rating [A]", "curve", "residual [mA]", "conductor",
    "point", "kind", "room", "contacts", "cable [m]", "behind",
)  # fmt: skip
DEAD_TESTS_HEADER = (
    "id", "made at", "site", "board", "circuit", "test", "kind", "shown", "result", "limit", "source", "tester", "by",
    "does not count because",
)  # fmt: skip
KIT = (
    "id", "label", "kind", "category", "rated [V]", "proved", "calibration due", "functions", "known issue", "faulty",
    "in use",
)  # fmt: skip


def circuit_rows(crew: Crew, site: Site | None) -> Iterator[list[Any]]:
    """A row a point, with the circuit it is on."""
    points = Point.objects.in_use().filter(circuit__board__supply__site__crew=crew)
    if site is not None:
        points = points.filter(circuit__board__supply__site=site)
    order = ("circuit__board__supply__site__name", "circuit__board__position", "circuit__position", "position")
    for point in points.select_related("circuit__board__supply__site").order_by(*order).iterator(chunk_size=500):
        circuit, supply = point.circuit, point.circuit.board.supply
        yield [
            supply.site.name, supply.name, supply.system, supply.earthing, circuit.board.name, circuit.name,
            circuit.rating_a, circuit.curve, circuit.residual_ma, circuit.conductor,
            point.name, point.kind, point.room, " ".join(point.terminals), point.length_m, point.protected_by,
        ]  # fmt: skip


def dead_test_rows(crew: Crew, site: Site | None) -> Iterator[list[Any]]:
    """The tests in force on every sheet."""
    sheets = sheets_of(crew) if site is None else sheets_of(crew).filter(circuit__board__supply__site=site)
    for sheet in sheets:
        view = SheetView(sheet)
        for entry in view.of("tested"):
            test, taken = entry.entry["test"], view.taken_by(entry)
            kind, limit = DEAD_TESTS[test["kind"]], taken.outcome.limit
            yield [
                entry.id, entry.at, view.site.name, sheet.circuit.board.name, sheet.circuit.name,
                view.title_of(entry), test["kind"], kind.shown(test),
                str(taken.outcome.result), limit_said(limit.band.low, limit.band.high, limit.unit) if limit else None,
                limit.source if limit else None, entry.tester, entry.by_name, taken.in_doubt,
            ]  # fmt: skip


def kit_rows(crew: Crew) -> Iterator[list[Any]]:
    """Testers, those out of use among them."""
    for tester in Tester.objects.filter(crew=crew):
        entry = tester.entry
        yield [
            tester.id, entry.get("label"), entry["kind"], entry.get("category"), entry.get("rated_v"),
            entry.get("proved"), entry.get("calibration_due"), " ".join(entry.get("functions") or ()),
            entry.get("known_issue"), tester.fault, tester.retired_at is None,
        ]  # fmt: skip
