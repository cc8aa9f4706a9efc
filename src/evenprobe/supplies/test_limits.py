"""Limits of dead tests, residual-current devices, loads and components, each with its source. Data.

What is ordinary building wiring, a bond or a contact is judged by these; voltages by `limits`.
"""

from dataclasses import dataclass
from math import inf

from evenprobe.supplies.limits import LEADS_USABLE_OHMS, Band, Limit
from evenprobe.supplies.practices import PracticeId
from evenprobe.supplies.systems import SupplySystem

BOND_MARGIN_OHMS = 0.05
"""`continuity.bond`: over the resistance of the run itself."""
BOND_UNKNOWN_RUN = Limit("continuity.bond", "ohm", Band(0, 0.5), "practice, where the length is not known")
CONTACT_GOOD_OHMS = 0.1
CONTACT = Limit("continuity.closed-contact", "ohm", Band(0, 0.5), "practice: up to 0.1 Ω is good")
LEADS_NULL = Limit("leads.null", "ohm", Band(0, LEADS_USABLE_OHMS), "practice")
SEPARATE_OHMS = 1e6
"""Below this on an ohm range two conductors are joined; from here on only an insulation test can tell."""
SEPARATE = Limit("continuity.separate", "ohm", Band(inf, inf), "practice: over-range on the highest range")
RING_MARGIN_OHMS = 0.05
RING = Limit("ring.outlet", "ohm", Band(0, inf), "practice: a quarter of both ends, and 0.05 Ω")


def bond(expected_ohm: float) -> Limit:
    """A protective or bonding conductor of a known run."""
    return Limit("continuity.bond", "ohm", Band(0, expected_ohm + BOND_MARGIN_OHMS), "IEC 60364-6; IEC 61557-4")


def ring_outlet(expected_ohm: float) -> Limit:
    """An outlet of a ring whose ends are cross-joined."""
    return Limit(RING.id, RING.unit, Band(0, expected_ohm + RING_MARGIN_OHMS), RING.source)


@dataclass(frozen=True)
class InsulationRule:
    """The DC voltage a kind of circuit is tested at, and what it must at least show. `why` says why that voltage."""

    test_volts: float
    least_mohm: float
    source: str
    why: str
    building_wiring: bool = True

    @property
    def limit(self) -> Limit:
        return Limit("insulation.least", "Mohm", Band(self.least_mohm, inf), self.source)


_TABLE_6A = "IEC 60364-6 table 6A"
_ACCEPTANCE = "ANSI/NETA ATS table 100.1"
_HIGHEST_ORDINARY_VOLTS = 500.0
_UP_TO_500_V = InsulationRule(500, 1.0, _TABLE_6A, "500 V DC is the test for circuits up to 500 V")
_ABOVE_500_V = InsulationRule(1000, 1.0, _TABLE_6A, "1000 V DC is the test for circuits above 500 V")
INSULATION_KINDS: dict[str, InsulationRule] = {
    "selv": InsulationRule(250, 0.5, _TABLE_6A, "250 V DC is the test for extra-low voltage", building_wiring=False),
    "surge-protected": InsulationRule(
        250,
        1.0,
        _TABLE_6A,
        "250 V DC, since surge protection or electronics stay connected and would take harm at 500 V",
    ),
    "equipment-250": InsulationRule(
        500, 25, _ACCEPTANCE, "500 V DC is the acceptance test of equipment rated 250 V", building_wiring=False
    ),
    "equipment-600": InsulationRule(
        1000, 100, _ACCEPTANCE, "1000 V DC is the acceptance test of equipment rated 600 V", building_wiring=False
    ),
}
"""Kinds of circuit that have their own rule, whatever the supply."""


def insulation_rule(circuit: str, system: SupplySystem | None) -> InsulationRule:
    """What a circuit of that kind is tested at: `ordinary`, which needs a system, or one of INSULATION_KINDS."""
    if circuit in INSULATION_KINDS:
        return INSULATION_KINDS[circuit]
    if system is None:
        raise ValueError("ordinary wiring is tested by its supply's voltage")
    return _UP_TO_500_V if system.highest_volts <= _HIGHEST_ORDINARY_VOLTS else _ABOVE_500_V


WATCH = Limit("insulation.watch", "Mohm", Band(2.0, inf), "practice: worth a note on building wiring")
WATCH_TREND = Limit("insulation.watch", "", Band(0.5, inf), "practice: less than half of the last visit's value")
ABSORPTION = Limit("insulation.absorption", "", Band(1.4, inf), "practice: 60 s over 30 s", tolerable=Band(1.0, inf))
POLARISATION = Limit("insulation.polarisation", "", Band(2.0, inf), "IEEE 43: 10 min over 1 min")
POLARISATION_UP_TO_MOHM = 5000.0
"""Above this after one minute the polarisation index is not judged (IEEE 43)."""
DISCHARGED_VOLTS = 25.0
"""A cable is left on the tester until it shows less."""

_IEC_61008 = "IEC 61008-1; IEC 61009-1"
NO_TRIP_SHARE = 0.5
GENERAL_MS: tuple[tuple[float, Band], ...] = ((5.0, Band(0, 40)), (2.0, Band(0, 150)), (1.0, Band(0, 300)))
DELAYED_MS: tuple[tuple[float, Band], ...] = ((5.0, Band(50, 150)), (2.0, Band(60, 200)), (1.0, Band(130, 500)))
"""From so many times the rated residual current on, the time to trip; highest first."""
PEOPLE_NO_TRIP_MA, PEOPLE_TRIP_MA = 4.0, 6.0


def trip_time(times: tuple[tuple[float, Band], ...], multiple: float) -> Limit:
    """How fast a device trips at that multiple (at least 1) of its rated current."""
    band = next(band for least, band in times if multiple >= least)
    return Limit("residual-current.time", "ms", band, _IEC_61008)


def no_trip(milliamperes: float, source: str = _IEC_61008) -> Limit:
    """Up to this current the device must stay in."""
    return Limit("residual-current.no-trip", "mA", Band(0, milliamperes), source)


def people_trip_time(milliamperes: float) -> Limit:
    """UL 943: (20/I)^1.43 seconds, I in milliamperes."""
    return Limit("residual-current.time", "ms", Band(0, 1000 * (20 / milliamperes) ** 1.43), "UL 943")


def residual_span_ma(rated_ma: float) -> tuple[float, float]:
    """Residual current up to which a device of that rating must stay in, and from which it must trip."""
    if rated_ma <= PEOPLE_TRIP_MA:
        return PEOPLE_NO_TRIP_MA, PEOPLE_TRIP_MA
    return NO_TRIP_SHARE * rated_ma, rated_ma


PEOPLE_NO_TRIP = no_trip(PEOPLE_NO_TRIP_MA, "UL 943")

INSTANTANEOUS: dict[str, Band] = {
    "B": Band(3, 5),
    "C": Band(5, 10),
    "D": Band(10, 20),
    "thermal-magnetic": Band(5, 10),
}
"""Multiples of the rating between which a device may trip at once (IEC 60898-1; makers for thermal-magnetic)."""


def load_share(practice: PracticeId, *, continuous: bool) -> Limit:
    """How much of its device's rating a load may take, percent."""
    if continuous and practice is PracticeId.NORTH_AMERICA:
        return Limit("load.continuous", "%", Band(0, 80), "NEC 210.20")
    return Limit("load.rating", "%", Band(0, 100), "the device's rating")


def start_multiple(curve: str) -> Limit:
    """What a start-up current must stay under, as a multiple of the rating."""
    source = "makers' data" if curve == "thermal-magnetic" else "IEC 60898-1"
    return Limit("start-up current", "× rating", Band(0, INSTANTANEOUS[curve].low), source)


COIL_PULL_IN = Limit("coil.pull-in", "%", Band(85, 110), "IEC 60947-4-1")
COIL_DROP_OUT = Limit("coil.drop-out", "%", Band(0, 20), "IEC 60947-4-1")
CAPACITOR_TOLERANCE_PERCENT = 6.0
"""Where none is printed."""
SENSOR_TOLERANCE_C = 1.0
ELEMENT = Limit("element.resistance", "ohm", Band(0.8, 1.25), "V²/P as a guide")
FILAMENT_COLD_SHARE = 0.1
FILAMENT = Limit("filament.resistance", "ohm", Band(0.4, 2.5), "a tenth of V²/P as a guide, cold")
"""Bands of these two are shares of the expected value."""


@dataclass(frozen=True)
class BatteryState:
    """From `volts` at rest on. `good`: nothing to do; `usable`: worth a note."""

    volts: float
    says: str
    good: bool = False
    usable: bool = True


BATTERIES: dict[str, tuple[BatteryState, ...]] = {
    "lead-acid-12": (
        BatteryState(12.6, "charged", good=True),
        BatteryState(12.4, "three quarters charged"),
        BatteryState(12.2, "half charged"),
        BatteryState(12.0, "nearly flat"),
        BatteryState(0.0, "flat", usable=False),
    ),
    "alkaline-1.5": (
        BatteryState(1.5, "fresh", good=True),
        BatteryState(1.2, "used"),
        BatteryState(0.0, "to be replaced", usable=False),
    ),
}
"""At rest, highest first. Makers' data for both chemistries."""
