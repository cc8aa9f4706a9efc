"""Supply systems, and how they are earthed: data, one place each."""

from evenprobe.supplies.earthing import Earthing
from evenprobe.supplies.systems import SYSTEMS, SupplySystem

__all__ = ["SYSTEMS", "Earthing", "SupplySystem"]
