"""A backup is made while people work, comes back on a new machine, and says when it is not as it was made."""

import gzip
import json
import shutil
import sqlite3
from contextlib import closing
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from django.core.management import CommandError, call_command
from django.db import connection
from django.utils import timezone

from tests.server.elsewhere import manage
from upkeep.backups import BackupProblem, backups_in, make, restore, verify

NOW = datetime(2026, 12, 1, 6, tzinfo=UTC)
OLD = Path(__file__).parent / "old_database.sql.gz"


def rows(path, table):
    with closing(sqlite3.connect(path)) as database:
        return database.execute(f'SELECT * FROM "{table}" ORDER BY 1').fetchall()


@pytest.fixture
def database(tmp_path):
    """A record of the version before there were roles."""
    path = tmp_path / "data" / "evenprobe.sqlite3"
    path.parent.mkdir()
    with closing(sqlite3.connect(path)) as made:
        made.executescript(gzip.decompress(OLD.read_bytes()).decode())
    return path


@pytest.mark.sqlite
@pytest.mark.django_db(transaction=True)
def test_a_record_comes_back_on_a_new_machine(anna, recorded, tmp_path):
    folder, elsewhere = tmp_path / "backups", tmp_path / "new machine"
    call_command("backup", str(folder))
    [backup] = backups_in(folder)
    assert [path.stat().st_mode & 0o077 for path in (backup.database, backup.manifest)] == [0, 0]
    answer = manage(elsewhere, "restore", str(folder))
    assert answer.returncode == 0, answer.stderr
    restored = elsewhere / "evenprobe.sqlite3"
    for table in ("work_reading", "sheets_photo", "signoffs_signoff", "history_change", "auth_user"):
        there = rows(connection.settings_dict["NAME"], table)
        assert rows(restored, table) == there != [], table
    assert manage(elsewhere, "verify", str(folder)).returncode == 0
    again = manage(elsewhere, "backup", str(tmp_path / "again"))
    assert again.returncode == 0, again.stderr
    [second] = backups_in(tmp_path / "again")
    assert json.loads(second.manifest.read_text())["chains"] == json.loads(backup.manifest.read_text())["chains"] != {}


def test_an_old_record_is_backed_up_brought_up_and_ready(database):
    data = database.parent
    assert manage(data, "backup", str(data / "backups")).returncode == 0
    before = {table: rows(database, table) for table in ("work_reading", "signoffs_signoff")}
    assert manage(data, "migrate", "-v0").returncode == 0
    for table, there in before.items():
        assert rows(database, table) == there
    with closing(sqlite3.connect(database)) as brought_up:
        roles = brought_up.execute("SELECT role FROM crews_membership ORDER BY id").fetchall()
        assert roles == [("keeper",), ("electrician",)]
        with pytest.raises(sqlite3.IntegrityError, match="is never edited"):
            brought_up.execute("UPDATE work_reading SET by_name = 'x'")
    assert manage(data, "backup", str(data / "backups")).returncode == 0
    back = manage(data, "restore", str(backups_in(data / "backups")[-1].database))
    assert back.returncode == 0, back.stderr
    assert rows(database, "work_reading") == before["work_reading"]
    assert list(data.glob("evenprobe-before-*.sqlite3")), "what was there stays beside it"


def test_only_the_last_few_are_kept_and_one_cut_off_half_way_is_none(database, tmp_path):
    folder = tmp_path / "backups"
    for day in range(5):
        make(database, folder, NOW + timedelta(days=day), keep=3)
    assert [one.made_at.day for one in backups_in(folder)] == [5, 4, 3]
    (folder / "evenprobe-20261209T000000Z.sqlite3").write_bytes(b"half")
    assert [one.made_at.day for one in backups_in(folder)] == [5, 4, 3]
    assert not list(folder.glob(".making-*"))
    with pytest.raises(BackupProblem, match="at least one"):
        make(database, folder, NOW, keep=0)


def spoil_a_byte(backup):
    content = bytearray(backup.database.read_bytes())
    at = content.index(b"Larkspur Hill")
    content[at] ^= 1
    backup.database.write_bytes(content)


def spoil_the_manifest(backup):
    told = json.loads(backup.manifest.read_text())
    told["rows"]["work_reading"] += 1
    backup.manifest.write_text(json.dumps(told))


def cut_short(backup):
    backup.database.write_bytes(backup.database.read_bytes()[:20_000])


def lose_the_manifest(backup):
    backup.manifest.write_text("{}")


@pytest.mark.parametrize("spoil", [spoil_a_byte, spoil_the_manifest, cut_short, lose_the_manifest])
def test_a_backup_that_is_not_as_it_was_made_is_said_so_and_never_restored(database, tmp_path, spoil):
    backup = make(database, tmp_path / "backups", NOW, keep=3)
    verify(backup)
    spoil(backup)
    with pytest.raises(BackupProblem):
        verify(backup)
    before = database.read_bytes()
    with pytest.raises(BackupProblem):
        restore(backup, database, NOW)
    assert database.read_bytes() == before
    with pytest.raises(CommandError):
        call_command("verify", str(backup.database))


def test_a_sign_off_changed_in_the_database_itself_is_found_when_it_is_copied(database, tmp_path):
    with closing(sqlite3.connect(database)) as changed:
        for trigger in ("no_update", "no_delete"):
            changed.execute(f"DROP TRIGGER signoffs_signoff_{trigger}")
        changed.execute("UPDATE signoffs_signoff SET content = replace(content, '119.8', '118.8')")
        changed.commit()
    with pytest.raises(BackupProblem, match="not as it was signed"):
        make(database, tmp_path / "backups", NOW, keep=3)


def test_nothing_is_restored_under_a_server_that_writes(database, tmp_path):
    backup = make(database, tmp_path / "backups", NOW, keep=3)
    with closing(sqlite3.connect(database, isolation_level=None)) as server:
        server.execute("PRAGMA journal_mode=WAL")
        server.execute("BEGIN IMMEDIATE")
        with pytest.raises(BackupProblem, match="stop the server"):
            restore(backup, database, NOW)
        server.execute("ROLLBACK")
    assert restore(backup, database, NOW) is not None


def test_a_folder_that_cannot_be_written_or_is_empty_is_said_in_words(database, tmp_path):
    (tmp_path / "file").write_text("x")
    with pytest.raises(BackupProblem, match="no backup was made"):
        make(database, tmp_path / "file" / "backups", NOW, keep=3)
    with pytest.raises(CommandError, match="there is no backup"):
        call_command("verify", str(tmp_path))
    with pytest.raises(BackupProblem):
        make(tmp_path / "nowhere.sqlite3", tmp_path / "backups", NOW, keep=3)


def test_the_process_answers_and_says_whether_it_is_ready(client, db):
    assert client.get("/healthz").content == b"ok"
    answer = client.get("/readyz")
    assert (answer.status_code, answer.json()["ready"]) == (200, True)
    assert set(answer.json()["problems"]) == {"database", "migrations", "changes", "disk", "backup"}


def test_what_is_wrong_is_named(client, db, monkeypatch, settings, tmp_path, database):
    usage = shutil.disk_usage(tmp_path)._replace(total=1000, free=40)
    monkeypatch.setattr("upkeep.health.shutil.disk_usage", lambda _path: usage)
    settings.BACKUP_DIR = str(tmp_path / "backups")
    (tmp_path / "backups").mkdir()
    answer = client.get("/readyz")
    assert answer.status_code == 503
    assert answer.json()["problems"]["disk"] == "4% free, less than 5%"
    assert answer.json()["problems"]["backup"].startswith("none in")
    make(database, tmp_path / "backups", timezone.now() - timedelta(hours=40), keep=3)
    assert client.get("/readyz").json()["problems"]["backup"] == "the last is 40 h old"
    make(database, tmp_path / "backups", timezone.now(), keep=3)
    assert client.get("/readyz").json()["problems"]["backup"] == ""
