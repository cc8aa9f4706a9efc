"""Testers: their kinds and errors, what each may be wanted for, and whether what is held is fit for it."""

from evenprobe.testers.instrument import TYPED, Instrument
from evenprobe.testers.kinds import KINDS, Ability, Kind
from evenprobe.testers.purposes import Purpose

__all__ = ["KINDS", "TYPED", "Ability", "Instrument", "Kind", "Purpose"]
