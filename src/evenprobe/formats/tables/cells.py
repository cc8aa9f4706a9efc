"""What stands in a cell, and what is read out of one: numbers with their unit, yes or no, times, words.

Text never leaves as a formula: where it begins like one, an apostrophe stands before it (OWASP, on CSV injection), and
is taken away again when it comes in.
"""

import re
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import UTC, date, datetime, tzinfo
from typing import Any, Literal

from evenprobe.entries.plausible import EARLIEST_YEAR, LATEST_YEAR, implausible

_FORMULA = re.compile(r"'*[=+\-@\t\r\n]")
_GUARDED = re.compile(r"'+[=+\-@\t\r\n]")
_EXACT = 2.0**53
"""Below it a whole number is written without a point and is still the same."""
_NUMBER = re.compile(r"(?P<digits>[-+]?(?:\d[\d., \u00a0\u202f']*|[.,]\d+)(?:[eE][-+]?\d+)?)\s*(?P<unit>[^\d\s.,].*)?")
_YES = {"yes", "y", "true", "x", "1"}
_NO = {"no", "n", "false", "0"}

UNITS: Mapping[str, tuple[str, float]] = {
    "uV": ("V", 1e-6), "mV": ("V", 1e-3), "V": ("V", 1.0), "kV": ("V", 1e3),
    "mohm": ("ohm", 1e-3), "ohm": ("ohm", 1.0), "kohm": ("ohm", 1e3), "Mohm": ("ohm", 1e6), "Gohm": ("ohm", 1e9),
    "mA": ("A", 1e-3), "A": ("A", 1.0), "kA": ("A", 1e3), "Hz": ("Hz", 1.0), "kHz": ("Hz", 1e3),
    "ms": ("s", 1e-3), "s": ("s", 1.0), "mm": ("m", 1e-3), "cm": ("m", 1e-2), "m": ("m", 1.0), "km": ("m", 1e3),
    "uF": ("F", 1e-6), "nF": ("F", 1e-9), "mF": ("F", 1e-3), "W": ("W", 1.0), "kW": ("W", 1e3), "°C": ("°C", 1.0),
    "%": ("%", 1.0),
}  # fmt: skip
"""By how a unit is written: of which it is, and by what factor."""
_SPELLED = {"Ω": "ohm", "Ohm": "ohm", "µ": "u", "μ": "u", "degC": "°C"}


class Unreadable(ValueError):
    """What is wrong with a cell, and what to do."""


@dataclass(frozen=True)
class How:
    """How a file is written: its decimal mark, and which offset its times have that say none."""

    decimal: Literal[".", ","] = "."
    zone: tzinfo | None = None


def cell_of(value: Any) -> Any:
    """What a value is as a cell; numbers are left to the writer, which writes them so that they are read the same.

    Parameters
    ----------
    value
        A text, number, yes or no, time, day, or None for what is not known.

    Returns
    -------
    str, float, int or None
        Text that would be taken for a formula with an apostrophe before it.

    Examples
    --------
    >>> cell_of(231.0), cell_of(True), cell_of("=HYPERLINK(1)")
    (231, 'yes', "'=HYPERLINK(1)")
    """
    match value:
        case str():
            return value if value[:1].isalnum() or not _FORMULA.match(value) else f"'{value}"
        case bool():
            return "yes" if value else "no"
        case float():
            return int(value) if value.is_integer() and abs(value) < _EXACT else value
        case None | int():
            return value
        case datetime() | date():
            return value.isoformat()
        case _:
            return cell_of(str(value))


def text_in(cell: str) -> str:
    """The text of a cell, without the apostrophe that kept it from being a formula."""
    for _, why in implausible(cell):
        raise Unreadable(why)
    return cell[1:] if _GUARDED.match(cell) else cell.strip()


def unit_in(written: str) -> str | None:
    """The unit that is meant by what stands behind a number or in a header, None for what is none."""
    text = written.strip().strip("[]()").strip()
    for spelled, plain in _SPELLED.items():
        text = text.replace(spelled, plain)
    return text if text in UNITS else None


def factor_between(given: str, wanted: str) -> float | None:
    """By what a number in one unit becomes one in another; None where they are of different things."""
    if given == wanted:
        return 1.0
    (of, factor), (of_wanted, factor_wanted) = UNITS[given], UNITS.get(wanted, ("", 1.0))
    return factor / factor_wanted if of == of_wanted else None


def number_in(cell: str, unit: str, how: How, header_unit: str = "") -> float:
    """A number in the column's unit; one that says its own, or whose header says another, is turned into it."""
    found = _NUMBER.fullmatch(cell.strip())
    if found is None:
        if _FORMULA.match(cell):
            raise Unreadable("is a formula, and only what it comes to can be brought in: save the values")
        raise Unreadable("is no number")
    own, factor = found["unit"] or header_unit, 1.0
    if own:
        known = unit_in(own)
        between = None if known is None else factor_between(known, unit)
        if between is None:
            raise Unreadable(f"is in {own.strip()}, and this column is in {unit or 'plain numbers'}")
        factor = between
    value = float(_digits(found["digits"], how))
    return value if factor == 1.0 else float(f"{value * factor:.12g}")


def _digits(digits: str, how: How) -> str:
    other = "," if how.decimal == "." else "."
    if other in digits and how.decimal == ".":
        raise Unreadable("has a comma: write a decimal point, or say that this file has decimal commas")
    if other in digits:
        raise Unreadable("has a point, and this file has decimal commas")
    if re.search(r"[\s']", digits.strip()) or digits.count(how.decimal) > 1:
        raise Unreadable("has marks between its digits: leave them out")
    return digits.replace(how.decimal, ".")


def yes_no_in(cell: str) -> bool:
    """Yes or no, in the few words there are for it."""
    word = cell.strip().casefold()
    if word not in _YES | _NO:
        raise Unreadable("must be yes or no")
    return word in _YES


def time_in(cell: str, how: How) -> datetime:
    """A time with its offset, or with the file's."""
    try:
        found = datetime.fromisoformat(cell.strip())
    except ValueError:
        raise Unreadable("is no time as 2026-11-24T10:40:00+01:00") from None
    if found.tzinfo is None:
        if how.zone is None:
            raise Unreadable("says no offset: write +01:00 behind it, or say which this file has")
        found = found.replace(tzinfo=how.zone)
    if not EARLIEST_YEAR <= found.year <= LATEST_YEAR:
        raise Unreadable(f"is not between {EARLIEST_YEAR} and {LATEST_YEAR}")
    return found.astimezone(UTC)


def day_in(cell: str) -> date:
    """A day."""
    try:
        return date.fromisoformat(cell.strip())
    except ValueError:
        raise Unreadable("is no day as 2026-11-24") from None
