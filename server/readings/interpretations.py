"""Interpretations: derived on request by the core, and kept by content so that none is made twice."""

import hashlib
import threading
from collections.abc import Callable
from functools import cache as once
from pathlib import Path
from typing import Any, TypeVar

from django.core.cache import cache

import evenprobe
from evenprobe.formats.answers import InterpretationOut, LoadsOut, SightHereOut
from evenprobe.interpretation import PointInterpretation, bank_for, interpret, sight_here, what_supply
from evenprobe.loads import draws, loops
from evenprobe.supplies import SYSTEMS
from evenprobe.testers import Instrument
from readings.surveys import PointSurvey

T = TypeVar("T")


@once
def core_fingerprint() -> str:
    """Of the core's source, so that a changed core never answers from an old one's work."""
    digest = hashlib.sha256(evenprobe.__version__.encode())
    for file in sorted(Path(evenprobe.__file__).parent.rglob("*.py")):
        digest.update(file.read_bytes())
    return digest.hexdigest()[:16]


def interpretation_of(survey: PointSurvey) -> InterpretationOut:
    """The answer for one point, as `evenprobe interpret` gives it."""
    return _kept("", survey, lambda: InterpretationOut.of(result_of(survey)))


def result_of(survey: PointSurvey) -> PointInterpretation:
    """The same as the core gives it, for what asks more of it."""
    return _kept("result-", survey, lambda: interpret(survey.facts, survey.readings, survey.checked.kit()))


def reads_like(survey: PointSurvey) -> list[dict[str, Any]]:
    """Supply systems the point's readings can be all right on, the likeliest first."""
    return _kept("supplies-", survey, lambda: _systems(survey))


def loads_of(survey: PointSurvey) -> LoadsOut:
    """What the point's circuit draws against its device, and what known loads say of the loop."""
    return _kept("loads-", survey, lambda: _loads(survey))


def _kept(kind: str, survey: PointSurvey, made: Callable[[], T]) -> T:
    """What the core makes of a survey, from the cache where it was made before."""
    key = f"{kind}{core_fingerprint()}-{survey.digest}"
    answer: T | None = cache.get(key)
    if answer is None:
        answer = made()
        cache.set(key, answer)
    return answer


def _loads(survey: PointSurvey) -> LoadsOut:
    facts, circuit = survey.facts, survey.entry.circuit
    drawn = draws(facts, survey.readings, circuit.curve if circuit else None)
    return LoadsOut.of(drawn, loops(facts, survey.readings), facts.circuit.rating_a, facts.practice)


def _systems(survey: PointSurvey) -> list[dict[str, Any]]:
    shares: dict[str, float] = {}
    for guess in what_supply(survey.facts, survey.readings):
        if guess.fits:
            shares[guess.system.id] = shares.get(guess.system.id, 0.0) + guess.likelihood
    ranked = sorted(shares.items(), key=lambda one: -one[1])
    return [{"system": system, "title": SYSTEMS[system].title, "share": round(share, 3)} for system, share in ranked]


def make_ready(survey: PointSurvey) -> None:
    """Beside the answer that opens a point: what its next readings will need, so that they are answered at once."""
    facts = survey.facts
    if not facts.no_lines:
        threading.Thread(target=lambda: bank_for(facts).prepare(), daemon=True).start()


def sight_of(survey: PointSurvey, tester: Instrument) -> SightHereOut:
    """What a tester can strike out at a point as its readings leave it, and what not."""
    return SightHereOut.of(sight_here(survey.facts, survey.readings, tester), tester.kind, survey.facts.practice)
