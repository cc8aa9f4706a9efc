"""An installation's nodes and branches, from the source to the contacts of a point.

    source – line bar – device – run – [joint] – tap – run – [joint] – contact, for every line
    source neutral – board neutral bar – run – N contact, and the bond or electrodes of the earthing
another circuit's source and load – the neutral where the run is tapped
    earth bar – electrode – mass of earth; earth bar – run – PE contact – casing

The run is split where other loads tap it, so a joint lies before or after the tap. Loads are between any
two live wires, so a lost line is fed back through them. Cable and stray capacitances sit at the tap and at
the contacts.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property, lru_cache
from itertools import combinations

from evenprobe.network import EARTH, Mesh
from evenprobe.wiring.points import Layout

Branches = dict[str, tuple[str, str]]

FOREIGN = "foreign"
"""The branch by which another circuit's load sends its current into this one's neutral."""


def between(place: str, one: str, other: str) -> str:
    """The branch that joins two wires, or bars, at a place of the run or at the board."""
    return f"{place}_{min(one, other)}_{max(one, other)}"


def pairs_of(names: Iterable[str]) -> list[tuple[str, str]]:
    return list(combinations(names, 2))


@dataclass(frozen=True)
class Topology:
    """The meshes of a layout, energised and dead, and the nodes that can be measured."""

    layout: Layout

    @cached_property
    def live(self) -> Mesh:
        return Mesh(self._branches)

    @cached_property
    def dead(self) -> Mesh:
        """The same with the ends at the board apart, where dead tests are made."""
        return self._apart({wire: _device(wire) for wire in self.layout.live_wires})

    @cached_property
    def clamped(self) -> Mesh:
        """Energised, each wire's first stretch apart from its bar, so that what flows between them is seen."""
        return self._apart({wire: clamp(wire) for wire in self.layout.wires})

    def _apart(self, through: dict[str, str]) -> Mesh:
        """With wires that leave their bars through a branch of its own."""
        cut = {}
        for wire, branch in through.items():
            cut[branch] = (f"{wire}_bar", f"{wire}_out")
            cut[f"{wire}_a"] = (f"{wire}_out", f"{wire}_tap")
        return Mesh({**self._branches, **cut})

    @property
    def sources(self) -> dict[str, str]:
        """By bar, the branch that feeds it."""
        return {bar: f"source_{bar}" for bar in self.layout.bars}

    @property
    def live_ports(self) -> tuple[str, ...]:
        """Ends of all wires, the mass of earth."""
        return (*self._ends, EARTH)

    @property
    def tapped_ports(self) -> tuple[str, ...]:
        """Beside those, the taps of the live wires."""
        return (*self._ends, *(f"{wire}_tap" for wire in self.layout.live_wires), EARTH)

    @property
    def clamped_ports(self) -> tuple[str, ...]:
        """Beside those of the taps, where each wire leaves the board, and its bar."""
        wires = self.layout.wires
        return (*self.tapped_ports, *(f"{wire}_out" for wire in wires), *(f"{wire}_bar" for wire in wires))

    @property
    def dead_ports(self) -> tuple[str, ...]:
        """Ends of all wires, the taps of the live ones, the mass of earth, the ends at the board."""
        return (*self.tapped_ports, *(f"{wire}_out" for wire in self.layout.live_wires), "earth_bar")

    @property
    def _ends(self) -> tuple[str, ...]:
        return tuple(f"{wire}_end" for wire in self.layout.wires)

    @cached_property
    def _branches(self) -> Branches:
        found: Branches = {}
        for bar in self.layout.bars:
            found[f"source_{bar}"] = (f"{bar}_bar", "source_neutral")
            found[between("board", bar, "neutral")] = (f"{bar}_bar", "neutral_bar")
            found[f"source_stray_{bar}"] = (f"{bar}_bar", EARTH)
        for a, b in pairs_of(self.layout.bars):
            found[between("board", a, b)] = (f"{a}_bar", f"{b}_bar")
        found |= {
            "source_electrode": ("source_neutral", EARTH),
            "service_neutral": ("source_neutral", "neutral_bar"),
            "service_earth": ("source_neutral", "earth_bar"),
            "bond": ("neutral_bar", "earth_bar"),
            "electrode": ("earth_bar", EARTH),
        }
        for wire in self.layout.wires:
            found[f"{wire}_a"] = (f"{wire}_bar", f"{wire}_tap")
            found[f"{wire}_b"] = (f"{wire}_tap", f"{wire}_end")
            found[f"stray_{wire}"] = (f"{wire}_end", EARTH)
        if self.layout.neutral:
            found[FOREIGN] = ("neutral_tap", "neutral_bar")
        for a, b in pairs_of(self.layout.wires):
            for place in ("tap", "end"):
                found[between(place, a, b)] = (f"{a}_{place}", f"{b}_{place}")
        return found


def _device(wire: str) -> str:
    return "neutral_link" if wire == "neutral" else f"device_{wire}"


def clamp(wire: str) -> str:
    """The branch through which a wire leaves its bar, where a clamp is closed round it."""
    return f"clamp_{wire}"


@lru_cache(maxsize=32)
def topology_of(layout: Layout) -> Topology:
    return Topology(layout)
