"""Before plugging in: whether an outlet nobody knows is right for a van, a stall or a machine."""

from evenprobe.plugging.answer import Answer, PlugIn, may_plug_in
from evenprobe.plugging.check import Check, Result
from evenprobe.plugging.needs import Needs

__all__ = ["Answer", "Check", "Needs", "PlugIn", "Result", "may_plug_in"]
