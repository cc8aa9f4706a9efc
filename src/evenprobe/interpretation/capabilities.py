"""Which tester sees what, here: of what the readings leave standing, what a tester can strike out and what not."""

from collections.abc import Sequence
from dataclasses import dataclass

from evenprobe.conditions import Condition
from evenprobe.interpretation.elimination import eliminate, likelihoods
from evenprobe.interpretation.ensemble import ensemble_for
from evenprobe.interpretation.next_measurement import would_rule_out
from evenprobe.quantities import Evidence, Kept, Reading, weigh_all
from evenprobe.testers import Instrument
from evenprobe.wiring import PointFacts


@dataclass(frozen=True)
class Capabilities:
    """Of what stands at a point, what a tester can strike out if all is well, and what it never can."""

    can: tuple[Condition, ...]
    cannot: tuple[Condition, ...]


def capabilities_here(point: PointFacts, readings: Sequence[Reading], tester: Instrument) -> Capabilities:
    """What a tester can strike out at a point, of all that the readings so far leave standing.

    Parameters
    ----------
    point : PointFacts
        Where it is held.
    readings : sequence of Reading
        All that were taken there.
    tester : Instrument
        What is held, taken to be fit.

    Returns
    -------
    Capabilities
        The worst conditions first; what is fine is in neither list.

    Examples
    --------
    >>> from evenprobe.practices import BRITISH
    >>> from evenprobe.supplies import SYSTEMS, Earthing
    >>> from evenprobe.wiring import PointFacts, PointKind, Terminal
    >>> contacts = (Terminal.L, Terminal.N, Terminal.PE)
    >>> outlet = PointFacts(BRITISH, SYSTEMS["230"], Earthing.TN_S, PointKind.OUTLET, contacts)
    >>> from evenprobe.testers import TYPED
    >>> found = capabilities_here(outlet, [], TYPED)
    >>> "line-earth-swapped" in [condition.id for condition in found.can]
    True
    """
    if point.no_lines:
        return Capabilities((), ())
    ensemble = ensemble_for(point)
    weighed = weigh_all(readings, point)
    elimination = eliminate(ensemble, [w for w in weighed if isinstance(w, Evidence)])
    likelihood = likelihoods(ensemble, elimination, [w for w in weighed if isinstance(w, Kept)])
    gone = would_rule_out(ensemble, elimination, likelihood, tester)
    wrong = [s.condition for s in elimination.standing if not s.condition.severity_at(point).is_fine]
    wrong.sort(key=lambda c: -c.severity_at(point))
    return Capabilities(tuple(c for c in wrong if c.id in gone), tuple(c for c in wrong if c.id not in gone))
