"""Which conditions can be true at a point. Adding one is a row in `one_line` or `several_lines`, and a test."""

from evenprobe.conditions.condition import CONDITIONS, Condition
from evenprobe.conditions.one_line import ONE_LINE
from evenprobe.conditions.several_lines import SEVERAL_LINES
from evenprobe.wiring.points import PointFacts

for _row in (*ONE_LINE, *SEVERAL_LINES):
    CONDITIONS.add(_row)


def conditions_for(point: PointFacts) -> tuple[Condition, ...]:
    """Those that can be true at this point.

    Parameters
    ----------
    point : PointFacts
        What the record knows of the point and of what feeds it.

    Returns
    -------
    tuple of Condition
        In the order of the catalogue, `correct` first.

    Examples
    --------
    >>> from evenprobe.practices import BRITISH
    >>> from evenprobe.supplies import SYSTEMS, Earthing
    >>> from evenprobe.wiring import PointFacts, PointKind, Terminal
    >>> contacts = (Terminal.L, Terminal.N, Terminal.PE)
    >>> outlet = PointFacts(BRITISH, SYSTEMS["230"], Earthing.TN_S, PointKind.OUTLET, contacts)
    >>> [condition.id for condition in conditions_for(outlet)][:3]
    ['correct', 'no-supply', 'supply-low']
    """
    return tuple(c for c in CONDITIONS.values() if c.can_be_at(point) and c.variants_at(point.layout))
