"""The circumstances of a measurement that a person sets: impedance, device, neutral, loads."""

from typing import Literal

Input = Literal["high-z", "low-z"]
Device = Literal["open", "closed"]
Neutral = Literal["connected", "lifted"]
"""On its bar at the board, or lifted off it, or opened by the device."""
Loads = Literal["connected", "disconnected"]
FarEnds = Literal["apart", "joined"]
"""Of the two conductors measured, at the board: as they are, or joined to each other."""
