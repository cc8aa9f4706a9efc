"""Points of an installation: what a person stands in front of, and what the record knows of its circuit."""

from dataclasses import dataclass
from enum import StrEnum
from itertools import combinations

from evenprobe.supplies import PRACTICES, Earthing, PracticeId, SupplySystem
from evenprobe.wiring.conductors import Conductor


class Terminal(StrEnum):
    L = "L"
    L1 = "L1"
    L2 = "L2"
    L3 = "L3"
    N = "N"
    PE = "PE"
    CASE = "CASE"
    REF = "REF"
    BOARD_L = "BOARD-L"
    BOARD_N = "BOARD-N"
    BOARD_PE = "BOARD-PE"


BOARD_END: dict[Terminal, Terminal] = {
    Terminal.L: Terminal.BOARD_L,
    Terminal.N: Terminal.BOARD_N,
    Terminal.PE: Terminal.BOARD_PE,
    Terminal.CASE: Terminal.BOARD_PE,
}
"""The other end of the conductor behind a terminal: the device's outgoing terminal, the neutral, the earth bar."""
LINES = (Terminal.L, Terminal.L1, Terminal.L2, Terminal.L3)
METALWORK = (Terminal.PE, Terminal.CASE)


class PointKind(StrEnum):
    OUTLET = "outlet"
    FIXED = "fixed"
    SWITCH = "switch"
    JUNCTION = "junction"
    BOARD = "board"
    STANDALONE_SOURCE = "standalone-source"


@dataclass(frozen=True)
class CircuitFacts:
    """What is recorded of the circuit. None: not known, so every plausible value is."""

    rating_a: float | None = None
    conductor: Conductor | None = None
    length_m: float | None = None


@dataclass(frozen=True)
class PointFacts:
    """All that decides which samples are drawn for a point; hashable, so a bank is cached by it."""

    practice: PracticeId
    system: SupplySystem
    earthing: Earthing
    kind: PointKind
    terminals: tuple[Terminal, ...]
    circuit: CircuitFacts = CircuitFacts()

    def __hash__(self) -> int:
        return hash((self.practice, self.system.id, self.earthing, self.kind, self.terminals, self.circuit))

    @property
    def polarised(self) -> bool:
        """Whether it matters which contact carries the line: always, but on a plug that fits both ways."""
        return self.kind is not PointKind.OUTLET or PRACTICES[self.practice].polarised_plugs

    @property
    def lines(self) -> tuple[Terminal, ...]:
        return tuple(t for t in self.terminals if t in LINES)


def contact_pairs(terminals: tuple[Terminal, ...]) -> tuple[tuple[Terminal, Terminal], ...]:
    """Every unordered pair of the point's contacts; the reference earth is not a contact."""
    return tuple(combinations((t for t in terminals if t is not Terminal.REF), 2))


def board_ends(terminals: tuple[Terminal, ...]) -> tuple[Terminal, ...]:
    """Ends at the board of the conductors that come to these terminals, each once."""
    return tuple(dict.fromkeys(BOARD_END[t] for t in terminals if t in BOARD_END))
