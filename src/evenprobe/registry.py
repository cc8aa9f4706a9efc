"""A registry: rows of one sort by their id, such as the kinds of tester or the practices, in the order they were added.

Adding one is adding a row to it, or a module that does so to its package; nothing else has to know.
"""

from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from importlib import import_module
from pkgutil import iter_modules
from typing import Any, ClassVar, TypeVar


class Listed:
    """A row of a registry: written as its id, equal only to itself, and the same one again after pickling."""

    id: str
    listed_as: ClassVar[str]
    """What its registry is of."""

    def __str__(self) -> str:
        return self.id

    def __repr__(self) -> str:
        return f"<{self.listed_as} {self.id}>"

    def __reduce__(self) -> tuple[Any, ...]:
        return _row, (self.listed_as, self.id)


Row = TypeVar("Row", bound=Listed)


class Registry(Mapping[str, Row]):
    """Rows by id.

    Parameters
    ----------
    of
        What one of them is called, for messages.
    order
        What they are in order of; of when they were added, where it is left out.

    Raises
    ------
    ValueError
        From `add`, where there is a row of that id already.
    KeyError
        For an id that there is no row of, naming those there are.
    """

    def __init__(self, of: str, order: Callable[[Row], Any] | None = None) -> None:
        self.of = of
        self._order = order
        self._rows: dict[str, Row] = {}
        _REGISTRIES[of] = self

    def add(self, row: Row) -> Row:
        """The row, which is in the registry from now on."""
        if row.id in self._rows:
            raise ValueError(f"there is a {self.of} {row.id!r} already")
        self._rows[row.id] = row
        return row

    @contextmanager
    def with_row(self, row: Row) -> Iterator[Row]:
        """The row in the registry for as long as this lasts."""
        self.add(row)
        try:
            yield row
        finally:
            del self._rows[row.id]

    def __getitem__(self, name: str) -> Row:
        try:
            return self._rows[name]
        except KeyError:
            raise KeyError(f"{name!r} is no {self.of}; use one of {', '.join(self._rows)}") from None

    def __iter__(self) -> Iterator[str]:
        order = self._order
        return iter(self._rows if order is None else sorted(self._rows, key=lambda name: order(self._rows[name])))

    def __len__(self) -> int:
        return len(self._rows)


_REGISTRIES: dict[str, Registry[Any]] = {}


def _row(of: str, name: str) -> Any:
    return _REGISTRIES[of][name]


def add_modules_of(package: str, path: Any) -> None:
    """Import every module of a package, each of which adds its row to a registry."""
    for module in iter_modules(path):
        import_module(f"{package}.{module.name}")
