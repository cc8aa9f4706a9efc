"""A detector walked along a cable or a casing: where it sounds, and where the alarm ends.

Where a field stops a line conductor may be broken; it may as well go behind metal or into a shield, so what a
sweep says is where to look, never that anything is dead.
"""

from dataclasses import dataclass
from itertools import pairwise

from evenprobe.practices import Practice
from evenprobe.quantities.sentences import WALK


@dataclass(frozen=True)
class Station:
    """`metres` from where the walk began."""

    metres: float
    alarm: bool


@dataclass(frozen=True)
class Sweep:
    """At least two stations, in rising order of metres."""

    stations: tuple[Station, ...]

    @property
    def changes(self) -> tuple[tuple[Station, Station], ...]:
        """Stations next to each other of which one sounds and one does not."""
        return tuple((a, b) for a, b in pairwise(self.stations) if a.alarm is not b.alarm)

    @property
    def sounds(self) -> bool:
        """Whether it sounds anywhere."""
        return any(station.alarm for station in self.stations)

    @property
    def at_the_end(self) -> bool:
        return self.stations[-1].alarm


def says(sweep: Sweep, practice: Practice, *, along_metal: bool) -> str:
    """What the walk comes to, in the practice's words and units of length."""
    unit, changes = practice.length_unit, sweep.changes
    places = unit.between(changes[0][0].metres, changes[0][1].metres) if changes else ""
    first = next((unit.said(station.metres) for station in sweep.stations if station.alarm), "")
    return str(WALK.say(_comes_to(sweep, along_metal=along_metal), place=first, places=places, **practice.named))


def _comes_to(sweep: Sweep, *, along_metal: bool) -> str:
    if not sweep.sounds:
        return "silent"
    if along_metal:
        return "metalwork"
    if not sweep.changes:
        return "all-the-way"
    if len(sweep.changes) > 1:
        return "comes-and-goes"
    return "ends" if sweep.changes[0][0].alarm else "begins"
