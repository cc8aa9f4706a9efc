"""Reference earths that may be at fault themselves: one alone may raise an alarm, two that agree are as good as a rod.

That two are at fault in the same way is taken for as unlikely as a rod that never reached damp ground.
"""

from collections.abc import Hashable, Mapping, Sequence
from dataclasses import replace

from evenprobe.quantities.measurement import Reading
from evenprobe.quantities.probes import ports_of
from evenprobe.quantities.sentences import KEPT
from evenprobe.quantities.voltage import VOLTAGE
from evenprobe.quantities.weighed import Evidence
from evenprobe.wiring import PointFacts, Terminal
from evenprobe.wiring.references import Reference

_Span = tuple[float, float]
_Shown = Mapping[Hashable, _Span]
"""Of one reference what was shown against it, volts from and to, by what was measured and how."""

_APART_VOLTS, _MOVES = 5.0, 0.05
"""What two sound references differ by, where neutral current lifts the bar; what a supply moves by meanwhile."""


def by_references_that_agree(readings: Sequence[Reading], point: PointFacts) -> list[Reading]:
    """A point's readings; unfit those to a reference that may be at fault and that no other bears out.

    Parameters
    ----------
    readings : sequence of Reading
        All of the point.
    point : PointFacts
        Where they were taken.

    Returns
    -------
    list of Reading
        In the order given.
    """
    if not any(_wants_another(r) for r in readings):
        return list(readings)
    shown: dict[Reference, dict[Hashable, _Span]] = {}
    for reading in readings:
        span = _span(reading, point)
        if span is not None:
            shown.setdefault(reading.measurement.reference, {})[_what(reading)] = span
    return [_doubted(r, point, shown) if _wants_another(r) else r for r in readings]


def _wants_another(reading: Reading) -> bool:
    measurement = reading.measurement
    to_reference = measurement.quantity is VOLTAGE and Terminal.REF in measurement.ends
    return to_reference and not measurement.reference.kind.alone and not reading.unfit


def _doubted(reading: Reading, point: PointFacts, shown: Mapping[Reference, _Shown]) -> Reading:
    """Unfit, unless another reference that differs in nothing shows the same of what was measured."""
    reference, what = reading.measurement.reference, _what(reading)
    own = shown.get(reference, {})
    others = {other: seen for other, seen in shown.items() if other != reference}
    alike = [seen for seen in others.values() if all(_agree(own[x], seen[x]) for x in own.keys() & seen.keys())]
    if what not in own or any(what in seen for seen in alike):
        return reading
    key = "reference.alone" if len(alike) == len(others) else "reference.differs"
    return replace(reading, unfit=str(KEPT.say(key, wrong=point.practice.in_words(reference.kind.wrong))))


def _what(reading: Reading) -> Hashable:
    m = reading.measurement
    return ports_of(m), m.load_here_a, m.load_elsewhere_a, m.device


def _span(reading: Reading, point: PointFacts) -> _Span | None:
    """What it shows, as if to a rod; None where it would not count even so."""
    measurement = reading.measurement
    if measurement.quantity is not VOLTAGE or Terminal.REF not in measurement.ends or measurement.dc:
        return None
    as_to_a_rod = replace(reading, measurement=replace(measurement, reference=Reference()))
    [weighed] = VOLTAGE.weigh(as_to_a_rod, point)
    return weighed.interval if isinstance(weighed, Evidence) else None


def _agree(one: _Span, other: _Span) -> bool:
    reach = max(0.0, one[0] - other[1], other[0] - one[1])
    return reach <= _APART_VOLTS + _MOVES * min(one[1], other[1])
