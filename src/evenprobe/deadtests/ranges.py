"""Which range of a manual meter to set, and what its display means there."""

from collections.abc import Sequence

from evenprobe.deadtests.sentences import RANGES

MANUAL_RANGES: dict[str, tuple[float, ...]] = {
    "ohm": (200, 2e3, 20e3, 200e3, 2e6, 20e6),
    "V DC": (0.2, 2, 20, 200, 1000),
    "V AC": (2, 20, 200, 750),
    "µF": (0.02, 0.2, 2, 20, 200),
    "A": (0.02, 0.2, 10),
    "°C": (200, 1000),
}
"""Full scales a manual meter usually has, smallest first."""


def range_for(expected: float | None, full_scales: Sequence[float]) -> float:
    """The smallest range above what is expected; the largest when nobody knows, or when none is enough."""
    ascending = sorted(full_scales)
    if expected is None:
        return ascending[-1]
    return next((top for top in ascending if top > abs(expected)), ascending[-1])


def over_range_means(full_scale: float, unit: str, largest: float) -> str:
    """What a lone 1, OL or O.L says on that range."""
    key = "go-up" if full_scale < largest else "highest"
    return str(RANGES.say(key, range=range_says(full_scale, unit)))


def range_says(value: float, unit: str) -> str:
    """A range as it is written round a dial."""
    unit = {"ohm": "Ω"}.get(unit, unit)
    for factor, letter in ((1e6, "M"), (1e3, "k")):
        if value >= factor:
            return f"{value / factor:g} {letter}{unit}"
    return f"{value:g} {unit}"
