"""The lines of a circuit's sheet: what every kind of dead test asks of it, in the order of the work."""

from evenprobe.deadtests.kinds import DEAD_TESTS
from evenprobe.deadtests.sheet import Line, SheetCircuit


def lines_of(circuit: SheetCircuit) -> tuple[Line, ...]:
    """Every line, in the order of the work."""
    return tuple(line for kind in DEAD_TESTS.values() for line in kind.lines(circuit))
