"""Interpretations: derived on request by the core, and kept by content so that none is made twice."""

import hashlib
import json
import threading
from functools import cache as once
from pathlib import Path
from typing import Any

from django.core.cache import cache

import evenprobe
from evenprobe.formats import SurveyFile, parse, point_answer, sight_answer
from evenprobe.interpretation import bank_for, interpret, sight_here
from evenprobe.testers import Instrument
from sites.models import Point, Site
from work.surveys import survey_of


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
    content = json.dumps(survey, sort_keys=True)
    key = f"{core_fingerprint()}-{hashlib.sha256(content.encode()).hexdigest()}"
    answer: dict[str, Any] | None = cache.get(key)
    if answer is None:
        checked = parse(SurveyFile, survey)
        entry = checked.single_point()
        answer = point_answer(interpret(checked.facts(entry), checked.readings(entry), checked.kit()))
        cache.set(key, answer)
    return answer


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
