"""The whole answer for one point: weigh, eliminate, judge, decide, and say what to do next."""

from collections.abc import Collection, Sequence

from evenprobe.conditions.symptoms import Symptom
from evenprobe.interpretation.beside_wiring import insulation_of, protection_of
from evenprobe.interpretation.covered import not_counted
from evenprobe.interpretation.direct import direct_sentence, with_direct
from evenprobe.interpretation.elimination import (
    Elimination,
    anything_stands,
    eliminate,
    likelihoods,
    lines_of,
    reason_for,
)
from evenprobe.interpretation.ensemble import SAMPLES_PER_CONDITION, Ensemble, ensemble_for
from evenprobe.interpretation.findings import (
    ConditionOutcome,
    NotCounted,
    PointInterpretation,
    Verdict,
)
from evenprobe.interpretation.intermittent import INTERMITTENT, with_intermittent
from evenprobe.interpretation.nearest import nearest
from evenprobe.interpretation.next_measurement import Obstacle, next_measurements, taken_again
from evenprobe.interpretation.sentences import NEXT, SUMMARIES
from evenprobe.interpretation.slight_joints import with_slight_joints
from evenprobe.interpretation.stories import stories
from evenprobe.interpretation.verdict import dangerous_readings, decide, summary
from evenprobe.interpretation.weighed_readings import WeighedReadings
from evenprobe.limits import Override, limit_for
from evenprobe.quantities import Evidence, Reading, confining
from evenprobe.testers import Instrument
from evenprobe.wiring import PointFacts


def interpret(
    point: PointFacts,
    readings: Sequence[Reading],
    kit: Sequence[Instrument] = (),
    overrides: Sequence[Override] = (),
    samples: int = SAMPLES_PER_CONDITION,
    cannot: Collection[Obstacle] = (),
    noticed: Collection[Symptom] = (),
) -> PointInterpretation:
    """What the readings of a point can still mean.

    A function of what it is given: the order of the readings and what was asked before make no difference.

    Parameters
    ----------
    point : PointFacts
        What the record knows of the point and of what feeds it.
    readings : sequence of Reading
        All that count, in SI units.
    kit : sequence of Instrument
        Testers the next readings may be taken with.
    overrides : sequence of Override
        A crew's own limits, with the reasons for them.
    samples : int
        Of each condition.
    cannot : collection of Obstacle
        What is not to be had here, so that no next measurement needs it.
    noticed : collection of Symptom
        They order what stands and strike nothing out.

    Returns
    -------
    PointInterpretation
        The verdict, every condition with whether it stands and why not, and what to measure next. Unrounded.

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
    >>> str(interpret(outlet, [volts]).verdict)
    'unconfirmed'
    """
    if point.no_lines:
        return _without_lines(point, readings)
    weighed = WeighedReadings(point, readings, overrides)
    evidence, directs = weighed.evidence, weighed.directs
    direct = direct_sentence(directs, point.practice)
    ensemble = ensemble_for(point, samples)
    elimination = with_slight_joints(ensemble, eliminate(ensemble, evidence), evidence)
    elimination = with_intermittent(ensemble, elimination)
    of_wiring = _outcomes(ensemble, elimination, weighed, noticed)
    outcomes = with_direct(of_wiring, directs)
    verdict = weighed.verdict(outcomes)
    is_unanswered = bool(weighed.unanswered) and not dangerous_readings(evidence)
    unstrained = [o for o in of_wiring if o.standing and not o.strained]
    unexplained = bool(weighed.alarms) and not is_unanswered and not unstrained and bool(elimination.standing)
    retake = _retake(ensemble, evidence) if not elimination.standing else ()
    likelihood = {o.condition.id: o.likelihood for o in of_wiring}
    near = nearest(ensemble, elimination)
    tests, note = next_measurements(ensemble, elimination, likelihood, readings, kit, cannot)
    if near:
        tests = taken_again(readings, retake, near, point.practice)
    if not tests and elimination.stands(INTERMITTENT.id):
        note = str(NEXT.say("jumps", **point.practice.named))
    band = limit_for("voltage.band", point.practice, point.system, overrides).band
    return PointInterpretation(
        practice=point.practice,
        verdict=verdict,
        said=summary(
            verdict,
            outcomes,
            point,
            alarm_unanswered=is_unanswered,
            alarm_unexplained=unexplained,
            insulation=weighed.insulation.state,
            direct=direct,
            near=near,
        ),
        insulation=weighed.insulation,
        protection=protection_of(point, evidence),
        conditions=outcomes,
        judgements=weighed.judged,
        retake=retake,
        nearest=near,
        next_tests=tests,
        next_tests_note=note,
        stories=stories(ensemble, elimination, of_wiring),
        not_counted=not_counted(weighed.each),
        healthy_band=(band.low, band.high),
        direct=direct,
    )


def _without_lines(point: PointFacts, readings: Sequence[Reading]) -> PointInterpretation:
    """What lines there should be is not known, so nothing can be cleared; metalwork can still be seen to be live."""
    weighed = WeighedReadings(point, readings, ())
    evidence, directs = weighed.evidence, weighed.directs
    direct = direct_sentence(directs, point.practice)
    verdict = decide((), evidence, weighed.alarms, directs=directs)
    if verdict in (Verdict.DANGER, Verdict.HAZARD):
        unanswered = bool(weighed.unanswered)
        said = summary(verdict, (), point, alarm_unanswered=unanswered, alarm_unexplained=False, direct=direct)
    else:
        verdict, said = Verdict.UNTESTED, (SUMMARIES.say("no-lines", why=point.no_lines),)
    return PointInterpretation(
        point.practice,
        verdict,
        said,
        insulation_of(()),
        protection_of(point, evidence),
        conditions=with_direct((), directs),
        not_counted=tuple(NotCounted(r.id, point.no_lines) for r in readings),
        direct=direct,
    )


def _outcomes(
    ensemble: Ensemble,
    elimination: Elimination,
    weighed: WeighedReadings,
    noticed: Collection[Symptom],
) -> tuple[ConditionOutcome, ...]:
    likelihood = likelihoods(ensemble, elimination, weighed.kept, noticed)
    standing = [
        ConditionOutcome(
            s.condition,
            s.condition.severity_at(ensemble.point),
            True,
            weighed.strain(ensemble, elimination, s),
            likelihood[s.condition.id],
            lines=lines_of(ensemble, elimination, s),
        )
        for s in elimination.standing
    ]
    fallen = [
        ConditionOutcome(c, c.severity_at(ensemble.point), False, False, 0.0, (reason_for(ensemble, elimination, c),))
        for c in elimination.fallen
    ]
    standing.sort(key=lambda o: (-o.likelihood, -o.severity))
    return (*standing, *fallen)


def _retake(ensemble: Ensemble, evidence: Sequence[Evidence]) -> tuple[str, ...]:
    """Readings whose removal lets something stand: one of them is the slip. Only one that confines can be."""
    ids = dict.fromkeys(e.reading.id for e in confining(evidence))
    return tuple(
        left_out
        for left_out in ids
        if len(ids) > 1 and anything_stands(ensemble, [e for e in evidence if e.reading.id != left_out])
    )
