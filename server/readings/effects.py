"""What a change of structure would make of verdicts: asked before it is saved, of the points that have readings."""

from dataclasses import dataclass

from evenprobe.interpretation import WORST_FIRST, Verdict
from readings.interpretations import interpretation_of
from readings.point_view import PointView, with_record
from sites.models import Circuit, Placed, Point, Supply

_MEANS: dict[type[Supply | Circuit | Point], tuple[str, ...]] = {
    Supply: ("site_id", "system", "earthing"),
    Circuit: ("board_id", "rating_a", "conductor", "residual_ma", "curve"),
    Point: ("circuit_id", "kind", "terminals", "length_m"),
}
"""What makes readings mean something else."""
_WAY: dict[type[Supply | Circuit | Point], str] = {Supply: "circuit__board__supply", Circuit: "circuit", Point: "pk"}


@dataclass(frozen=True)
class Effect:
    """A point whose answer would be another."""

    point: Point
    before: str
    after: str


@dataclass(frozen=True)
class Effects:
    """`measured`: how many points with something on record were looked at."""

    measured: int
    changed: list[Effect]


def effects_of(changed: Supply | Circuit | Point) -> Effects:
    """Of a supply, a circuit or a point as it would be, not saved. Changes nothing."""
    kind = type(changed)
    was = kind._default_manager.filter(pk=changed.pk).first()
    means = [name for name in _MEANS[kind] if was is not None and getattr(was, name) != getattr(changed, name)]
    if not means:
        return Effects(0, [])
    now = _measured(changed)
    then = {view.point.pk: view for view in _measured(changed)}
    for view in then.values():
        place = _place(view.point, kind)
        for name in means:
            setattr(place, name, getattr(changed, name))
    found = (_effect(view, then[view.point.pk]) for view in now)
    return Effects(len(now), sorted((one for one in found if one is not None), key=_worst_first))


def _effect(now: PointView, then: PointView) -> Effect | None:
    before, after = interpretation_of(now), interpretation_of(then)
    answers = [(a.verdict, a.insulation.state, a.protection.state) for a in (before, after)]
    return None if answers[0] == answers[1] else Effect(now.point, before.verdict, after.verdict)


def _worst_first(one: Effect) -> int:
    return WORST_FIRST.index(Verdict(one.after))


def _measured(changed: Supply | Circuit | Point) -> list[PointView]:
    """The points that it concerns and that something is on record of, looked up anew."""
    own = Point.objects.in_use().filter(**{_WAY[type(changed)]: changed.pk})
    return [PointView(point) for point in with_record(own) if point.readings.all() or _tested(point.circuit)]


def _tested(circuit: Circuit) -> bool:
    return any(sheet.entries.all() for sheet in circuit.sheets.all())


def _place(point: Point, kind: type[Placed]) -> Placed:
    return {Supply: point.circuit.board.supply, Circuit: point.circuit, Point: point}[kind]
