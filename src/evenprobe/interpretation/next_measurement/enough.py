"""When nothing in the kit can change the verdict any more: that it is enough, and what else would decide.

What was said not to be had comes first, then testers that are not in the kit.
"""

from collections.abc import Collection, Iterator, Sequence

from evenprobe.interpretation.elimination import Elimination, Standing
from evenprobe.interpretation.ensemble import Ensemble
from evenprobe.interpretation.next_measurement.candidates import candidates
from evenprobe.interpretation.next_measurement.information import Expected
from evenprobe.interpretation.next_measurement.obstacles import Obstacle, obstacles_to
from evenprobe.interpretation.next_measurement.way_to_safe import in_the_way_of_safe
from evenprobe.interpretation.sentences import NEXT
from evenprobe.limits.protective_devices import residual_span_ma
from evenprobe.quantities import Measurement, Reading
from evenprobe.testers import KINDS, Instrument
from evenprobe.wiring import PointFacts

_NAMED = 2
_USUAL_RESIDUAL_MA = 30.0
_Lacking = tuple[str, Measurement]
"""What it takes, in words, and what it would measure."""


def what_would_decide(
    ensemble: Ensemble,
    elimination: Elimination,
    likelihood: dict[str, float],
    taken: Sequence[Reading],
    kit: Sequence[Instrument],
    cannot: Collection[Obstacle],
) -> str:
    """What to say where no reading from the kit tells apart what stands."""
    standing, point = elimination.standing, ensemble.point
    lacking = [*_not_to_be_had(point, taken, kit, cannot), *_not_in_the_kit(point, taken, kit, cannot)]
    wanted = in_the_way_of_safe(ensemble, standing)
    would: dict[str, set[str]] = {}
    if lacking:
        falls = Expected(ensemble, elimination, likelihood, [m for _, m in lacking]).ruled_out()
        for (name, _), gone in zip(lacking, falls, strict=True):
            ids = {s.condition.id for s, falls_too in zip(standing, gone, strict=True) if falls_too} & wanted
            would.setdefault(name, set()).update(ids)
    deciding = sorted((name for name, ids in would.items() if ids), key=lambda name: -len(would[name]))[:_NAMED]
    if not deciding:
        return _by_looking(ensemble, standing)
    said = (str(NEXT.say("would", what=name, titles=_names(ensemble, standing, would[name]))) for name in deciding)
    return str(NEXT.say("enough", would="; ".join(said)))


def _not_to_be_had(
    point: PointFacts, taken: Sequence[Reading], kit: Sequence[Instrument], cannot: Collection[Obstacle]
) -> Iterator[_Lacking]:
    for m in candidates(point, taken, kit):
        missing = [obstacle for obstacle in cannot if obstacle in obstacles_to(m)]
        if missing:
            yield " and ".join(str(NEXT.say(obstacle, **point.practice.named)) for obstacle in missing), m


def _not_in_the_kit(
    point: PointFacts, taken: Sequence[Reading], kit: Sequence[Instrument], cannot: Collection[Obstacle]
) -> Iterator[_Lacking]:
    here = {tester.kind for tester in kit if tester.proved is not False}
    must_trip = residual_span_ma(point.circuit.residual_ma or _USUAL_RESIDUAL_MA)[1]
    for kind in KINDS.values():
        if kind in here or kind.proves:
            continue
        tester = Instrument(kind.id, kind, proved=True, test_ma=must_trip)
        for m in candidates(point, taken, [tester]):
            if m.instrument is tester and not set(cannot) & obstacles_to(m):
                yield kind.with_article, m


def _by_looking(ensemble: Ensemble, standing: Sequence[Standing]) -> str:
    practice = ensemble.point.practice
    worst = max((s.condition for s in standing), key=lambda c: c.severity_at(ensemble.point))
    titles = _names(ensemble, standing, {s.condition.id for s in standing})
    return str(NEXT.say("not-from-this-kit", titles=titles, cause=practice.in_words(worst.cause)))


def _names(ensemble: Ensemble, standing: Sequence[Standing], ids: Collection[str]) -> str:
    worst_first = sorted(
        (s.condition for s in standing if s.condition.id in ids), key=lambda c: -c.severity_at(ensemble.point)
    )
    more = len(worst_first) - _NAMED
    named = "; ".join(c.name_in(ensemble.point.practice) for c in worst_first[:_NAMED])
    return f"{named} and {more} more" if more > 0 else named
