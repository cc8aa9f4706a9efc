"""What happened: the short question that opens a hunt, what is hunted for it, and what makes a place suspect.

Rows of a table. What happened chooses the hunt; what is old, damp, worked on or burnt makes a box or a cable likelier.
"""

from dataclasses import dataclass
from typing import ClassVar, Literal

from evenprobe.registry import Listed, Registry

Conductor = Literal["L", "N", "PE"]
Along = Literal["run", "chain", "board", "guide"]


@dataclass(frozen=True, eq=False)
class Happened(Listed):
    """What somebody tells happened.

    Parameters
    ----------
    id
        As files and requests write it.
    title
        As it is asked.
    hunts
        What may be hunted for it, the usual first: kinds of a circuit file.
    first
        What to do or to know before anything else.
    stays_open
        Whether it stays on Today until a reading explains it.
    """

    listed_as: ClassVar[str] = "happening"

    id: str
    title: str
    hunts: tuple[str, ...]
    first: str
    stays_open: bool = False


@dataclass(frozen=True, eq=False)
class Hunted(Listed):
    """What is hunted, as a circuit file says it.

    Parameters
    ----------
    id
        Of the circuit file's `hunt`.
    title
        As people call it.
    along
        What it is hunted along: a run of boxes, a chain, a board's ways, or a guide's steps.
    between
        The usual two conductors it is measured between; empty where it is not between two.
    """

    listed_as: ClassVar[str] = "hunt"

    id: str
    title: str
    along: Along
    between: tuple[Conductor, ...] = ()


HUNTED: Registry[Hunted] = Registry("hunt")

for _hunted in (
    Hunted("tripped-device", "what trips the {device}", "guide"),
    Hunted("protective-outlet", "a dead {outlet} behind a {rcd} {outlet}", "guide"),
    Hunted("tingle", "a tingle from metalwork", "guide"),
    Hunted("short", "a short or a fault to {earth}", "run", ("L", "PE")),
    Hunted("open", "an open conductor", "run", ("L", "N")),
    Hunted("poor-joint", "a poor joint", "run"),
    Hunted("chain", "an open element of a control chain", "chain"),
    Hunted("map", "which way feeds which {outlet}", "board"),
):
    HUNTED.add(_hunted)

HAPPENED: Registry[Happened] = Registry("happening")

for _happened in (
    Happened(
        "trips-at-once",
        "The {device} trips at once",
        ("tripped-device", "short"),
        "Do not reset it to find out. Off, locked, proved dead; every load out, at the plug and hard-wired.",
    ),
    Happened(
        "trips-later",
        "It trips after a while",
        ("tripped-device", "short", "poor-joint"),
        "Add up what is on: an overload trips later. Then what leaks: each appliance adds its share.",
    ),
    Happened(
        "trips-when",
        "It trips when something is plugged in, or when it rains",
        ("tripped-device", "short"),
        "Unplug everything on it, one after another. What is damp or outdoors is suspect.",
    ),
    Happened(
        "dead",
        "Dead {outlet} or lamp",
        ("open", "protective-outlet"),
        "Look for a tripped {rcd} upstream first, in other rooms, garages and outdoors.",
    ),
    Happened(
        "dead-after-work",
        "Dead after someone worked here",
        ("open", "short"),
        "Begin where the work was: mark those boxes as worked on.",
    ),
    Happened(
        "flicker",
        "Flicker, a warm plate, a burnt smell",
        ("poor-joint", "open"),
        "Take the load off now. A warm plate is a joint that burns.",
    ),
    Happened(
        "tingle",
        "A tingle or a shock from metalwork",
        ("tingle",),
        "Keep off, and keep others off. It is never nothing: it stays open until a reading explains it.",
        stays_open=True,
    ),
    Happened(
        "no-pull-in",
        "A motor or a relay will not pull in",
        ("chain",),
        "Volts of each joint of its chain against the return, from the feed on.",
    ),
    Happened(
        "unlabelled",
        "Nothing is labelled",
        ("map",),
        "Patterns are for locating only: before work, prove dead.",
    ),
):
    HAPPENED.add(_happened)


@dataclass(frozen=True, eq=False)
class Mark(Listed):
    """What makes a box, or the cable to it, likelier or less likely: a factor of its suspicion."""

    listed_as: ClassVar[str] = "mark"

    id: str
    title: str
    factor: float


MARKS: Registry[Mark] = Registry("mark")

for _mark in (
    Mark("old", "old or damp", 3.0),
    Mark("worked-on", "worked on lately", 4.0),
    Mark("burnt", "burnt", 6.0),
    Mark("renewed", "renewed", 0.3),
):
    MARKS.add(_mark)
