"""Which reading decides: the expected information about the condition, danger first, for what it costs."""

from collections.abc import Collection, Iterable, Sequence
from dataclasses import replace
from itertools import compress

import numpy as np

from evenprobe.conditions import Severity
from evenprobe.interpretation.elimination import Elimination, Standing
from evenprobe.interpretation.ensemble import Ensemble
from evenprobe.interpretation.findings import NextMeasurement
from evenprobe.interpretation.next_measurement.candidates import candidates
from evenprobe.interpretation.next_measurement.cost import cost
from evenprobe.interpretation.next_measurement.information import Expected, dark_where_lit, likeliest
from evenprobe.interpretation.next_measurement.obstacles import Obstacle, can_be_taken, obstacles_to
from evenprobe.interpretation.next_measurement.ordinary import ordinary_first
from evenprobe.interpretation.next_measurement.shortest_way import Step, shortest_way
from evenprobe.interpretation.sentences import NEXT
from evenprobe.quantities import Measurement, Reading
from evenprobe.quantities.probes import unloaded
from evenprobe.quantities.setups import setups_with
from evenprobe.sentences import Sentence
from evenprobe.testers import Instrument
from evenprobe.wiring.points import LINES

_OFFERED = 3
_LEAST_BITS = 0.01
_SUSPECTED = 0.3
"""Likelihood of all dangers together from which the order is by what decides, not by habit."""
_METAL = "metal never held against a reference"
"""Ruled out like a condition: nobody goes on without, while it may be live."""
NAMED = 2
"""Of what a reading would rule out, the worst."""


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
        What to do where nothing in the kit separates what stands; empty otherwise.
    """
    standing, point = elimination.standing, ensemble.point
    open_to_test = [s for s in standing if not s.condition.severity_at(point).is_fine]
    if len(standing) < 2 or all(s.condition.beside_wiring and not s.condition.device_blind for s in open_to_test):
        return (), ""
    possible = [m for m in candidates(point, taken, kit) if can_be_taken(m, cannot)]
    if not possible:
        return (), _note(ensemble, standing)
    before = [m for m in {unloaded(m): m for m in possible if _is_loaded_alone(m)} if m not in possible]
    expected = Expected(ensemble, elimination, likelihood, [*possible, *before])
    danger_stands = any(s.condition.severity_at(point) is Severity.DANGER for s in standing)
    names = [s.condition.id for s in standing]
    tests, worth = [], []
    for m, informs, falls in zip(possible, expected.bits(), expected.ruled_out(), strict=False):
        ids = tuple(compress(names, falls))
        why = " ".join(filter(None, (str(_why(ensemble, standing, ids)), m.quantity.warning(m))))
        tests.append(NextMeasurement(m, ids, float(informs), m.quantity.seconds(m), why))
        worth.append(informs / cost(m, danger_stands=danger_stands, rules_out=bool(ids)))
    asked = [s for s in open_to_test if not s.condition.beside_wiring] or open_to_test
    useful = (
        i
        for i in np.argsort(worth)[::-1]
        if _tells(tests[i]) and expected.tells_apart(i, [s in asked for s in standing])
    )
    first: list[NextMeasurement] = []
    if not _danger_suspected(ensemble, likelihood):
        first = _first(ensemble, standing, taken, tests, worth, expected, before)
    offered = _that_differ((*first, *(tests[i] for i in useful)))
    return tuple(offered), "" if offered else _note(ensemble, standing)


def _first(
    ensemble: Ensemble,
    standing: Sequence[Standing],
    taken: Sequence[Reading],
    tests: Sequence[NextMeasurement],
    worth: Sequence[float],
    expected: Expected,
    before: Sequence[Measurement],
) -> list[NextMeasurement]:
    """While nothing points to a danger: the ordinary readings, then the metal a hand touches, then the quickest way.

    The way is to safe, and from there to correct, if all is well.
    """
    possible = [test.measurement for test in tests]
    ordinary = ordinary_first(ensemble.point, taken, possible)
    if ordinary is not None:
        return [tests[ordinary]]
    touched = any(r.measurement.of_metal_to_reference for r in taken)
    dangers = {s.condition.id for s in standing if s.condition.severity_at(ensemble.point) is Severity.DANGER}
    metal = {i for i, t in enumerate(tests) if t.measurement.of_metal_to_reference}
    has_to_touch = not touched and any(dangers & set(tests[i].rules_out) for i in metal)
    pairs = _with_and_without(possible, before, standing, expected)
    after = {step.numbers[-1] for step in pairs}
    single = [
        Step((i,), frozenset(test.rules_out))
        for i, test in enumerate(tests)
        if i not in after and not _is_of_a_line_under_load(test.measurement)
    ]
    steps = [step.ruling_out(_METAL) if metal & set(step.numbers) else step for step in (*single, *pairs)]
    to_rule_out = _in_the_way_of_safe(ensemble, standing) | ({_METAL} if has_to_touch else set())
    way = shortest_way(possible, steps, to_rule_out)
    way.sort(key=lambda step: (not (has_to_touch and _METAL in step.rules_out), -max(worth[i] for i in step.numbers)))
    return [_begun(ensemble, standing, step, tests) for step in way]


def _is_loaded_alone(m: Measurement) -> bool:
    return m.nothing_else_on and m.load_here_a is not None


def _is_of_a_line_under_load(m: Measurement) -> bool:
    """What a load takes off a line's voltage is as much as the supply moves by: it takes the same without to tell."""
    return m.under_load and bool(m.ends & set(LINES))


def _with_and_without(
    possible: Sequence[Measurement], taken: Sequence[Measurement], standing: Sequence[Standing], expected: Expected
) -> list[Step]:
    """Each reading under a load here with nothing else on, after the same without the load where that was not taken."""
    numbers = {m: i for i, m in enumerate((*possible, *taken))}
    loaded = [m for m in possible if _is_loaded_alone(m)]
    if not loaded:
        return []
    before, after = [numbers[unloaded(m)] for m in loaded], [numbers[m] for m in loaded]
    falls = expected.ruled_out_by_pairs(before, after)
    names = [s.condition.id for s in standing]
    return [
        Step((one, other) if one < len(possible) else (other,), frozenset(compress(names, gone)))
        for one, other, gone in zip(before, after, falls, strict=True)
    ]


def _begun(
    ensemble: Ensemble, standing: Sequence[Standing], step: Step, tests: Sequence[NextMeasurement]
) -> NextMeasurement:
    """The first measurement of a step; of two it says what they rule out together."""
    test = tests[step.numbers[0]]
    if len(step.numbers) == 1:
        return test
    ids = tuple(s.condition.id for s in standing if s.condition.id in step.rules_out)
    why = NEXT.say("then-loaded", then=_why(ensemble, standing, ids))
    return replace(test, rules_out=ids, why=str(why))


def _in_the_way_of_safe(ensemble: Ensemble, standing: Sequence[Standing]) -> frozenset[str]:
    """What could hurt, or where nothing could, what else is not fine."""
    severities = {
        s.condition.id: s.condition.severity_at(ensemble.point) for s in standing if not s.condition.beside_wiring
    }
    could_hurt = frozenset(name for name, severity in severities.items() if severity.can_hurt)
    return could_hurt or frozenset(name for name, severity in severities.items() if not severity.is_fine)


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


def _why(ensemble: Ensemble, standing: Sequence[Standing], gone: Sequence[str]) -> Sentence:
    if not gone:
        return NEXT.say("narrows")
    worst_first = sorted(
        (s.condition for s in standing if s.condition.id in gone),
        key=lambda c: -c.severity_at(ensemble.point),
    )
    named = "; ".join(c.name_in(ensemble.point.practice) for c in worst_first[:NAMED])
    more = len(gone) - NAMED
    return NEXT.say("rules-out-more", titles=named, more=more) if more > 0 else NEXT.say("rules-out", titles=named)


def _note(ensemble: Ensemble, standing: Sequence[Standing]) -> str:
    practice = ensemble.point.practice
    titles = "; ".join(s.condition.title_in(practice) for s in standing)
    worst = max((s.condition for s in standing), key=lambda c: c.severity_at(ensemble.point))
    return str(NEXT.say("not-from-this-kit", titles=titles, cause=practice.in_words(worst.cause)))
