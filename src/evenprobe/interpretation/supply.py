"""What is it plugged into? The supply systems ranked by whether an outlet's readings can be all right on them.

Only what is fine is tried on each, so a supply that does not fit may still be the right one with a fault on it;
that is for `interpret` to say, once it is known which supply it should be.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

from evenprobe.conditions import Condition, conditions_for
from evenprobe.interpretation.elimination import eliminate, reason_for
from evenprobe.interpretation.ensemble import Ensemble
from evenprobe.interpretation.findings import Reason
from evenprobe.quantities import FREQUENCY, Evidence, Reading, weigh_all
from evenprobe.supplies import SYSTEMS, Earthing, SupplySystem
from evenprobe.wiring import PointFacts

_GRID_EARTHING = (Earthing.TN_C_S, Earthing.TT)
_STANDALONE_EARTHING = (Earthing.TN_S, Earthing.IT)
"""A supply of its own has its neutral bonded, or nothing."""
_HERTZ_APART = 4.0
"""A generator may run as far from its frequency; 50 and 60 Hz are told apart."""
_AS_GOOD_AS_EQUAL = 2
"""Decimals of a likelihood; what is equal to these stays in the order of the supplies."""
_OTHER_FREQUENCY = 0.05
"""How likely a supply stays whose frequency is another, for a frequency may be misread too."""


@dataclass(frozen=True)
class SupplyGuess:
    """`likelihood` sums to 1 over those that fit. `reason`: the reading that excludes it most plainly."""

    system: SupplySystem
    earthing: Earthing
    fits: bool
    likelihood: float
    conditions: tuple[Condition, ...] = ()
    reason: Reason | None = None


def what_supply(point: PointFacts, readings: Sequence[Reading]) -> tuple[SupplyGuess, ...]:
    """What a point may be plugged into: every supply that has its lines, by how well its readings are all right on it.

    Parameters
    ----------
    point : PointFacts
        Its own supply is not believed.
    readings : sequence of Reading
        All that were taken there.

    Returns
    -------
    tuple of SupplyGuess
        The likeliest first; empty where nothing that counts was measured.

    Examples
    --------
    >>> from evenprobe import identify
    >>> volts = {"quantity": "voltage", "from": "L", "to": "N", "value": 231.0}
    >>> outlet = {"id": "p1", "kind": "outlet", "terminals": ["L", "N", "PE"], "readings": [volts]}
    >>> file = {"format": "even-probe/survey", "version": 1, "practice": "british"}
    >>> answer = identify({**file, "supply": {"system": "230"}, "points": [outlet]})
    >>> answer.points[0].supplies[0].system
    '230'
    """
    guesses = [_guess(replace(point, system=s, earthing=e), readings) for s in SYSTEMS.values() for e in _earthings(s)]
    known = [guess for guess in guesses if guess is not None]
    total = sum(guess.likelihood for guess in known) or 1.0
    shares = [replace(guess, likelihood=guess.likelihood / total) for guess in known]
    return tuple(sorted(shares, key=lambda guess: (not guess.fits, -round(guess.likelihood, _AS_GOOD_AS_EQUAL))))


def _earthings(system: SupplySystem) -> tuple[Earthing, ...]:
    return _STANDALONE_EARTHING if system.standalone else _GRID_EARTHING


def _guess(point: PointFacts, readings: Sequence[Reading]) -> SupplyGuess | None:
    if point.no_lines:
        return None
    evidence = [w for w in weigh_all(readings, point) if isinstance(w, Evidence)]
    if not evidence:
        return None
    ensemble = _fine(point)
    elimination = eliminate(ensemble, evidence)
    share = sum(s.share * s.condition.prior_at(point) for s in elimination.standing)
    hertz = [r.value for r in readings if r.measurement.quantity is FREQUENCY and r.value is not None]
    if any(abs(value - point.system.frequency_hz) > _HERTZ_APART for value in hertz):
        share *= _OTHER_FREQUENCY
    reason = None if elimination.standing else reason_for(ensemble, elimination, ensemble.conditions[0])
    standing = tuple(s.condition for s in elimination.standing)
    return SupplyGuess(point.system, point.earthing, bool(standing), share, standing, reason)


@lru_cache(maxsize=64)
def _fine(point: PointFacts) -> Ensemble:
    """Of all that can be true there only what is fine."""
    return Ensemble(point, conditions=tuple(c for c in conditions_for(point) if c.severity_at(point).is_fine))
