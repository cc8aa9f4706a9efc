"""Supply systems, earthing, practices and their limits: data, one place each."""

from evenprobe.supplies.earthing import Earthing
from evenprobe.supplies.limits import Band, Limit, Override, limit_for
from evenprobe.supplies.practices import PRACTICES, Practice, PracticeId
from evenprobe.supplies.systems import SYSTEMS, SupplySystem

__all__ = [
    "PRACTICES",
    "SYSTEMS",
    "Band",
    "Earthing",
    "Limit",
    "Override",
    "Practice",
    "PracticeId",
    "SupplySystem",
    "limit_for",
]
