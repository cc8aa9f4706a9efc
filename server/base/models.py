"""How often anything on record was written: numbers that the database counts."""

from django.db import models


class Changes(models.Model):
    """Two rows: of everything, and of all but readings and what they come to."""

    EVERYTHING, BESIDE_READINGS = 1, 2

    number = models.BigIntegerField(db_default=0)

    def __str__(self) -> str:
        return str(self.number)
