"""Tables: what a cell says is read again as it was written, and what cannot be read says why."""

import csv
import io
from datetime import UTC, datetime
from zoneinfo import ZoneInfo

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from evenprobe.entries import FormatError, parse
from evenprobe.entries.plausible import implausible
from evenprobe.formats import InstrumentEntry, PointEntry, reading_at
from evenprobe.formats.tables import READINGS, TABLES, How, Unreadable, cell_of, proposed, read_rows
from evenprobe.formats.tables.cells import factor_between, number_in, text_in, time_in, unit_in, yes_no_in
from evenprobe.formats.tables.readings import OF_ENTRY

POINT = How()
COMMA = How(",")
FORMULA = ("=", "+", "-", "@", "\t", "\r", "\n")


@given(st.text(min_size=1))
def test_no_text_leaves_as_a_formula_and_all_comes_back(text):
    assume(text == text.strip() and not list(implausible(text)))
    cell = cell_of(text)
    assert not cell.startswith(FORMULA)
    assert text_in(cell) == text


@given(st.floats(1e-9, 1e12) | st.integers(-(10**6), 10**6).map(float))
def test_a_number_is_read_as_it_was_written(value):
    assert number_in(str(cell_of(value)), "V", POINT) == value
    assert number_in(str(cell_of(value)).replace(".", ","), "V", COMMA) == value


@pytest.mark.parametrize(
    ("cell", "unit", "value"),
    [("119.6 V", "V", 119.6), ("0.12 kV", "V", 120.0), ("400 mV", "V", 0.4), ("1.2 kΩ", "ohm", 1200.0),
     ("48 MΩ", "Mohm", 48.0), ("0.5 GΩ", "Mohm", 500.0), ("30mA", "A", 0.03), ("24", "ms", 24.0),
     ("0.3 s", "ms", 300.0)],
)  # fmt: skip
def test_a_cell_that_says_its_own_unit_is_turned_into_the_column_s(cell, unit, value):
    assert number_in(cell, unit, POINT) == value


def test_a_header_s_unit_is_that_of_the_cells_that_say_none():
    assert number_in("119400", "V", POINT, "mV") == 119.4
    assert number_in("119.4 V", "V", POINT, "mV") == 119.4


@pytest.mark.parametrize(
    ("cell", "how", "why"),
    [("119,6", POINT, "comma"), ("119.6", COMMA, "point"), ("1.234,5", COMMA, "point"), ("1,234.5", POINT, "comma"),
     ("1 234.5", POINT, "marks"), ("230 A", POINT, "is in A"), ("230 volts and more", POINT, "is in volts and more"),
     ("=1+2", POINT, "formula"), ("OL", POINT, "no number"), ("1.2.3", POINT, "marks")],
)  # fmt: skip
def test_what_is_no_number_says_why_and_what_to_do(cell, how, why):
    with pytest.raises(Unreadable, match=why):
        number_in(cell, "V", how)


def test_a_time_has_an_offset_its_own_or_the_file_s():
    assert time_in("2026-11-24T10:40:00+01:00", POINT) == datetime(2026, 11, 24, 9, 40, tzinfo=UTC)
    vienna = How(zone=ZoneInfo("Europe/Vienna"))
    assert time_in("2026-07-24 10:40", vienna) == datetime(2026, 7, 24, 8, 40, tzinfo=UTC)
    for cell, why in (("2026-11-24T10:40", "no offset"), ("24/11/2026", "no time"), ("1926-11-24T10:40Z", "between")):
        with pytest.raises(Unreadable, match=why):
            time_in(cell, POINT)


def test_yes_is_said_in_a_few_ways_and_no_other():
    assert [yes_no_in(cell) for cell in ("yes", " Y", "TRUE", "no", "0")] == [True, True, True, False, False]
    with pytest.raises(Unreadable):
        yes_no_in("maybe")


@pytest.mark.parametrize(("given", "wanted"), [("V", "A"), ("%", "V"), ("ms", "m")])
def test_nothing_is_turned_into_a_unit_of_something_else(given, wanted):
    assert factor_between(given, wanted) is None
    assert unit_in(f"[{given}]") == given


@pytest.mark.parametrize(
    ("content", "path", "why"),
    [("point,°C\nOutlet,Décharge\n".encode("latin-1"), "line 1", "UTF-8"),
     (b"point\nOutlet\nD\xe9charge\n", "line 3", "0xe9"), ("a,b\n".encode("utf-16"), "", "UTF-16"),
     (b"PK\x03\x04rest", "", "spreadsheet"), (b"", "", "no rows"), (b"point\n", "", "no rows"),
     (b"point,point\n1,2\n", "line 1", "two columns"), (b'point\nOutlet\n"open\n', "line 3", "rows")],
)  # fmt: skip
def test_a_file_that_is_no_table_says_where(content, path, why):
    with pytest.raises(FormatError) as refused:
        read_rows(content)
    [(where, text)] = refused.value.problems
    assert (where, why in text) == (path, True), text


def test_rows_are_read_whatever_stands_between_them_and_know_their_lines():
    for between in ",;\t":
        text = f'point{between}note\r\n"Outlet 1{between} door"{between}"two\r\nlines"\r\n\r\nOutlet 2{between}x\r\n'
        sheet = read_rows(b"\xef\xbb\xbf" + text.encode())
        assert (sheet.header, sheet.lines) == (["point", "note"], [2, 5])
        assert sheet.rows[0] == [f"Outlet 1{between} door", "two\r\nlines"]


def test_columns_of_our_own_tables_are_themselves_and_none_is_taken_twice():
    for table in TABLES.values():
        found = proposed(table, table.header)
        wanted = {column.header for column in table.columns if not column.derived}
        assert {name: one.column for name, one in found.items()} == {name: name for name in wanted}
        assert len(set(table.header)) == len(table.header)


def test_a_header_in_other_words_or_units_is_proposed_and_nonsense_is_not():
    found = proposed(READINGS, ["Socket", "Date", "Volts (kV)", "Ohms [V]", "Weather", "red"])
    assert {name: (one.column, one.unit) for name, one in found.items()} == {
        "Socket": ("point", ""), "Date": ("taken at", ""), "Volts (kV)": ("value [V]", "kV"), "red": ("from", ""),
    }  # fmt: skip


OUTLET = parse(PointEntry, {"id": "p1", "kind": "outlet", "terminals": ["L", "N", "PE"]})
READ = (
    {"quantity": "voltage", "mode": "ac", "from": "L", "to": "N", "value": 119.6, "unit": "V", "load_here_a": 9.5},
    {"quantity": "voltage", "mode": "dc", "from": "L", "to": "N", "value": -12.5, "unit": "V"},
    {"quantity": "voltage", "mode": "ac", "from": "L", "to": "PE", "at_least": 50.0, "below": 120.0, "unit": "V"},
    {"quantity": "resistance", "from": "N", "to": "PE", "value": 1200.0, "unit": "ohm", "device": "open"},
    {"quantity": "resistance", "from": "L", "to": "PE", "over_range": True, "device": "open", "note": "=odd"},
    {"quantity": "insulation", "from": "L", "to": "PE", "value": 48e6, "unit": "ohm", "test_v": 500.0},
    {"quantity": "current", "value": 9.7, "min": 9.1, "max": 60.0, "unit": "A", "turns": 10.0, "continuous": True},
    {"quantity": "trip", "value": True, "test_ma": 6.0, "ms": 24.0},
    {"quantity": "lamps", "value": {"L-N": True, "L-PE": True, "N-PE": False}},
    {"quantity": "presence", "from": "L", "sweep": [{"m": 0.0, "alarm": True}, {"m": 2.5, "alarm": False}]},
    {"quantity": "frequency", "value": 59.98, "unit": "Hz"},
)


@pytest.mark.parametrize("entry", READ, ids=lambda entry: entry["quantity"])
def test_a_reading_of_every_kind_is_a_row_and_the_same_reading_again(entry):
    text = io.StringIO()
    csv.writer(text).writerow([column.written(entry) for column in OF_ENTRY])
    [cells] = csv.reader(io.StringIO(text.getvalue(), newline=""))
    again: dict = {}
    for column, cell in zip(OF_ENTRY, cells, strict=True):
        if cell:
            column.put(again, column.read(cell, POINT))
    if "over_range" in entry:
        again.setdefault("unit", entry.get("unit"))
    assert {key: value for key, value in again.items() if value is not None} == entry
    kind = "digital-plug-tester" if entry["quantity"] == "lamps" else "multimeter"
    tester = parse(InstrumentEntry, {"id": "m", "kind": kind})
    assert reading_at(OUTLET, {**again, "id": "r"}, tester).quantity.id == entry["quantity"]


def test_a_row_with_two_values_is_no_reading():
    entry = {"quantity": "voltage"}
    volts, ohms = (column for column in OF_ENTRY if column.header in ("value [V]", "value [ohm]"))
    volts.put(entry, 119.6)
    with pytest.raises(Unreadable, match="beside another value"):
        ohms.put(entry, 4.0)
