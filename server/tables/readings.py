"""Every reading of a site or of the crew as a row: where, what, how, with what, by whom, and whether it stands."""

from collections.abc import Callable, Iterator, Mapping
from typing import Any

from django.db.models import QuerySet

from evenprobe.entries.units import to_si
from evenprobe.quantities import QUANTITIES
from readings.models import Reading

Entry = Mapping[str, Any]
_AT_A_TIME = 2000


_SI = {"V": "V", "mV": "V", "kV": "V", "ohm": "ohm", "kohm": "ohm", "Mohm": "ohm", "A": "A", "mA": "A", "Hz": "Hz"}
"""By a unit the one without a prefix."""
_USUAL = {quantity.id: (*quantity.written.units, "")[0] for quantity in QUANTITIES.values()}
_SHOWN = ("V", "ohm", "A", "Hz")
"""What a value may be in, a column each."""


def _unit(entry: Entry) -> str:
    return str(entry.get("unit") or _USUAL[entry["quantity"]])


def _value(entry: Entry) -> list[Any]:
    """In volts, ohms, amperes or hertz, or else in words: yes or no, and of lamps those that are lit."""
    given = entry.get("value")
    if given is None:
        return _NOTHING
    if isinstance(given, bool):
        return [*_NO_FIGURE, "yes" if given else "no"]
    if isinstance(given, dict):
        return [*_NO_FIGURE, " ".join(lamp for lamp, on in given.items() if on) or "none"]
    unit = _unit(entry)
    found: list[Any] = list(_NOTHING)
    found[_SHOWN.index(_SI[unit])] = to_si(float(given), unit)
    return found


_NO_FIGURE: list[Any] = [None] * len(_SHOWN)
_NOTHING: list[Any] = [*_NO_FIGURE, None]


def _in_si(key: str) -> Callable[[Entry], float | None]:
    return lambda entry: None if entry.get(key) is None else to_si(float(entry[key]), _unit(entry))


def _pair(entry: Entry) -> str | None:
    pair = entry.get("load_between")
    return " ".join(pair) if pair else None


def _walk(entry: Entry) -> str | None:
    """Metres, an exclamation mark where it sounded."""
    stations = entry.get("sweep")
    return " ".join(f"{s['m']:g}{'!' if s['alarm'] else ''}" for s in stations) if stations else None


_FIRST = {"quantity": "quantity", "from": "from", "to": "to", "mode": "mode"}
_VALUE = (*(f"value [{unit}]" for unit in _SHOWN), "answer")
_REST: Mapping[str, str | Callable[[Entry], Any]] = {
    "at least [V]": _in_si("at_least"),
    "below [V]": _in_si("below"),
    "over range": "over_range",
    "input": "input",
    "load here [A]": "load_here_a",
    "load elsewhere [A]": "load_elsewhere_a",
    "load between": _pair,
    "nothing else on": "nothing_else_on",
    "least [A]": _in_si("min"),
    "most [A]": _in_si("max"),
    "turns": "turns",
    "continuous": "continuous",
    "test voltage [V]": "test_v",
    "test current [mA]": "test_ma",
    "trip time [ms]": "ms",
    "device": "device",
    "neutral": "neutral",
    "far ends": "far_ends",
    "loads": "loads",
    "reference": "reference",
    "reference at": "reference_at",
    "walked [m]": _walk,
    "source": lambda entry: entry.get("source", "typed"),
    "note": "note",
}
"""A column by the key of a reading as the survey format writes it, or by what is made of several."""
_PLACE = (
    "point__circuit__board__supply__site__name",
    "point__circuit__board__name",
    "point__circuit__name",
    "point__name",
)
_BEFORE = ("id", "taken at", "site", "board", "circuit", "point")
_AFTER = ("tester", "by", "status", "corrects")
HEADER = (*_BEFORE, *_FIRST, *_VALUE, *_REST, *_AFTER)


def reading_rows(readings: QuerySet[Reading]) -> Iterator[list[Any]]:
    """What was withdrawn or corrected among them; the withdrawals themselves are no readings."""
    columns = (
        "id", "taken_at", *_PLACE, "entry", "tester__entry", "by_name", "superseded_by__id", "superseded_by__entry",
        "supersedes_id",
    )  # fmt: skip
    rows = readings.exclude(entry=None).order_by("taken_at", "recorded_at", "id").values_list(*columns)
    for id_, at, *place, entry, tester, by, by_id, by_entry, corrects in rows.iterator(chunk_size=_AT_A_TIME):
        status = "counts" if by_id is None else "withdrawn" if by_entry is None else "corrected"
        label = None if tester is None else tester.get("label") or tester["kind"]
        first = [entry.get(key) for key in _FIRST]
        rest = [entry.get(read) if isinstance(read, str) else read(entry) for read in _REST.values()]
        yield [id_, at, *place, *first, *_value(entry), *rest, label, by, status, corrects]
