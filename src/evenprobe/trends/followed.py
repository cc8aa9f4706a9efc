"""What of a point's readings is worth following from visit to visit, with the limit each is held against."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from math import inf

from evenprobe.interpretation import Judgement
from evenprobe.limits import Band
from evenprobe.loads import loops
from evenprobe.quantities import CURRENT, TRIP, VOLTAGE, Reading
from evenprobe.trends.series import Value, Worse
from evenprobe.wiring import PointFacts, Terminal
from evenprobe.wiring.points import BOARD_END

_NO_LIMIT = Band(-inf, inf)


def followed(
    point: PointFacts, readings: Sequence[Reading], judged: Iterable[Judgement], at: Mapping[str, datetime]
) -> Iterator[Value]:
    """Volts without a known load, trip times, what leaks, and the loop by what a known load loses.

    Parameters
    ----------
    point
        Where it is.
    readings
        Those that stand there.
    judged
        What they were held against.
    at
        When each reading was taken, by its id.

    Returns
    -------
    iterator of Value
        One for every reading that is followed.
    """
    limits = {judgement.reading: judgement.limit.band for judgement in judged}
    for reading in readings:
        found = next((it for look in _FOLLOWED if (it := look(point, reading))), None)
        if found and reading.id in at:
            band = limits.get(reading.id, _NO_LIMIT)
            taken = at[reading.id]
            yield Value(found.title, found.title, found.unit, taken, found.value, band.low, band.high, found.worse)
    for loop in loops(point, readings):
        if loop.reading in at:
            title = f"Loop {_between(point, *loop.pair)}"
            middle = sum(loop.ohm) / 2
            yield Value(title, title, "ohm", at[loop.reading], middle, high=loop.expected[1], worse="more")


@dataclass(frozen=True)
class _Followed:
    title: str
    unit: str
    value: float
    worse: Worse = "more"


def _between(point: PointFacts, *ends: Terminal) -> str:
    return point.practice.between(*map(str, ends), word="to")


def _volts(point: PointFacts, reading: Reading) -> _Followed | None:
    """Between two contacts as they are found; what is worse when it rises is between what should be at earth."""
    m = reading.measurement
    if m.quantity is not VOLTAGE or m.dc or reading.value is None or m.under_load or m.from_ is None or m.to is None:
        return None
    ends = sorted((m.from_, m.to), key=list(Terminal).index)
    return _Followed(_between(point, *ends), "V", reading.value, "more" if set(ends) <= _AT_EARTH else "neither")


def _trip(_: PointFacts, reading: Reading) -> _Followed | None:
    m = reading.measurement
    if m.quantity is not TRIP or reading.after_ms is None:
        return None
    return _Followed(f"Trip time at {m.test_ma:g} mA" if m.test_ma else "Trip time", "ms", reading.after_ms)


def _leak(_: PointFacts, reading: Reading) -> _Followed | None:
    """What a clamp round all live conductors shows at the board."""
    m = reading.measurement
    at_board = {m.from_, m.to} <= set(BOARD_END.values())
    if m.quantity is not CURRENT or reading.value is None or not at_board:
        return None
    return _Followed("Current that does not come back", "A", reading.value)


_FOLLOWED = (_volts, _trip, _leak)
_AT_EARTH = {Terminal.N, Terminal.PE, Terminal.CASE, Terminal.REF}
