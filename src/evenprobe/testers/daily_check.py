"""Today's check: the minute spent on a tester before it is trusted. HSE GS38; practice."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import timedelta
from typing import Literal

from evenprobe.testers.kinds import Kind

HOLDS = timedelta(hours=16)
"""A check is good for the working day it was made on."""


@dataclass(frozen=True)
class Item:
    """`good` and `bad`: what the two answers are called. A number is asked for where `unit` says of what."""

    id: str
    asks: str
    how: str
    good: str = ""
    bad: str = ""
    unit: str = ""
    of: Literal["leads", "tester", "ampere jack", "meter"] = "tester"


ITEMS: tuple[Item, ...] = (
    Item("leads", "Leads", "Bend them along: no cut, no copper, plugs tight.", "Whole", "Damaged", of="leads"),
    Item("tips", "Tip covers", "On, and no more than 4 mm of tip showing.", "On", "Off", of="leads"),
    Item("battery", "Battery", "Switch on: no low-battery sign, or the light is bright.", "Good", "Low"),
    Item("display", "Display and case", "Every segment or lamp, no crack, nothing loose.", "Whole", "Damaged"),
    Item("self_check", "Self-check", "Its own test button or switch-on test.", "Passed", "Failed"),
    Item("lead_ohm", "Leads alone", "Ohms, tips together: 0.1 to 0.3 is normal.", unit="ohm", of="meter"),
    Item("fuse", "Ampere fuse", "Ohms, volt jack to ampere jack: near nothing.", "Whole", "Blown", of="ampere jack"),
)  # fmt: skip


def items_for(kind: Kind) -> Sequence[Item]:
    """What there is to check on a tester of the kind."""
    has = {"tester", *kind.has, *(("leads",) if kind.leads else ())}
    return [item for item in ITEMS if item.of in has]
