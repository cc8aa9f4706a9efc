"""Dead tests as rows: where, which test, everything that was typed of it, and what it came to."""

from typing import Any

from evenprobe.deadtests.kinds import DEAD_TESTS
from evenprobe.formats.tables.columns import FROM_FILE, Column, Entry, Table, columns_of

_NOT_ALONE = ("id", "kind", "at", "by", "over_range", "points", "circuits", "note")
"""Keys with a column of their own here."""


def _beyond(entry: Entry) -> Any:
    """Yes, or of several conductors those that were."""
    given = entry.get("over_range")
    return " ".join(given) if isinstance(given, list) else given


def _take_beyond(entry: dict[str, Any], said: str) -> None:
    word = said.casefold()
    if word == "yes":
        entry["over_range"] = True
    elif word != "no":
        entry["over_range"] = said.split()


_OTHERWISE = (
    Column("wiring", key="circuit"),
    Column("previous at 20 °C", "number", "Mohm", "previous_mohm_20c"),
    Column("trip time", "number", "ms", "ms"),
    Column("frequency", "number", "Hz", "hz"),
    Column("voltage", "number", "V", "volts"),
    *(Column(key, "number", "ohm", key) for key in ("r1", "rn", "r2")),
)
_TYPED = (
    *columns_of((kind.entry for kind in DEAD_TESTS.values()), _NOT_ALONE, _OTHERWISE),
    Column("over range", key="over_range", cell=_beyond, take=_take_beyond, also=("OL",)),
    Column("outlets of a ring", "json", key="points"),
    Column("circuits in parallel", "json", key="circuits"),
    Column("note", also=("remarks", "comment")),
)
"""The columns of what was typed of a test."""
DEAD_TEST_ROWS = Table(
    "dead-tests",
    "Dead tests",
    (
        Column("id"),
        Column("made at", "time", also=("date", "time", "when", "tested at")),
        Column("site"),
        Column("board", also=("panel", "consumer unit")),
        Column("circuit", needed=True, key="circuit name", also=("way", "breaker")),
        Column("sheet"),
        Column("line"),
        Column("point", also=("outlet", "socket")),
        Column("kind", needed=True, also=("test",)),
        *_TYPED,
        Column("tester", also=("instrument", "meter")),
        Column("by", key="by", also=("person", "electrician")),
        Column("test", derived=True),
        Column("shown", derived=True),
        Column("result", derived=True),
        Column("limit", derived=True),
        Column("source", derived=True),
        Column("does not count because", derived=True),
        FROM_FILE,
    ),
)
