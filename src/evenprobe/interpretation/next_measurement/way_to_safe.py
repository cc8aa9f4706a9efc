"""The readings that lead to safe the quickest, while nothing points to a danger.

First what people measure anyway, then the metal a hand touches, if it may well be live, then the shortest way. What a
load takes off a line's voltage is as much as a supply moves by, so it is told only by the same reading with and
without, nothing else on.
"""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from itertools import compress

from evenprobe.conditions import Severity
from evenprobe.interpretation.elimination import Elimination, Standing
from evenprobe.interpretation.ensemble import Ensemble
from evenprobe.interpretation.findings import NextMeasurement
from evenprobe.interpretation.next_measurement.information import Expected
from evenprobe.interpretation.next_measurement.ordinary import ordinary_first
from evenprobe.interpretation.next_measurement.shortest_way import Step, shortest_way
from evenprobe.interpretation.sentences import NEXT
from evenprobe.quantities import Measurement, Reading
from evenprobe.quantities.probes import unloaded
from evenprobe.sentences import Sentence
from evenprobe.wiring.points import LINES

NAMED = 2
"""Of what a reading would rule out, the worst."""

_MAY_BE_LIVE = 0.01
"""Likelihood of all that would make metal live from which on it comes first; below it is offered beside the way."""
_METAL = "metal never held against a reference"
"""Ruled out like a condition: nobody goes on without, while it may well be live."""


def on_the_way(
    ensemble: Ensemble,
    elimination: Elimination,
    taken: Sequence[Reading],
    tests: Sequence[NextMeasurement],
    worth: Sequence[float],
    expected: Expected,
    before: Sequence[Measurement],
    likelihood: Mapping[str, float],
) -> list[NextMeasurement]:
    """While nothing points to a danger: the ordinary readings, then the metal a hand touches, then the quickest way.

    The way is to safe, and from there to correct, if all is well.
    """
    standing = elimination.standing
    possible = [test.measurement for test in tests]
    ordinary = ordinary_first(ensemble.point, taken, possible)
    if ordinary is not None:
        return [tests[ordinary]]
    touched = any(e.measurement.of_metal_to_reference for e in elimination.evidence)
    dangers = {s.condition.id for s in standing if s.condition.severity_at(ensemble.point) is Severity.DANGER}
    metal = {i for i, t in enumerate(tests) if t.measurement.of_metal_to_reference and t.measurement.as_is}
    live = dangers & {name for i in metal for name in tests[i].rules_out}
    has_to_touch = not touched and sum(likelihood[name] for name in live) > _MAY_BE_LIVE
    pairs = _with_and_without(possible, before, standing, expected)
    after = {step.numbers[-1] for step in pairs}
    single = [
        Step((i,), frozenset(test.rules_out))
        for i, test in enumerate(tests)
        if i not in after and not _is_of_a_line_under_load(test.measurement)
    ]
    steps = [step.ruling_out(_METAL) if metal & set(step.numbers) else step for step in (*single, *pairs)]
    to_safe = in_the_way_of_safe(ensemble, standing)
    to_correct = _in_the_way_of_correct(ensemble, standing)
    within_reach = to_correct <= frozenset().union(*(step.rules_out for step in steps))
    to_rule_out = (to_correct if within_reach else to_safe) | ({_METAL} if has_to_touch else set())
    way = shortest_way(possible, steps, to_rule_out)
    way.sort(
        key=lambda step: (
            not (has_to_touch and _METAL in step.rules_out),
            not step.rules_out & to_safe,
            -max(worth[i] for i in step.numbers),
        )
    )
    offered = [_begun(ensemble, standing, step, tests) for step in way]
    if live and not touched and not has_to_touch:
        offered.insert(1, tests[max(metal, key=worth.__getitem__)])
    return offered


def is_loaded_alone(m: Measurement) -> bool:
    return m.nothing_else_on and m.load_here_a is not None


def _is_of_a_line_under_load(m: Measurement) -> bool:
    """What a load takes off a line's voltage is as much as the supply moves by: it takes the same without to tell."""
    return m.under_load and bool(m.ends & set(LINES))


def _with_and_without(
    possible: Sequence[Measurement], taken: Sequence[Measurement], standing: Sequence[Standing], expected: Expected
) -> list[Step]:
    """Each reading under a load here with nothing else on, after the same without the load where that was not taken."""
    numbers = {m: i for i, m in enumerate((*possible, *taken))}
    loaded = [m for m in possible if is_loaded_alone(m)]
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
    """The first measurement of a step, and what the step rules out; of two that is by both together."""
    test = tests[step.numbers[0]]
    ids = tuple(s.condition.id for s in standing if s.condition.id in step.rules_out)
    if ids == test.rules_out:
        return test
    said = why_taken(ensemble, standing, ids)
    return replace(test, rules_out=ids, why=str(NEXT.say("then-loaded", then=said) if len(step.numbers) > 1 else said))


def in_the_way_of_safe(ensemble: Ensemble, standing: Sequence[Standing]) -> frozenset[str]:
    """What could hurt, or where nothing could, what else is not fine."""
    severities = {
        s.condition.id: s.condition.severity_at(ensemble.point) for s in standing if not s.condition.leaves_wiring_sound
    }
    could_hurt = frozenset(name for name, severity in severities.items() if severity.can_hurt)
    return could_hurt or frozenset(name for name, severity in severities.items() if not severity.is_fine)


def _in_the_way_of_correct(ensemble: Ensemble, standing: Sequence[Standing]) -> frozenset[str]:
    """All that is about the wiring here and not fine."""
    about_wiring = (s.condition for s in standing if not s.condition.leaves_wiring_sound)
    return frozenset(c.id for c in about_wiring if not c.severity_at(ensemble.point).is_fine)


def why_taken(ensemble: Ensemble, standing: Sequence[Standing], gone: Sequence[str]) -> Sentence:
    """What a reading would rule out, in words, the worst first."""
    if not gone:
        return NEXT.say("narrows")
    worst_first = sorted(
        (s.condition for s in standing if s.condition.id in gone),
        key=lambda c: -c.severity_at(ensemble.point),
    )
    named = "; ".join(c.name_in(ensemble.point.practice) for c in worst_first[:NAMED])
    more = len(gone) - NAMED
    return NEXT.say("rules-out-more", titles=named, more=more) if more > 0 else NEXT.say("rules-out", titles=named)
