"""What is measured again and again at a point: each quantity across visits, with its limit, as shares of a picture."""

from evenprobe.trends.followed import followed
from evenprobe.trends.series import Mark, Series, Value, of_insulation, series

__all__ = ["Mark", "Series", "Value", "followed", "of_insulation", "series"]
