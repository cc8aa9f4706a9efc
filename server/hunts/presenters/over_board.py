"""A board that is mapped: which ways are on in each round, what every outlet showed, and which way feeds it."""

from collections.abc import Sequence
from functools import cached_property
from typing import Any

from evenprobe.formats.circuits import MapFile
from evenprobe.hunting.board_map import BoardMap
from evenprobe.hunting.findings import HuntState
from evenprobe.hunting.steps import map_steps
from hunts.models import HuntEvent
from hunts.presenters.view import HuntView
from hunts.shapes import MapOutlet, MapRound, OverBoard


class BoardView(HuntView[MapFile]):
    @cached_property
    def found(self) -> BoardMap:
        return self.file.hunted()

    def now(self) -> str:
        if self.found.state is HuntState.FOUND:
            odd = len(self.found.odd)
            mapped = f"{len(self.found.found)} of {len(self.file.outlets)} outlets mapped"
            return f"{mapped}, {odd} odd" if odd else mapped
        return f"round {self.found.next_round} of {len(self.found.rounds)}"

    def seen_texts(self) -> Sequence[str]:
        return [
            f"{self.name(each.outlet)}, round {each.round}: {'live' if each.live else 'dead'}"
            for each in self.file.seen
        ]

    def steps(self) -> Sequence[str]:
        return map_steps(self.found.state, self.practice)

    def along(self) -> dict[str, Any]:
        found, shown = self.found, {(each.outlet, each.round): each.live for each in self.file.seen}
        numbers = range(1, len(found.rounds) + 1)
        odd = {outlet: self._with_ways(str(why)) for outlet, why in found.odd.items()}
        return {
            "map": OverBoard(
                rounds=[
                    MapRound(
                        round=number,
                        on=[self.name(way) for way in found.rounds[number - 1]],
                        off=[self.name(way) for way in self.file.ways if way not in found.rounds[number - 1]],
                        left=sum((outlet, number) not in shown for outlet in self.file.outlets),
                    )
                    for number in numbers
                ],
                round=found.next_round,
                outlets=[
                    MapOutlet(
                        id=outlet,
                        name=self.name(outlet),
                        live=[shown.get((outlet, number)) for number in numbers],
                        ways=[self.name(way) for way in found.found.get(outlet, ())],
                        odd=odd.get(outlet, ""),
                    )
                    for outlet in self.file.outlets
                ],
                scheduled=any(event.kind == HuntEvent.Kind.SCHEDULED for event in self.standing),
            )
        }

    def _with_ways(self, said: str) -> str:
        """With the ways that a sentence lists by their names."""
        for way in self.file.ways:
            said = said.replace(way, self.name(way)) if way in self.names else said
        return said
