"""The verdict of a point from what stands, and which sentence says it.

Nothing is safe while a dangerous explanation still fits.
"""

from collections.abc import Sequence

from evenprobe.conditions import Severity
from evenprobe.interpretation.direct import on_metal
from evenprobe.interpretation.findings import ConditionOutcome, Near, State, Verdict
from evenprobe.interpretation.sentences import SUMMARIES
from evenprobe.limits.voltages import DRY_TOUCH_VOLTS
from evenprobe.quantities import VOLTAGE, Alarm, Direct, Evidence
from evenprobe.quantities.probes import ports_of
from evenprobe.sentences import Sentence
from evenprobe.wiring import PointFacts
from evenprobe.wiring.points import BOARD_END, METALWORK

_OF_SEVERITY = {
    Severity.DEFECT: Verdict.DEFECT,
    Severity.HAZARD: Verdict.HAZARD,
    Severity.DANGER: Verdict.DANGER,
}
_WORSE = (Verdict.DEFECT, Verdict.HAZARD, Verdict.DANGER)
_AT_LEAST = {state: Verdict.HAZARD if state is State.FAIL else Verdict.DEFECT for state in State}
"""By how it insulates: what a point comes to where no wiring that is fine still fits."""
MOST_NAMED = 3
"""Of what stands, in one sentence."""


def _metalwork_against_reference(evidence: Sequence[Evidence]) -> list[Evidence]:
    """Contact readings that say what potential the metalwork is at."""
    return [e for e in evidence if e.quantity is VOLTAGE and ports_of(e.measurement) == {"PE", "REF"}]


def dangerous_readings(evidence: Sequence[Evidence]) -> list[Evidence]:
    """Counted readings dangerous by themselves: metalwork above the touch limit.

    What a meter of high impedance shows may be a ghost: it is answered by the same reading at low impedance.
    """
    at_metal = _metalwork_against_reference(evidence)
    collapsed = {
        e.measurement.setup("input")
        for e in at_metal
        if e.measurement.at_low_impedance and e.interval[1] <= DRY_TOUCH_VOLTS
    }
    above = [e for e in at_metal if e.high > DRY_TOUCH_VOLTS]
    return [e for e in above if e.measurement.at_low_impedance or e.measurement.setup("input") not in collapsed]


def standing_alarms(alarms: Sequence[Alarm], evidence: Sequence[Evidence]) -> list[Alarm]:
    """Alarms at metalwork that no contact reading to an independent earth has answered, as things were or live."""
    answered_with = {e.measurement.device for e in _metalwork_against_reference(evidence) if e.high <= DRY_TOUCH_VOLTS}
    at_metal = [a for a in alarms if a.terminal in METALWORK]
    return [a for a in at_metal if not answered_with & {"closed", a.reading.measurement.device}]


def _about_wiring(standing: Sequence[ConditionOutcome]) -> Sequence[ConditionOutcome]:
    """Of what stands what is about the wiring here; what is beside it only where nothing else is left."""
    return [o for o in standing if not o.condition.leaves_wiring_sound] or standing


def _at_the_point(e: Evidence) -> bool:
    """Whether a probe was at the point; what was measured at the board alone is no test of it."""
    return bool(e.measurement.ends - set(BOARD_END.values()))


def decide(
    outcomes: Sequence[ConditionOutcome],
    evidence: Sequence[Evidence],
    alarms: Sequence[Alarm],
    insulation: State = State.NOT_TESTED,
    directs: Sequence[Direct] = (),
) -> Verdict:
    """The verdict. Strained conditions count again only when nothing else stands and no alarm is unanswered.

    `insulation`: what its tests came to. `directs`: direct voltages that stand. Both can only make the verdict worse.
    """
    unanswered = standing_alarms(alarms, evidence)
    if dangerous_readings(evidence) or unanswered or on_metal(directs):
        return Verdict.DANGER
    found = _by_elimination(outcomes, evidence, alarms, insulation)
    return found if found in (Verdict.HAZARD, Verdict.DANGER) or not directs else Verdict.HAZARD


def _by_elimination(
    outcomes: Sequence[ConditionOutcome],
    evidence: Sequence[Evidence],
    alarms: Sequence[Alarm],
    insulation: State,
) -> Verdict:
    if not any(_at_the_point(e) for e in evidence) and not alarms and insulation is not State.FAIL:
        return Verdict.UNTESTED
    standing = [o for o in outcomes if o.standing]
    if not standing:
        return Verdict.CONTRADICTORY
    counted = [o for o in _about_wiring(standing) if not o.strained] or _about_wiring(standing)
    worst = max(o.severity for o in counted)
    if not any(o.severity.is_fine for o in counted):
        return max(_OF_SEVERITY[worst], _AT_LEAST[insulation], key=_WORSE.index)
    if insulation is State.FAIL:
        return Verdict.HAZARD
    if worst.can_hurt or not evidence or insulation is State.BORDERLINE:
        return Verdict.UNCONFIRMED
    return Verdict.CORRECT if worst.is_fine else Verdict.SAFE


def summary(
    verdict: Verdict,
    outcomes: Sequence[ConditionOutcome],
    point: PointFacts,
    *,
    alarm_unanswered: bool,
    alarm_unexplained: bool,
    insulation: State = State.NOT_TESTED,
    direct: Sentence | None = None,
    near: Sequence[Near] = (),
) -> tuple[Sentence, ...]:
    """What is said of the verdict, one plain sentence, and what it leaves out.

    `direct`: of a direct voltage; `near`: what comes nearest where nothing explains the readings.
    """
    standing = _about_wiring([o for o in outcomes if o.standing])
    fine = any(o.severity.is_fine for o in standing)
    if verdict is Verdict.DANGER and alarm_unanswered:
        return (SUMMARIES.say("alarm-unanswered", **point.practice.named),)
    if direct is not None and (fine or not standing):
        return (direct,)
    if fine and insulation is State.FAIL:
        found = SUMMARIES.say("insulation-fails")
    elif fine and insulation is State.BORDERLINE:
        found = SUMMARIES.say("insulation-borderline")
    elif verdict is Verdict.DANGER and not standing:
        found = SUMMARIES.say("metalwork-live")
    else:
        found = SUMMARIES.say(_headline(verdict, standing), **_named(standing, point))
    beside = [
        o.condition.name_in(point.practice)
        for o in outcomes
        if o.standing and o.condition.leaves_wiring_sound and not o.condition.device_blind
    ]
    more = []
    if verdict.is_safe and beside:
        more.append(SUMMARIES.say("beside", names="; ".join(beside)))
    if alarm_unexplained:
        more.append(SUMMARIES.say("alarm-unexplained"))
    for one in near:
        name, reason = one.condition.name_in(point.practice), one.reason
        ends = point.practice.between(one.missed.from_, one.missed.to, word="to") or one.missed.quantity.title
        seen = reason.quantity.said(reason.seen)
        more.append(SUMMARIES.say("nearest", name=name, ends=ends, expected=reason.text, seen=seen))
    return (found, *more)


def _headline(verdict: Verdict, standing: Sequence[ConditionOutcome]) -> str:
    """The likeliest first and then the worst not excluded, where the one is not the other."""
    if not standing:
        return verdict
    worst, likely = _worst(standing), max(standing, key=lambda o: o.likelihood)
    if verdict is Verdict.UNCONFIRMED:
        return "unconfirmed-likely-wrong" if likely is worst else verdict
    is_of_the_worst = verdict in (Verdict.HAZARD, Verdict.DANGER) and _OF_SEVERITY.get(worst.severity) is verdict
    return f"{verdict}-not-excluded" if is_of_the_worst and likely.severity < worst.severity else verdict


def _worst(standing: Sequence[ConditionOutcome]) -> ConditionOutcome:
    return max(standing, key=lambda o: (o.severity, o.likelihood))


def _named(standing: Sequence[ConditionOutcome], point: PointFacts) -> dict[str, str]:
    """What a summary may speak of: the `worst` that stands, its `symptom`, the one `likely`, the few `likeliest`."""
    if not standing:
        return {}
    worst = _worst(standing)
    likeliest = sorted(standing, key=lambda o: -o.likelihood)[:MOST_NAMED]
    return {
        "worst": worst.condition.name_in(point.practice),
        "symptom": point.practice.in_words(worst.condition.symptom),
        "likely": likeliest[0].condition.name_in(point.practice),
        "likeliest": "; or ".join(o.condition.name_in(point.practice) for o in likeliest),
    }
