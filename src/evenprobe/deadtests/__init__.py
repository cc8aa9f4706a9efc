"""Dead tests, trips, loads and components against their limits: each a pure function of what was read."""

from evenprobe.deadtests.outcome import Outcome, Result
from evenprobe.deadtests.shown import Accuracy, Shown

__all__ = ["Accuracy", "Outcome", "Result", "Shown"]
