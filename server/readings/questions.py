"""What is asked of the core about a point: plain data in, an answer out, so that another process can be asked.

The survey of a point comes as JSON. Nothing here knows of the server.
"""

from collections.abc import Sequence
from functools import lru_cache
from typing import Any

from evenprobe.conditions import SYMPTOMS
from evenprobe.entries import parse_json
from evenprobe.formats import InstrumentEntry, SurveyFile, parse
from evenprobe.formats.answers import CapabilitiesOut, InterpretationOut
from evenprobe.interpretation import PointInterpretation, capabilities_here, ensemble_for, interpret, what_supply
from evenprobe.interpretation import at_once as interpretation_at_once
from evenprobe.interpretation.next_measurement import Obstacle
from evenprobe.quantities import Reading
from evenprobe.supplies import SYSTEMS
from evenprobe.wiring import PointFacts

_RESULTS_KEPT = 32


def interpretation(survey: str, cannot: Sequence[Obstacle], noticed: Sequence[str]) -> InterpretationOut:
    """The answer for the point, as `evenprobe interpret` gives it."""
    return InterpretationOut.of(result(survey, cannot, noticed))


def at_once(survey: str) -> InterpretationOut | None:
    """The verdict, where it is certain before the whole answer is worked out."""
    file = _file(survey)
    found = interpretation_at_once(*_point(file))
    return None if found is None else InterpretationOut.of(found)


def result(survey: str, cannot: Sequence[Obstacle], noticed: Sequence[str]) -> PointInterpretation:
    """The same as the core gives it, for what asks more of it."""
    return _result(survey, tuple(cannot), tuple(noticed))


@lru_cache(maxsize=_RESULTS_KEPT)
def _result(survey: str, cannot: tuple[Obstacle, ...], noticed: tuple[str, ...]) -> PointInterpretation:
    file = _file(survey)
    facts, readings = _point(file)
    return interpret(facts, readings, file.kit(), cannot=cannot, noticed=[SYMPTOMS[name] for name in noticed])


def supplies(survey: str) -> list[dict[str, Any]]:
    """Supply systems the point's readings can be all right on, the likeliest first."""
    shares: dict[str, float] = {}
    for guess in what_supply(*_point(_file(survey))):
        if guess.fits:
            shares[guess.system.id] = shares.get(guess.system.id, 0.0) + guess.likelihood
    ranked = sorted(shares.items(), key=lambda one: -one[1])
    return [{"system": system, "title": SYSTEMS[system].title, "share": round(share, 3)} for system, share in ranked]


def capabilities(survey: str, tester: InstrumentEntry) -> CapabilitiesOut:
    """What a tester can strike out at the point as its readings leave it, and what not."""
    facts, readings = _point(_file(survey))
    instrument = tester.instrument()
    return CapabilitiesOut.of(capabilities_here(facts, readings, instrument), instrument.kind, facts.practice)


def made_ready(survey: str) -> None:
    """What the point's next readings will need, so that they are answered at once."""
    facts, _ = _point(_file(survey))
    if not facts.no_lines:
        ensemble_for(facts).prepare()


def _file(survey: str) -> SurveyFile:
    return parse(SurveyFile, parse_json(survey))


def _point(file: SurveyFile) -> tuple[PointFacts, list[Reading]]:
    point = file.single_point()
    return file.facts(point), file.readings(point)
