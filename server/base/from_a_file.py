"""What can have come from a file: by which, and under which id the file had it."""

from django.db import models


class FromAFile(models.Model):
    """`known_as`: the file's id of it, where another record here has that id already."""

    brought = models.ForeignKey("brought.BroughtFile", null=True, on_delete=models.PROTECT, related_name="+")
    known_as = models.UUIDField(null=True)

    class Meta:
        abstract = True
