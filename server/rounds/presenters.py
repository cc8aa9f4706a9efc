"""A round as the front end shows it: every stop with its quick set, and what stands between presser and watcher."""

from collections.abc import Iterable, Sequence
from typing import Any

from base.failures import each_shown
from base.shapes import Named
from evenprobe.interpretation import WORST_FIRST, Verdict
from evenprobe.interpretation.findings import State
from evenprobe.rounds import Stop, StopState, stop_of
from evenprobe.testers import TYPED
from readings.point_view import PartOfAView
from readings.quick import quick_out
from readings.settling import settled
from readings.standings import not_shown, short_of
from rounds.models import Round, RoundEvent
from rounds.services import SHORTEST_SKIP_REASON, outlets_of_each
from rounds.shapes import PressOut, RoundLine, RoundOut, StopOut
from sites.models import Point


def lines_of(rounds: Iterable[Round]) -> list[RoundLine]:
    """A line a round, in their order."""
    rounds = list(rounds)
    outlets = outlets_of_each(rounds)
    return each_shown(rounds, lambda r: RoundLine(**_line(r, _stops(r, outlets[r.id]))), _unshown_line)


def shown(found: Round) -> RoundOut:
    settled()
    stops = _stops(found, outlets_of_each([found])[found.id])
    tester = found.tester
    waiting = [s for s in stops if s.state in (StopState.LEFT, StopState.BEGUN)]
    return RoundOut(
        **_line(found, stops),
        practice=found.site.practice,
        tester=tester.id if tester else None,
        tester_label=str(tester) if tester else "",
        tester_kind=str(tester.instrument().kind) if tester else "multimeter",
        plugs_in=tester.instrument().kind.plugs_in if tester else False,
        stops=stops,
        next=waiting[0].id if waiting else None,
        press=_press(found),
        goes_dark=_goes_dark(found),
        shortest_reason=SHORTEST_SKIP_REASON,
    )


def _line(found: Round, stops: list[StopOut]) -> dict[str, Any]:
    states = [StopState(stop.state) for stop in stops]
    done, skipped = sum(s.done for s in states), states.count(StopState.SKIPPED)
    return {
        "id": found.id,
        "title": str(found),
        "site": Named(id=found.site.id, name=found.site.name),
        "begun_at": found.begun_at,
        "by": found.by_name,
        "outlets": len(states),
        "done": done,
        "full": states.count(StopState.FULL),
        "skipped": skipped,
        "left": len(states) - done - skipped,
        "worst": _worst(stops),
    }


def _worst(stops: list[StopOut]) -> str:
    """Of those that can be shown; a round whose outlets were moved away has none, and nothing is known of it."""
    verdicts = [Verdict(stop.verdict) for stop in stops if not stop.unshown]
    return str(min(verdicts, key=WORST_FIRST.index, default=Verdict.UNTESTED))


def _stops(found: Round, points: Sequence[Point]) -> list[StopOut]:
    skipped = {e.point_id: e for e in found.events.all() if e.kind == RoundEvent.Kind.SKIPPED}
    return each_shown(points, lambda point: _stop(found, point, skipped.get(point.id)), _unshown_stop)


def _unshown_stop(point: Point, why: str) -> StopOut:
    return StopOut(
        id=point.id,
        name=point.name,
        circuit=point.circuit.name,
        kind=point.kind,
        terminals=[],
        state=str(StopState.LEFT),
        reason="",
        unfit="",
        quick=[],
        **not_shown(why),
    )


def _unshown_line(found: Round, why: str) -> RoundLine:
    nothing = dict.fromkeys(("outlets", "done", "full", "skipped", "left"), 0)
    return RoundLine(
        id=found.id,
        title=str(found),
        site=Named(id=found.site.id, name=found.site.name),
        begun_at=found.begun_at,
        by=found.by_name,
        worst=str(Verdict.UNTESTED),
        unshown=why,
        **nothing,
    )


def _stop(found: Round, point: Point, skipped: RoundEvent | None) -> StopOut:
    view = PartOfAView(point)
    said = short_of(point.standing)
    own = {name: row for name, row in view.counting().items() if row.recorded_at >= found.begun_at}
    readings = [reading for reading in view.readings if reading.id in own]
    tester = found.tester.instrument().instrument() if found.tester else TYPED
    verdict, protection = Verdict(said["verdict"]), State(said["protection"]["state"])
    stop = stop_of(view.facts, tester, readings, verdict, protection, skipped=skipped is not None)
    return StopOut(
        id=point.id,
        name=point.name,
        circuit=point.circuit.name,
        kind=point.kind,
        terminals=point.terminals,
        state=str(stop.state),
        reason=_reason(stop, skipped),
        unfit=next((reading.unfit for reading in readings if reading.unfit), ""),
        quick=[quick_out(wanted, reading, own) for wanted, reading in stop.quick],
        **said,
    )


def _reason(stop: Stop, skipped: RoundEvent | None) -> str:
    return str(skipped.entry["reason"]) if skipped and stop.state is StopState.SKIPPED else ""


def _press(found: Round) -> PressOut | None:
    """What the last press waits for, if anything."""
    pressed = [e for e in found.events.all() if e.kind != RoundEvent.Kind.SKIPPED]
    if not pressed:
        return None
    last = pressed[-1]
    tripped = last.kind == RoundEvent.Kind.WATCHED and last.entry["tripped"]
    if last.kind != RoundEvent.Kind.PRESSED and not tripped:
        return None
    state = "dark" if tripped else "pressed"
    return PressOut(point=last.point_id, name=last.point.name, state=state, at=last.at, by=last.by_name)


def _goes_dark(found: Round) -> list[str]:
    """Of a circuit all its points; of a room nobody can say beforehand which circuit is meant."""
    return [point.name for point in found.circuit.points.all()] if found.circuit else []
