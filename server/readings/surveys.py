"""Rows of the record written as a survey: of a point for the core to read, of a site for a file."""

import json
from collections.abc import Iterator, Mapping, Sequence
from typing import Any

from django.db.models import QuerySet

from kit.faults import as_known
from kit.names import named
from kit.strangers import as_in_the_file
from readings.models import Reading
from sheets.evidence import DeadTest
from sites.models import Point, Site, Supply

Recorded = Reading | DeadTest
_POINTS_AT_A_TIME = 50
_UNLISTED = "unlisted"
"""Whatever a file names that is no tester of the kit."""


def survey_of(
    site: Site, recorded: Mapping[Point, Sequence[Recorded]], *, whole: bool, leaving: bool = False
) -> dict[str, Any]:
    """Points with what was recorded at each.

    `whole`: with all that was superseded, and authors, for an export; otherwise only what counts, so that equal
    content has an equal survey. `leaving`: for a file, without what only its coming in made strange here.
    """
    hands = _Instruments(leaving)
    first = next((point.circuit.board.supply for point in recorded), None)
    points = [_point(point, first, rows, hands, whole) for point, rows in recorded.items()]
    return {**_head(site, first, whole), "instruments": hands.listed(), "points": points}


def survey_in_pieces(site: Site, points: QuerySet[Point]) -> Iterator[str]:
    """The same of a whole site for a file, as JSON, a few points at a time; its testers come last."""
    hands, ids = _Instruments(leaving=True), list(points.values_list("pk", flat=True))
    first = Supply.objects.filter(boards__circuits__points=ids[0]).first()
    head = json.dumps(_head(site, first, whole=True))
    yield f'{head.removesuffix("}")}, "points": ['
    for start in range(0, len(ids), _POINTS_AT_A_TIME):
        some = points.filter(pk__in=ids[start : start + _POINTS_AT_A_TIME])
        for number, point in enumerate(some, start):
            written = _point(point, first, list(point.readings.all()), hands, whole=True)
            yield f"{',' if number else ''}\n{json.dumps(written)}"
    yield f'],\n"instruments": {json.dumps(hands.listed())}}}'


def _head(site: Site, first: Supply | None, whole: bool) -> dict[str, Any]:
    said = {"format": "even-probe/survey", "version": 1, "practice": site.practice, "supply": _supply(first)}
    return {**said, "label": site.name} if whole else said


class _Instruments:
    """The testers as they were when readings were taken, and which was in the hand at each.

    A tester that changed between two readings stands twice, the second time as `id/2`. `leaving`: for a file.
    """

    def __init__(self, leaving: bool) -> None:
        self.leaving = leaving
        self._known: dict[str, list[dict[str, Any]]] = {}

    def at(self, row: Recorded) -> str | None:
        """What is taken to hand is listed from then on."""
        held = _held(row, self.leaving)
        if held is None:
            return None
        tester = str(row.tester.id) if row.tester else _UNLISTED
        states = self._known.setdefault(tester, [])
        if held not in states:
            states.append(held)
        return named(tester, states.index(held))

    def listed(self) -> list[dict[str, Any]]:
        known = self._known
        return [{"id": named(t, n), **held} for t in sorted(known) for n, held in enumerate(known[t])]


def _held(row: Recorded, leaving: bool) -> dict[str, Any] | None:
    """What it was taken with, as it is known now; in a file as it was, where only its coming in made it strange."""
    if row.tester is None:
        return as_in_the_file(row.held) if leaving else row.held
    held: dict[str, Any] = row.held or row.tester.entry
    return held if leaving and row.tester.is_strange else as_known(held, row.tester, row.taken_at)


def _supply(supply: Supply | None) -> dict[str, str]:
    assert supply is not None
    return {"system": supply.system, "earthing": supply.earthing}


def _point(
    point: Point, first: Supply | None, rows: Sequence[Recorded], hands: _Instruments, whole: bool
) -> dict[str, Any]:
    circuit = point.circuit
    facts: dict[str, Any] = {
        "rating_a": circuit.rating_a,
        "conductor": circuit.conductor or None,
        "length_m": point.length_m,
        "residual_ma": circuit.residual_ma,
        "curve": circuit.curve or None,
    }
    entry: dict[str, Any] = {"id": str(point.id), "kind": point.kind, "terminals": point.terminals}
    if whole:
        entry["label"] = point.name
        if point.room:
            entry["room"] = point.room
        if circuit.noticed:
            entry["noticed"] = circuit.noticed
        facts |= {"label": circuit.name, "board": circuit.board.name}
    entry["circuit"] = {key: value for key, value in facts.items() if value is not None}
    supply = circuit.board.supply
    if _supply(supply) != _supply(first):
        entry["supply"] = _supply(supply)
    entry["readings"] = [
        _reading(r, held, hands.leaving, whole)
        for r, held in [(row, hands.at(row)) for row in rows]
        if r.entry is not None and (whole or counts(r))
    ]
    return entry


def counts(row: Recorded) -> bool:
    """Neither corrected nor withdrawn, nor itself a withdrawal."""
    return row.entry is not None and not hasattr(row, "superseded_by")


def source_of(row: Reading) -> str:
    """How it came into the record: typed, captured from a meter's link, or brought in from a file."""
    return "brought in" if row.brought_id is not None else str((row.entry or {}).get("source") or "typed")


def tester_said(row: Recorded) -> str:
    """What a reading was taken with, by name; of one the kit does not have as its file calls it."""
    return str(row.tester) if row.tester else str((row.held or {}).get("label") or "")


COUNTS = "counts"


def status_of(row: Reading) -> str:
    """Of a reading whether it counts, or was corrected or withdrawn."""
    if counts(row):
        return COUNTS
    return "withdrawn" if row.superseded_by.entry is None else "corrected"


def _reading(row: Recorded, held: str | None, leaving: bool, whole: bool) -> dict[str, Any]:
    entry = {"id": str(row.id), **row.entry}
    if held is not None:
        entry["instrument"] = held
    if isinstance(row, Reading):
        entry["at"] = row.taken_at.isoformat()
    if whole and isinstance(row, Reading):
        entry["by"] = row.brought.unmarked(row.by_name) if leaving and row.brought else row.by_name
        if row.supersedes_id is not None:
            entry["supersedes"] = str(row.supersedes_id)
        if hasattr(row, "superseded_by") and row.superseded_by.entry is None:
            entry["withdrawn"] = True
    return entry
