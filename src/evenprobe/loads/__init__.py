"""Loads: what a circuit draws against its device, and what a known load says of the loop that feeds it."""

from evenprobe.loads.draw import Draw, draws
from evenprobe.loads.loop import Loop, Part, loops

__all__ = ["Draw", "Loop", "Part", "draws", "loops"]
