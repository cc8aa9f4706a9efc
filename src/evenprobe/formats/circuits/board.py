"""The circuit file of a board that is mapped."""

from collections.abc import Sequence
from typing import Annotated, Literal

from pydantic import Field, model_validator

from evenprobe.entries import FieldError, Name, Strict, YesNo
from evenprobe.formats.circuits.common import MOST_PLACES, MOST_SEEN, Circuit, once
from evenprobe.hunting.board_map import BoardMap, Tapped, map_board

_MOST_TAPS = 50_000


class TappedEntry(Strict):
    outlet: Name
    round: Annotated[int, Field(strict=True, ge=1)]
    live: YesNo


class MapFile(Circuit):
    """A board whose ways nobody labelled."""

    hunt: Literal["map"]
    ways: Annotated[list[Name], Field(min_length=1, max_length=MOST_PLACES)]
    fixed_on: list[Name] = []
    fixed_off: list[Name] = []
    outlets: Annotated[list[Name], Field(max_length=MOST_SEEN)]
    seen: Annotated[list[TappedEntry], Field(max_length=_MOST_TAPS)] = []

    @model_validator(mode="after")
    def _fits(self) -> "MapFile":
        for key in ("ways", "fixed_on", "fixed_off", "outlets"):
            once(key, "", getattr(self, key))
        for key in ("fixed_on", "fixed_off"):
            for index, way in enumerate(getattr(self, key)):
                if way not in self.ways:
                    raise FieldError(f"{key}[{index}]", f"{way!r} is no way of this board")
                if key == "fixed_off" and way in self.fixed_on:
                    raise FieldError(f"{key}[{index}]", f"{way!r} stays on as well")
        rounds = len(self._mapped([]).rounds)
        for index, each in enumerate(self.seen):
            if each.outlet not in self.outlets:
                raise FieldError(f"seen[{index}].outlet", f"{each.outlet!r} is none of the outlets")
            if each.round > rounds:
                raise FieldError(f"seen[{index}].round", f"there are {rounds} rounds")
        return self

    def hunted(self) -> BoardMap:
        return self._mapped([Tapped(each.outlet, each.round, each.live) for each in self.seen])

    def _mapped(self, seen: Sequence[Tapped]) -> BoardMap:
        return map_board(self.ways, self.outlets, seen, fixed_on=self.fixed_on, fixed_off=self.fixed_off)
