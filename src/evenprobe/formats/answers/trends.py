"""What was measured at a point across visits, as shares of a picture."""

from datetime import datetime

from evenprobe.formats.answers.answer import Answer
from evenprobe.rounding import figures, rounded
from evenprobe.trends import Series

_SIGNS = {"ohm": "Ω", "Mohm": "MΩ"}


class TrendMark(Answer):
    """`jumped`: less than half, or more than twice, of the visit before, whichever is worse."""

    at: datetime
    value: float
    across: float
    up: float
    jumped: bool


class TrendLine(Answer):
    """A limit, or a value of the scale, and where it lies."""

    value: float
    up: float


class TrendOut(Answer):
    """One quantity. `jumped`: the last visit did."""

    title: str
    unit: str
    marks: list[TrendMark]
    limits: list[TrendLine]
    ticks: list[TrendLine]
    jumped: bool

    @classmethod
    def of(cls, series: Series) -> "TrendOut":
        return cls(
            title=series.title,
            unit=_SIGNS.get(series.unit, series.unit),
            marks=[
                TrendMark(at=m.at, value=rounded(m.value, series.unit), across=m.across, up=m.up, jumped=m.jumped)
                for m in series.marks
            ],
            limits=[TrendLine(value=figures(value), up=up) for value, up in series.limits],
            ticks=[TrendLine(value=figures(value, 6), up=up) for value, up in series.ticks],
            jumped=series.jumped,
        )
