"""Rounds: every outlet gets at least the quick check, and the record shows which had the full one."""

from evenprobe.rounds.quick import quick_set
from evenprobe.rounds.stops import Stop, StopState, quick_matches, stop_of

__all__ = ["Stop", "StopState", "quick_matches", "quick_set", "stop_of"]
