"""What every test rests on: the record's tables, which refuse to be emptied, are emptied between tests all the same."""

import pytest
from django.db import connection
from django.db.backends.base.operations import BaseDatabaseOperations
from hypothesis import settings

from tests.tampering import drop_triggers

settings.register_profile("suite", deadline=None)
settings.load_profile("suite")


def pytest_collection_modifyitems(items):
    """What is marked as SQLite's own says nothing of another database."""
    if connection.vendor != "sqlite":
        for item in items:
            if item.get_closest_marker("sqlite"):
                item.add_marker(pytest.mark.skip("the record is in another database"))


@pytest.fixture(autouse=True, scope="session")
def _emptied_between_tests():
    """A flush puts the triggers again itself, for it ends as a migration does."""
    with pytest.MonkeyPatch.context() as patch:
        flush = BaseDatabaseOperations.execute_sql_flush

        def without_triggers(operations, statements):
            from base.append_only import append_only_models

            for model in append_only_models():
                drop_triggers(model)
            flush(operations, statements)

        patch.setattr(BaseDatabaseOperations, "execute_sql_flush", without_triggers)
        yield


@pytest.fixture(autouse=True)
def _quick_hashes(settings):
    """A password's hash is slow on purpose; no test is about how slow."""
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
