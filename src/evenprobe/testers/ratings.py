"""Measurement categories and what a hand really holds: the lowest of meter, leads and adapters.

A category says where on the installation a part may be used, hence how large a transient and fault current it
stands: II equipment plugged into outlets, III the fixed installation, IV the origin. It is not about voltage;
each comes with one (IEC 61010-1, 61010-2-033; leads 61010-031; exposed tips over 4 mm: category II only).
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from enum import IntEnum, StrEnum

from evenprobe.supplies import SupplySystem


class Category(IntEnum):
    """Ordered by how near the origin."""

    II = 2
    III = 3
    IV = 4


MEANING: dict[Category, str] = {
    Category.II: "equipment plugged into outlets",
    Category.III: "the fixed installation: outlets, switches, boards, feeders, fixed machines",
    Category.IV: "the origin: meter, service side, main before the first device, outdoor runs",
}


class Place(StrEnum):
    """Where a tester is put to use."""

    PLUGGED_IN = "plugged-in"
    INSTALLATION = "installation"
    ORIGIN = "origin"


LEAST: dict[Place, tuple[Category, str]] = {
    Place.PLUGGED_IN: (Category.II, "what is plugged in, far side of an outlet on a long branch"),
    Place.INSTALLATION: (Category.III, "outlets, switches, boards, fixed machines"),
    Place.ORIGIN: (Category.IV, "service, meter, main before the first device, outdoor runs"),
}
"""The least category for a place, and what the place is."""


@dataclass(frozen=True)
class Rating:
    """What is printed on a part. None: not recorded."""

    category: Category | None = None
    volts: float | None = None


UNRATED = Rating()


@dataclass(frozen=True)
class Leads:
    """`tip_covers`: on or off, None where nobody said. `ohm`: both together, tips touched."""

    rating: Rating = UNRATED
    tip_covers: bool | None = None
    damaged: bool = False
    ohm: float | None = None
    name: str = "leads"

    @property
    def in_use(self) -> Rating:
        """The rating as the tips are now: with the covers off the leads are category II."""
        return replace(self.rating, category=Category.II) if self.tip_covers is False else self.rating


@dataclass(frozen=True)
class Adapter:
    rating: Rating = UNRATED
    damaged: bool = False
    name: str = "adapter"


@dataclass(frozen=True)
class Link:
    """A part of the chain in the hand, with its rating as used."""

    name: str
    rating: Rating
    weakest: bool = False


def effective(ratings: Sequence[Rating]) -> Rating:
    """Lowest category and lowest voltage of the parts. What one part does not say, the others decide."""
    categories = [r.category for r in ratings if r.category is not None]
    volts = [r.volts for r in ratings if r.volts is not None]
    return Rating(min(categories, default=None), min(volts, default=None))


def chain_of(links: Sequence[Link]) -> tuple[Link, ...]:
    """The parts in the order the hand holds them, those marked that bring the whole down to what it is."""
    whole = effective([link.rating for link in links])
    categories = {link.rating.category for link in links}
    volts = {link.rating.volts for link in links}
    return tuple(
        replace(
            link,
            weakest=(
                len(categories) > 1 and link.rating.category is not None and link.rating.category == whole.category
            )
            or (len(volts) > 1 and link.rating.volts is not None and link.rating.volts == whole.volts),
        )
        for link in links
    )


def volts_to_cover(place: Place, system: SupplySystem, line_to_line: bool | None) -> int:
    """Highest voltage the tester may meet, in whole volts.

    Plugged in: line to earth. Elsewhere: whatever is reachable in the box, line to line. A one-line supply may
    be a tap of a service with more, so where more than one line is said to be reachable it is what a second
    would be. `line_to_line` None: as many lines as the system has.
    """
    phasors = [system.phasor(line) for line in system.lines]
    to_earth = max(abs(p) for p in phasors)
    if place is Place.PLUGGED_IN or line_to_line is False:
        return round(to_earth)
    if line_to_line and len(phasors) == 1:
        return round(max(to_earth, *(abs(1 - other) * to_earth for other in system.other_line_phasors)))
    return round(system.highest_volts)
