"""The record of a site or a crew as it leaves: one canonical JSON file, written row by row, with its hash."""

import hashlib
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

from django.db import connections, router

from brought.models import BroughtFile
from crews.models import Crew
from evenprobe.signing import Link, canonical
from exchange.record.rows import Ids, renamed, written
from exchange.record.tables import TABLES, Table
from signoffs.models import SignOff
from sites.models import Site

_AT_A_TIME = 500


def record_file(crew: Crew, site: Site | None) -> Iterator[bytes]:
    """The file in pieces: keys in order, so that the hash of all before it is known when it is written."""
    hash_ = hashlib.sha256()
    with _at_one_moment():
        for piece in _without_hash(crew, site):
            hash_.update(piece)
            yield piece
    end = b',"version":1}'
    hash_.update(end)
    yield b',"sha256":' + canonical(hash_.hexdigest()) + end


_BEGIN = {"sqlite": "BEGIN DEFERRED", "postgresql": "BEGIN ISOLATION LEVEL REPEATABLE READ READ ONLY"}


@contextmanager
def _at_one_moment() -> Iterator[None]:
    """As it all was when it began, whatever others write: a transaction that only reads, and holds nobody up."""
    connection = connections[router.db_for_read(Site)]
    if connection.in_atomic_block:
        yield
        return
    with connection.cursor() as cursor:
        cursor.execute(_BEGIN[connection.vendor])
        try:
            yield
        finally:
            cursor.execute("ROLLBACK")


def _without_hash(crew: Crew, site: Site | None) -> Iterator[bytes]:
    ids = names_in_files(crew)
    of: dict[str, Any] = {"what": "crew"} if site is None else {"what": "site", "id": renamed(str(site.id), ids)}
    yield b'{"chains":' + canonical(_chains(crew, site))
    yield b',"format":"even-probe/record","of":' + canonical(of) + b',"rows":{'
    for number, table in enumerate(sorted(TABLES, key=lambda one: one.name)):
        yield (b"," if number else b"") + canonical(table.name) + b":["
        yield from _rows(table, crew, site, ids)
        yield b"]"
    yield b"}" if site else b'},"rules":' + canonical(crew.rules)


def _rows(table: Table, crew: Crew, site: Site | None, ids: Ids) -> Iterator[bytes]:
    rows = table.rows(crew, site)
    if "supersedes" in {field.name for field in table.fields}:
        rows = rows.select_related("brought", "supersedes")
    for number, row in enumerate(rows.iterator(chunk_size=_AT_A_TIME)):
        yield (b"," if number else b"") + canonical(written(table, row, ids))


def names_in_files(crew: Crew) -> dict[str, str]:
    """Of everything that is known here by another id than in its file: that by this."""
    return {str(own): str(known) for table in TABLES for own, known in _renamed(table, crew)}


def _renamed(table: Table, crew: Crew) -> Iterator[Any]:
    rows = table.model._default_manager.filter(**{table.crew: crew}, known_as__isnull=False)
    yield from rows.order_by().values_list("id", "known_as")


def _chains(crew: Crew, site: Site | None) -> list[list[dict[str, Any]]]:
    """The crew's own, and those of sign-offs that came from files; none where nothing of them is here."""
    signed = SignOff.objects.filter(crew=crew)
    here = signed if site is None else signed.filter(site=site)
    own = signed.filter(brought=None).order_by("number")
    links = own.values_list("number", "content_sha256", "link_sha256") if here.filter(brought=None).exists() else []
    found = [[vars(Link(*row)) for row in links]] if links else []
    for file in BroughtFile.objects.filter(id__in=here.exclude(brought=None).values("brought")):
        found += [chain for chain in file.chains if chain not in found]
    return sorted(found, key=canonical)
