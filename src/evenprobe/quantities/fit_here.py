"""Whether what is held may clear anything at a point of an installation, by what is read there."""

from datetime import date

from evenprobe.limits.protective_devices import residual_span_ma
from evenprobe.quantities.quantity import Quantity
from evenprobe.quantities.sentences import WARNINGS
from evenprobe.testers.fitness import Held, known_problems
from evenprobe.testers.instrument import Instrument
from evenprobe.testers.ratings import Place
from evenprobe.testers.tasks import Task
from evenprobe.wiring import PointFacts


def why_unfit(
    point: PointFacts, quantity: Quantity, held: Held, on: date | None = None, test_volts: float | None = None
) -> str:
    """What is known to be wrong with it there, in words; empty where nothing is.

    Of what nobody recorded the record gets the benefit: a survey need not carry the ratings of its testers.
    """
    task = Task(
        quantity.purpose,
        Place.INSTALLATION,
        point.system,
        point.practice,
        line_to_line=None if len(point.lines) > 1 else False,
        test_volts=test_volts,
        on=on,
    )
    return known_problems(task, held)


def may_trip(point: PointFacts, instrument: Instrument) -> str:
    """What its low impedance may do to the circuit's residual-current device, in words; empty where nothing."""
    ability, rated_ma = instrument.volts(), point.circuit.residual_ma
    if ability is None or ability.low_input_ohm is None or rated_ma is None or point.no_lines:
        return ""
    draws_ma = 1000 * point.system.nominal_volts / ability.low_input_ohm
    if draws_ma < residual_span_ma(rated_ma)[0]:
        return ""
    said = WARNINGS.say("may-trip", draws=draws_ma, rated=rated_ma, **point.practice.named)
    return str(said)
