"""A measurement: what is put between which points, under which circumstances. A reading is one with a result."""

from collections.abc import Hashable, Mapping
from dataclasses import dataclass, field, fields
from enum import StrEnum
from typing import Literal

from evenprobe.testers.instruments import TYPED, Instrument
from evenprobe.testers.sweep import Sweep
from evenprobe.wiring import Terminal


class Quantity(StrEnum):
    VOLTAGE = "voltage"
    PRESENCE = "presence"
    LAMPS = "lamps"
    RESISTANCE = "resistance"
    INSULATION = "insulation"
    CURRENT = "current"
    FREQUENCY = "frequency"
    TRIP = "trip"
    SEQUENCE = "sequence"


Input = Literal["high-z", "low-z"]
Device = Literal["open", "closed"]
Neutral = Literal["connected", "lifted"]
Loads = Literal["connected", "disconnected"]
DEAD_QUANTITIES = (Quantity.RESISTANCE, Quantity.INSULATION)


@dataclass(frozen=True)
class Measurement:
    """`from_`: measuring point; `to`: reference point, None for what needs one point or all.

    Loads are known loads in amperes at nominal voltage; None means none known. `load_between`: which contacts they
    are between, None for the pair that `showing.load_between` takes. `device`: the circuit's own.
    `test_ma`: what a trip test drives from the line to earth, at nominal voltage.
    `neutral`: lifted off its bar at the board, or opened by the device. `dc`: on a DC range.
    """

    quantity: Quantity
    from_: Terminal | None
    to: Terminal | None
    instrument: Instrument = TYPED
    input: Input = "high-z"
    load_here_a: float | None = None
    load_elsewhere_a: float | None = None
    load_between: tuple[Terminal, Terminal] | None = None
    device: Device = "closed"
    neutral: Neutral = "connected"
    test_ma: float | None = None
    dc: bool = False

    @property
    def dead(self) -> bool:
        """Made on a dead circuit, by a source of the tester's own."""
        return self.quantity in DEAD_QUANTITIES

    @property
    def as_is(self) -> bool:
        """No known load and the device closed."""
        return not self.under_load and self.device == "closed"

    @property
    def under_load(self) -> bool:
        """Whether a load that is known is on, here or elsewhere on the circuit."""
        return self.load_here_a is not None or self.load_elsewhere_a is not None

    def setup(self, *ignoring: str) -> Hashable:
        """What two measurements of one thing have in common: every field but who measured and which probe was where.

        A field added to the class counts of itself; whoever compares less names what does not matter to them.
        Between which contacts a load is matters where there is one.

        >>> one = Measurement(Quantity.VOLTAGE, Terminal.L, Terminal.N, load_here_a=9)
        >>> one.setup() == Measurement(Quantity.VOLTAGE, Terminal.N, Terminal.L, load_here_a=9).setup()
        True
        >>> one.setup() == Measurement(Quantity.VOLTAGE, Terminal.L, Terminal.N, load_here_a=9, dc=True).setup()
        False
        """
        found: dict[str, Hashable] = {f.name: getattr(self, f.name) for f in fields(self)}
        found["ends"] = frozenset((found.pop("from_"), found.pop("to")))
        found["load_between"] = frozenset(self.load_between or ()) if self.under_load else None
        return frozenset((name, value) for name, value in found.items() if name not in ("instrument", *ignoring))


@dataclass(frozen=True)
class Reading:
    """A measurement and what was seen, in SI units.

    `value` for a number, and for the sequence 1 forwards, 0 reversed; `at_least` and `below` for steps;
    `over_range` for a display that shows only more than its range; `alarm` for a detector, with `sweep` where it was
    walked along; `tripped` for a trip test; `lit` by lamp, named as `L-N`. `test_volts` and `loads` are of an
    insulation test. `least` and `most` are what a current fell and rose to, and `continuous` one that flows for three
    hours and more. `unfit`: why what was held then clears nothing here, empty where it was fit.
    """

    id: str
    measurement: Measurement
    value: float | None = None
    at_least: float | None = None
    below: float | None = None
    over_range: bool = False
    alarm: bool | None = None
    sweep: Sweep | None = None
    tripped: bool | None = None
    lit: Mapping[str, bool] = field(default_factory=dict)
    test_volts: float | None = None
    loads: Loads | None = None
    least: float | None = None
    most: float | None = None
    continuous: bool = False
    unfit: str = ""
