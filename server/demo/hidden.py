"""What is really true at the demo's points, for whoever measures them: the readings in the record and the stand-in."""

from collections.abc import Callable, Mapping
from functools import partial

import numpy as np

from demo.crew import demo_id
from demo.hunts import HUNTS, Electrician
from demo.loading_hunts import electrician
from demo.sites import SITES, DemoPoint
from evenprobe.conditions import CONDITIONS
from evenprobe.quantities import RESISTANCE, Measurement, Reading
from evenprobe.simulation import HiddenPoint, TesterErrors
from evenprobe.wiring import PointFacts
from hunts.models import Hunt
from meters.wire import off_a_hunt
from readings.point_view import PointView
from sites.models import Point

_OFF_SHARE = 0.003
"""By how much a display is off."""


def hidden_point(facts: PointFacts, demo: DemoPoint) -> HiddenPoint:
    return HiddenPoint(facts, CONDITIONS[demo.condition], np.random.default_rng(demo.seed))


def hidden_points() -> dict[str, Callable[[], HiddenPoint]]:
    """Every point of the demo by its id, its installation made when first asked for."""
    return {
        str(demo_id(s.name, b.name, c.name, p.name)): partial(_of_record, s.name, b.name, c.name, p)
        for s in SITES
        for u in s.supplies
        for b in u.boards
        for c in b.circuits
        for p in c.points
    }


class OnAHunt:
    """Along what is hunted, with what is really wrong there: read as a point is, without a point's contacts."""

    def __init__(self, electrician: Electrician, at: str, side: str) -> None:
        self._electrician, self._at, self._side = electrician, at, side

    def read(self, name: str, measurement: Measurement, errors: TesterErrors) -> Reading:
        """Raises ValueError for what this hunt has not."""
        if measurement.quantity is RESISTANCE:
            ohm = self._electrician.ohm(self._at, self._side)
            return Reading(name, measurement, value=ohm and _off(ohm, errors), over_range=ohm is None)
        ends = f"{measurement.from_}-{measurement.to}"
        return Reading(name, measurement, value=_off(self._electrician.volts(self._at, ends), errors))


def _off(true: float, errors: TesterErrors) -> float:
    return true * (1 + _OFF_SHARE * float(errors.rng.uniform(-1, 1)))


def hidden_at(points: Mapping[str, Callable[[], HiddenPoint]]) -> Callable[[str], HiddenPoint | OnAHunt]:
    """What is behind a point by its id, or along one of the demo's hunts. Raises KeyError for anything else."""
    hunts = {str(demo_id("hunt", demo.key)): demo for demo in HUNTS}

    def found(place: str) -> HiddenPoint | OnAHunt:
        where = off_a_hunt(place)
        if where is None:
            return points[place]()
        name, at, side = where
        demo = hunts[name]
        hunt = Hunt.objects.filter(id=name).first()
        if hunt is None:
            raise KeyError(name)
        return OnAHunt(electrician(hunt, demo), at, side)

    return found


def _of_record(site: str, board: str, circuit: str, demo: DemoPoint) -> HiddenPoint:
    """Raises KeyError where the demo is not loaded."""
    point = Point.objects.filter(id=demo_id(site, board, circuit, demo.name)).first()
    if point is None:
        raise KeyError(demo.name)
    return hidden_point(PointView(point).facts, demo)
