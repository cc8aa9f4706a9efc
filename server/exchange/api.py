"""Files over HTTP: a whole record out, and what would come of a file that is brought in before it is."""

import hashlib
import re
from collections.abc import Iterator
from uuid import UUID

from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from ninja import File, Form, Router
from ninja.files import UploadedFile

from base.problems import NotFoundHere, Problems, Refused
from brought.models import BroughtFile
from brought.services import files_of
from crews.models import Crew
from crews.services import crew_of
from evenprobe.entries import parse, parse_json
from evenprobe.formats.tables import TABLES, Matched, Table
from exchange.record.bringing import bring_in as bring_record_in
from exchange.record.leaving import record_file
from exchange.record.looking import look as look_at_record
from exchange.record.looking import read_file
from exchange.rows.bringing import bring_in as bring_rows_in
from exchange.rows.bringing import look as look_at_rows
from exchange.rows.matching import Asked
from exchange.shapes import BroughtOut, HowIn, RecordLookedAt, RowsLookedAt, TableWord
from exchange.shown import record_looked_at, rows_looked_at
from kit.models import Tester
from sites.models import Site
from sites.services import site_of

router = Router(tags=["files"])
_LARGEST = {"record": 256, "rows": 48}
"""In MB."""


@router.get("/record", response={404: Problems})
def record_of_crew(request: HttpRequest) -> HttpResponse:
    """Everything that was written down, as one file."""
    crew = crew_of(request)
    return _streamed(crew.name, record_file(crew, None))


@router.get("/sites/{site_id}/record", response={404: Problems})
def record_of_site(request: HttpRequest, site_id: UUID) -> HttpResponse:
    """Everything that was written down of a site, with the kit that was used there."""
    crew = crew_of(request)
    site = site_of(crew, site_id)
    return _streamed(site.name, record_file(crew, site))


@router.get("/brought", response=list[BroughtOut])
def brought(request: HttpRequest) -> list[BroughtOut]:
    """The latest first."""
    crew = crew_of(request)
    strange = list(
        Tester.objects.filter(crew=crew, brought__isnull=False, taken_over_at=None).values_list("brought_id", flat=True)
    )
    return [_brought_out(file, strange.count(file.id)) for file in files_of(crew)]


@router.post("/brought/record/look", response={200: RecordLookedAt, 404: Problems, 422: Problems})
def look_at_record_file(request: HttpRequest, file: File[UploadedFile]) -> RecordLookedAt:
    """What would come of every row of a record file. Writes nothing."""
    return record_looked_at(look_at_record(crew_of(request), read_file(_content(file, "record"))))


@router.post("/brought/record", response={200: BroughtOut, 404: Problems, 409: Problems, 422: Problems})
def bring_record_file_in(request: HttpRequest, file: File[UploadedFile]) -> BroughtOut:
    """Every row that is new. The same file again changes nothing."""
    crew = crew_of(request)
    kept = bring_record_in(crew, request.user, file.name or "", read_file(_content(file, "record")))
    return _brought_out(kept, Tester.objects.filter(brought=kept, taken_over_at=None).count())


@router.post("/brought/rows/{table}/look", response={200: RowsLookedAt, 404: Problems, 422: Problems})
def look_at_rows_of_file(
    request: HttpRequest, table: TableWord, file: File[UploadedFile], how: Form[str] = "{}"
) -> RowsLookedAt:
    """What would come of every row of a file. Writes nothing. `how`: JSON of a HowIn."""
    crew, asked = crew_of(request), _how(how)
    of = _table(table)
    return rows_looked_at(of, look_at_rows(crew, of, _content(file, "rows"), _site(crew, asked), _asked(asked)))


@router.post("/brought/rows/{table}", response={200: RowsLookedAt, 404: Problems, 409: Problems, 422: Problems})
def bring_rows_of_file_in(
    request: HttpRequest, table: TableWord, file: File[UploadedFile], how: Form[str] = "{}", sha256: Form[str] = ""
) -> RowsLookedAt:
    """Every row that can go in. `sha256`: of the file that was looked at."""
    crew, asked = crew_of(request), _how(how)
    of, content = _table(table), _content(file, "rows")
    if sha256 and hashlib.sha256(content).hexdigest() != sha256:
        raise Refused(("file", "is not the one that was looked at: it was changed meanwhile; look at it again"))
    site, name = _site(crew, asked), file.name or ""
    return rows_looked_at(of, bring_rows_in(crew, request.user, of, name, content, site, _asked(asked)))


def _how(written: str) -> HowIn:
    return parse(HowIn, parse_json(written))


def _table(name: str) -> Table:
    found = TABLES.get(name)
    if found is None:
        raise NotFoundHere("table")
    return found


def _site(crew: Crew, how: HowIn) -> Site | None:
    return site_of(crew, how.site) if how.site else None


def _asked(how: HowIn) -> Asked:
    columns = how.columns
    matched = None if columns is None else {name: Matched(one.column, one.unit) for name, one in columns.items()}
    return Asked(matched, how.fixed, how.decimal, how.zone)


def _content(file: UploadedFile, sort: str) -> bytes:
    most = _LARGEST[sort]
    if (file.size or 0) > most * 1024 * 1024:
        raise Refused(("file", f"is larger than {most} MB: bring it in in parts"))
    return bytes(file.read())


def _brought_out(file: BroughtFile, strange: int) -> BroughtOut:
    return BroughtOut(
        id=file.id, name=file.name, what=file.what, sha256=file.sha256, at=file.at, by=file.by_name, strange=strange
    )


def _streamed(of: str, pieces: Iterator[bytes]) -> HttpResponse:
    answer = StreamingHttpResponse(pieces, content_type="application/json")
    name = re.sub(r"[^A-Za-z0-9 ,.-]+", "-", f"{of}, record")
    answer["Content-Disposition"] = f'attachment; filename="{name}.json"'
    answer["Cache-Control"] = "private, no-store"
    return answer  # type: ignore[return-value]
