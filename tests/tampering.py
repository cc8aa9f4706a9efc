"""What nobody can do through the application or its database's own rules: change what is on the record."""

from contextlib import contextmanager

from django.db import connection


def drop_triggers(model):
    from base.append_only import triggers_of

    on = f' ON "{model._meta.db_table}"' if connection.vendor == "postgresql" else ""
    with connection.cursor() as cursor:
        for name in triggers_of(model, connection.vendor):
            cursor.execute(f'DROP TRIGGER IF EXISTS "{name}"{on}')


@contextmanager
def tampering(model):
    """The model's rows as a queryset that may be changed meanwhile."""
    from base.append_only import triggers_of

    drop_triggers(model)
    yield model.objects.all()
    with connection.cursor() as cursor:
        for statement in triggers_of(model, connection.vendor).values():
            cursor.execute(statement)
