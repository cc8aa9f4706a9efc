"""How a crew matched the columns of a spreadsheet, remembered by its header."""

from typing import Any

from django.db import models

from crews.models import Crew


class Matching(models.Model):
    """`columns`: by the file's headers which column of the table each is, and in which unit.

    `fixed`: what is the same in every row, by the table's columns. `decimal`, `zone`: how the file is written.
    """

    crew = models.ForeignKey(Crew, on_delete=models.CASCADE, related_name="matchings")
    table = models.CharField(max_length=20)
    header_sha256 = models.CharField(max_length=64)
    columns: Any = models.JSONField()
    fixed: Any = models.JSONField(default=dict)
    decimal = models.CharField(max_length=1)
    zone = models.CharField(max_length=60, blank=True)
    used_at = models.DateTimeField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["crew", "table", "header_sha256"], name="one matching a header")]

    def __str__(self) -> str:
        return f"{self.table}: {', '.join(self.columns)}"
