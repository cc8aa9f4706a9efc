"""Walks with a detector as the server gives them: every station with its place in a picture, and what they come to."""

from collections.abc import Sequence
from typing import Any

from evenprobe.quantities import Reading
from evenprobe.quantities.sweep import Station, says
from evenprobe.rounding import figures
from evenprobe.wiring.points import METALWORK


def sweeps_answer(readings: Sequence[Reading]) -> list[dict[str, Any]]:
    return [
        {
            "reading": r.id,
            "terminal": str(r.measurement.from_),
            "text": says(r.sweep, along_metal=r.measurement.from_ in METALWORK),
            "stations": [_station(s, r.sweep.stations) for s in r.sweep.stations],
        }
        for r in readings
        if r.sweep is not None
    ]


def _station(station: Station, among: Sequence[Station]) -> dict[str, Any]:
    begin, length = among[0].metres, among[-1].metres - among[0].metres
    return {"m": station.metres, "alarm": station.alarm, "across": figures((station.metres - begin) / length)}
