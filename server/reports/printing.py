"""From a layout and its data to a PDF: fonts embedded, text selectable, tagged, and nothing fetched from anywhere."""

import json
from pathlib import Path
from typing import Any

import segno
import typst

_HERE = Path(__file__).parent
_FONTS = [_HERE / "fonts"]


def printed(layout: str, data: dict[str, Any]) -> bytes:
    """The PDF of a layout.

    Parameters
    ----------
    layout
        Its name in `layouts`, without its ending.
    data
        What it shows, plain.

    Returns
    -------
    bytes
        A tagged PDF.
    """
    return bytes(
        typst.compile(
            str(_HERE / "layouts" / f"{layout}.typ"),
            root=str(_HERE),
            font_paths=[str(folder) for folder in _FONTS],
            ignore_system_fonts=True,
            sys_inputs={"data": json.dumps(data)},
        )
    )


def qr_svg(text: str) -> str:
    """A QR code as a drawing, medium error correction."""
    return segno.make(text, error="m").svg_inline(border=2)
