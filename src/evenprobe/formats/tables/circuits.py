"""Circuits as rows: a row a point, with the circuit, board and supply it is on."""

from evenprobe.formats.tables.columns import FROM_FILE, Column, Table

CIRCUITS = Table(
    "circuits",
    "Circuits and their points",
    (
        Column("site"),
        Column("supply"),
        Column("system"),
        Column("earthing"),
        Column("board", needed=True, also=("panel", "consumer unit")),
        Column("circuit", needed=True, also=("way", "breaker")),
        Column("rating", "number", "A", "rating_a", also=("amps", "device")),
        Column("curve"),
        Column("residual", "number", "mA", "residual_ma"),
        Column("conductor", also=("cable", "wire", "size")),
        Column("point", needed=True, also=("outlet", "socket", "receptacle")),
        Column("kind"),
        Column("room"),
        Column("contacts", "words", key="terminals"),
        Column("cable", "number", "m", "length_m", also=("length",)),
        Column("behind", key="protected_by"),
        FROM_FILE,
    ),
)
