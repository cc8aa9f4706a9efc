"""Noting a change: who, when, before and after, in the transaction of the change itself."""

from collections.abc import Mapping
from datetime import date, datetime
from typing import Any
from uuid import UUID

from django.db import models, transaction

from base.acting import acted_at, who_acts
from crews.models import Crew
from crews.services import name_of, person_of
from history.models import Change

_UNTOLD = {"id", "crew", "brought", "known_as", "position", "created_at", "noticed", "suspect_from", "fault"}
"""Fields that nobody changes, that say nothing of the thing itself, or whose changes are a record of their own."""


def note(
    crew: Crew, what: str, of: object, name: str, before: Mapping[str, Any], after: Mapping[str, Any],
    site: UUID | None = None,
) -> None:  # fmt: skip
    """Keep what differs between `before` and `after`; nothing where nothing does."""
    keys = [key for key in {**before, **after} if before.get(key) != after.get(key)]
    if not keys:
        return
    author = who_acts()
    Change.objects.create(
        at=acted_at(), crew=crew, what=what, of=str(of), name=name[:160], site=site,
        before={key: before[key] for key in keys if key in before},
        after={key: after[key] for key in keys if key in after},
        by=person_of(author) if author else None, by_name=name_of(author) if author else "",
    )  # fmt: skip


def told(row: models.Model) -> dict[str, Any]:
    """What is said of a row, by field; what an entry holds stands beside the rest."""
    found: dict[str, Any] = {}
    for field in row._meta.concrete_fields:
        if field.name in _UNTOLD or field.primary_key:
            continue
        value = getattr(row, field.attname)
        if value is None or value == "":
            continue
        if isinstance(field, models.ForeignKey):
            found[field.name] = {"id": str(value), "name": str(getattr(row, field.name))}
        elif field.name == "entry":
            found.update(value)
        else:
            found[field.name] = _plain(value)
    return found


def _plain(value: Any) -> Any:
    match value:
        case UUID():
            return str(value)
        case datetime() | date():
            return value.isoformat()
        case _:
            return value


class Remembered(models.Model):
    """A row whose every change by `save` is noted. What comes from a file is made in bulk, and says so itself."""

    class Meta:
        abstract = True

    def whose(self) -> tuple[Crew, UUID | None]:
        """The crew, and the site it stands at, if any."""
        raise NotImplementedError

    def save(self, *args: Any, **kwargs: Any) -> None:
        with transaction.atomic(savepoint=False):
            before = None if self._state.adding else self._as_it_stands()
            super().save(*args, **kwargs)
            crew, site = self.whose()
            what = str(self._meta.verbose_name)
            note(crew, what, self.pk, str(self), told(before) if before else {}, told(self), site)

    def _as_it_stands(self) -> models.Model | None:
        named = [
            f.name for f in self._meta.concrete_fields if isinstance(f, models.ForeignKey) and f.name not in _UNTOLD
        ]
        return type(self)._default_manager.select_related(*named).filter(pk=self.pk).first()
