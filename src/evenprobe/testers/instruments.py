"""Kinds of tester and what each is made like unless the register says otherwise.

Errors are the makers' usual ± (percent of reading + counts of the display). Two-pole testers: IEC 61243-3;
meters: IEC 61010-2-033; low-ohm testers: IEC 61557-4.
"""

from dataclasses import dataclass
from enum import StrEnum


class InstrumentKind(StrEnum):
    MULTIMETER = "multimeter"
    TWO_POLE = "two-pole"
    NON_CONTACT = "non-contact"
    LAMP_TESTER = "lamp-tester"
    DIGITAL_PLUG_TESTER = "digital-plug-tester"
    INSULATION_TESTER = "insulation-tester"
    LOW_OHM = "low-ohm"
    CLAMP = "clamp"
    PROVING_UNIT = "proving-unit"
    TONE_TRACER = "tone-tracer"


@dataclass(frozen=True)
class Ability:
    """One quantity a kind of tester shows: its error, and for volts what it loads the circuit with."""

    percent: float
    counts: float
    resolution: float
    top: float
    """Highest value shown, in volts, ohms or amperes; for ohms, what over-range is certain to exceed."""
    input_ohm: float = 0.0
    input_farad: float = 0.0
    low_input_ohm: float | None = None

    def error(self, shows: float) -> float:
        """By which a value shown may be off, in its unit."""
        return shows * self.percent / 100 + self.counts * self.resolution


@dataclass(frozen=True)
class Kind:
    """`contact`: touches metal, so a proved zero is a reading. Where an ability is None it has no such range.

    `plugs_in`: into the outlet, so it meets its contacts only, and nothing else is plugged in beside it.
    """

    contact: bool
    volts: Ability | None = None
    ohms: Ability | None = None
    amps: Ability | None = None
    plugs_in: bool = False


KINDS: dict[InstrumentKind, Kind] = {
    InstrumentKind.MULTIMETER: Kind(
        True,
        Ability(1.0, 3, 0.1, 1000, 10e6, 100e-12, 3e3),
        Ability(1.0, 3, 0.1, 1e6),
        Ability(1.5, 3, 0.01, 10),
    ),
    InstrumentKind.TWO_POLE: Kind(True, Ability(3.0, 3, 1.0, 1000, 200e3, 0.0, 7e3), Ability(5.0, 5, 1.0, 1e5)),
    InstrumentKind.NON_CONTACT: Kind(False),
    InstrumentKind.LAMP_TESTER: Kind(True, plugs_in=True),
    InstrumentKind.DIGITAL_PLUG_TESTER: Kind(True, Ability(2.0, 2, 1.0, 300, 100e3, 0.0), plugs_in=True),
    InstrumentKind.INSULATION_TESTER: Kind(True, Ability(2.0, 3, 1.0, 700, 100e3, 0.0), Ability(3.0, 5, 0.1, 1e6)),
    InstrumentKind.LOW_OHM: Kind(True, None, Ability(2.0, 3, 0.01, 1e3)),
    InstrumentKind.CLAMP: Kind(
        True,
        Ability(1.5, 5, 0.1, 1000, 10e6, 100e-12),
        Ability(1.5, 5, 0.1, 1e4),
        Ability(2.0, 5, 0.01, 600),
    ),
    InstrumentKind.PROVING_UNIT: Kind(False),
    InstrumentKind.TONE_TRACER: Kind(False),
}

WITH_LAMPS = (InstrumentKind.LAMP_TESTER, InstrumentKind.DIGITAL_PLUG_TESTER)
LAMP_OHM = 47e3
LAMP_LIT_SHARE = 0.70
LAMP_DARK_SHARE = 0.55
ALARM_CERTAIN_VOLTS = 90.0
ALARM_POSSIBLE_VOLTS = 40.0
STEP_LIGHTS_FROM = 0.85
"""A step is certainly lit at its voltage and may light from this share of it."""


@dataclass(frozen=True)
class Instrument:
    """A tester as the record knows it; None leaves the kind's usual value.

    `proved`: known to work, by a known source before and after. A contact tester that shows a voltage has
    shown that it works, so only a stated `False` sets its readings aside; a detector's silence needs `True`.
    """

    id: str
    kind: InstrumentKind
    proved: bool | None = None
    input_ohm: float | None = None
    accuracy_percent: float | None = None
    accuracy_counts: float | None = None
    resolution: float | None = None
    rated_volts: float | None = None
    test_ma: float | None = None
    """What its trip button drives from line to earth."""

    def volts(self) -> Ability | None:
        """Its voltage range with the register's own figures in place, or None when it has none."""
        usual = KINDS[self.kind].volts
        if usual is None:
            return None
        return Ability(
            _given(self.accuracy_percent, usual.percent),
            _given(self.accuracy_counts, usual.counts),
            _given(self.resolution, usual.resolution),
            _given(self.rated_volts, usual.top),
            _given(self.input_ohm, usual.input_ohm),
            usual.input_farad if self.input_ohm is None else 0.0,
            usual.low_input_ohm,
        )

    def ohms(self) -> Ability | None:
        """Its resistance range; the register's resolution is that of volts, but on a low-ohm tester."""
        usual = KINDS[self.kind].ohms
        if usual is None:
            return None
        own = self.kind is InstrumentKind.LOW_OHM
        return Ability(
            _given(self.accuracy_percent, usual.percent) if own else usual.percent,
            _given(self.accuracy_counts, usual.counts) if own else usual.counts,
            _given(self.resolution, usual.resolution) if own else usual.resolution,
            usual.top,
        )

    def amps(self) -> Ability | None:
        """Its current range, or None when it has none; the register's accuracy is that of volts."""
        return KINDS[self.kind].amps


def _given(value: float | None, usual: float) -> float:
    return usual if value is None else value


TYPED = Instrument("typed", InstrumentKind.MULTIMETER, proved=True)
"""What a reading without a named tester is taken as: a proved multimeter's."""
