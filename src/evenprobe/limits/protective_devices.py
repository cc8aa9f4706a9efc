"""Limits of residual-current devices, of overcurrent devices and of what loads them, each with its source. Data."""

from dataclasses import dataclass
from typing import Literal

from evenprobe.limits.limit import Band, Limit
from evenprobe.practices import Practice

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

Curve = Literal["B", "C", "D", "thermal-magnetic"]
INSTANTANEOUS: dict[str, Band] = {
    "B": Band(3, 5),
    "C": Band(5, 10),
    "D": Band(10, 20),
    "thermal-magnetic": Band(5, 10),
}
"""Multiples of the rating between which a device may trip at once (IEC 60898-1; makers for thermal-magnetic)."""


@dataclass(frozen=True)
class Thermal:
    """Multiples of the rating: what a device carries for an hour, and from where on it trips within one."""

    carries: float
    trips: float


_MINIATURE = Thermal(1.13, 1.45)
THERMAL: dict[str, Thermal] = {
    "B": _MINIATURE,
    "C": _MINIATURE,
    "D": _MINIATURE,
    "thermal-magnetic": Thermal(1.0, 1.35),
}
"""By curve (IEC 60898-1 table 7; UL 489)."""
THERMAL_MINUTES = 60.0


def load_share(practice: Practice, *, continuous: bool) -> Limit:
    """How much of its device's rating a load may take, percent."""
    of_long_loads = practice.continuous_load
    if continuous and of_long_loads.share < 1:
        return Limit("load.continuous", "%", Band(0, 100 * of_long_loads.share), of_long_loads.source)
    return Limit("load.rating", "%", Band(0, 100), "the device's rating")


def start_multiple(curve: str) -> Limit:
    """What a start-up current must stay under, as a multiple of the rating."""
    source = "makers' data" if curve == "thermal-magnetic" else "IEC 60898-1"
    return Limit("start-up current", "× rating", Band(0, INSTANTANEOUS[curve].low), source)
