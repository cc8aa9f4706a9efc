"""What no input may hold, at whichever edge it comes in: half characters, control characters, numbers out of all range.

A lone surrogate is no character (Unicode 15, 3.9, D75) and cannot be written down; nothing that is measured lies
outside 1e-30 to 1e30 in any unit, and beyond that arithmetic itself gives way.
"""

import re
from collections.abc import Iterator
from datetime import date
from typing import Annotated, Any, TypeVar

from pydantic import AfterValidator, AwareDatetime

_When = TypeVar("_When", bound=date)
LEAST, MOST = 1e-30, 1e30
EARLIEST_YEAR, LATEST_YEAR = 2000, 2099
NO_CHARACTER = "holds a character that cannot be written down"
_NO_TEXT = re.compile("[\ud800-\udfff\x00-\x08\x0b\x0c\x0e-\x1f\x7f]")


def implausible(data: Any) -> Iterator[tuple[str, str]]:
    """The path of each thing that cannot be, and what is wrong with it; `data` as JSON gives it, however deep."""
    waiting: list[tuple[str, Any]] = [("", data)]
    while waiting:
        path, value = waiting.pop()
        if isinstance(value, str):
            if _NO_TEXT.search(value):
                yield path, NO_CHARACTER
        elif isinstance(value, int | float) and not isinstance(value, bool):
            if value and not LEAST <= abs(value) <= MOST:
                yield path, "is a number beyond anything that can be measured"
        elif isinstance(value, dict):
            for key, inner in value.items():
                if isinstance(key, str) and _NO_TEXT.search(key):
                    yield path, "has a key with a character that cannot be written down"
                else:
                    waiting.append((f"{path}.{key}" if path else str(key), inner))
        elif isinstance(value, list | tuple):
            waiting += [(f"{path}[{index}]", inner) for index, inner in enumerate(value)]


def of_our_time(at: _When) -> _When:
    """The same. Raises ValueError for one that electricians with this program cannot have lived in."""
    if not EARLIEST_YEAR <= at.year <= LATEST_YEAR:
        raise ValueError(f"must be between {EARLIEST_YEAR} and {LATEST_YEAR}, not in the year {at.year}")
    return at


Time = Annotated[AwareDatetime, AfterValidator(of_our_time)]
"""A time with its offset, of the years that electricians with this program can have lived in."""

Day = Annotated[date, AfterValidator(of_our_time)]
"""A day of the same years."""
