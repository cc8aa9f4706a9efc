"""Many rows written so that nobody else who writes waits long: a step holds the database as long as it takes to store.

What goes into the database is prepared before a step begins; only then is it locked. Another writer that met the lock
looks again after a tenth of a second at most, and finds it open more often than not.
"""

import time
from collections.abc import Iterable
from itertools import groupby, islice
from typing import Any

from django.db import IntegrityError, connections, models, router, transaction
from django.db.models.sql import InsertQuery

from base.problems import Refused

_AT_A_TIME = 240
_GAP_S = 0.002
"""For whoever waits; the next step is prepared in a longer one."""


def write(rows: Iterable[models.Model]) -> None:
    """New rows in their order. Raises Refused where somebody else wrote one of them meanwhile."""
    for model, of_it in groupby(rows, key=type):
        while some := list(islice(of_it, _AT_A_TIME)):
            _store(model, *_prepared(model, some))
            time.sleep(_GAP_S)


def _prepared(model: type[models.Model], rows: list[models.Model]) -> tuple[str, list[list[Any]]]:
    """The statement for one row, and the values of each."""
    connection = connections[router.db_for_write(model)]
    fields = [field for field in model._meta.concrete_fields if not isinstance(field, models.AutoField)]
    query = InsertQuery(model)
    query.insert_values(fields, rows[:1])
    [(sql, _)] = query.get_compiler(connection=connection).as_sql()
    return sql, [[field.get_db_prep_save(field.pre_save(row, True), connection) for field in fields] for row in rows]


def _store(model: type[models.Model], sql: str, values: list[list[Any]]) -> None:
    using = router.db_for_write(model)
    try:
        with transaction.atomic(using), connections[using].cursor() as cursor:
            cursor.executemany(sql, values)
    except IntegrityError:
        text = "somebody else changed this meanwhile; bring the same file in again"
        raise Refused(("", text), status=409) from None
