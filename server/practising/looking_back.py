"""What somebody is told of a case: a hint on the way, the file once it is over, and what it came to."""

import json
from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from django.db import transaction
from django.utils import timezone

from base.problems import Refused
from evenprobe.formats.looks import ahead_said
from evenprobe.practising import Progress, hunt_hint, next_hint
from practising import questions
from practising.done import did
from practising.models import CaseDebrief, Practised
from practising.on_a_hunt import told_of
from practising.open_cases import acts_so_far, file_of, how_far, testers_of
from practising.sandbox import point_id
from readings.interpreters import ask
from readings.point_view import PointView, view_of


def _went(practised: Practised) -> questions.Went:
    return questions.Went(practised.case, practised.begun_at.timestamp(), testers_of(practised))


def _views(practised: Practised) -> dict[str, PointView]:
    """Of each point that readings are asked of, by the case's own ids; nothing of a hunt."""
    file = file_of(practised)
    points = [] if file.hunted is not None else file.installation.points
    return {
        point.id: view_of(practised.sandbox, point_id(practised.pk, file, number))
        for number, point in enumerate(points)
    }


def _of_a_round(views: Mapping[str, PointView]) -> tuple[str, str]:
    """Who is to be asked, and what was recorded at each outlet."""
    return next(iter(views.values())).sort, json.dumps({name: view.survey for name, view in views.items()})


def hint(practised: Practised, found: Progress) -> str:
    """What is said to somebody who does not know on. Raises Refused where all was said since the last reading."""
    file, went = file_of(practised), _went(practised)
    if file.hunted is not None:
        told = told_of(practised, file, went.testers)
        level = _next_level(found, told[-1].at_s if told else -1.0)
        hunted, practice = file.hunted, file.installation.practice
        return hunt_hint(hunted, [each.seen for each in told], level, lambda at: ahead_said(hunted, at, practice))
    views = _views(practised)
    rows = [row for view in views.values() for row in view.counting().values()]
    level = _next_level(found, max((row.taken_at.timestamp() - went.begun_s for row in rows), default=-1.0))
    if file.solved.each:
        sort, surveys = _of_a_round(views)
        return ask(sort, questions.hinted_on_a_round, surveys, went, level)
    [view] = views.values()
    return ask(view.sort, questions.hinted, view.survey, went, level)


def _next_level(found: Progress, last_s: float) -> int:
    """`last_s`: when something was recorded last. Raises Refused where every hint was given since."""
    level = next_hint(found, last_s)
    if level is None:
        raise Refused(("doing", "there is no further hint; the next reading brings new ones"))
    return level


def shared(practised: Practised) -> dict[str, Any]:
    """The case as a file, for somebody else. Raises Refused while what is hidden in it is still to be found."""
    if not how_far(practised).is_over:
        raise Refused(("", "conclude first; the file says what is hidden"), status=409)
    return dict(practised.case)


def look_back(practised: Practised) -> CaseDebrief:
    """What it came to, worked out once. Raises Refused while it is not over."""
    known = CaseDebrief.objects.filter(pk=practised.pk).first()
    if known is not None:
        return known
    over_at_s = how_far(practised).over_at_s
    if over_at_s is None:
        raise Refused(("", "conclude first; then it is looked back on"), status=409)
    done = [each for each in did(practised) if each[0] <= over_at_s]
    found = _looked_back(practised, replace(_went(practised), acts=acts_so_far(practised), did=done))
    with transaction.atomic():
        kept, _ = CaseDebrief.objects.get_or_create(
            pk=practised.pk,
            defaults={
                "shown": found["shown"],
                "condition": (practised.case.get("circuit") or {}).get("hunt", practised.case["hidden"]["condition"]),
                "conclusion": found["conclusion"],
                "mastered": found["mastered"],
                "at": timezone.now(),
            },
        )
    return kept


def _looked_back(practised: Practised, went: questions.Went) -> dict[str, Any]:
    file, views = file_of(practised), _views(practised)
    if file.hunted is not None:
        return questions.hunt_debriefed(told_of(practised, file, went.testers), went)
    if file.solved.each:
        sort, surveys = _of_a_round(views)
        return ask(sort, questions.round_debriefed, surveys, went)
    [view] = views.values()
    return ask(view.sort, questions.debriefed, view.survey, went)
