"""Walks with a detector: every station with its place in a picture, and what they come to."""

from collections.abc import Sequence

from evenprobe.formats.answers.answer import Answer
from evenprobe.practices import Practice
from evenprobe.quantities import Reading
from evenprobe.quantities.sweep import says
from evenprobe.rounding import figures
from evenprobe.wiring.points import METALWORK


class StationOut(Answer):
    """`across`: its place along the walk, as a share."""

    m: float
    alarm: bool
    across: float


class SweepOut(Answer):
    """A detector walked along a cable: where it sounded, and where the alarm ends."""

    reading: str
    terminal: str
    text: str
    stations: list[StationOut]

    @classmethod
    def of_each(cls, readings: Sequence[Reading], practice: Practice) -> list["SweepOut"]:
        """Of the readings those that are walks."""
        found = []
        for r in readings:
            if r.sweep is None:
                continue
            begin, end = r.sweep.stations[0].metres, r.sweep.stations[-1].metres
            stations = [
                StationOut(m=s.metres, alarm=s.alarm, across=figures((s.metres - begin) / (end - begin)))
                for s in r.sweep.stations
            ]
            text = says(r.sweep, practice, along_metal=r.measurement.from_ in METALWORK)
            found.append(cls(reading=r.id, terminal=str(r.measurement.from_), text=text, stations=stations))
        return found
