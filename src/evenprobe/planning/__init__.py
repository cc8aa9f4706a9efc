"""A visit planned: the order of the work, how long it takes, who goes dark, and what has to be in the bag."""

from evenprobe.planning.bring import Brought, bring, tasks_of
from evenprobe.planning.by_when import BY_WHEN
from evenprobe.planning.minutes import Earlier
from evenprobe.planning.plan import GoesDark, Plan, PlannedCircuit, PlannedPoint, PlannedStep, plan
from evenprobe.planning.work import WORKS, Work

__all__ = [
    "BY_WHEN",
    "WORKS",
    "Brought",
    "Earlier",
    "GoesDark",
    "Plan",
    "PlannedCircuit",
    "PlannedPoint",
    "PlannedStep",
    "Work",
    "bring",
    "plan",
    "tasks_of",
]
