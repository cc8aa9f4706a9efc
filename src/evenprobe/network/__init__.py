"""Linear networks at one frequency, solved for many parameter samples at once."""

from evenprobe.network.equivalents import Load, Pair, Slopes, Solution
from evenprobe.network.mesh import EARTH, Mesh, NetworkError

__all__ = ["EARTH", "Load", "Mesh", "NetworkError", "Pair", "Slopes", "Solution"]
