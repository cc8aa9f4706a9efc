"""The line of time over HTTP: of a point, a circuit, a site, a tester or the whole crew, a page at a time."""

from datetime import UTC, date, datetime, time, timedelta
from typing import Any
from uuid import UUID

from django.http import HttpRequest
from ninja import Query, Router, Schema

from base.failures import each_shown
from base.problems import NotFoundHere, Problems
from base.shapes import Titled, ToldLater
from crews.models import Crew
from crews.services import crew_of
from evenprobe.entries import Day, Time
from evenprobe.formats.answers.trends import TrendOut
from kit.services import tester_of
from photos.models import PhotoOn
from photos.services import hang, hung_on
from readings.point_view import view_of
from sites.models import Circuit, Point
from sites.services import find, site_of
from timeline.hanging import where_is
from timeline.search import FoundOut, search
from timeline.shapes import Happened, KindOfRecord, OnWord, ScopeWord, TimelineOut
from timeline.sources import SOURCES, Source
from timeline.trends import trends_of

router = Router(tags=["timeline"])

_PAGE = 60


class HangIn(ToldLater):
    """Where a picture hangs, and a few words with it."""

    photo: UUID
    on: OnWord
    of: UUID
    note: str = ""


class Asked(Schema):
    """`before`: where the page before ended. `by`, `tester`, `kind`: only those. `since`, `until`: days, both in it."""

    before: Time | None = None
    by: str = ""
    tester: UUID | None = None
    kind: KindOfRecord | None = None
    since: Day | None = None
    until: Day | None = None


@router.get("/timeline/{scope}/{of}", response={200: TimelineOut, 404: Problems})
def timeline(request: HttpRequest, scope: ScopeWord, of: UUID, asked: Query[Asked]) -> TimelineOut:
    """The latest first. What happened at the same moment stays on one page. Of the crew: `of` is any."""
    crew = crew_of(request)
    name, key = _scope(crew, scope, of)
    found = [one for source in SOURCES if scope in source.ways for one in _page(source, scope, key, asked)]
    found.sort(key=lambda one: one.at, reverse=True)
    last = found[_PAGE - 1].at if len(found) > _PAGE else None
    shown = found if last is None else [one for one in found if one.at >= last]
    photos = hung_on(crew, [one.id for one in shown])
    return TimelineOut(
        name=name,
        happened=[one.model_copy(update={"photos": _of(one, photos)}) for one in shown],
        before=last,
        people=sorted({one.by for one in found if one.by}),
    )


@router.get("/points/{point_id}/trends", response={200: list[TrendOut], 404: Problems})
def trends(request: HttpRequest, point_id: UUID) -> list[TrendOut]:
    """What was measured at a point on two days or more."""
    return trends_of(view_of(crew_of(request), point_id))


@router.get("/search", response=list[FoundOut])
def search_record(request: HttpRequest, q: str = "") -> list[FoundOut]:
    """What of the crew's record has these words in its name."""
    return search(crew_of(request), q)


@router.put("/hung/{hung_id}", response={200: Titled, 404: Problems, 409: Problems, 422: Problems})
def hang_photo(request: HttpRequest, hung_id: UUID, data: HangIn) -> Titled:
    """Hang a picture on a thing of the record."""
    crew = crew_of(request)
    where = where_is(crew, data.on, data.of)
    hung = hang(crew, request.user, hung_id, data.photo, data.on, data.of, data.note, where, data.happened())
    return Titled(id=str(hung.id), title=str(hung.photo_id))


def _scope(crew: Crew, scope: str, of: UUID) -> tuple[str, UUID]:
    """What it is called, and the id that its rows have."""
    if scope == "point":
        return find(crew, Point, of).name, of
    if scope == "circuit":
        return find(crew, Circuit, of).name, of
    if scope == "site":
        return site_of(crew, of).name, of
    if scope == "tester":
        return str(tester_of(crew, of)), of
    if scope == "crew":
        return crew.name, crew.id
    raise NotFoundHere(scope)


def _page(source: Source, scope: str, key: UUID, asked: Asked) -> list[Happened]:
    """The latest of one source, and all that happened at the same moment as the last of them."""
    if asked.kind is not None and asked.kind != source.kind:
        return []
    way = source.ways[scope]
    wanted: dict[str, Any] = {way: str(key) if way.startswith("entry__") else key}
    if asked.before is not None:
        wanted[f"{source.at}__lt"] = asked.before
    if asked.since is not None:
        wanted[f"{source.at}__gte"] = _start_of(asked.since)
    if asked.until is not None:
        wanted[f"{source.at}__lt"] = min(_start_of(asked.until + timedelta(days=1)), asked.before or _FAR)
    if asked.by:
        wanted["by_name"] = asked.by
    if asked.tester is not None:
        if "tester" not in source.ways:
            return []
        wanted[source.ways["tester"]] = asked.tester
    found = source.rows().filter(**wanted).order_by(f"-{source.at}")
    rows = list(found[: _PAGE + 1])
    if len(rows) > _PAGE:
        there = {row.id for row in rows}
        rows += [row for row in found.filter(**{source.at: getattr(rows[-1], source.at)}) if row.id not in there]
    return each_shown(rows, source.shown, lambda row, why: _unshown(source, row, why))


def _of(one: Happened, photos: dict[UUID, list[PhotoOn]]) -> list[UUID]:
    return [*one.photos, *(hung.photo_id for hung in photos.get(one.id, []))]


_FAR = datetime(9999, 1, 1, tzinfo=UTC)


def _start_of(day: date) -> datetime:
    return datetime.combine(day, time(), UTC)


def _unshown(source: Source, row: Any, why: str) -> Happened:
    return Happened(
        id=row.id, kind=source.kind, at=getattr(row, source.at), by=row.by_name, where="", text=why,
        place=source.kind, of=row.id,
    )  # fmt: skip
