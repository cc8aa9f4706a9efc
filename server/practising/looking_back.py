"""What somebody is told of a case: a hint on the way, the file once it is over, and what it came to."""

import json
from collections.abc import Mapping, Sequence
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


def _view(practised: Practised) -> PointView:
    return view_of(practised.sandbox, practised.point)


def _views(practised: Practised) -> dict[str, PointView]:
    """Of a round, by the case's own ids of its outlets."""
    file = file_of(practised)
    return {
        point.id: view_of(practised.sandbox, point_id(practised.pk, file, number))
        for number, point in enumerate(file.installation.points)
    }


def _of_a_round(views: Mapping[str, PointView]) -> tuple[str, str]:
    """Who is to be asked, and what was recorded at each outlet."""
    return next(iter(views.values())).sort, json.dumps({name: view.survey for name, view in views.items()})


def hint(practised: Practised, found: Progress) -> str:
    file = file_of(practised)
    if file.hunted is not None:
        told = told_of(practised, file, testers_of(practised))
        level = _next_level(found, told[-1].at_s if told else -1.0)
        hunted, practice = file.hunted, file.installation.practice
        return hunt_hint(hunted, [each.seen for each in told], level, lambda at: ahead_said(hunted, at, practice))
    begun = practised.begun_at.timestamp()
    views = _views(practised) if file.solved.each else {"": _view(practised)}
    rows = [row for view in views.values() for row in view.counting().values()]
    level = _next_level(found, max((row.taken_at.timestamp() - begun for row in rows), default=-1.0))
    if file.solved.each:
        sort, surveys = _of_a_round(views)
        return ask(sort, questions.hinted_on_a_round, surveys, practised.case, level, begun, testers_of(practised))
    [view] = views.values()
    return ask(view.sort, questions.hinted, view.survey, practised.case, level, begun, testers_of(practised))


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
    found = _looked_back(practised, done)
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


def _looked_back(practised: Practised, done: Sequence[tuple[float, str]]) -> dict[str, Any]:
    """`done`: what was done, in words."""
    acts, testers, file = acts_so_far(practised), testers_of(practised), file_of(practised)
    if file.hunted is not None:
        return questions.hunt_debriefed(practised.case, told_of(practised, file, testers), acts, testers, done)
    if file.solved.each:
        begun = practised.begun_at.timestamp()
        sort, surveys = _of_a_round(_views(practised))
        return ask(sort, questions.round_debriefed, surveys, practised.case, acts, begun, testers, done)
    view, begun = _view(practised), practised.begun_at.timestamp()
    return ask(view.sort, questions.debriefed, view.survey, practised.case, acts, begun, testers, done)
