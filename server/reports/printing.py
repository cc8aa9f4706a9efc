"""From a layout and its data to a PDF: fonts embedded, text selectable, tagged, and nothing fetched from anywhere."""

import json
from pathlib import Path
from typing import Any, Literal

import segno
import typst

_HERE = Path(__file__).parent
_PREVIEW_DOTS = 110.0
"""Dots an inch of a picture on the screen."""


def printed(layout: str, data: dict[str, Any], form: Literal["pdf", "png"] = "pdf") -> bytes:
    """A layout filled in.

    Parameters
    ----------
    layout
        Its name in `layouts`, without its ending.
    data
        What it shows, plain.
    form
        A tagged PDF, or a picture of its first page to look at.

    Returns
    -------
    bytes
        The file.
    """
    made = typst.compile(
        str(_HERE / "layouts" / f"{layout}.typ"),
        root=str(_HERE),
        font_paths=[str(_HERE / "fonts")],
        ignore_system_fonts=True,
        sys_inputs={"data": json.dumps(data)},
        format=form,
        ppi=_PREVIEW_DOTS,
    )
    return bytes(made[0] if isinstance(made, list) else made)


def qr_svg(text: str) -> str:
    """A QR code as a drawing, medium error correction."""
    return str(segno.make(text, error="m").svg_inline(border=2))
