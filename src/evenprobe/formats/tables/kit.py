"""Kit as rows: testers, leads and adapters, with what the register knows of each."""

from evenprobe.formats.kit import InstrumentEntry, LeadsEntry
from evenprobe.formats.tables.columns import FROM_FILE, Column, Table, columns_of

_OTHERWISE = (Column("leads", "number", "ohm", "ohm"),)
_OF_KIT = tuple(columns_of((InstrumentEntry, LeadsEntry), ("id", "kind", "label", "leads", "adapters"), _OTHERWISE))
"""The columns of what is known of a tester, of leads or of an adapter."""
KIT = Table(
    "kit",
    "Kit",
    (
        Column("id"),
        Column("label", needed=True, also=("name", "tester")),
        Column("kind", needed=True, also=("type",)),
        *_OF_KIT,
        Column("usual leads"),
        Column("faulty"),
        Column("suspect from", "time"),
        Column("in use", "yes-no", derived=True),
        FROM_FILE,
    ),
)
