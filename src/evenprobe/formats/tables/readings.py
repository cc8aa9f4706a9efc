"""Readings as rows: where, what, how, with what, by whom, and whether each stands."""

from collections.abc import Callable
from typing import Any

from evenprobe.entries.units import to_si
from evenprobe.formats.tables.cells import Unreadable
from evenprobe.formats.tables.columns import FROM_FILE, Column, Entry, Table
from evenprobe.quantities import QUANTITIES
from evenprobe.quantities.lamps import ENDS_OF

_SI = {"V": "V", "mV": "V", "kV": "V", "ohm": "ohm", "kohm": "ohm", "Mohm": "ohm", "A": "A", "mA": "A", "Hz": "Hz"}
"""By a unit the one without a prefix."""
_USUAL = {quantity.id: (*quantity.written.units, "")[0] for quantity in QUANTITIES.values()}
_NO_LAMP = "none"


def _unit(entry: Entry) -> str:
    return str(entry.get("unit") or _USUAL[entry["quantity"]])


def _value_in(unit: str) -> Callable[[Entry], float | None]:
    def cell(entry: Entry) -> float | None:
        given = entry["value"]
        if given is True or given is False or isinstance(given, dict) or _SI[_unit(entry)] != unit:
            return None
        return to_si(float(given), _unit(entry))

    return cell


def _take_value(unit: str) -> Callable[[dict[str, Any], Any], None]:
    def take(entry: dict[str, Any], value: Any) -> None:
        if "value" in entry:
            raise Unreadable("stands beside another value in this row")
        entry["value"], entry["unit"] = value, unit

    return take


def _answer(entry: Entry) -> Any:
    """Yes or no, and of lamps those that are lit."""
    given = entry["value"]
    if isinstance(given, dict):
        return " ".join(lamp for lamp, on in given.items() if on) or _NO_LAMP
    return given if isinstance(given, bool) else None


def _take_answer(entry: dict[str, Any], said: str) -> None:
    if "value" in entry:
        raise Unreadable("stands beside a number in this row")
    if entry.get("quantity") == "lamps":
        lit = set(said.split()) - {_NO_LAMP}
        if not lit <= ENDS_OF.keys():
            raise Unreadable(f"must name lamps that are lit, of {', '.join(ENDS_OF)}, or say {_NO_LAMP}")
        entry["value"] = {lamp: lamp in lit for lamp in ENDS_OF}
    elif said.casefold() in ("yes", "no"):
        entry["value"] = said.casefold() == "yes"
    else:
        raise Unreadable("must be yes or no")


def _in_si(key: str) -> Callable[[Entry], float]:
    return lambda entry: to_si(float(entry[key]), _unit(entry))


def _take_in(key: str, unit: str) -> Callable[[dict[str, Any], Any], None]:
    def take(entry: dict[str, Any], value: Any) -> None:
        entry[key] = value
        entry.setdefault("unit", unit)

    return take


def _pair(entry: Entry) -> str:
    return " ".join(entry["load_between"])


def _take_pair(entry: dict[str, Any], said: str) -> None:
    entry["load_between"] = said.split()


def _walk(entry: Entry) -> str:
    """Metres, an exclamation mark where it sounded."""
    return " ".join(f"{s['m']:.12g}{'!' if s['alarm'] else ''}" for s in entry["sweep"])


def _take_walk(entry: dict[str, Any], said: str) -> None:
    try:
        entry["sweep"] = [{"m": float(one.rstrip("!")), "alarm": one.endswith("!")} for one in said.split()]
    except ValueError:
        raise Unreadable("must be metres with a space between them, an exclamation mark where it sounded") from None


def _only_true(key: str) -> Callable[[dict[str, Any], Any], None]:
    def take(entry: dict[str, Any], value: Any) -> None:
        if value:
            entry[key] = True

    return take


_BEFORE = (
    Column("id"),
    Column("taken at", "time", key="at", also=("date", "time", "when", "measured at", "timestamp")),
    Column("site"),
    Column("board", also=("panel", "consumer unit")),
    Column("circuit"),
    Column("point", needed=True, also=("outlet", "socket", "location", "receptacle")),
)
_OF_ENTRY: tuple[Column, ...] = (
    Column("quantity", needed=True, also=("measured", "type", "test")),
    Column("from", key="from", also=("first probe", "red")),
    Column("to", key="to", also=("second probe", "black")),
    Column("mode"),
    *(
        Column("value", "number", unit, "value", cell=_value_in(unit), take=_take_value(unit), also=also)
        for unit, also in (("V", ("volts", "voltage")), ("ohm", ("ohms", "resistance")), ("A", ("amps", "current")),
                           ("Hz", ("hertz", "frequency")))
    ),
    Column("answer", key="value", cell=_answer, take=_take_answer),
    Column("at least", "number", "V", "at_least", cell=_in_si("at_least"), take=_take_in("at_least", "V")),
    Column("below", "number", "V", "below", cell=_in_si("below"), take=_take_in("below", "V")),
    Column("over range", "yes-no", key="over_range", take=_only_true("over_range"), also=("OL",)),
    Column("input"),
    Column("load here", "number", "A", "load_here_a"),
    Column("load elsewhere", "number", "A", "load_elsewhere_a"),
    Column("load between", key="load_between", cell=_pair, take=_take_pair),
    Column("nothing else on", "yes-no", key="nothing_else_on", take=_only_true("nothing_else_on")),
    Column("least", "number", "A", "min", cell=_in_si("min"), take=_take_in("min", "A")),
    Column("most", "number", "A", "max", cell=_in_si("max"), take=_take_in("max", "A")),
    Column("turns", "number"),
    Column("continuous", "yes-no", take=_only_true("continuous")),
    Column("test voltage", "number", "V", "test_v"),
    Column("test current", "number", "mA", "test_ma"),
    Column("trip time", "number", "ms", "ms"),
    Column("device"),
    Column("neutral"),
    Column("far ends", key="far_ends"),
    Column("loads"),
    Column("reference"),
    Column("reference at", key="reference_at"),
    Column("walked", unit="m", key="sweep", cell=_walk, take=_take_walk),
    Column("source"),
    Column("note", also=("remarks", "comment")),
)  # fmt: skip
_AFTER = (
    Column("tester", also=("instrument", "meter")),
    Column("by", also=("person", "electrician", "name")),
    Column("status"),
    Column("corrects"),
    FROM_FILE,
)
READINGS = Table("readings", "Readings", (*_BEFORE, *_OF_ENTRY, *_AFTER))
OF_ENTRY = _OF_ENTRY
"""The columns of what was measured; the others say where, with what and by whom."""
