"""The catalogue of what can be true at a point, and which of it can be true at one.

Adding a condition is a row in `one_line` or `several_lines`, and a test.
"""

from evenprobe.wiring.condition import Condition
from evenprobe.wiring.one_line import ONE_LINE
from evenprobe.wiring.points import PointFacts
from evenprobe.wiring.several_lines import SEVERAL_LINES

CATALOGUE: dict[str, Condition] = {condition.id: condition for condition in (*ONE_LINE, *SEVERAL_LINES)}


def conditions_for(point: PointFacts) -> tuple[Condition, ...]:
    """Those that can be true at this point."""
    return tuple(c for c in CATALOGUE.values() if c.can_be_at(point) and c.arrangements(point.layout))
