"""What volts at no load and under a known load say of the loop: its resistance, the drop to expect, the poor joint.

By Ohm's law: what is lost over what flows. Of two readings of one tester its gain cancels, so little is lost and
still well known. What a sound circuit would show is asked of the same installation that everything else is.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

import numpy as np

from evenprobe.conditions import Severity
from evenprobe.interpretation import ensemble_for
from evenprobe.interpretation.forecast import HIGH_PERCENTILE, LOW_PERCENTILE
from evenprobe.limits import Limit, limit_for
from evenprobe.quantities import VOLTAGE, Evidence, Measurement, Reading, weigh
from evenprobe.quantities.probes import load_between, unloaded, with_loads_placed
from evenprobe.wiring import PointFacts, Terminal
from evenprobe.wiring.unknowns import Unknowns

Span = tuple[float, float]
_DRAWS_FROM_SHARE = 0.3
"""Of nominal volts: with less across it a known load draws nothing that could be reckoned with."""


@dataclass(frozen=True)
class Part:
    """One conductor of a loop, ohms: what it has, and what a sound one here would have."""

    terminal: Terminal
    ohm: Span
    expected: Span

    @property
    def poor(self) -> bool:
        """Whether no sound conductor here has so much."""
        return self.ohm[0] > self.expected[1]


@dataclass(frozen=True)
class Loop:
    """Of the pair a load was between. `reading`: the one under load; `amperes`: the load, at nominal volts.

    `drop`: volts lost at the device's rating, with the limit; None where the rating is not recorded. `parts`:
    its conductors, those measured to earth with and without the load.
    """

    reading: str
    pair: tuple[Terminal, Terminal]
    amperes: float
    ohm: Span
    expected: Span
    drop: Span | None
    limit: Limit
    parts: tuple[Part, ...]

    @property
    def poor(self) -> bool:
        return self.ohm[0] > self.expected[1]


def loops(point: PointFacts, readings: Sequence[Reading]) -> tuple[Loop, ...]:
    """What known loads say of the impedance of a loop: the drop they make, by the amperes that make it.

    Parameters
    ----------
    point : PointFacts
        Where the loads were connected.
    readings : sequence of Reading
        All of the point.

    Returns
    -------
    tuple of Loop
        One for each pair a known load here was between and that was measured with and without it, in ohms.
    """
    if point.no_lines:
        return ()
    volts = [
        w
        for r in readings
        for w in weigh(r, point)
        if isinstance(w, Evidence) and w.measurement.quantity is VOLTAGE and w.reading.value is not None
    ]
    return tuple(_loop(point, before, after, volts) for before, after in _under_load(point, volts))


def _under_load(point: PointFacts, volts: Sequence[Evidence]) -> Iterable[tuple[Evidence, Evidence]]:
    """Readings without and with a load between the very contacts that are measured, by one tester."""
    for after in volts:
        m = after.measurement
        between = load_between(m, point)
        if m.load_here_a is None or {m.from_, m.to} != set(between):
            continue
        if after.low < _DRAWS_FROM_SHARE * point.volts_between(*between):
            continue
        before = _latest(point, volts, after.tester, unloaded(m))
        if before is not None:
            yield before, after


def _latest(point: PointFacts, volts: Sequence[Evidence], tester: str, wanted: Measurement) -> Evidence | None:
    """The latest reading with a tester of what is wanted."""
    setup = with_loads_placed(wanted, point).setup()
    same = (e for e in reversed(volts) if with_loads_placed(e.measurement, point).setup() == setup)
    return next((e for e in same if e.tester == tester), None)


def _loop(point: PointFacts, before: Evidence, after: Evidence, volts: Sequence[Evidence]) -> Loop:
    one, other = load_between(after.measurement, point)
    nominal = point.volts_between(one, other)
    amperes = after.measurement.load_here_a or 0.0
    flowing = amperes * after.low / nominal
    ohm = _ohms(point, before, after, flowing)
    rating = point.circuit.rating_a
    limit = limit_for("voltage.drop", point.practice, point.system).times(nominal / point.system.nominal_volts)
    parts = (_part(point, terminal, after, volts, flowing, nominal) for terminal in (one, other))
    return Loop(
        reading=after.reading.id,
        pair=(one, other),
        amperes=amperes,
        ohm=ohm,
        expected=_expected(point, before.measurement, after.measurement, after.measurement, nominal),
        drop=None if rating is None else (ohm[0] * rating, ohm[1] * rating),
        limit=limit,
        parts=tuple(part for part in parts if part is not None),
    )


def _part(
    point: PointFacts, terminal: Terminal, loaded: Evidence, volts: Sequence[Evidence], flowing: float, nominal: float
) -> Part | None:
    under = replace(with_loads_placed(loaded.measurement, point), from_=terminal, to=Terminal.PE)
    before = _latest(point, volts, loaded.tester, unloaded(under))
    after = _latest(point, volts, loaded.tester, under)
    if before is None or after is None:
        return None
    ohm = _ohms(point, before, after, flowing)
    return Part(terminal, ohm, _expected(point, before.measurement, under, loaded.measurement, nominal))


def _ohms(point: PointFacts, before: Evidence, after: Evidence, flowing: float) -> Span:
    """What is lost, whichever way it goes, over what flows, with the doubt in both."""
    lost = abs(before.low - after.low)
    doubt = before.tolerance + after.tolerance + lost * before.gain_share
    load = Unknowns(point).ranges["known_load_error"]
    return max(0.0, lost - doubt) / (flowing * load.high), (lost + doubt) / (flowing * load.low)


def _expected(point: PointFacts, before: Measurement, after: Measurement, at_load: Measurement, nominal: float) -> Span:
    """The same of every sample of a sound circuit, most of them."""
    ensemble = ensemble_for(point)
    rows = next(rows for condition, rows in ensemble.blocks if condition.severity is Severity.OK)
    flowing = (after.load_here_a or 0.0) * ensemble.predicted(at_load)[rows] / nominal
    lost = np.abs(ensemble.predicted(before)[rows] - ensemble.predicted(after)[rows])
    low, high = np.percentile(lost / flowing, [LOW_PERCENTILE, HIGH_PERCENTILE])
    return float(low), float(high)
