"""The simulated bench: an installation with a hidden condition, and testers that err as real ones do."""

from evenprobe.simulation.hunted import HiddenBoard, HiddenChain, HiddenOpen, HiddenShort
from evenprobe.simulation.simulated import HiddenPoint, TesterErrors

__all__ = ["HiddenBoard", "HiddenChain", "HiddenOpen", "HiddenPoint", "HiddenShort", "TesterErrors"]
