"""Points of an installation: what a person stands in front of, and what the record knows of its circuit."""

from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property
from itertools import combinations

from evenprobe.practices import Practice
from evenprobe.supplies import Earthing, SupplySystem
from evenprobe.wiring.conductors import Conductor


class Terminal(StrEnum):
    """A contact of a point, a conductor's end at the board, metalwork to touch, or a reference earth brought along."""

    L = "L"
    L1 = "L1"
    L2 = "L2"
    L3 = "L3"
    N = "N"
    PE = "PE"
    CASE = "CASE"
    REF = "REF"
    BOARD_L = "BOARD-L"
    BOARD_L1 = "BOARD-L1"
    BOARD_L2 = "BOARD-L2"
    BOARD_L3 = "BOARD-L3"
    BOARD_N = "BOARD-N"
    BOARD_PE = "BOARD-PE"


BOARD_END: dict[Terminal, Terminal] = {
    Terminal.L: Terminal.BOARD_L,
    Terminal.L1: Terminal.BOARD_L1,
    Terminal.L2: Terminal.BOARD_L2,
    Terminal.L3: Terminal.BOARD_L3,
    Terminal.N: Terminal.BOARD_N,
    Terminal.PE: Terminal.BOARD_PE,
    Terminal.CASE: Terminal.BOARD_PE,
}
"""The other end of the conductor behind a terminal: the device's outgoing terminal, the neutral, the earth bar."""
LINES = (Terminal.L, Terminal.L1, Terminal.L2, Terminal.L3)
METALWORK = (Terminal.PE, Terminal.CASE)


class PointKind(StrEnum):
    """What a point is."""

    OUTLET = "outlet"
    FIXED = "fixed"
    SWITCH = "switch"
    JUNCTION = "junction"
    BOARD = "board"
    STANDALONE_SOURCE = "standalone-source"


OUTLETS = (PointKind.OUTLET, PointKind.STANDALONE_SOURCE)
"""What somebody may plug something into, and what one goes round."""


@dataclass(frozen=True)
class CircuitFacts:
    """What is recorded of the circuit. None: not known, so every plausible value is."""

    rating_a: float | None = None
    conductor: Conductor | None = None
    length_m: float | None = None
    residual_ma: float | None = None
    """Rated residual current of the device that protects it; None: no such device, or nobody wrote it down."""


@dataclass(frozen=True)
class PointFacts:
    """All that decides which samples are drawn for a point; hashable, so an ensemble is cached by it."""

    practice: Practice
    system: SupplySystem
    earthing: Earthing
    kind: PointKind
    terminals: tuple[Terminal, ...]
    circuit: CircuitFacts = CircuitFacts()

    def __hash__(self) -> int:
        return hash((self.practice, self.system.id, self.earthing, self.kind, self.terminals, self.circuit))

    @property
    def polarised(self) -> bool:
        """Whether it matters which contact carries the line: always, but on a one-line plug that fits both ways."""
        turns = self.kind is PointKind.OUTLET and len(self.lines) == 1
        return not turns or self.practice.polarised_plugs

    @property
    def lines(self) -> tuple[Terminal, ...]:
        return tuple(t for t in self.terminals if t in LINES)

    @property
    def no_lines(self) -> str:
        """Why its lines make no sense on its supply, in words; empty where they do."""
        if not self.lines:
            return "this point has no line contact"
        astray = [line for line in self.lines if line not in self.system.lines]
        if len(self.lines) > 1 and astray:
            return f"{', '.join(astray)} is no line of {self.system.title}, which has {', '.join(self.system.lines)}"
        return ""

    @cached_property
    def layout(self) -> "Layout":
        """The conductors behind its contacts. Raises ValueError where it has no line."""
        return _layout(self)

    def volts_between(self, one: Terminal, other: Terminal) -> float:
        """Nominal volts between two of its contacts; whatever is no line is at the neutral's potential."""
        at = dict(zip(self.lines, self.layout.phasors, strict=False))
        return self.system.nominal_volts * abs(at.get(one, 0) - at.get(other, 0))


@dataclass(frozen=True)
class Layout:
    """Which wires come to a point, and which other lines there are at its board.

    `lines`: the wires to its line contacts, in order. `beside`: lines of the supply that do not come here.
    `phasors`: where each of both should be, per volt of an ordinary line, the first at no angle. `neutral`:
    whether a neutral comes here; where there is but one line it always does, contact or not. `astray`: where a
    line on the neutral's screw may be.
    """

    lines: tuple[str, ...]
    beside: tuple[str, ...]
    phasors: tuple[complex, ...]
    neutral: bool
    astray: tuple[complex, ...]
    alternatives: tuple[tuple[complex, ...], ...] = ()
    """Other phasors that would be as good, and worth a note: whatever else is true can be true on these as well."""

    @property
    def bars(self) -> tuple[str, ...]:
        """Every line at the board."""
        return self.lines + self.beside

    @property
    def wires(self) -> tuple[str, ...]:
        """Every wire of the run."""
        return (*self.live_wires, "earth")

    @property
    def live_wires(self) -> tuple[str, ...]:
        return (*self.lines, *(("neutral",) if self.neutral else ()))


def _layout(point: PointFacts) -> Layout:
    """The lines a contact's name says; where there is only one, the ordinary line, whatever it is called.

    Fewer lines than the supply has are its ordinary ones: of a high-leg delta the two on either side of the tap.
    """
    system, count = point.system, len(point.lines)
    if not count:
        raise ValueError("a point without a line has no layout")
    if count == 1:
        ordered = list(system.lines)
        lines: tuple[str, ...] = ("line",)
    else:
        named = [str(t) for t in point.lines if t in system.lines]
        ordered = [*named, *(line for line in system.lines if line not in named)]
        lines = tuple(str(t) for t in point.lines)
    if count < len(ordered):
        ordered.sort(key=lambda line: abs(system.phasor(line)) > 1.01 * system.nominal_volts)
    first = system.phasor(ordered[0])
    found = [system.phasor(line) * abs(first) / first / system.nominal_volts for line in ordered]
    phasors = tuple([*found, *system.other_line_phasors][: max(count, len(ordered))])
    beside = tuple(f"beside{i}" for i in range(1, 1 + len(ordered) - count))
    astray = system.other_line_phasors if count == 1 else phasors
    neutral = count == 1 or Terminal.N in point.terminals
    return Layout(lines, beside, phasors, neutral, astray, _as_good(system, phasors, count, neutral))


_STAR_LEG = -0.5 - 0.75**0.5 * 1j
"""A third of a turn after the first line, at the same volts to neutral."""


def _as_good(
    system: SupplySystem, phasors: tuple[complex, ...], count: int, neutral: bool
) -> tuple[tuple[complex, ...], ...]:
    """What two lines may be on instead: two legs of a star for a split phase, and without a neutral the high leg."""
    if count != 2:
        return ()
    if system.split_phase:
        return ((1 + 0j, _STAR_LEG),)
    if system.has_high_leg and not neutral:
        one, other, third = phasors
        return ((third, other, one), (one, third, other))
    return ()


def contact_pairs(terminals: tuple[Terminal, ...]) -> tuple[tuple[Terminal, Terminal], ...]:
    """Every unordered pair of a point's contacts; the reference earth is not a contact.

    Parameters
    ----------
    terminals : tuple of Terminal

    Returns
    -------
    tuple of (Terminal, Terminal)

    Examples
    --------
    >>> [f"{a}-{b}" for a, b in contact_pairs((Terminal.L, Terminal.N, Terminal.PE, Terminal.REF))]
    ['L-N', 'L-PE', 'N-PE']
    """
    return tuple(combinations((t for t in terminals if t is not Terminal.REF), 2))


def board_ends(terminals: tuple[Terminal, ...]) -> tuple[Terminal, ...]:
    """Ends at the board of the conductors that come to these terminals, each once."""
    return tuple(dict.fromkeys(BOARD_END[t] for t in terminals if t in BOARD_END))
