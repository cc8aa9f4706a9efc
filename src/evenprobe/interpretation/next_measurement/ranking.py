"""Which reading decides: the expected information about the condition, danger first, for what it costs."""

from collections.abc import Sequence

from evenprobe.conditions import Severity
from evenprobe.interpretation.elimination import Elimination, Standing
from evenprobe.interpretation.ensemble import Ensemble
from evenprobe.interpretation.findings import NextMeasurement
from evenprobe.interpretation.next_measurement.candidates import candidates
from evenprobe.interpretation.next_measurement.cost import cost
from evenprobe.interpretation.next_measurement.information import Expected, dark_where_lit, likeliest
from evenprobe.interpretation.sentences import NEXT
from evenprobe.quantities import Reading
from evenprobe.quantities.setups import setups_with
from evenprobe.sentences import Sentence
from evenprobe.testers import Instrument

_OFFERED = 3
_LEAST_BITS = 0.01
NAMED = 2
"""Of what a reading would rule out, the worst."""


def next_measurements(
    ensemble: Ensemble,
    elimination: Elimination,
    likelihood: dict[str, float],
    taken: Sequence[Reading],
    kit: Sequence[Instrument],
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

    Returns
    -------
    tuple of NextMeasurement
        At most three, the best first, no two that would strike out the same.
    str
        What to do where nothing in the kit separates what stands; empty otherwise.
    """
    standing, point = elimination.standing, ensemble.point
    if len(standing) < 2 or all(s.condition.severity_at(point).is_fine for s in standing):
        return (), ""
    possible = list(candidates(point, taken, kit))
    if not possible:
        return (), _note(ensemble, standing)
    expected = Expected(ensemble, elimination, likelihood, possible)
    danger_stands = any(s.condition.severity_at(point) is Severity.DANGER for s in standing)
    ranked: list[tuple[float, NextMeasurement]] = []
    for measurement, informs, falls in zip(possible, expected.bits(), expected.ruled_out(), strict=True):
        if informs >= _LEAST_BITS:
            ids = tuple(s.condition.id for s, f in zip(standing, falls, strict=True) if f)
            quantity = measurement.quantity
            why = " ".join(filter(None, (str(_why(ensemble, standing, ids)), quantity.warning(measurement))))
            worth = informs / cost(measurement, danger_stands=danger_stands, rules_out=bool(ids))
            ranked.append(
                (worth, NextMeasurement(measurement, ids, float(informs), quantity.seconds(measurement), why))
            )
    ranked.sort(key=lambda entry: -entry[0])
    offered: list[NextMeasurement] = []
    for _, test in ranked:
        if not any(test.rules_out == earlier.rules_out for earlier in offered):
            offered.append(test)
    return tuple(offered[:_OFFERED]), "" if offered else _note(ensemble, standing)


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
