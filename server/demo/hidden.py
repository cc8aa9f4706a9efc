"""What is really true at the demo's points, for whoever measures them: the readings in the record and the stand-in."""

from collections.abc import Callable
from functools import partial

import numpy as np

from demo.crew import demo_id
from demo.sites import SITES, DemoPoint
from evenprobe.conditions import CONDITIONS
from evenprobe.simulation import HiddenPoint
from evenprobe.wiring import PointFacts
from readings.point_view import PointView
from sites.models import Point


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


def _of_record(site: str, board: str, circuit: str, demo: DemoPoint) -> HiddenPoint:
    """Raises KeyError where the demo is not loaded."""
    point = Point.objects.filter(id=demo_id(site, board, circuit, demo.name)).first()
    if point is None:
        raise KeyError(demo.name)
    return hidden_point(PointView(point).facts, demo)
