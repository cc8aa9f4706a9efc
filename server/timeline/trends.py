"""What was measured at a point again and again, its circuit's insulation among it."""

from collections.abc import Iterator

from evenprobe.deadtests.history import history
from evenprobe.formats.answers.trends import TrendOut
from evenprobe.trends import Series, followed, of_insulation, series
from readings.interpretations import result_of
from readings.point_view import PointView
from sheets.records import SheetView


def trends_of(view: PointView) -> list[TrendOut]:
    """A picture for whatever was measured on two days or more."""
    at = {name: row.taken_at for name, row in view.counting().items()}
    found = series(followed(view.facts, view.readings, result_of(view).judgements, at))
    return [TrendOut.of(one) for one in (*found, *_insulation(view))]


def _insulation(view: PointView) -> Iterator[Series]:
    """Of the circuit's sheets, a pair each."""
    sheets = view.point.circuit.sheets.all()
    if not sheets:
        return
    sheet = SheetView(sheets[0])
    for pair, visits in sheet.visits_by_pair().items():
        if len(visits) > 1:
            title = f"Insulation {sheet.between(pair)} at 20 °C"
            yield of_insulation(title, history([v.visit for v in visits], sheet.circuit.rule))
