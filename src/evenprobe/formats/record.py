"""The record file: everything that was written down of a site or a crew, row by row, with the hash of it all."""

from typing import Any, Literal

from evenprobe.entries import Name, Strict
from evenprobe.formats.signed import LinkEntry


class RecordOf(Strict):
    """What the file holds. `id`: of a site."""

    what: Literal["crew", "site"]
    id: Name | None = None


class RecordFile(Strict):
    """`chains`: of the sign-offs in it, whole, link by link. `rows`: by table, as the record has them."""

    format: Literal["even-probe/record"]
    version: Literal[1]
    of: RecordOf
    rules: dict[str, Any] | None = None
    chains: list[list[LinkEntry]]
    rows: dict[str, list[dict[str, Any]]]
    sha256: Name
