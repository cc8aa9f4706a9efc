"""What a person can set a tester to, here: lamps are made for one line, only three lines have a sequence."""

from evenprobe.quantities.quantity import QUANTITIES
from evenprobe.quantities.sequence import LINES_WITH_A_SEQUENCE
from evenprobe.quantities.written import Function, Need
from evenprobe.testers.instrument import Instrument
from evenprobe.wiring import PointFacts


def functions_with(tester: Instrument, point: PointFacts) -> tuple[Function, ...]:
    """Those of its kind that this tester has and this point allows, in the kind's own order."""
    known = {function.id: function for quantity in QUANTITIES.values() for function in quantity.functions}
    has = _has(tester, point)
    return tuple(known[name] for name in tester.kind.functions if all(has[need] for need in known[name].needs))


def _has(tester: Instrument, point: PointFacts) -> dict[Need, bool]:
    ability = tester.volts()
    return {
        "test current": tester.test_ma is not None,
        "low impedance": ability is not None and ability.low_input_ohm is not None,
        "one line": len(point.lines) == 1,
        "residual device": point.circuit.residual_ma is not None,
        "three lines": len(point.lines) == LINES_WITH_A_SEQUENCE,
    }
