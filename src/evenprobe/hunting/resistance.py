"""How far a short can be, by the ohms of the joined conductors from an open end.

R = 2 · r20 · d + joint: both conductors to the joint and back, and the joint itself, none at least, and half an ohm at
most where a beeper still sounds. Copper at 20 °C as on record (IEC 60228).
"""

from dataclasses import dataclass

from evenprobe.hunting.evidence import Loop
from evenprobe.hunting.run import BOARD, Place, Run

_MOST_JOINT_OHM = 0.5
SILENT_OHM = 5_000.0
"""From here on no beeper sounds: carbon or damp, for an insulation tester."""
_OFF_SHARE, _OFF_OHM = 0.03, 0.01
"""How far off a reading may be, with its leads nulled."""


@dataclass(frozen=True)
class Window:
    """Metres of cable from where it was measured within which the joint can be."""

    run: Run
    at: str
    nearest_m: float
    farthest_m: float

    def span(self, place: Place) -> tuple[float, float]:
        """Metres from there to where a place begins and to where it ends."""
        box = self.run.box[place.box]
        far = self._metres_to(place.box)
        return tuple(sorted((self._metres_to(box.after), far))) if place.stretch else (far, far)  # type: ignore[return-value]

    def fits(self, place: Place) -> float:
        """Share of a place that is within: of a stretch of its length, of a box all or nothing."""
        near, far = self.span(place)
        if near == far:
            return float(self.nearest_m <= near <= self.farthest_m)
        return max(0.0, min(far, self.farthest_m) - max(near, self.nearest_m)) / (far - near)

    def from_the_board(self, place: Place) -> tuple[float, float]:
        """Metres from the board to the nearest and the farthest of the place that is within."""
        box = self.run.box[place.box]
        one = self.run.distance_m[box.after] if place.stretch else self.run.distance_m[box.id]
        other = self.run.distance_m[box.id]
        near, far = self.span(place)
        cut = max(0.0, self.nearest_m - near), max(0.0, far - self.farthest_m)
        towards = self.at == BOARD or self._metres_to(box.after) <= self._metres_to(box.id)
        at_start, at_end = cut if towards else cut[::-1]
        return one + at_start, other - at_end

    def _metres_to(self, name: str) -> float:
        return self.run.walk_minutes(self.at, name) / self.run.walk_minutes_per_m


def window_of(run: Run, loop: Loop, ohm_per_m: float) -> Window | None:
    """Within which metres the joint is; None where no joint along the run makes up what was measured.

    Parameters
    ----------
    run
        The run.
    loop
        What was measured.
    ohm_per_m
        Of one conductor at 20 °C.
    """
    through = loop.ohm - loop.null_ohm
    off = _OFF_OHM + _OFF_SHARE * loop.ohm
    farthest = (through + off) / (2 * ohm_per_m)
    nearest = max(0.0, (through - off - _MOST_JOINT_OHM) / (2 * ohm_per_m))
    there = max(run.distance_m.values())
    return Window(run, loop.at, nearest, farthest) if nearest <= there else None
