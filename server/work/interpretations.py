"""Interpretations: derived on request by the core, and kept by content so that none is made twice."""

import hashlib
import json
import threading
from collections.abc import Callable
from functools import cache as once
from pathlib import Path
from typing import Any, TypeVar

from django.core.cache import cache

import evenprobe
from evenprobe.formats import SurveyFile, parse, point_answer, sight_answer
from evenprobe.formats.loads import loads_answer
from evenprobe.interpretation import PointInterpretation, bank_for, interpret, sight_here, what_supply
from evenprobe.loads import draws, loops
from evenprobe.supplies import SYSTEMS
from evenprobe.testers import Instrument
from sites.models import Point, Site
from work.surveys import survey_of

T = TypeVar("T")


@once
def core_fingerprint() -> str:
    """Of the core's source, so that a changed core never answers from an old one's work."""
    digest = hashlib.sha256(evenprobe.__version__.encode())
    for file in sorted(Path(evenprobe.__file__).parent.rglob("*.py")):
        digest.update(file.read_bytes())
    return digest.hexdigest()[:16]


def interpretation_of(site: Site, point: Point) -> dict[str, Any]:
    """The answer for one point, as `evenprobe interpret` gives it."""
    survey = survey_of(site, [point], whole=False)
    return _kept("", survey, lambda _: point_answer(_kept("result-", survey, _result)))


def result_of(site: Site, point: Point) -> PointInterpretation:
    """The same as the core gives it, for what asks more of it."""
    return _kept("result-", survey_of(site, [point], whole=False), _result)


def reads_like(site: Site, point: Point) -> list[dict[str, Any]]:
    """Supply systems the point's readings can be all right on, the likeliest first."""
    return _kept("supplies-", survey_of(site, [point], whole=False), _systems)


def loads_of(site: Site, point: Point) -> dict[str, Any]:
    """What the point's circuit draws against its device, and what known loads say of the loop."""
    return _kept("loads-", survey_of(site, [point], whole=False), _loads)


def _kept(kind: str, survey: dict[str, Any], made: Callable[[SurveyFile], T]) -> T:
    """What the core makes of a survey, from the cache where it was made before."""
    content = json.dumps(survey, sort_keys=True)
    key = f"{kind}{core_fingerprint()}-{hashlib.sha256(content.encode()).hexdigest()}"
    answer: T | None = cache.get(key)
    if answer is None:
        answer = made(parse(SurveyFile, survey))
        cache.set(key, answer)
    return answer


def _result(survey: SurveyFile) -> PointInterpretation:
    entry = survey.single_point()
    return interpret(survey.facts(entry), survey.readings(entry), survey.kit())


def _loads(survey: SurveyFile) -> dict[str, Any]:
    entry = survey.single_point()
    facts, readings = survey.facts(entry), survey.readings(entry)
    curve = entry.circuit.curve if entry.circuit else None
    drawn = draws(facts, readings, curve)
    return loads_answer(drawn, loops(facts, readings), facts.circuit.rating_a, facts.practice)


def _systems(survey: SurveyFile) -> list[dict[str, Any]]:
    entry = survey.single_point()
    shares: dict[str, float] = {}
    for guess in what_supply(survey.facts(entry), survey.readings(entry)):
        if guess.fits:
            shares[guess.system.id] = shares.get(guess.system.id, 0.0) + guess.likelihood
    ranked = sorted(shares.items(), key=lambda one: -one[1])
    return [{"system": system, "title": SYSTEMS[system].title, "share": round(share, 3)} for system, share in ranked]


def make_ready(site: Site, point: Point) -> None:
    """Beside the answer that opens a point: what its next readings will need, so that they are answered at once."""
    checked = parse(SurveyFile, survey_of(site, [point], whole=False))
    facts = checked.facts(checked.single_point())
    if not facts.no_lines:
        threading.Thread(target=lambda: bank_for(facts).prepare(), daemon=True).start()


def sight_of(site: Site, point: Point, tester: Instrument) -> dict[str, Any]:
    """What a tester can strike out at a point as its readings leave it, and what not."""
    checked = parse(SurveyFile, survey_of(site, [point], whole=False))
    entry = checked.single_point()
    facts = checked.facts(entry)
    return sight_answer(sight_here(facts, checked.readings(entry), tester), facts.practice)
