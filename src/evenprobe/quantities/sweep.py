"""A detector walked along a cable or a casing: where it sounds, and where the alarm ends.

Where a field stops a line conductor may be broken; it may as well go behind metal or into a shield, so what a
sweep says is where to look, never that anything is dead.
"""

from dataclasses import dataclass
from itertools import pairwise

from evenprobe.practices.lengths import LengthUnit


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


def says(sweep: Sweep, unit: LengthUnit, *, along_metal: bool) -> str:
    """What the walk comes to, in words."""
    if along_metal and sweep.sounds:
        first = next(station for station in sweep.stations if station.alarm)
        return (
            f"Metalwork sounds, first at {unit.said(first.metres)}: treat it as live, and measure it to an independent "
            "earth with a contact tester."
        )
    if not sweep.sounds:
        return "Silence cannot confirm safe: treat it as live and test it with a contact tester."
    if not sweep.changes:
        return "It sounds all the way: treat it as live all along."
    before, after = sweep.changes[0]
    where = f"between {unit.between(before.metres, after.metres)}"
    if len(sweep.changes) > 1:
        return (
            f"It comes and goes, first {where}: metal, depth or a neighbour. Go again slowly, closer and on one side; "
            "treat all of it as live."
        )
    if before.alarm:
        return (
            f"The alarm ends {where}. A broken line conductor stops there, or the cable goes behind metal or into a "
            "shield. Look there first; beyond it nothing is proved dead."
        )
    return f"The alarm begins {where}: another cable or a second feed comes in there. Treat all of it as live."
