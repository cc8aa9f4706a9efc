"""The record is append-only: what was written down is neither edited nor deleted, only followed by what corrects it."""

from typing import Any

from django.conf import settings
from django.db import models


class AppendOnly(models.Model):
    """`what` names it in the refusal; `instead` says what to do."""

    what = "a record"
    instead = "write down what corrects it"

    recorded_at = models.DateTimeField(auto_now_add=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.PROTECT)
    by_name = models.CharField(max_length=160, blank=True)

    class Meta:
        abstract = True

    def save(self, *args: Any, **kwargs: Any) -> None:
        if not self._state.adding:
            raise RuntimeError(f"{self.what} is never edited; {self.instead}")
        super().save(*args, **kwargs)

    def delete(self, *_args: Any, **_kwargs: Any) -> tuple[int, dict[str, int]]:
        raise RuntimeError(f"{self.what} is never deleted; {self.instead}")
