"""What people measure first at a point nobody has touched: line to neutral, then line to earth, then neutral to earth.

IEC 60364-6, 6.4.3.1, leaves the order to the tester; whoever is asked for something else first looks for the reason.
"""

from collections.abc import Sequence
from itertools import pairwise

from evenprobe.quantities import VOLTAGE, Measurement, Reading
from evenprobe.quantities.probes import port_of
from evenprobe.wiring import PointFacts, Terminal


def _pairs(point: PointFacts) -> list[tuple[Terminal, Terminal]]:
    """In order; of several lines only each to the neutral, or where none comes here to the next."""
    lines, here = point.lines, point.terminals
    if Terminal.N not in here:
        return list(pairwise(lines))
    to_neutral = [(line, Terminal.N) for line in lines]
    if len(lines) > 1 or Terminal.PE not in here:
        return to_neutral
    return [*to_neutral, (lines[0], Terminal.PE), (Terminal.N, Terminal.PE)]


def ordinary_first(point: PointFacts, taken: Sequence[Reading], possible: Sequence[Measurement]) -> int | None:
    """Which of what is possible comes next by habit; None where all of it was measured, or something else with it."""
    volts = [r.measurement for r in taken if r.measurement.quantity is VOLTAGE]
    measured = {frozenset(port_of(end) for end in m.ends) for m in volts if m.as_is}
    for pair in _pairs(point):
        if frozenset(map(str, pair)) not in measured:
            return next((i for i, m in enumerate(possible) if _is_plain(m, pair)), None)
    return None


def _is_plain(m: Measurement, pair: tuple[Terminal, Terminal]) -> bool:
    return (
        m.quantity is VOLTAGE and (m.from_, m.to) == pair and m.as_is and not m.nothing_else_on and m.input == "high-z"
    )
