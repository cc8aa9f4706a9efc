"""What a person cannot do at a point just now, and which measurements need it."""

from collections.abc import Callable, Collection, Mapping
from enum import StrEnum

from evenprobe.quantities import Measurement
from evenprobe.wiring import Terminal
from evenprobe.wiring.points import BOARD_END


class Obstacle(StrEnum):
    """What is not to be had or not allowed; files write it so."""

    REFERENCE = "reference"
    LOAD = "load"
    OPEN = "open"
    SWITCH_OFF = "switch-off"
    UNPLUG = "unplug"


_BOARD_ENDS = frozenset(BOARD_END.values())

_STANDS_IN_THE_WAY: Mapping[Obstacle, Callable[[Measurement], bool]] = {
    Obstacle.REFERENCE: lambda m: Terminal.REF in m.ends,
    Obstacle.LOAD: lambda m: m.under_load,
    Obstacle.OPEN: lambda m: bool(m.ends & _BOARD_ENDS) or m.neutral == "lifted" or m.far_ends == "joined",
    Obstacle.SWITCH_OFF: lambda m: m.quantity.dead or m.device == "open",
    Obstacle.UNPLUG: lambda m: m.nothing_else_on,
}


def obstacles_to(measurement: Measurement) -> set[Obstacle]:
    """What would stand in its way.

    Parameters
    ----------
    measurement : Measurement
        As it would be taken.

    Returns
    -------
    set of Obstacle
        What it needs, and may not be to be had.

    Examples
    --------
    >>> from evenprobe.quantities import VOLTAGE, Measurement
    >>> from evenprobe.wiring import Terminal
    >>> [str(o) for o in obstacles_to(Measurement(VOLTAGE, Terminal.PE, Terminal.REF))]
    ['reference']
    """
    return {obstacle for obstacle, stands_in_the_way in _STANDS_IN_THE_WAY.items() if stands_in_the_way(measurement)}


def can_be_taken(measurement: Measurement, cannot: Collection[Obstacle]) -> bool:
    """Whether nothing that a person cannot do is needed for it."""
    return obstacles_to(measurement).isdisjoint(cannot)
