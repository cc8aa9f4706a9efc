"""What a survey file hangs its points on: supplies, boards and circuits, those on record and those it adds."""

from dataclasses import dataclass, field
from typing import Any
from uuid import UUID, uuid5

from django.db import models

from base.problems import Refused
from brought.models import BroughtFile
from evenprobe.formats.survey import CircuitEntry
from readings.models import Reading
from sites.models import Board, Circuit, Point, Site, Supply
from sites.services import LONGEST_NAME


@dataclass
class Plan:
    """What is not on record yet, each after what it hangs on."""

    supplies: dict[UUID, Supply] = field(default_factory=dict)
    boards: dict[UUID, Board] = field(default_factory=dict)
    circuits: dict[UUID, Circuit] = field(default_factory=dict)
    points: dict[UUID, Point] = field(default_factory=dict)
    readings: dict[UUID, Reading] = field(default_factory=dict)

    def came_from(self, file: BroughtFile) -> None:
        """Marks the places; readings are marked as they are made."""
        for places in (self.supplies, self.boards, self.circuits, self.points):
            for place in places.values():
                place.brought = file


class Structure:
    """Supplies, boards and circuits of a site, those on record and those the file adds, each looked up once."""

    def __init__(self, site: Site, found: Plan) -> None:
        self.site, self.found = site, found
        own = {"supply__site": site}
        self.supplies = {(s.system, s.earthing): s for s in reversed(Supply.objects.filter(site=site))}
        self.boards = {(b.supply_id, b.name): b for b in reversed(Board.objects.filter(**own))}
        circuits = Circuit.objects.filter(board__supply__site=site)
        self.circuits = {
            (c.board_id, c.name, c.rating_a, c.conductor, c.residual_ma, c.curve): c for c in reversed(circuits)
        }
        last = Point.objects.filter(circuit__board__supply__site=site).values("circuit_id")
        self._positions = {row["circuit_id"]: row["last"] for row in last.annotate(last=models.Max("position"))}
        self._lasts = {
            Supply: _last(Supply.objects.filter(site=site)),
            Board: _last(Board.objects.filter(**own)),
            Circuit: _last(circuits),
        }

    def next_position(self, circuit: Circuit) -> int:
        self._positions[circuit.id] = self._positions.get(circuit.id, 0) + 1
        return int(self._positions[circuit.id])

    def _next(self, model: type[Supply | Board | Circuit]) -> int:
        self._lasts[model] += 1
        return self._lasts[model]

    def _supply(self, system: str, earthing: str) -> Supply:
        there = self.supplies.get((system, earthing))
        if there is None:
            id_ = uuid5(self.site.id, f"supply {system} {earthing}")
            there = Supply(
                id=id_, site=self.site, name=f"{system} V, {earthing}", system=system, earthing=earthing,
                position=self._next(Supply),
            )  # fmt: skip
            self.supplies[system, earthing] = self.found.supplies[id_] = there
        return there

    def _board(self, path: str, supply: Supply, name: str) -> Board:
        there = self.boards.get((supply.id, name))
        if there is None:
            id_ = uuid5(supply.id, f"board {name}")
            there = Board(
                id=id_, supply=supply, name=name_at(f"{path}.circuit.board", name), position=self._next(Board)
            )
            self.boards[supply.id, name] = self.found.boards[id_] = there
        return there

    def circuit(self, path: str, system: str, earthing: str, known: CircuitEntry) -> Circuit:
        board = self._board(path, self._supply(system, earthing), known.board or "Board")
        name = known.label or "Circuit"
        about = known.rating_a, known.conductor or "", known.residual_ma, known.curve or ""
        there = self.circuits.get((board.id, name, *about))
        if there is None:
            more = "".join(f" {one}" for one in (known.residual_ma, known.curve) if one)
            id_ = uuid5(board.id, f"circuit {name} {known.rating_a} {known.conductor}{more}")
            there = Circuit(
                id=id_, board=board, name=name_at(f"{path}.circuit.label", name), rating_a=about[0], conductor=about[1],
                residual_ma=about[2], curve=about[3], position=self._next(Circuit),
            )  # fmt: skip
            self.circuits[board.id, name, *about] = self.found.circuits[id_] = there
        return there


def _last(siblings: models.QuerySet[Any]) -> int:
    return int(siblings.aggregate(last=models.Max("position"))["last"] or 0)


def name_at(path: str, name: str) -> str:
    name = name.strip()
    if not name:
        raise Refused((path, "needs a name"))
    if len(name) > LONGEST_NAME:
        raise Refused((path, f"is longer than {LONGEST_NAME} characters"))
    return name
