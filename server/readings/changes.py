"""What a point's answer hangs on: a change of any of it makes the answer that is kept beside the point an old one.

The database itself counts, by a trigger a table, whoever makes the change and however many rows at once; so nothing
that writes has to remember to.
"""

from collections.abc import Iterator, Sequence
from typing import Any

from base.triggers import Trigger, missing, put, take_off

_OF_A_SITE = (
    "SELECT c.id FROM sites_circuit c JOIN sites_board b ON b.id = c.board_id "
    "JOIN sites_supply s ON s.id = b.supply_id WHERE s.site_id = NEW.id"
)
_OF_A_SUPPLY = "SELECT c.id FROM sites_circuit c JOIN sites_board b ON b.id = c.board_id WHERE b.supply_id = NEW.id"
_OF_A_PROOF = (
    "SELECT circuit_id FROM proofs_proof WHERE id = {proof} "
    "UNION SELECT circuit_id FROM sheets_sheet WHERE proof_id = {proof}"
)
_OF_A_TESTER = (
    "SELECT s.circuit_id FROM sheets_sheet s JOIN sheets_sheetentry e ON e.sheet_id = s.id WHERE e.tester_id = NEW.id "
    "UNION SELECT p.circuit_id FROM proofs_proof p JOIN proofs_proofevent e ON e.proof_id = p.id "
    "WHERE e.tester_id = NEW.id "
    "UNION SELECT s.circuit_id FROM sheets_sheet s JOIN proofs_proofevent e ON e.proof_id = s.proof_id "
    "WHERE e.tester_id = NEW.id"
)


def _on(circuits: str) -> str:
    """A query of the points on circuits, by a query of these."""
    return f"SELECT id FROM sites_point WHERE circuit_id IN ({circuits})"


_CHANGED, _EITHER = ("UPDATE",), ("INSERT", "UPDATE")
_HANGS_ON: Sequence[tuple[str, Sequence[str], str]] = (
    ("work_reading", _EITHER, "NEW.point_id"),
    ("sheets_sheetentry", _EITHER, _on("SELECT circuit_id FROM sheets_sheet WHERE id = NEW.sheet_id")),
    ("sheets_sheet", _EITHER, _on("NEW.circuit_id")),
    ("proofs_proofevent", _EITHER, _on(_OF_A_PROOF.format(proof="NEW.proof_id"))),
    ("proofs_proof", _EITHER, _on(_OF_A_PROOF.format(proof="NEW.id"))),
    ("kit_tester", _CHANGED, f"SELECT point_id FROM work_reading WHERE tester_id = NEW.id UNION {_on(_OF_A_TESTER)}"),
    ("sites_point", ("INSERT",), _on("NEW.circuit_id")),
    ("sites_point", _CHANGED, _on("NEW.circuit_id, OLD.circuit_id")),
    ("sites_circuit", _CHANGED, _on("NEW.id")),
    ("sites_board", _CHANGED, _on("SELECT id FROM sites_circuit WHERE board_id = NEW.id")),
    ("sites_supply", _CHANGED, _on(_OF_A_SUPPLY)),
    ("sites_site", _CHANGED, _on(_OF_A_SITE)),
)
"""A table, the ways of changing a row of it, and the points that such a row, `NEW`, is about.

What is never changed counts all the same if somebody changes it.
"""
_TABLE = "work_pointstanding"
_COUNT = f"UPDATE {_TABLE} SET changes = changes + 1 WHERE point_id IN ({{points}})"
_BEGIN = f"INSERT INTO {_TABLE} (point_id) VALUES (NEW.id)"
"""Every point has an answer kept beside it, from the first on an old one."""


def _triggers() -> Iterator[Trigger]:
    yield Trigger("sites_point_begins", "sites_point", "INSERT", _BEGIN)
    for table, ways, points in _HANGS_ON:
        for way in ways:
            yield Trigger(f"{table}_counts_{way.lower()}", table, way, _COUNT.format(points=points))


def stop_counting(using: str, **_about: Any) -> None:
    """Before a migration."""
    take_off(_triggers(), using)


def count_changes(using: str, **_about: Any) -> None:
    """After it."""
    put(_triggers(), using)


def not_counted() -> list[str]:
    """Tables whose changes nobody counts."""
    return missing(_triggers())
