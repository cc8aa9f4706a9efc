"""Practice: a case hides something at a simulated point, and is played on the same physics that answers outside.

Nothing here knows a record. What testers show comes from `simulation`, what it means from `interpretation`.
"""

from evenprobe.practising.case import Case
from evenprobe.practising.played import Played, Turn, play

__all__ = ["Case", "Played", "Turn", "play"]
