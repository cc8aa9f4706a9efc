"""The installation of a point in siemens, from source to terminal: solved, labelled, and how it answers to unknowns."""

from evenprobe.installation.installation import Installation, Solved
from evenprobe.installation.modes import AS_FOUND, CLAMPED, DEAD, NEUTRAL_LIFTED, Mode

__all__ = ["AS_FOUND", "CLAMPED", "DEAD", "NEUTRAL_LIFTED", "Installation", "Mode", "Solved"]
