"""What can be measured at a point with a tester: every pair it reaches, as found, under load, and dead."""

from collections.abc import Iterable

from evenprobe.supplies.test_limits import residual_span_ma
from evenprobe.testers import KINDS, TYPED, Instrument, InstrumentKind, Measurement, Quantity
from evenprobe.testers.measurement import Input, Neutral
from evenprobe.testers.tasks import KINDS_FOR, Purpose
from evenprobe.testers.weighing import LINES_WITH_A_SEQUENCE
from evenprobe.wiring import PointFacts, Terminal, contact_pairs
from evenprobe.wiring.points import BOARD_END, board_ends
from evenprobe.wiring.unknowns import assumed_rating_a

USUAL_LOAD_A = 10.0
WITH_A_TRIP_BUTTON = KINDS_FOR[Purpose.RESIDUAL_CURRENT]


def setups_with(point: PointFacts, tester: Instrument) -> Iterable[Measurement]:
    """All that can be measured at a point with a tester, as it is found, under load and dead."""
    load = round(min(USUAL_LOAD_A, 0.8 * assumed_rating_a(point)))
    pairs = contact_pairs(point.terminals)
    plugs_in = KINDS[tester.kind].plugs_in
    references = [] if plugs_in else [(t, Terminal.REF) for t in point.terminals if t is not Terminal.REF]
    ability = tester.volts()
    if ability is not None and tester.proved is not False:
        inputs: list[Input] = ["high-z", "low-z"] if ability.low_input_ohm else ["high-z"]
        for a, b in [*pairs, *references]:
            yield from (Measurement(Quantity.VOLTAGE, a, b, tester, i) for i in inputs)
        for a, b in pairs:
            if not plugs_in:
                yield Measurement(Quantity.VOLTAGE, a, b, tester, load_here_a=load)
            yield Measurement(Quantity.VOLTAGE, a, b, tester, load_elsewhere_a=load)
    if tester.ohms() is not None and tester.proved is not False:
        yield from (Measurement(Quantity.RESISTANCE, a, b, tester, device="open") for a, b in pairs)
        yield from _to_the_board(point, tester)
    if tester.kind is InstrumentKind.CLAMP and tester.proved is not False:
        ends = board_ends(point.terminals)
        yield from (Measurement(Quantity.CURRENT, end, None, tester, load_here_a=load) for end in ends)
    yield from _of_the_device(point, tester)


def _of_the_device(point: PointFacts, tester: Instrument) -> Iterable[Measurement]:
    """A trip test with a current that must trip the device there is, and the sequence of three lines."""
    rated_ma, drives = point.circuit.residual_ma, tester.test_ma if tester.kind in WITH_A_TRIP_BUTTON else None
    if rated_ma and drives and Terminal.PE in point.terminals and drives >= residual_span_ma(rated_ma)[1]:
        yield Measurement(Quantity.TRIP, point.lines[0], Terminal.PE, tester, test_ma=drives)
    if len(point.lines) == LINES_WITH_A_SEQUENCE and (tester == TYPED or tester.kind is InstrumentKind.TWO_POLE):
        yield Measurement(Quantity.SEQUENCE, None, None, tester)


def _to_the_board(point: PointFacts, tester: Instrument) -> Iterable[Measurement]:
    """Each conductor end to end, and with the neutral lifted what may then be joined and what may not."""

    def ohms(a: Terminal, b: Terminal, neutral: Neutral) -> Measurement:
        return Measurement(Quantity.RESISTANCE, a, b, tester, device="open", neutral=neutral)

    for terminal in point.terminals:
        if terminal in BOARD_END:
            yield ohms(terminal, BOARD_END[terminal], "connected")
            yield ohms(terminal, BOARD_END[terminal], "lifted")
    if {Terminal.N, Terminal.PE} <= set(point.terminals):
        yield ohms(Terminal.N, Terminal.PE, "lifted")
