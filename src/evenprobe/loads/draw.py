"""Currents clamped round a line, held against the device that feeds it: running, starting, least and most."""

from collections.abc import Sequence
from dataclasses import dataclass

from evenprobe.deadtests import Accuracy, Outcome
from evenprobe.deadtests.protective import load
from evenprobe.loads.sentences import DRAWS
from evenprobe.quantities import CURRENT, Reading
from evenprobe.wiring import PointFacts, Terminal
from evenprobe.wiring.points import BOARD_END, LINES

_LINE_ENDS = (*LINES, *(BOARD_END[line] for line in LINES))


@dataclass(frozen=True)
class Draw:
    """One reading. `outcome` is None where nothing can be judged; `text` says why then."""

    reading: str
    conductor: Terminal | None
    outcome: Outcome | None
    text: str


def draws(point: PointFacts, readings: Sequence[Reading], curve: str | None = None) -> tuple[Draw, ...]:
    """What a circuit draws against its protective device.

    Parameters
    ----------
    point : PointFacts
        Where the clamp was closed.
    readings : sequence of Reading
        All of the point; those of a current are held against the device, in amperes.
    curve : str or None
        The trip curve, where it is recorded.

    Returns
    -------
    tuple of Draw
        One a current, in the order of the readings.
    """
    return tuple(_draw(point, r, curve) for r in readings if r.measurement.quantity is CURRENT)


def _draw(point: PointFacts, reading: Reading, curve: str | None) -> Draw:
    m, rating = reading.measurement, point.circuit.rating_a
    if m.to is not None:
        return Draw(reading.id, m.from_, None, str(DRAWS.say("fields-cancel")))
    if m.from_ is not None and m.from_ not in _LINE_ENDS:
        return Draw(reading.id, m.from_, None, str(DRAWS.say("not-a-line", **point.practice.named)))
    if rating is None:
        return Draw(reading.id, m.from_, None, str(DRAWS.say("no-rating")))
    ability = m.instrument.amps()
    accuracy = Accuracy(ability.percent, ability.counts, ability.resolution) if ability else Accuracy()
    running = None if reading.value is None else accuracy.shows(reading.value)
    start = None if reading.most is None else accuracy.shows(reading.most)
    outcome = load(rating, running, start, curve, point.practice, continuous=reading.continuous)
    return Draw(reading.id, m.from_, outcome, outcome.text)
