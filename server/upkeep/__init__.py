"""Upkeep: is the server well, and its record kept where a dead disk cannot take it."""
