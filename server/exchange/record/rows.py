"""A row of the record as plain data, as it stands in a file, and back."""

import base64
import binascii
import re
from collections.abc import Callable, Iterator, Mapping
from datetime import date, datetime
from typing import Any, TypeVar
from uuid import UUID

from django.core.exceptions import ValidationError
from django.db import models
from django.utils import timezone

from base.clocks import still_to_come
from evenprobe.entries.plausible import of_our_time
from exchange.record.tables import Table
from kit.strangers import as_in_the_file
from proofs.models import Proof

_When = TypeVar("_When", bound=date)
_ID = re.compile(r"[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}")
_WITH_IDS = (models.ForeignKey, models.UUIDField, models.JSONField)
_BY_ANOTHER_CLOCK = {"device_at"}
"""Times that are kept as a device told them, whatever its clock said."""
Ids = Mapping[str, str]
"""From one id to another; those that are not in it stay as they are."""


def written(table: Table, row: Any, ids: Ids) -> dict[str, Any]:
    """A row as it leaves, under the ids the file it came from had."""
    found = renamed_in(table, {field.name: _plain(field, row) for field in table.fields}, ids)
    file = row.brought
    if file is not None and "by_name" in found:
        found["by_name"] = file.unmarked(found["by_name"])
    if file is not None and isinstance(row, Proof) and row.file is None:
        found["brought_at"] = None
    if "held" in found and found.get("tester") is None:
        found["held"] = as_in_the_file(found["held"])
    return found


def _plain(field: "models.Field[Any, Any]", row: Any) -> Any:
    if isinstance(field, models.ForeignKey):
        if field.target_field.name == "id":
            value = getattr(row, field.attname)
        else:
            other = getattr(row, field.name)
            value = None if other is None else other.id
    else:
        value = getattr(row, field.attname)
    match value:
        case UUID():
            return str(value)
        case datetime() | date():
            return value.isoformat()
        case bytes() | memoryview():
            return base64.b64encode(bytes(value)).decode()
        case _:
            return value


def renamed_in(table: Table, row: Mapping[str, Any], ids: Ids) -> dict[str, Any]:
    """A row with its ids called otherwise; what was signed and what somebody wrote stay as they are."""
    if not ids:
        return dict(row)
    holds = {field.name for field in table.fields if isinstance(field, _WITH_IDS)}
    return {key: renamed(value, ids) if key in holds else value for key, value in row.items()}


def renamed(value: Any, ids: Ids) -> Any:
    """The same with every id in it that is called otherwise, in keys and within words too."""
    match value:
        case str():
            return _ID.sub(lambda found: ids.get(found[0], found[0]), value)
        case list():
            return [renamed(one, ids) for one in value]
        case dict():
            return {renamed(key, ids): renamed(one, ids) for key, one in value.items()}
        case _:
            return value


def problems_of(table: Table, row: Any) -> Iterator[tuple[str, str]]:
    """What is wrong with the shape of a row in a file, by its keys."""
    if not isinstance(row, dict):
        yield "", "must be an object"
        return
    wanted, now = {field.name: field for field in table.fields}, timezone.now()
    for key in row.keys() - wanted.keys():
        yield key, "unknown key"
    for key, field in wanted.items():
        if key not in row:
            yield key, "is missing"
            continue
        try:
            value = value_of(field, row[key])
            happened = value if isinstance(value, datetime) and key not in _BY_ANOTHER_CLOCK else None
            if wrong := still_to_come(happened, now):
                yield key, wrong
        except ValidationError as error:
            yield key, " ".join(error.messages).rstrip(".")


def value_of(field: "models.Field[Any, Any]", given: Any) -> Any:
    """What a cell of a file comes to. Raises ValidationError where it is nothing such a field can hold."""
    if isinstance(field, models.ForeignKey):
        return None if given is None and field.null else _uuid(given)
    if given is None and field.null:
        return None
    for kind, read in _READ.items():
        if isinstance(field, kind):
            value = read(given)
            if not isinstance(field, models.JSONField | models.BinaryField):
                field.run_validators(value)
                field.validate(value, None)
            return value
    raise AssertionError(f"{field} is of no kind that leaves")


def _uuid(given: Any) -> UUID:
    try:
        found = UUID(given)
    except (ValueError, TypeError, AttributeError):
        raise ValidationError(f"{given!r} is no id") from None
    if str(found) != given:
        raise ValidationError(f"{given!r} is not written as ids are")
    return found


def _of(kind: type, called: str) -> Callable[[Any], Any]:
    def read(given: Any) -> Any:
        if not isinstance(given, kind) or isinstance(given, bool) is not (kind is bool):
            raise ValidationError(f"must be {called}")
        return given

    return read


def _number(given: Any) -> float:
    if isinstance(given, bool) or not isinstance(given, int | float):
        raise ValidationError("must be a number")
    return given


def _time(given: Any) -> datetime:
    try:
        found = datetime.fromisoformat(given)
    except (ValueError, TypeError):
        raise ValidationError(f"{given!r} is no time with its offset, as 2026-11-24T10:40:00+00:00") from None
    if found.tzinfo is None:
        raise ValidationError(f"{given!r} says no offset")
    return _of_our_time(found)


def _day(given: Any) -> date:
    try:
        found = date.fromisoformat(given)
    except (ValueError, TypeError):
        raise ValidationError(f"{given!r} is no day, as 2026-11-24") from None
    return _of_our_time(found)


def _of_our_time(at: _When) -> _When:
    try:
        return of_our_time(at)
    except ValueError as error:
        raise ValidationError(str(error)) from None


def _bytes(given: Any) -> bytes:
    try:
        return base64.b64decode(given, validate=True)
    except (binascii.Error, TypeError, ValueError):
        raise ValidationError("is not base 64") from None


_READ: Mapping["type[models.Field[Any, Any]]", Callable[[Any], Any]] = {
    models.UUIDField: _uuid,
    models.DateTimeField: _time,
    models.DateField: _day,
    models.BooleanField: _of(bool, "true or false"),
    models.FloatField: _number,
    models.IntegerField: _of(int, "a whole number"),
    models.BinaryField: _bytes,
    models.JSONField: lambda given: given,
    models.CharField: _of(str, "text"),
    models.TextField: _of(str, "text"),
}
"""The first that a field is an instance of; a time is a day too, so it comes before."""
