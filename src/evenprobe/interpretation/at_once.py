"""The verdict before the search, where nothing that a search can find would make it another.

A condition that a sample fits stands, whatever else is found. One that no sample fits and that is not out of the
question may stand or fall: that is what the search is for, and it takes most of an answer's time. Where the verdict is
the same whichever of these stand, it is known at once; where it is not, nothing is said. It is hardly ever a safe one:
for that every danger has to be out of the question.
"""

from collections.abc import Iterable, Iterator, Sequence
from itertools import chain, combinations

from evenprobe.conditions import Condition, with_slight_joint
from evenprobe.interpretation.beside_wiring import protection_of
from evenprobe.interpretation.covered import not_counted
from evenprobe.interpretation.direct import direct_sentence, on_metal, with_direct
from evenprobe.interpretation.doubts import doubts_of
from evenprobe.interpretation.elimination import Elimination, held_against, standing_by
from evenprobe.interpretation.ensemble import SAMPLES_PER_CONDITION, Ensemble, ensemble_for
from evenprobe.interpretation.findings import ConditionOutcome, PointInterpretation, Verdict
from evenprobe.interpretation.intermittent import INTERMITTENT, jumping
from evenprobe.interpretation.sentences import SUMMARIES
from evenprobe.interpretation.verdict import dangerous_readings
from evenprobe.interpretation.weighed_readings import WeighedReadings
from evenprobe.limits import Override
from evenprobe.quantities import Reading
from evenprobe.sentences import Sentence
from evenprobe.wiring import PointFacts

Kind = tuple[object, ...]
"""What the verdict asks of a condition that stands."""


def at_once(
    point: PointFacts,
    readings: Sequence[Reading],
    overrides: Sequence[Override] = (),
    samples: int = SAMPLES_PER_CONDITION,
) -> PointInterpretation | None:
    """The verdict that `interpret` comes to, where it is certain before anything is searched for.

    Parameters
    ----------
    point : PointFacts
        What the record knows of the point and of what feeds it.
    readings : sequence of Reading
        All that count, in SI units.
    overrides : sequence of Override
        A crew's own limits, with the reasons for them.
    samples : int
        Of each condition.

    Returns
    -------
    PointInterpretation or None
        The verdict and what the readings say by themselves, with no condition and no next measurement yet. None where
        only the whole answer tells the verdict, and where it is a safe one.

    Examples
    --------
    >>> from evenprobe.practices import BRITISH
    >>> from evenprobe.supplies import SYSTEMS, Earthing
    >>> from evenprobe.wiring import PointFacts, PointKind, Terminal
    >>> contacts = (Terminal.L, Terminal.N, Terminal.PE)
    >>> outlet = PointFacts(BRITISH, SYSTEMS["230"], Earthing.TN_S, PointKind.OUTLET, contacts)
    >>> from evenprobe.quantities import VOLTAGE, Measurement, Reading
    >>> from evenprobe.testers import TYPED
    >>> volts = Reading("r1", Measurement(VOLTAGE, Terminal.L, Terminal.N, TYPED), value=231.0)
    >>> found = at_once(outlet, [volts])
    >>> str(found.verdict), found.conditions
    ('unconfirmed', ())
    """
    weighed = WeighedReadings(point, readings, overrides)
    if point.no_lines or not weighed.evidence:
        return None
    verdict = _certain(ensemble_for(point, samples), weighed)
    if verdict is None or verdict.is_safe:
        return None
    return PointInterpretation(
        point.practice,
        verdict,
        _said(verdict, weighed),
        weighed.insulation,
        protection_of(point, weighed.evidence),
        judgements=weighed.judged,
        not_counted=not_counted(weighed.each),
        direct=direct_sentence(weighed.directs, point.practice),
    )


def _said(verdict: Verdict, weighed: WeighedReadings) -> tuple[Sentence, ...]:
    """What the readings say by themselves, the worst first; else that the rest is being worked out."""
    practice = weighed.point.practice
    is_danger = verdict is Verdict.DANGER
    if dangerous_readings(weighed.evidence):
        return (SUMMARIES.say("metalwork-live"),)
    if is_danger and weighed.unanswered:
        return (SUMMARIES.say("alarm-unanswered", **practice.named),)
    direct = direct_sentence(weighed.directs, practice)
    if direct is not None and (on_metal(weighed.directs) or not is_danger):
        return (direct,)
    return (SUMMARIES.say("danger-at-once" if is_danger else "at-once"),)


def _certain(ensemble: Ensemble, weighed: WeighedReadings) -> Verdict | None:
    held = held_against(ensemble, weighed.evidence)
    fitting, others = [], []
    for condition, block in ensemble.blocks:
        own = held.misfit[block]
        if own.min() <= 1.0:
            fitting.append(standing_by(condition, own, block.start))
        else:
            others.append(condition)
    elimination = Elimination(*held, tuple(fitting), ())
    stand = [_standing(s.condition, weighed, strained=weighed.strain(ensemble, elimination, s)) for s in fitting]
    beside = (INTERMITTENT,) if jumping(held.evidence) else ()
    certain = _whichever_stand(weighed, stand, [*others, *beside])
    if certain is not None or not others:
        return certain
    in_doubt = {d.condition.id for d in doubts_of(ensemble, others, *held)}
    may_stand = [c for c in others if c.id in in_doubt or with_slight_joint(c) is not None]
    return _whichever_stand(weighed, stand, [*may_stand, *beside])


def _whichever_stand(
    weighed: WeighedReadings, stand: Sequence[ConditionOutcome], may_stand: Sequence[Condition]
) -> Verdict | None:
    """The verdict, where it is one and the same whichever of these stand too."""
    found: set[Verdict] = set()
    for some in _subsets(_one_of_each_kind(_either_way(may_stand, weighed))):
        found.add(weighed.verdict(with_direct([*stand, *some], weighed.directs)))
        if len(found) > 1:
            return None
    return found.pop()


def _either_way(conditions: Iterable[Condition], weighed: WeighedReadings) -> Iterator[ConditionOutcome]:
    """What is found of a condition may explain an alarm that was raised, or not."""
    for condition in conditions:
        yield from (_standing(condition, weighed, strained=one) for one in {False, bool(weighed.alarms)})


def _standing(condition: Condition, weighed: WeighedReadings, *, strained: bool) -> ConditionOutcome:
    return ConditionOutcome(condition, condition.severity_at(weighed.point), True, strained, likelihood=0.0)


def _one_of_each_kind(outcomes: Iterable[ConditionOutcome]) -> list[ConditionOutcome]:
    """By all that a verdict asks of a condition that stands; more of a kind change nothing."""
    kinds: dict[Kind, ConditionOutcome] = {}
    for o in outcomes:
        kinds.setdefault((o.severity, o.strained, o.condition.leaves_wiring_sound), o)
    return list(kinds.values())


def _subsets(outcomes: Sequence[ConditionOutcome]) -> Iterator[tuple[ConditionOutcome, ...]]:
    return chain.from_iterable(combinations(outcomes, count) for count in range(len(outcomes), -1, -1))
