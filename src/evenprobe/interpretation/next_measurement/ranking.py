"""Which reading decides: the expected information about the condition, danger first, for what it costs."""

from collections.abc import Collection, Iterable, Sequence
from itertools import compress

import numpy as np

from evenprobe.conditions import Severity
from evenprobe.interpretation.elimination import Elimination
from evenprobe.interpretation.ensemble import Ensemble
from evenprobe.interpretation.findings import NextMeasurement
from evenprobe.interpretation.next_measurement.at_the_board import to_be_taken_at_the_board
from evenprobe.interpretation.next_measurement.candidates import candidates
from evenprobe.interpretation.next_measurement.cost import cost
from evenprobe.interpretation.next_measurement.enough import what_would_decide
from evenprobe.interpretation.next_measurement.information import Expected, dark_where_lit, likeliest
from evenprobe.interpretation.next_measurement.lamp_pattern import to_be_plugged_in
from evenprobe.interpretation.next_measurement.obstacles import Obstacle, can_be_taken, obstacles_to
from evenprobe.interpretation.next_measurement.repeats import to_be_repeated
from evenprobe.interpretation.next_measurement.screening import to_be_screened
from evenprobe.interpretation.next_measurement.way_to_safe import (
    in_the_way_of_safe,
    is_loaded_alone,
    on_the_way,
    why_taken,
)
from evenprobe.quantities import Reading
from evenprobe.quantities.probes import unloaded
from evenprobe.quantities.setups import setups_with
from evenprobe.testers import Instrument

_OFFERED = 3
_LEAST_BITS = 0.01
_SUSPECTED = 0.3
"""Likelihood of all dangers together from which the order is by what decides, not by habit."""


def next_measurements(
    ensemble: Ensemble,
    elimination: Elimination,
    likelihood: dict[str, float],
    taken: Sequence[Reading],
    kit: Sequence[Instrument],
    cannot: Collection[Obstacle] = (),
) -> tuple[tuple[NextMeasurement, ...], str]:
    """The readings that are worth most for what they cost.

    Parameters
    ----------
    ensemble : Ensemble
        Of the point.
    elimination : Elimination
        What the readings so far leave standing.
    likelihood : dict of str to float
        By condition id, as `likelihoods` gives it.
    taken : sequence of Reading
        What was measured already and is not asked for again.
    kit : sequence of Instrument
        What may be used.
    cannot : collection of Obstacle
        What is not to be had here, so that nothing is offered that needs it.

    Returns
    -------
    tuple of NextMeasurement
        At most three, the best first, no two that would strike out the same.
    str
        What would decide where nothing in the kit separates what stands; empty otherwise.
    """
    standing, point = elimination.standing, ensemble.point
    open_to_test = [s for s in standing if not s.condition.severity_at(point).is_fine]
    if len(standing) < 2 or all(s.condition.leaves_wiring_sound and not s.condition.device_blind for s in open_to_test):
        return (), ""
    possible = [m for m in candidates(point, taken, kit) if can_be_taken(m, cannot)]
    if not possible:
        return (), what_would_decide(ensemble, elimination, likelihood, taken, kit, cannot)
    before = [m for m in {unloaded(m): m for m in possible if is_loaded_alone(m)} if m not in possible]
    expected = Expected(ensemble, elimination, likelihood, [*possible, *before])
    danger_stands = any(s.condition.severity_at(point) is Severity.DANGER for s in standing)
    names = [s.condition.id for s in standing]
    tests, worth = [], []
    for m, informs, falls in zip(possible, expected.bits(), expected.ruled_out(), strict=False):
        ids = tuple(compress(names, falls))
        why = " ".join(filter(None, (str(why_taken(ensemble, standing, ids)), m.quantity.warning(m, point))))
        tests.append(NextMeasurement(m, ids, float(informs), m.quantity.seconds(m), why))
        worth.append(informs / cost(m, danger_stands=danger_stands, rules_out=bool(ids)))
    of_the_wiring = [s for s in open_to_test if not s.condition.leaves_wiring_sound]
    asked = {s.condition.id for s in of_the_wiring or open_to_test}
    apart = expected.tells_apart([name in asked for name in names])
    useful = (i for i in np.argsort(worth)[::-1] if _tells(tests[i]) and apart[i])
    first: list[NextMeasurement] = []
    repeat = to_be_repeated(ensemble, elimination, taken)
    if not _danger_suspected(ensemble, likelihood):
        first = on_the_way(ensemble, elimination, taken, tests, worth, expected, before, likelihood)
        if repeat is not None and in_the_way_of_safe(ensemble, standing) <= set(repeat.rules_out):
            first = [repeat]
        there = to_be_taken_at_the_board(elimination, taken, cannot, point.practice)
        first = first if there is None else [there, *first]
    offered = _that_differ((*first, *(tests[i] for i in useful)))
    if not offered:
        return (), what_would_decide(ensemble, elimination, likelihood, taken, kit, cannot)
    lamps = to_be_plugged_in(ensemble, elimination, likelihood, taken, kit)
    if lamps is not None and all(tester.volts() is None for tester in kit):
        return (lamps, *offered[: _OFFERED - 1]), ""
    screen = to_be_screened(point, taken, kit) if danger_stands else None
    accusing = repeat if repeat is not None and not repeat.rules_out else None
    return _with_beside(offered, screen or lamps or accusing), ""


def _with_beside(offered: Sequence[NextMeasurement], beside: NextMeasurement | None) -> tuple[NextMeasurement, ...]:
    """With what takes seconds, or may accuse, as the last of them."""
    return tuple(offered) if beside is None else (*offered[: _OFFERED - 1], beside)


def _tells(test: NextMeasurement) -> bool:
    return test.information_bits >= _LEAST_BITS


def _that_differ(tests: Iterable[NextMeasurement]) -> list[NextMeasurement]:
    """The first few, no two that would strike out the same, and not all in want of one and the same thing."""
    offered: list[NextMeasurement] = []
    for test in tests:
        if any(test.rules_out == earlier.rules_out for earlier in offered):
            continue
        in_the_way = obstacles_to(test.measurement)
        if len(offered) == _OFFERED - 1 and in_the_way.intersection(*(obstacles_to(t.measurement) for t in offered)):
            continue
        offered.append(test)
        if len(offered) == _OFFERED:
            break
    return offered


def _danger_suspected(ensemble: Ensemble, likelihood: dict[str, float]) -> bool:
    """Whether what stands is rather a danger than anything else."""
    dangers = (c.id for c in ensemble.conditions if c.severity_at(ensemble.point) is Severity.DANGER)
    return sum(likelihood.get(name, 0.0) for name in dangers) > _SUSPECTED


def would_rule_out(
    ensemble: Ensemble, elimination: Elimination, likelihood: dict[str, float], tester: Instrument
) -> frozenset[str]:
    """What falls if all that can be measured here with a tester comes out as if all were well.

    Parameters
    ----------
    ensemble : Ensemble
        Of the point.
    elimination : Elimination
        What the readings so far leave standing.
    likelihood : dict of str to float
        By condition id, as `likelihoods` gives it.
    tester : Instrument
        Taken to be fit.

    Returns
    -------
    frozenset of str
        Condition ids.
    """
    standing = elimination.standing
    possible = list(setups_with(ensemble.point, tester))
    if not standing:
        return frozenset()
    gone = dark_where_lit(ensemble, standing, likeliest(ensemble, standing, likelihood), tester)
    if possible:
        gone = gone | Expected(ensemble, elimination, likelihood, possible).ruled_out().any(axis=0)
    return frozenset(s.condition.id for s, falls in zip(standing, gone, strict=True) if falls)
