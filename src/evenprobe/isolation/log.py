"""The log of a proof of isolation: sources, testers, and every event in time order. Nothing in it is ever changed."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime
from enum import StrEnum
from itertools import combinations
from typing import Literal

from evenprobe.isolation.rules import HANDBOOK, HouseRules
from evenprobe.limits.voltages import DRY_TOUCH_VOLTS, WET_TOUCH_VOLTS
from evenprobe.practices import Practice
from evenprobe.supplies import SupplySystem
from evenprobe.testers.fitness import Held
from evenprobe.testers.ratings import Place
from evenprobe.wiring import Terminal

Mode = Literal["ac", "dc"]
Pair = frozenset[Terminal]


class SourceKind(StrEnum):
    """What reaches the place. Those with a DC side hold a voltage that only a DC reading shows."""

    DEVICE = "device"
    SECOND_FEED = "second-feed"
    CONTROL = "control"
    SHARED_NEUTRAL = "shared-neutral"
    SOLAR = "solar"
    BATTERY_INVERTER = "battery-inverter"
    GENERATOR = "generator"
    CAPACITOR = "capacitor"


WITH_DC_SIDE = (SourceKind.SOLAR, SourceKind.BATTERY_INVERTER, SourceKind.CAPACITOR)


@dataclass(frozen=True)
class Source:
    id: str
    label: str
    kind: SourceKind = SourceKind.DEVICE


class EventType(StrEnum):
    """What happens to a proof of isolation."""

    OFF = "off"
    LOCKED = "locked"
    PROVED = "proved"
    PROVE_FAILED = "prove-failed"
    SCREENED = "screened"
    TESTED = "tested"
    STATED = "stated"
    LEFT = "left"
    RETURNED = "returned"
    HANDED_OVER = "handed-over"
    UNLOCKED = "unlocked"
    RE_ENERGISED = "re-energised"
    SOURCE_FOUND = "source-found"
    CLOSED = "closed"


@dataclass(frozen=True)
class Event:
    """`volts`: as shown; `at_least` and `below`: steps lit and dark. `range`: as set on a manual meter.

    `source`, `tester`: ids in the log; None on an unlock or a re-energising means all sources. `told_at`: when it was
    heard of, where a device without a line kept it; None where that was at once.
    """

    at: datetime
    type: EventType
    source: str | None = None
    found: Source | None = None
    tester: str | None = None
    from_: Terminal | None = None
    to: Terminal | None = None
    volts: float | None = None
    at_least: float | None = None
    below: float | None = None
    mode: Mode = "ac"
    range: str = ""
    low_impedance: bool = False
    against: str = ""
    alarm: bool = False
    lock: str = ""
    by: str = ""
    told_at: datetime | None = None

    @property
    def heard_at(self) -> datetime:
        """From when on anybody but its author knew of it."""
        return self.told_at or self.at

    @property
    def seen(self) -> float:
        """The least voltage the display stands for, whichever way round the leads were."""
        return abs(self.volts) if self.volts is not None else self.at_least or 0.0

    @property
    def pair(self) -> Pair:
        return frozenset(t for t in (self.from_, self.to) if t is not None)


@dataclass(frozen=True)
class IsolationLog:
    """`at`: now, as far as the log is concerned."""

    practice: Practice
    system: SupplySystem
    terminals: tuple[Terminal, ...]
    place: Place
    sources: tuple[Source, ...]
    testers: Mapping[str, Held]
    events: tuple[Event, ...]
    at: datetime
    wet: bool = False
    rules: HouseRules = field(default=HANDBOOK)

    @property
    def touch_volts(self) -> float:
        return WET_TOUCH_VOLTS if self.wet else DRY_TOUCH_VOLTS

    def between(self, measuring: Terminal, reference: Terminal) -> str:
        """The two points by the letters of the practice."""
        letters = self.practice.letters
        return f"{letters[measuring]} to {letters[reference]}"


def pairs_to_test(terminals: tuple[Terminal, ...]) -> tuple[tuple[Terminal, Terminal], ...]:
    """Every unordered pair of conductors, and each casing to earth; the reference of a pair comes second.

    Parameters
    ----------
    terminals : tuple of Terminal
        The conductors to be dead, and `CASE` where there is metal to touch.

    Returns
    -------
    tuple of (Terminal, Terminal)
        Measuring and reference.

    Examples
    --------
    >>> [f"{a}-{b}" for a, b in pairs_to_test((Terminal.L, Terminal.N, Terminal.PE))]
    ['L-N', 'L-PE', 'N-PE']
    """
    conductors = [t for t in terminals if t is not Terminal.CASE]
    pairs: list[tuple[Terminal, Terminal]] = list(combinations(conductors, 2))
    if Terminal.CASE in terminals:
        pairs.append((Terminal.CASE, Terminal.PE if Terminal.PE in terminals else Terminal.REF))
    return tuple(pairs)
