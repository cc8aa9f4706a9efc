"""The installation from source to terminal, and everything that can be true of it."""

from evenprobe.wiring.catalogue import CATALOGUE, conditions_for
from evenprobe.wiring.condition import Condition, Severity
from evenprobe.wiring.conductors import CONDUCTORS, Conductor, conductor_named
from evenprobe.wiring.installation import Installation
from evenprobe.wiring.points import CircuitFacts, PointFacts, PointKind, Terminal, contact_pairs
from evenprobe.wiring.unknowns import Unknowns

__all__ = [
    "CATALOGUE",
    "CONDUCTORS",
    "CircuitFacts",
    "Condition",
    "Conductor",
    "Installation",
    "PointFacts",
    "PointKind",
    "Severity",
    "Terminal",
    "Unknowns",
    "conditions_for",
    "conductor_named",
    "contact_pairs",
]
