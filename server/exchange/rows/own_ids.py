"""Which id a row of a file has here: its own, another where another crew has it, or one made of what it says."""

from collections.abc import Iterable
from typing import Any
from uuid import UUID, uuid5

from django.db.models import Model

from crews.models import Crew
from exchange.ids import own_id
from exchange.rows.fates import Twice

_AT_A_TIME = 500


class OwnIds:
    """Of the rows of one table."""

    def __init__(self, crew: Crew, model: type[Model], way: str, written: Iterable[str | None]) -> None:
        self._crew = crew
        given = [UUID(one) for one in written if one and _is_id(one)]
        manager = model._default_manager
        self._taken: set[UUID] = set()
        for start in range(0, len(given), _AT_A_TIME):
            some = given[start : start + _AT_A_TIME]
            others = manager.filter(id__in=some).exclude(**{way: crew})
            self._taken |= set(others.values_list("id", flat=True))

    def of(self, written: str | None, under: UUID, content: dict[str, Any]) -> tuple[UUID, UUID | None]:
        """The id here, and the file's where that is another."""
        if not written:
            return uuid5(under, "\n".join(f"{key}={content[key]}" for key in sorted(content))), None
        if not _is_id(written):
            return uuid5(self._crew.id, written), None
        meant = UUID(written)
        return (own_id(self._crew, str(meant)), meant) if meant in self._taken else (meant, None)


def _is_id(written: str) -> bool:
    try:
        UUID(written)
    except ValueError:
        return False
    return True


def once(lines: dict[Any, int], id_: object, line: int) -> None:
    """Raises Twice where a line before has the same id."""
    if id_ in lines:
        raise Twice(("", f"the same as on line {lines[id_]}"))
    lines[id_] = line
