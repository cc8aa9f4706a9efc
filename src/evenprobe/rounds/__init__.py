"""Rounds: every outlet gets at least the quick check, and the record shows which had the full one."""

from evenprobe.rounds.quick import quick_set
from evenprobe.rounds.stops import Stop, StopState, stop_of

__all__ = ["Stop", "StopState", "quick_set", "stop_of"]
