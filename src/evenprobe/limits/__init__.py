"""Limits with their sources: what a value is held against."""

from evenprobe.limits.limit import Band, Limit, Override
from evenprobe.limits.voltages import limit_for

__all__ = ["Band", "Limit", "Override", "limit_for"]
