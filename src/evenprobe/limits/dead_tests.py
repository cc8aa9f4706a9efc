"""Limits of continuity and insulation, each with its source. Data.

What is ordinary building wiring, a bond or a contact is judged by these.
"""

from dataclasses import dataclass
from math import inf

from evenprobe.limits.limit import Band, Limit
from evenprobe.supplies.systems import SupplySystem

LEADS_GOOD_OHMS, LEADS_USABLE_OHMS = 0.3, 0.5
"""`leads.null`: both leads, tips together. Practice."""
_BOND_MARGIN_OHMS = 0.05
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
    return Limit("continuity.bond", "ohm", Band(0, expected_ohm + _BOND_MARGIN_OHMS), "IEC 60364-6; IEC 61557-4")


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
