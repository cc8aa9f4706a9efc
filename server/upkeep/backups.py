"""Copies of the whole record, pictures in it: made while the server runs, looked at, hashed, and checked by restoring.

A backup is the database (SQLite's online copy) and beside it a manifest: hash, rows by table, the last link of each
crew's chain of sign-offs, and the migrations it stands at. Both have the same name, by the time they were made.
"""

import hashlib
import json
import os
import sqlite3
import tempfile
from contextlib import closing
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from evenprobe.signing import Link, broken_links, digest

_NAME = "evenprobe-"
_SUFFIX, _MANIFEST = ".sqlite3", ".json"
_FORMAT = "even-probe/backup"
_OWNER_ALONE = 0o600
_CHAINS = (
    "SELECT crew_id, number, content_sha256, link_sha256, content FROM signoffs_signoff "
    "WHERE brought_id IS NULL ORDER BY crew_id, number"
)


class BackupProblem(Exception):
    """Why a backup was not made, does not hold, or was not restored."""


@dataclass(frozen=True)
class Backup:
    """One that is there. `made_at`: as its name has it."""

    database: Path

    @property
    def manifest(self) -> Path:
        return self.database.with_suffix(_MANIFEST)

    @property
    def made_at(self) -> datetime:
        return datetime.strptime(self.database.stem.removeprefix(_NAME), "%Y%m%dT%H%M%SZ").replace(tzinfo=UTC)


def backups_in(folder: Path) -> list[Backup]:
    """Those that are whole, the latest first; what was cut off half-way has another name."""
    found = [Backup(path) for path in folder.glob(f"{_NAME}*{_SUFFIX}") if path.with_suffix(_MANIFEST).exists()]
    return sorted(found, key=lambda one: one.database.name, reverse=True)


def make(source: Path, folder: Path, now: datetime, keep: int) -> Backup:
    """Copy the database as it is at one moment, whatever is written meanwhile; of older ones `keep` in all stay.

    Raises BackupProblem where it cannot be read or written, or does not hold together; nothing is left of it then, and
    none of those before is taken away.
    """
    if keep < 1:
        raise BackupProblem("keep at least one")
    try:
        folder.mkdir(parents=True, exist_ok=True)
        with tempfile.TemporaryDirectory(dir=folder, prefix=".making-") as making:
            copy = Path(making) / "copy"
            _copy(source, copy)
            told = {"format": _FORMAT, "version": 1, "made_at": now.isoformat(), **_told_of(copy)}
            written = Path(making) / "manifest"
            written.write_text(json.dumps(told, indent=1, sort_keys=True))
            for path in (copy, written):
                path.chmod(_OWNER_ALONE)
                _on_the_disk(path)
            backup = Backup(folder / f"{_NAME}{now.astimezone(UTC):%Y%m%dT%H%M%SZ}{_SUFFIX}")
            copy.replace(backup.database)
            written.replace(backup.manifest)
            _on_the_disk(folder)
    except (OSError, sqlite3.Error) as error:
        raise BackupProblem(f"no backup was made in {folder}: {error}") from error
    for old in backups_in(folder)[keep:]:
        old.database.unlink()
        old.manifest.unlink()
    return backup


def verify(backup: Backup) -> dict[str, Any]:
    """Restore to a scratch place and hold it against its manifest; what the manifest says. Raises BackupProblem."""
    try:
        told: dict[str, Any] = json.loads(backup.manifest.read_text())
        with tempfile.TemporaryDirectory(prefix="evenprobe-scratch-") as scratch:
            copy = Path(scratch) / "copy"
            _copy(backup.database, copy)
            found = _told_of(copy)
        found["sha256"] = _sha256(backup.database)
    except (OSError, ValueError, sqlite3.Error) as error:
        raise BackupProblem(f"{backup.database} cannot be read: {error}") from error
    if told.get("format") != _FORMAT:
        raise BackupProblem(f"{backup.manifest} is no manifest of a backup")
    for key, value in found.items():
        if told.get(key) != value:
            raise BackupProblem(f"{backup.database} is not as it was made: {key} differs")
    return told


def restore(backup: Backup, target: Path, now: datetime) -> Path | None:
    """Put a backup in the place of the database; what was there stays beside it, its path is given.

    Raises BackupProblem, and nothing is changed, where the backup does not hold or a server has the database open.
    """
    verify(backup)
    try:
        target.parent.mkdir(parents=True, exist_ok=True)
        aside = _set_aside(target, now) if target.exists() else None
        arriving = target.with_name(f".{target.name}.arriving")
        _copy(backup.database, arriving)
        arriving.chmod(_OWNER_ALONE)
        _on_the_disk(arriving)
        arriving.replace(target)
        _on_the_disk(target.parent)
    except (OSError, sqlite3.Error) as error:
        raise BackupProblem(f"{target} was not restored: {error}") from error
    return aside


def _set_aside(target: Path, now: datetime) -> Path:
    """The database that is there, whole in one file, under another name."""
    with closing(sqlite3.connect(target, timeout=1, isolation_level=None)) as there:
        try:
            there.execute("PRAGMA locking_mode=EXCLUSIVE")
            there.execute("BEGIN EXCLUSIVE")
            there.execute("COMMIT")
            there.execute("PRAGMA journal_mode=DELETE")
        except sqlite3.OperationalError as error:
            raise BackupProblem(f"{target} is in use: stop the server first ({error})") from error
    aside = target.with_name(f"{target.stem}-before-{now.astimezone(UTC):%Y%m%dT%H%M%SZ}{target.suffix}")
    target.replace(aside)
    return aside


def _copy(source: Path, to: Path) -> None:
    """SQLite's online copy: as of one moment, whoever writes meanwhile."""
    if not source.exists():
        raise BackupProblem(f"there is no {source}")
    with closing(sqlite3.connect(f"file:{source}?mode=ro", uri=True)) as whole, closing(sqlite3.connect(to)) as copy:
        whole.backup(copy)
        copy.execute("PRAGMA journal_mode=DELETE")


def _told_of(copy: Path) -> dict[str, Any]:
    """What a manifest says of a database. Raises BackupProblem where it does not hold together."""
    with closing(sqlite3.connect(copy)) as database:
        found = [row[0] for row in database.execute("PRAGMA integrity_check")]
        if found != ["ok"]:
            raise BackupProblem(f"the database is damaged: {found[0]}")
        if database.execute("PRAGMA foreign_key_check").fetchone():
            raise BackupProblem("the database is damaged: something refers to what is not there")
        named = "SELECT name FROM sqlite_master WHERE type='table' AND name NOT LIKE 'sqlite_%' ORDER BY name"
        tables = [row[0] for row in database.execute(named)]
        rows = {table: database.execute(f'SELECT COUNT(*) FROM "{table}"').fetchone()[0] for table in tables}
        stands_at = "SELECT app, MAX(name) FROM django_migrations GROUP BY app ORDER BY app"
        migrations = dict(database.execute(stands_at).fetchall()) if "django_migrations" in tables else {}
        chains = _chains_of(database) if "signoffs_signoff" in tables else {}
    return {"sha256": _sha256(copy), "bytes": copy.stat().st_size, "rows": rows, "migrations": migrations,
            "chains": chains}  # fmt: skip


def _chains_of(database: sqlite3.Connection) -> dict[str, str]:
    """The last link of each crew's chain. Raises BackupProblem where a chain or what was signed does not hold."""
    chains: dict[str, list[Link]] = {}
    for crew, number, content_sha256, link_sha256, content in database.execute(_CHAINS):
        if digest(json.loads(content)) != content_sha256:
            raise BackupProblem(f"sign-off {number} is not as it was signed")
        chains.setdefault(str(crew), []).append(Link(number, content_sha256, link_sha256))
    for chain in chains.values():
        if next(broken_links(chain), None) is not None:
            raise BackupProblem("a chain of sign-offs is broken")
    return {crew: chain[-1].link_sha256 for crew, chain in chains.items()}


def _sha256(path: Path) -> str:
    with path.open("rb") as file:
        return hashlib.file_digest(file, "sha256").hexdigest()


def _on_the_disk(path: Path) -> None:
    """Written through, so that a power cut after this takes nothing of it."""
    handle = os.open(path, os.O_RDONLY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)
