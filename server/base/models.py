"""How often anything on record was written: a number that the database counts."""

from django.db import models


class Changes(models.Model):
    """One row."""

    number = models.BigIntegerField(db_default=0)

    def __str__(self) -> str:
        return str(self.number)
