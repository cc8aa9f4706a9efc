"""What a measurement is, and what a reading is: where the probes were, under which circumstances, and what was seen."""

from collections.abc import Hashable, Mapping
from dataclasses import dataclass, field, fields
from typing import TYPE_CHECKING

from evenprobe.quantities.sweep import Sweep
from evenprobe.testers.instrument import TYPED, Instrument
from evenprobe.wiring import Terminal
from evenprobe.wiring.circumstances import Device, FarEnds, Input, Loads, Neutral
from evenprobe.wiring.points import METALWORK
from evenprobe.wiring.references import A_ROD, Reference

if TYPE_CHECKING:
    from evenprobe.quantities.quantity import Quantity


@dataclass(frozen=True)
class Measurement:
    """`from_`: measuring point; `to`: reference point, None for what needs one point or all.

    Loads are known loads in amperes at nominal voltage; None means none known. `load_between`: which contacts they
    are between, None for the pair that `probes.load_between` takes. `nothing_else_on`: whatever else there is on the
    circuit was seen to be switched off or unplugged. `device`: the circuit's own.
    `test_ma`: what a trip test drives from the line to earth, at nominal voltage.
    `neutral`: lifted off its bar at the board, or opened by the device. `far_ends`: joined, where the conductors of the
    two contacts are joined at the board, so that it is both of them. `dc`: on a DC range. `reference`: which reference
    earth it was, a rod where nobody says.
    """

    quantity: "Quantity"
    from_: Terminal | None
    to: Terminal | None
    instrument: Instrument = TYPED
    input: Input = "high-z"
    load_here_a: float | None = None
    load_elsewhere_a: float | None = None
    load_between: tuple[Terminal, Terminal] | None = None
    nothing_else_on: bool = False
    device: Device = "closed"
    neutral: Neutral = "connected"
    far_ends: FarEnds = "apart"
    test_ma: float | None = None
    dc: bool = False
    reference: Reference = A_ROD

    @property
    def ends(self) -> frozenset[Terminal]:
        """The points the probes are on."""
        return frozenset(end for end in (self.from_, self.to) if end is not None)

    @property
    def as_is(self) -> bool:
        """No known load and the device closed."""
        return not self.under_load and self.device == "closed"

    @property
    def under_load(self) -> bool:
        """Whether a load that is known is on, here or elsewhere on the circuit."""
        return self.load_here_a is not None or self.load_elsewhere_a is not None

    @property
    def of_metal_to_reference(self) -> bool:
        """Whether it is of metalwork against an independent earth."""
        return Terminal.REF in self.ends and bool(self.ends & set(METALWORK))

    @property
    def to_the_bar(self) -> bool:
        """Whether its reference earth hangs on the earth bar at the board."""
        return Terminal.REF in self.ends and self.reference.kind.at_bar

    @property
    def is_at_most(self) -> bool:
        """Whether its reference earth may be anywhere between the earth bar and the mass of earth."""
        return Terminal.REF in self.ends and self.reference.kind.at_most

    @property
    def at_low_impedance(self) -> bool:
        """Whether a ghost would collapse: at the low impedance of a tester that has one."""
        ability = self.instrument.volts()
        return self.input == "low-z" and ability is not None and ability.low_input_ohm is not None

    def setup(self, *ignoring: str) -> Hashable:
        """What two measurements of one thing have in common: every field but who measured and which probe was where.

        A field added to the class counts of itself; whoever compares less names what does not matter to them.
        Between which contacts a load is matters where there is one.

        >>> from evenprobe.quantities import VOLTAGE
        >>> one = Measurement(VOLTAGE, Terminal.L, Terminal.N, load_here_a=9)
        >>> one.setup() == Measurement(VOLTAGE, Terminal.N, Terminal.L, load_here_a=9).setup()
        True
        >>> one.setup() == Measurement(VOLTAGE, Terminal.L, Terminal.N, load_here_a=9, dc=True).setup()
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
    hours and more. `unfit`: why what was held then cannot confirm safe here, empty where it was fit. `at`: when it was
    taken, in seconds of any clock common to a point's readings, None where nobody wrote it down. `after_ms`: how long a
    trip took.
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
    at: float | None = None
    after_ms: float | None = None
