"""Tables, as any spreadsheet opens and saves them (RFC 4180): what each column is, both ways, and rows read."""

from evenprobe.formats.tables.cells import How, Unreadable, cell_of
from evenprobe.formats.tables.circuits import CIRCUITS
from evenprobe.formats.tables.columns import Column, Table
from evenprobe.formats.tables.dead_tests import DEAD_TEST_ROWS
from evenprobe.formats.tables.kit import KIT
from evenprobe.formats.tables.matching import Matched, proposed
from evenprobe.formats.tables.readings import READINGS
from evenprobe.formats.tables.sheet_of_rows import SheetOfRows, read_rows

TABLES = {table.name: table for table in (READINGS, CIRCUITS, DEAD_TEST_ROWS, KIT)}

__all__ = [
    "CIRCUITS",
    "DEAD_TEST_ROWS",
    "KIT",
    "READINGS",
    "TABLES",
    "Column",
    "How",
    "Matched",
    "SheetOfRows",
    "Table",
    "Unreadable",
    "cell_of",
    "proposed",
    "read_rows",
]
