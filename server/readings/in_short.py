"""The fields of `InShort`: what a list says of a point, and what of one that cannot be shown."""

from typing import Any

from evenprobe.formats.answers import UNKNOWN
from evenprobe.interpretation import Verdict
from readings.interpretations import interpretation_of
from readings.point_view import PointView


def in_short(view: PointView) -> dict[str, Any]:
    answer = interpretation_of(view)
    return {name: getattr(answer, name) for name in ("verdict", "insulation", "protection", "summary")}


def not_shown(why: str) -> dict[str, Any]:
    said = {"summary": f"{why} Treat as live.", "unshown": why}
    return {"verdict": str(Verdict.UNTESTED), "insulation": UNKNOWN, "protection": UNKNOWN, **said}
