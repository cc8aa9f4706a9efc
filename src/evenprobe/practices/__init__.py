"""National practices of the trade, a module each: words, colours, outlets, usual circuits, figures of the limits."""

from evenprobe.practices.practice import PRACTICES, Practice
from evenprobe.registry import add_modules_of

add_modules_of(__name__, __path__)

from evenprobe.practices.british import BRITISH  # noqa: E402
from evenprobe.practices.continental import CONTINENTAL  # noqa: E402
from evenprobe.practices.north_america import NORTH_AMERICA  # noqa: E402

__all__ = ["BRITISH", "CONTINENTAL", "NORTH_AMERICA", "PRACTICES", "Practice"]
