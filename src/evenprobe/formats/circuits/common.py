"""What every circuit file has, and names that may be there once."""

from collections.abc import Iterable
from typing import Annotated, Literal

from pydantic import Field

from evenprobe.entries import FieldError, Strict
from evenprobe.formats.fields import PracticeName

MOST_PLACES, MOST_SEEN = 300, 5_000
"""Of a run, a chain or a board, and of what was seen along it."""
Volts = Annotated[float, Field(strict=True, ge=0, le=10_000)]
SupplyVolts = Annotated[float, Field(strict=True, gt=0, le=10_000)]


class Circuit(Strict):
    """A file of something that is hunted."""

    format: Literal["even-probe/circuit"]
    version: Literal[1]
    practice: PracticeName


def once(key: str, inner: str, names: Iterable[str], taken: Iterable[str] = ()) -> None:
    seen = set(taken)
    for index, name in enumerate(names):
        if name in seen:
            raise FieldError(f"{key}[{index}]{inner and f'.{inner}'}", f"{name!r} is there twice")
        seen.add(name)
