"""Every voltage limit with its id, value, unit, condition and source. Data: a crew may override one with a reason.

The local code and the maker's instructions come first; a verdict always names the limit and where it comes from.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from evenprobe.supplies.practices import PracticeId
from evenprobe.supplies.systems import SupplySystem

WET_TOUCH_VOLTS = 25.0
DRY_TOUCH_VOLTS = 50.0
DRY_TOUCH_DC_VOLTS = 120.0
"""`touch.limit`, direct. IEC 60364-4-41; IEC TS 60479-1."""
DEAD_VOLTS = 1.0
"""`dead.limit`: instruments show a few tenths of nothing. NFPA 70E article 120; EN 50110-1."""
DEAD_STEP_VOLTS = 50.0
"""The lowest lamp step of a tester whose darkness may mean dead (IEC 61243-3)."""
PROOF_WINDOW_MIN = 10.0
"""`proof.window`: between a proof of the tester and the readings it covers, both sides. House rule, settable."""
UNATTENDED_MIN = 30.0
"""`proof.unattended`: after this long with nobody there a proof of death is void. House rule, settable."""
LEADS_GOOD_OHMS, LEADS_USABLE_OHMS = 0.3, 0.5
"""`leads.null`: both leads, tips together. Practice."""
FACTOR_OF_ITSELF = 1e-6
HOUSE_CATEGORY, HOUSE_VOLTS = "III", 600.0
"""A good house rule: nothing under this on building wiring."""


@dataclass(frozen=True)
class Band:
    """An interval in the limit's unit, both ends allowed."""

    low: float
    high: float

    def holds(self, interval: tuple[float, float]) -> bool | None:
        """Whether every value of an interval is inside; None where some are and some are not."""
        low, high = interval
        if self.low <= low and high <= self.high:
            return True
        return False if high < self.low or low > self.high else None

    def times(self, factor: float) -> "Band":
        return Band(round(self.low * factor, 1), round(self.high * factor, 1))


@dataclass(frozen=True)
class Limit:
    """`band` is what passes; `tolerable`, where there is one, is worth a note rather than a failure."""

    id: str
    unit: str
    band: Band
    source: str
    tolerable: Band | None = None
    condition: str = ""

    def times(self, factor: float) -> "Limit":
        """The same for another nominal voltage; at a factor of 1 it is itself."""
        if abs(factor - 1) < FACTOR_OF_ITSELF:
            return self
        tolerable = self.tolerable and self.tolerable.times(factor)
        return replace(self, band=self.band.times(factor), tolerable=tolerable)


@dataclass(frozen=True)
class Override:
    """A crew's own value for a limit. The reason is shown wherever the limit is used."""

    limit: str
    low: float
    high: float
    reason: str


# Shares of nominal: (preferred low, high), (tolerable low, high), source.
_VOLTAGE_BANDS: dict[PracticeId, tuple[tuple[float, float], tuple[float, float] | None, str]] = {
    PracticeId.NORTH_AMERICA: (
        (0.90, 1.05),
        (104 / 120, 127 / 120),
        "ANSI C84.1 utilization voltage, ranges A and B",
    ),
    PracticeId.CONTINENTAL: ((0.90, 1.10), None, "IEC 60038; EN 50160"),
    PracticeId.BRITISH: ((0.94, 1.10), (0.90, 1.10), "IEC 60038; EN 50160; BS 7671 appendix 1"),
}

# Volts lost along a branch at full load, share of nominal.
_DROPS: dict[PracticeId, tuple[float, str]] = {
    PracticeId.NORTH_AMERICA: (0.03, "NEC 210.19 informational note"),
    PracticeId.CONTINENTAL: (0.04, "IEC 60364-5-52 annex G"),
    PracticeId.BRITISH: (0.05, "BS 7671 appendix 4"),
}

# Percent by which two lines to neutral may differ.
_LEG_MATCH: dict[PracticeId, float] = {
    PracticeId.NORTH_AMERICA: 3.0,
    PracticeId.CONTINENTAL: 2.0,
    PracticeId.BRITISH: 2.0,
}

_GRID_FREQUENCY = 0.5
_STANDALONE_FREQUENCY = 3.0


def _limits(practice: PracticeId, system: SupplySystem) -> Sequence[Limit]:
    nominal = system.nominal_volts
    preferred, tolerable, source = _VOLTAGE_BANDS[practice]
    drop, drop_source = _DROPS[practice]
    spread = _STANDALONE_FREQUENCY if system.standalone else _GRID_FREQUENCY
    return (
        Limit(
            "voltage.band",
            "V",
            Band(round(preferred[0] * nominal, 1), round(preferred[1] * nominal, 1)),
            source,
            Band(round(tolerable[0] * nominal, 1), round(tolerable[1] * nominal, 1)) if tolerable else None,
            "line to neutral at the point of use",
        ),
        Limit(
            "voltage.drop",
            "V",
            Band(0, round(drop * nominal, 1)),
            drop_source,
            condition="line to neutral, loaded against unloaded",
        ),
        Limit(
            "frequency.band",
            "Hz",
            Band(system.frequency_hz - spread, system.frequency_hz + spread),
            "ISO 8528-5 G2, as a guide" if system.standalone else "EN 50160, as a guide",
        ),
        Limit(
            "leg.match",
            "%",
            Band(0, _LEG_MATCH[practice]),
            "NEMA MG-1 unbalance, as a guide",
            condition="two lines to neutral, of their mean",
        ),
        Limit(
            "n-pe.unloaded",
            "V",
            Band(0, 2),
            "field guidance; compare with the drop along the neutral",
            Band(0, 5),
            "no known load on the circuit",
        ),
        Limit(
            "touch.limit",
            "V",
            Band(0, DRY_TOUCH_VOLTS),
            "IEC 60364-4-41; IEC TS 60479-1",
            condition="metalwork to an independent earth, dry; 25 V where wet",
        ),
        Limit(
            "touch.limit.dc",
            "V",
            Band(0, DRY_TOUCH_DC_VOLTS),
            "IEC 60364-4-41; IEC TS 60479-1",
            condition="metalwork to an independent earth, direct voltage, dry; 60 V where wet",
        ),
    )


def limit_for(limit: str, practice: PracticeId, system: SupplySystem, overrides: Sequence[Override] = ()) -> Limit:
    """The limit in force. Raises KeyError when there is none of that id."""
    found = {one.id: one for one in _limits(practice, system)}[limit]
    for override in overrides:
        if override.limit == limit:
            found = replace(
                found,
                band=Band(override.low, override.high),
                tolerable=None,
                source=f"this crew's own: {override.reason} (handbook: {found.source})",
            )
    return found
