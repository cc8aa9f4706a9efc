"""What was measured at a point again and again, its circuit's insulation among it."""

from collections.abc import Iterator
from math import inf

from evenprobe.formats.answers.trends import TrendOut
from evenprobe.practices import PRACTICES
from evenprobe.trends import Value, followed, series
from readings.interpretations import result_of
from readings.point_view import PointView
from sheets.records import SheetView


def trends_of(view: PointView) -> list[TrendOut]:
    """A picture for whatever was measured on two days or more."""
    at = {name: row.taken_at for name, row in view.counting().items()}
    values = [*followed(view.facts, view.readings, result_of(view).judgements, at), *_insulation(view)]
    return [TrendOut.of(one) for one in series(values)]


def _insulation(view: PointView) -> Iterator[Value]:
    """Of the circuit's sheets, at 20 °C."""
    sheets = view.point.circuit.sheets.all()
    if not sheets:
        return
    sheet = SheetView(sheets[0])
    letters = PRACTICES[view.site.practice].letters
    for found in sheet.visits:
        title = f"Insulation {' to '.join(letters[end] for end in found.pair.split('-'))} at 20 °C"
        least = sheet.circuit.rule.least_mohm
        yield Value(title, title, "Mohm", found.visit.at, found.visit.mohm_20c, least, inf, "less", decades=True)
