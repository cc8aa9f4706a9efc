"""The database itself keeps the record, whoever asks it to change."""

import pytest
from django.apps import apps
from django.db import IntegrityError, connection, models, transaction

from base.append_only import append_only_models, triggers_of
from tests.server.files import ROWS, bring
from tests.tampering import drop_triggers

TABLES = {
    *("kit_check", "proofs_proof", "proofs_proofevent", "sheets_sheetentry", "sheets_photo"),
    *("work_reading", "rounds_roundevent", "hunts_huntevent", "visits_visitevent", "signoffs_signoff"),
    *("photos_photoon", "kit_testerfault", "brought_broughtfile", "history_change"),
    *("crews_signinevent", "crews_secondperson", "practising_practisedact", "practising_casedebrief"),
}


TRIGGERS = {
    "sqlite": "SELECT name FROM sqlite_master WHERE type = 'trigger'",
    "postgresql": "SELECT tgname FROM pg_trigger WHERE NOT tgisinternal",
}


def model_of(table):
    return next(model for model in append_only_models() if model._meta.db_table == table)


def triggers_there():
    with connection.cursor() as cursor:
        cursor.execute(TRIGGERS[connection.vendor])
        return {name for (name,) in cursor.fetchall() if "_no_" in name}


def test_every_table_of_the_record_is_kept(db):
    assert {model._meta.db_table for model in append_only_models()} == TABLES
    assert triggers_there() == {
        name for model in append_only_models() for name in triggers_of(model, connection.vendor)
    }


def test_neither_a_queryset_nor_sql_changes_a_row(anna, recorded):
    assert bring(anna, "rows/readings", ROWS).status_code == 200
    for table in sorted(TABLES):
        rows = model_of(table).objects.order_by("pk")
        before = list(rows.values())
        assert before, f"nothing in {table} to protect"
        for change in (
            lambda rows=rows: rows.update(**{rows.model._meta.pk.name: rows.first().pk}),
            lambda rows=rows: rows._raw_delete(using="default"),
            lambda table=table: connection.cursor().execute(f'DELETE FROM "{table}"'),
        ):
            with pytest.raises(IntegrityError, match="is never (edited|deleted); "), transaction.atomic():
                change()
        assert list(rows.values()) == before


def test_a_table_made_anew_by_a_migration_is_kept_again(db):
    model = model_of("work_reading")
    drop_triggers(model)
    assert not triggers_there() & set(triggers_of(model, connection.vendor))
    config = apps.get_app_config("work")
    models.signals.post_migrate.send(
        config, app_config=config, verbosity=0, interactive=False, using="default", plan=[], apps=apps
    )
    assert triggers_there() >= set(triggers_of(model, connection.vendor))
