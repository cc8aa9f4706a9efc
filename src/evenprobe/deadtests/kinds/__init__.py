"""Kinds of dead test, a module each: entry, judgement, lines on a sheet, worth as evidence, form and words."""

from evenprobe.deadtests.kinds.entry import OneTest
from evenprobe.deadtests.kinds.row import DEAD_TESTS, Choice, DeadTest, Figure, FormField, Pairs
from evenprobe.registry import add_modules_of

add_modules_of(__name__, __path__)

__all__ = ["DEAD_TESTS", "Choice", "DeadTest", "Figure", "FormField", "OneTest", "Pairs"]
