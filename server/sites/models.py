"""Sites and what stands on them: supplies, boards, circuits as runs, points in cable order."""

import uuid
from typing import Any

from django.db import models
from django.utils import timezone

from base.from_a_file import FromAFile
from crews.models import Crew
from history.noting import Remembered


class Placed(Remembered, FromAFile):
    """A place on record. Taken out of use and brought back, never deleted: what was recorded there stays."""

    retired_at = models.DateTimeField(null=True)

    class Meta:
        abstract = True

    @property
    def stands_at(self) -> "Site":
        """The site it is of."""
        raise NotImplementedError

    def whose(self) -> tuple[Crew, uuid.UUID]:
        return self.stands_at.crew, self.stands_at.id


class Site(Placed):
    """`loose`: where outlets stand that were measured before anybody said where they belong."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    crew = models.ForeignKey(Crew, on_delete=models.CASCADE, related_name="sites")
    name = models.CharField(max_length=120)
    practice = models.CharField(max_length=20)
    loose = models.BooleanField(default=False)
    created_at = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ["created_at", "name"]

    def __str__(self) -> str:
        return self.name

    @property
    def stands_at(self) -> "Site":
        return self


class Supply(Placed):
    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    site = models.ForeignKey(Site, on_delete=models.CASCADE, related_name="supplies")
    name = models.CharField(max_length=120)
    system = models.CharField(max_length=20)
    earthing = models.CharField(max_length=8)
    position = models.PositiveIntegerField(default=0)

    class Meta:
        ordering = ["position", "name"]

    def __str__(self) -> str:
        return self.name

    @property
    def stands_at(self) -> "Site":
        return self.site


class Board(Placed):
    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    supply = models.ForeignKey(Supply, on_delete=models.CASCADE, related_name="boards")
    name = models.CharField(max_length=120)
    position = models.PositiveIntegerField(default=0)

    class Meta:
        ordering = ["position", "name"]

    def __str__(self) -> str:
        return self.name

    @property
    def stands_at(self) -> "Site":
        return self.supply.site


class Circuit(Placed):
    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    board = models.ForeignKey(Board, on_delete=models.CASCADE, related_name="circuits")
    name = models.CharField(max_length=120)
    rating_a = models.FloatField(null=True)
    conductor = models.CharField(max_length=20, blank=True)
    residual_ma = models.FloatField(null=True)
    """Rated residual current of the device that protects it."""
    curve = models.CharField(max_length=20, blank=True)
    """Trip curve."""
    noticed: Any = models.JSONField(default=list)
    """What people noticed of it and nothing has explained yet: ids of symptoms."""
    position = models.PositiveIntegerField(default=0)

    class Meta:
        ordering = ["position", "name"]

    def __str__(self) -> str:
        return self.name

    @property
    def stands_at(self) -> "Site":
        return self.board.stands_at


IN_ORDER = (
    "circuit__board__supply__position", "circuit__board__position", "circuit__board__name",
    "circuit__position", "circuit__name", "position", "name",
)  # fmt: skip
"""Points of a site board by board, circuit by circuit, in cable order."""
SITE_BY_SITE = ("circuit__board__supply__site__created_at", *IN_ORDER)


class PointsInUse(models.QuerySet["Point"]):
    """What is asked of points wherever several are listed."""

    def in_use(self) -> "PointsInUse":
        """Neither a point itself nor anything it hangs on is retired."""
        over = ("", "circuit__", "circuit__board__", "circuit__board__supply__", "circuit__board__supply__site__")
        return self.filter(**{f"{place}retired_at": None for place in over})


class Point(Placed):
    """`length_m`: cable from the board to here. `terminals`: as the survey format names them.

    `protected_by`: the protective outlet that it is behind, by name.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    circuit = models.ForeignKey(Circuit, on_delete=models.CASCADE, related_name="points")
    name = models.CharField(max_length=120)
    kind = models.CharField(max_length=20)
    terminals: Any = models.JSONField()
    length_m = models.FloatField(null=True)
    room = models.CharField(max_length=120, blank=True)
    protected_by = models.CharField(max_length=120, blank=True)
    position = models.PositiveIntegerField(default=0)

    objects = PointsInUse.as_manager()

    class Meta:
        ordering = ["position", "name"]

    def __str__(self) -> str:
        return self.name

    @property
    def stands_at(self) -> "Site":
        return self.circuit.stands_at
