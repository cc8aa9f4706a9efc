"""Points and their terminals, conductors, and the topology and unknowns of the installation behind them."""

from evenprobe.wiring.conductors import CONDUCTORS, Conductor, conductor_named
from evenprobe.wiring.points import OUTLETS, CircuitFacts, PointFacts, PointKind, Terminal, contact_pairs
from evenprobe.wiring.unknowns import Unknowns

__all__ = [
    "CONDUCTORS",
    "OUTLETS",
    "CircuitFacts",
    "Conductor",
    "PointFacts",
    "PointKind",
    "Terminal",
    "Unknowns",
    "conductor_named",
    "contact_pairs",
]
