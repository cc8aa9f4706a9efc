"""Which reading decides, of all that can be taken: candidates, what each is expected to tell, and what it costs."""

from evenprobe.interpretation.next_measurement.again import taken_again
from evenprobe.interpretation.next_measurement.obstacles import Obstacle, obstacles_to
from evenprobe.interpretation.next_measurement.ranking import next_measurements, would_rule_out

__all__ = ["Obstacle", "next_measurements", "obstacles_to", "taken_again", "would_rule_out"]
