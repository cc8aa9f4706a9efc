"""What a person cannot do at a site just now: said once, remembered for the visit, until the day ends.

It is nobody's record: it decides only which next test is offered, so it is kept in the session of whoever said it.
"""

from collections.abc import Collection
from typing import Any
from uuid import UUID

from django.http import HttpRequest
from django.utils import timezone

from evenprobe.interpretation.next_measurement import Obstacle

_KEY = "cannot"


def cannot_here(request: HttpRequest, site_id: UUID) -> tuple[Obstacle, ...]:
    """What was said at this site today, in the order of the list."""
    said = _of_today(request).get(str(site_id), [])
    return tuple(obstacle for obstacle in Obstacle if obstacle in said)


def remember(request: HttpRequest, site_id: UUID, cannot: Collection[Obstacle]) -> None:
    """What was said of other sites today stays."""
    said = {**_of_today(request), str(site_id): sorted(map(str, cannot))}
    request.session[_KEY] = {"on": timezone.localdate().isoformat(), "at": said}


def _of_today(request: HttpRequest) -> dict[str, list[str]]:
    kept: dict[str, Any] = request.session.get(_KEY, {})
    return kept["at"] if kept.get("on") == timezone.localdate().isoformat() else {}
