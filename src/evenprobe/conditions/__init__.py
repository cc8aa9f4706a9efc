"""What can be true at a point: the catalogue of conditions, a row each, and the variants each can be in."""

from evenprobe.conditions.catalogue import conditions_for
from evenprobe.conditions.condition import CONDITIONS, Condition, Severity
from evenprobe.conditions.slight import with_slight_joint
from evenprobe.conditions.symptoms import SYMPTOMS
from evenprobe.conditions.variants import HEALTHY

__all__ = ["CONDITIONS", "HEALTHY", "SYMPTOMS", "Condition", "Severity", "conditions_for", "with_slight_joint"]
