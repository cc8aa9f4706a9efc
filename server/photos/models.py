"""Pictures, kept with the record so that they are in every backup of it, and what they hang on."""

import uuid

from django.db import models

from base.append_only import LONGEST_BY, AppendOnly, Told
from base.from_a_file import FromAFile
from crews.models import Crew
from kit.models import Tester
from sites.models import Circuit, Point, Site


class Photo(AppendOnly, FromAFile):
    """A picture beside what was seen. `sha256`: of the image as it is kept."""

    called = "a picture"
    instead = "take another"

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    crew = models.ForeignKey(Crew, on_delete=models.PROTECT, related_name="photos")
    image = models.BinaryField()
    kind = models.CharField(max_length=20)
    sha256 = models.CharField(max_length=64, default="")
    taken_at = models.DateTimeField()
    by_name = models.CharField(max_length=LONGEST_BY, blank=True)

    class Meta:
        db_table = "sheets_photo"

    def __str__(self) -> str:
        return f"{self.taken_at:%Y-%m-%d %H:%M}"


class PhotoOn(Told):
    """A picture hung on a thing of the record. `on`, `of`: what, by its id; and where that is."""

    called = "where a picture hangs"
    instead = "hang another beside it"

    photo = models.ForeignKey(Photo, on_delete=models.PROTECT, related_name="hung")
    on = models.CharField(max_length=12)
    of = models.UUIDField(db_index=True)
    note = models.CharField(max_length=400, blank=True)
    site = models.ForeignKey(Site, null=True, on_delete=models.PROTECT, related_name="photos")
    circuit = models.ForeignKey(Circuit, null=True, on_delete=models.PROTECT, related_name="photos")
    point = models.ForeignKey(Point, null=True, on_delete=models.PROTECT, related_name="photos")
    tester = models.ForeignKey(Tester, null=True, on_delete=models.PROTECT, related_name="photos")

    def __str__(self) -> str:
        return f"{self.photo} on {self.on}"
