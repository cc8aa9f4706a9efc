"""Is the process there; can it work: for whoever watches the server, and its front."""

import shutil
from collections.abc import Callable
from datetime import timedelta
from pathlib import Path

from django.conf import settings
from django.db import DatabaseError, connection
from django.db.migrations.executor import MigrationExecutor
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.utils import timezone
from django.views.decorators.http import require_safe

from readings.changes import not_counted
from upkeep.backups import backups_in

_LEAST_FREE = 0.05
_UNAVAILABLE = 503


@require_safe
def healthz(_request: HttpRequest) -> HttpResponse:
    """The process answers."""
    return HttpResponse("ok", content_type="text/plain")


@require_safe
def readyz(_request: HttpRequest) -> JsonResponse:
    """Whether it can work, each reason by name: empty where all is well."""
    found = {name: check() for name, check in _CHECKS.items()}
    well = not any(found.values())
    return JsonResponse({"ready": well, "problems": found}, status=200 if well else _UNAVAILABLE)


def _database() -> str:
    try:
        with connection.cursor() as cursor:
            cursor.execute("SELECT 1")
    except DatabaseError as error:
        return f"cannot be asked: {error}"
    return ""


def _migrations() -> str:
    try:
        executor = MigrationExecutor(connection)
        left = executor.migration_plan(executor.loader.graph.leaf_nodes())
    except DatabaseError as error:
        return f"cannot be asked: {error}"
    return f"{len(left)} not applied: run manage.py migrate" if left else ""


def _changes() -> str:
    """What a migration that was cut off would leave behind: answers would be kept that are old ones."""
    try:
        left = not_counted()
    except DatabaseError as error:
        return f"cannot be asked: {error}"
    return f"nobody counts those of {', '.join(left)}: run manage.py migrate" if left else ""


def _disk() -> str:
    try:
        usage = shutil.disk_usage(settings.DATA_DIR)
    except OSError as error:
        return f"cannot be asked: {error}"
    free = usage.free / usage.total
    return f"{free:.0%} free, less than {_LEAST_FREE:.0%}" if free < _LEAST_FREE else ""


def _backup() -> str:
    """Nothing where no folder is named: nobody said that backups are made."""
    if not settings.BACKUP_DIR:
        return ""
    try:
        there = backups_in(Path(settings.BACKUP_DIR))
    except OSError as error:
        return f"cannot be looked at: {error}"
    if not there:
        return f"none in {settings.BACKUP_DIR}"
    age = timezone.now() - there[0].made_at
    limit = timedelta(hours=settings.BACKUP_AGE_H)
    return f"the last is {age.total_seconds() / 3600:.0f} h old" if age > limit else ""


_CHECKS: dict[str, Callable[[], str]] = {
    "database": _database, "migrations": _migrations, "changes": _changes, "disk": _disk, "backup": _backup,
}  # fmt: skip
