"""Hunting a fault along a run: what happened, what was seen, and where to look next."""
