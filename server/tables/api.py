"""Tables over HTTP, streamed: a long one never stands in memory, here or there."""

import re
from collections.abc import Iterable, Sequence
from typing import Any, Literal
from uuid import UUID

from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from ninja import Router

from base.problems import Problems
from crews.models import Crew
from crews.services import crew_of
from evenprobe.formats.tables import CIRCUITS, DEAD_TEST_ROWS, KIT, READINGS
from readings.models import Reading
from sites.models import Site
from sites.services import site_of
from tables.csv_files import csv_lines
from tables.others import circuit_rows, dead_test_rows, kit_rows
from tables.readings import reading_rows

router = Router(tags=["tables"])

Table = Literal["readings", "circuits", "dead-tests", "kit"]
_SITE = "point__circuit__board__supply__site"


@router.get("/tables/{what}", response={404: Problems})
def table_of_crew(request: HttpRequest, what: Table) -> HttpResponse:
    """Of the whole crew."""
    crew = crew_of(request)
    return _streamed(what, crew.name, *_table(what, crew, None))


@router.get("/sites/{site_id}/tables/{what}", response={404: Problems})
def table_of_site(request: HttpRequest, site_id: UUID, what: Table) -> HttpResponse:
    """Of one site; its kit is the crew's."""
    crew = crew_of(request)
    site = site_of(crew, site_id)
    return _streamed(what, site.name, *_table(what, crew, site))


def _table(what: Table, crew: Crew, site: Site | None) -> tuple[Sequence[str], Iterable[Sequence[Any]]]:
    match what:
        case "readings":
            wanted = {f"{_SITE}__crew": crew} if site is None else {_SITE: site}
            return READINGS.header, reading_rows(Reading.objects.filter(**wanted))
        case "circuits":
            return CIRCUITS.header, circuit_rows(crew, site)
        case "dead-tests":
            return DEAD_TEST_ROWS.header, dead_test_rows(crew, site)
        case "kit":
            return KIT.header, kit_rows(crew)


def _streamed(what: str, of: str, header: Sequence[str], rows: Iterable[Sequence[Any]]) -> HttpResponse:
    answer = StreamingHttpResponse(csv_lines(header, rows), content_type="text/csv; charset=utf-8")
    name = re.sub(r"[^A-Za-z0-9 ,.-]+", "-", f"{of}, {what}")
    answer["Content-Disposition"] = f'attachment; filename="{name}.csv"'
    answer["Cache-Control"] = "private, no-store"
    return answer  # type: ignore[return-value]
