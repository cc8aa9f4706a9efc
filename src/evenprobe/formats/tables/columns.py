"""A column of a table, both ways: what of an entry stands in its cells, and where what stands there goes."""

import json
import re
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any, Literal

from evenprobe.entries import FormatError, Strict, parse_json
from evenprobe.formats.tables.cells import (
    How,
    Unreadable,
    cell_of,
    day_in,
    number_in,
    text_in,
    time_in,
    yes_no_in,
)

Sort = Literal["number", "yes-no", "text", "time", "day", "words", "numbers", "json"]
Entry = Mapping[str, Any]
_UNIT_OF = {
    "v": "V", "ohm": "ohm", "mohm": "Mohm", "a": "A", "ma": "mA", "ms": "ms", "m": "m", "c": "°C", "percent": "%",
    "uf": "uF", "w": "W", "hz": "Hz",
}  # fmt: skip
"""By the end of a key, as the formats call what is in a unit."""


@dataclass(frozen=True)
class Column:
    """`key`: of the entry it stands for. `also`: other words for it. `derived`: said of a row, never brought in.

    `cell`: what stands in it, where that is not what the key holds; nothing does where there is no such `key`.
    """

    name: str
    sort: Sort = "text"
    unit: str = ""
    key: str = ""
    also: tuple[str, ...] = ()
    derived: bool = False
    needed: bool = False
    cell: Callable[[Entry], Any] | None = None
    take: Callable[[dict[str, Any], Any], None] | None = None

    @property
    def header(self) -> str:
        return f"{self.name} [{self.unit}]" if self.unit else self.name

    def written(self, entry: Entry) -> Any:
        """What stands in the cell."""
        value = entry.get(self.key or self.name)
        if value is not None and self.cell:
            value = self.cell(entry)
        return None if value is None else self.cell_for(value)

    def cell_for(self, value: Any) -> Any:
        """The same of a value that is known."""
        if isinstance(value, _SEVERAL) and self.sort in _WRITTEN:
            return _WRITTEN[self.sort](value)
        return cell_of(value)

    def read(self, cell: str, how: How, unit: str = "") -> Any:
        """What a cell says. Raises Unreadable. `unit`: of the file's column, where it is another."""
        match self.sort:
            case "number":
                return number_in(cell, self.unit, how, unit)
            case "numbers":
                return [number_in(one, self.unit, how) for one in cell.replace(";", " ").split()]
            case "yes-no":
                return yes_no_in(cell)
            case "time":
                return time_in(cell, how)
            case "day":
                return day_in(cell).isoformat()
            case "words":
                return text_in(cell).split()
            case "json":
                return _json_in(cell)
            case "text":
                return text_in(cell)

    def put(self, entry: dict[str, Any], value: Any) -> None:
        if self.take:
            self.take(entry, value)
        else:
            entry[self.key or self.name] = value


def _json_in(cell: str) -> Any:
    try:
        return parse_json(text_in(cell))
    except FormatError:
        raise Unreadable("is no JSON") from None


_SEVERAL = (list, tuple, dict)
_WRITTEN: Mapping[str, Callable[[Any], Any]] = {
    "words": lambda given: cell_of(" ".join(map(str, given))),
    "numbers": lambda given: " ".join(f"{one:.12g}" for one in given),
    "json": lambda given: json.dumps(given, separators=(",", ":"), ensure_ascii=False),
}


@dataclass(frozen=True)
class Table:
    """`name`: as it is asked for. `title`: what is in it."""

    name: str
    title: str
    columns: Sequence[Column]

    @property
    def header(self) -> list[str]:
        return [column.header for column in self.columns]

    @cached_property
    def by_header(self) -> Mapping[str, Column]:
        return {column.header: column for column in self.columns}

    def header_of(self, path: str) -> str:
        """The header of the column that a key of an entry stands in, as a problem names it; else the path itself."""
        key = re.split(r"[.\[]", path)[0]
        return next((column.header for column in self.columns if (column.key or column.name) == key), path)

    def row(self, entry: Entry) -> list[Any]:
        """The cells of an entry."""
        cells = []
        for key, cell, column in self._plan:
            value = entry.get(key)
            if value is not None and cell is not None:
                value = cell(entry)
            plain = value is None or (value.__class__ is str and value[:1].isalnum())
            cells.append(value if plain else column.cell_for(value))
        return cells

    def agrees(self, entry: Entry, there: Entry) -> bool:
        """Whether what is on record says what a row does, wherever the row says anything."""
        said = ((column.written(entry), column) for column in self.columns if not column.derived)
        return all(cell is None or cell == column.written(there) for cell, column in said)

    @cached_property
    def _plan(self) -> Sequence[tuple[str, Callable[[Entry], Any] | None, Column]]:
        return [(column.key or column.name, column.cell, column) for column in self.columns]


FROM_FILE = Column("from file", derived=True)
"""Of what was brought in: which file, and by whom."""


def columns_of(
    models: Iterable[type[Strict]], leave_out: Iterable[str], otherwise: Sequence[Column] = ()
) -> Iterator[Column]:
    """A column for every key of some entries, each once, in their order: its name in words, its unit from the key.

    `otherwise`: columns of keys that are called something else.
    """
    own = {column.key: column for column in otherwise}
    seen = set(leave_out)
    for model in models:
        for key, schema in model.model_json_schema()["properties"].items():
            if key not in seen:
                seen.add(key)
                yield own.get(key) or _of_key(key, schema)


def _of_key(key: str, schema: Mapping[str, Any]) -> Column:
    *words, last = key.split("_")
    unit = _UNIT_OF.get(last, "") if words else ""
    return Column(" ".join(words if unit else [*words, last]), _sort_of(schema), unit, key)


def _sort_of(schema: Mapping[str, Any]) -> Sort:
    of = schema.get("items", {}).get("type")
    match schema.get("type"), of, schema.get("format"):
        case "number" | "integer", _, _:
            return "number"
        case "boolean", _, _:
            return "yes-no"
        case "array", "number", _:
            return "numbers"
        case "array", "string", _:
            return "words"
        case "array", _, _:
            return "json"
        case "string", _, "date":
            return "day"
        case _:
            return "yes-no" if schema.get("const") is True else "text"
