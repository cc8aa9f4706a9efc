"""The simulated bench: an installation with a hidden condition, and testers that err as real ones do."""

from evenprobe.simulation.simulated import HiddenPoint, TesterErrors

__all__ = ["HiddenPoint", "TesterErrors"]
