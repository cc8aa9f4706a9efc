"""Dead tests, trips, loads and components against their limits: each a pure function of what was read."""

from evenprobe.deadtests.accuracy import Accuracy, Shown
from evenprobe.deadtests.judgement import Outcome, Result

__all__ = ["Accuracy", "Outcome", "Result", "Shown"]
