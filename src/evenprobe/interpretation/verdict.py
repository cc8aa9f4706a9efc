"""The verdict of a point from what stands, and the one sentence that says it.

Nothing is safe while a dangerous explanation still fits.
"""

from collections.abc import Sequence

from evenprobe.conditions import Severity
from evenprobe.interpretation.outcome import ConditionOutcome, Judgement, JudgementResult, Verdict
from evenprobe.limits.voltages import DRY_TOUCH_DC_VOLTS, DRY_TOUCH_VOLTS
from evenprobe.practices import Practice
from evenprobe.quantities import VOLTAGE, Alarm, Direct, Evidence, Kept
from evenprobe.quantities.measurement import FEEDS_DIRECT
from evenprobe.quantities.probes import ports_of
from evenprobe.wiring import PointFacts
from evenprobe.wiring.points import BOARD_END, METALWORK

_OF_SEVERITY = {
    Severity.DEFECT: Verdict.DEFECT,
    Severity.HAZARD: Verdict.HAZARD,
    Severity.DANGER: Verdict.DANGER,
}
_WORSE = (Verdict.DEFECT, Verdict.HAZARD, Verdict.DANGER)
_BY_INSULATION = dict.fromkeys((None, *JudgementResult), Verdict.DEFECT)
_BY_INSULATION[JudgementResult.FAIL] = Verdict.HAZARD
INSULATION_LIMIT = "insulation.least"


def insulation_result(judgements: Sequence[Judgement]) -> JudgementResult | None:
    """The worst that the point's insulation tests came to."""
    results = [j.result for j in judgements if j.limit.id == INSULATION_LIMIT]
    worse = (JudgementResult.PASS, JudgementResult.BORDERLINE, JudgementResult.FAIL)
    return max(results, key=worse.index, default=None)


def metalwork_against_reference(evidence: Sequence[Evidence]) -> list[Evidence]:
    """Contact readings that say what potential the metalwork is at."""
    return [e for e in evidence if e.quantity is VOLTAGE and ports_of(e.measurement) == {"PE", "REF"}]


def dangerous_readings(evidence: Sequence[Evidence]) -> list[Evidence]:
    """Counted readings dangerous by themselves: metalwork above the touch limit.

    What a meter of high impedance shows may be a ghost: it is answered by the same reading at low impedance.
    """
    at_metal = metalwork_against_reference(evidence)
    collapsed = {
        e.measurement.setup("input")
        for e in at_metal
        if e.measurement.at_low_impedance and e.interval[1] <= DRY_TOUCH_VOLTS
    }
    above = [e for e in at_metal if e.high > DRY_TOUCH_VOLTS]
    return [e for e in above if e.measurement.at_low_impedance or e.measurement.setup("input") not in collapsed]


def direct_voltage(directs: Sequence[Direct], kept: Sequence[Kept]) -> list[Direct]:
    """Direct voltages that low impedance did not bring to nothing in the same place, the highest on metalwork first."""
    collapsed = {
        k.reading.measurement.setup("input") for k in kept if k.no_direct and k.reading.measurement.at_low_impedance
    }
    found = [
        d
        for d in directs
        if d.reading.measurement.at_low_impedance or d.reading.measurement.setup("input") not in collapsed
    ]
    return sorted(found, key=lambda d: (-d.metal, -d.volts, d.reading.id))


def _direct_on_metal(directs: Sequence[Direct]) -> bool:
    return any(d.metal and d.volts > DRY_TOUCH_DC_VOLTS for d in directs)


def standing_alarms(alarms: Sequence[Alarm], evidence: Sequence[Evidence]) -> list[Alarm]:
    """Alarms at metalwork that no contact reading to an independent earth has answered, as things were or live."""
    answered_with = {e.measurement.device for e in metalwork_against_reference(evidence) if e.high <= DRY_TOUCH_VOLTS}
    at_metal = [a for a in alarms if a.terminal in METALWORK]
    return [a for a in at_metal if not answered_with & {"closed", a.reading.measurement.device}]


def _at_the_point(e: Evidence) -> bool:
    """Whether a probe was at the point; what was measured at the board alone is no test of it."""
    return bool(e.measurement.ends - set(BOARD_END.values()))


def decide(
    outcomes: Sequence[ConditionOutcome],
    evidence: Sequence[Evidence],
    alarms: Sequence[Alarm],
    insulation: JudgementResult | None = None,
    directs: Sequence[Direct] = (),
) -> Verdict:
    """The verdict. Strained conditions count again only when nothing else stands and no alarm is unanswered.

    `insulation`: the worst result of its tests, None where there is none. `directs`: direct voltages that stand.
    Both can only make the verdict worse.
    """
    unanswered = standing_alarms(alarms, evidence)
    if dangerous_readings(evidence) or unanswered or _direct_on_metal(directs):
        return Verdict.DANGER
    found = _by_elimination(outcomes, evidence, alarms, insulation)
    return found if found in (Verdict.HAZARD, Verdict.DANGER) or not directs else Verdict.HAZARD


def _by_elimination(
    outcomes: Sequence[ConditionOutcome],
    evidence: Sequence[Evidence],
    alarms: Sequence[Alarm],
    insulation: JudgementResult | None,
) -> Verdict:
    if not any(_at_the_point(e) for e in evidence) and not alarms and insulation is not JudgementResult.FAIL:
        return Verdict.UNTESTED
    standing = [o for o in outcomes if o.standing]
    if not standing:
        return Verdict.CONTRADICTORY
    counted = [o for o in standing if not o.strained] or standing
    worst = max(o.severity for o in counted)
    if not any(o.severity.is_fine for o in counted):
        return max(_OF_SEVERITY[worst], _BY_INSULATION[insulation], key=_WORSE.index)
    if insulation is JudgementResult.FAIL:
        return Verdict.HAZARD
    if worst.can_hurt or not evidence or insulation is JudgementResult.BORDERLINE:
        return Verdict.UNCONFIRMED
    return Verdict.CORRECT if worst.is_fine else Verdict.SAFE


def direct_sentence(directs: Sequence[Direct], practice: Practice) -> str:
    """What is said of the worst direct voltage that stands, empty where none does."""
    if not directs:
        return ""
    worst, letters = directs[0], practice.letters
    m = worst.reading.measurement
    ends = " and ".join(letters.get(end, str(end)) for end in (m.from_, m.to) if end)
    what_to_do = "Keep off, switch off every source, lock." if _direct_on_metal(directs[:1]) else "Treat as live."
    return f"{worst.shows} between {ends}. {what_to_do} {FEEDS_DIRECT[0].upper()}{FEEDS_DIRECT[1:]}."


def summary(
    verdict: Verdict,
    outcomes: Sequence[ConditionOutcome],
    point: PointFacts,
    *,
    alarm_unanswered: bool,
    alarm_unexplained: bool,
    insulation: JudgementResult | None = None,
    direct: str = "",
) -> str:
    """One plain sentence for the verdict, and what it leaves out. `direct`: what is said of a direct voltage."""
    standing = [o for o in outcomes if o.standing]
    worst = max(standing, key=lambda o: (o.severity, o.likelihood), default=None)
    named = worst.condition.in_words(worst.condition.title, point.practice) if worst else ""
    notice = worst.condition.symptom if worst else ""
    named = named[:1].lower() + named[1:]
    sentence = {
        Verdict.UNTESTED: "Nothing measured counts yet. Treat as live.",
        Verdict.CONTRADICTORY: "No single condition explains all the readings. Treat as live and retake.",
        Verdict.CORRECT: "Everything dangerous is ruled out and nothing is wrong.",
        Verdict.SAFE: f"No dangerous fault left; {named} still could be.",
        Verdict.UNCONFIRMED: f"It could be right, and it could still be this: {named} ({notice}).",
        Verdict.DEFECT: f"It is not right: {_all_named(standing, point)}.",
        Verdict.HAZARD: f"One more fault and someone is hurt: {_all_named(standing, point)}.",
        Verdict.DANGER: "Metalwork is at a dangerous voltage. Keep off, switch off, lock."
        if worst is None or not named
        else f"Someone can be hurt now: {named}. Keep off, switch off, lock.",
    }[verdict]
    if verdict is Verdict.DANGER and alarm_unanswered:
        return (
            "A tester says the metalwork is live. "
            "Keep off until a contact reading to an independent earth says otherwise."
        )
    fine = any(o.severity.is_fine for o in standing)
    if direct and (fine or not standing):
        return direct
    if fine and insulation is JudgementResult.FAIL:
        sentence = "Insulation is below its limit: one more fault and someone is hurt."
    elif fine and insulation is JudgementResult.BORDERLINE:
        sentence = "Insulation is at its limit, within the tester's error: repeat it."
    return f"{sentence} An alarm stays unexplained." if alarm_unexplained else sentence


def _all_named(standing: Sequence[ConditionOutcome], point: PointFacts) -> str:
    ranked = sorted(standing, key=lambda o: -o.likelihood)[:3]
    titles = [o.condition.in_words(o.condition.title, point.practice) for o in ranked]
    return "; or ".join(t[0].lower() + t[1:] for t in titles)
