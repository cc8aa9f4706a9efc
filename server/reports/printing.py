"""From a layout and its data to a PDF: fonts embedded, text selectable, tagged, and nothing fetched from anywhere."""

import base64
import json
from io import BytesIO
from pathlib import Path
from typing import Any, Literal

import segno
import typst
from PIL import Image

_HERE = Path(__file__).parent
_ON_PAPER = (900, 900)
"""Points of a picture, at the most."""
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
    drawn = BytesIO()
    segno.make(text, error="m").save(drawn, kind="svg", border=2, xmldecl=False)
    return drawn.getvalue().decode()


def picture_svg(image: bytes) -> str:
    """A picture as a drawing that holds it, for a layout takes text only; made small enough for paper."""
    with Image.open(BytesIO(image)) as opened:
        opened.thumbnail(_ON_PAPER)
        made, width, height = BytesIO(), opened.width, opened.height
        opened.convert("RGB").save(made, "JPEG", quality=80)
    inside = f"data:image/jpeg;base64,{base64.b64encode(made.getvalue()).decode()}"
    box = f'width="{width}" height="{height}"'
    return f'<svg xmlns="http://www.w3.org/2000/svg" {box}><image href="{inside}" {box}/></svg>'
