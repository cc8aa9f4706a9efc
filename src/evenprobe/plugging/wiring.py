"""What the outlet's wiring can still be, by what it means for whoever plugs in: polarity, earth, supply and joints."""

from collections.abc import Sequence

from evenprobe.conditions import Condition
from evenprobe.conditions.variants import HEALTHY
from evenprobe.interpretation import ConditionOutcome, PointInterpretation, Verdict
from evenprobe.plugging.check import Check, Result
from evenprobe.quantities import Measurement
from evenprobe.wiring import PointFacts

TITLES = {"order": "Polarity", "earth": "Bond and earth", "supply": "Supply and joints"}
_SAYS = {
    "order": "Every wire is where it belongs.",
    "earth": "Metalwork is joined to earth.",
    "supply": "Nothing is lost or poor on the way.",
}
_NOTHING_KNOWN = {
    Verdict.UNTESTED: "Nothing is measured yet.",
    Verdict.CONTRADICTORY: "The readings make no sense together: take them again.",
}
NAMED = 2
"""How many explanations a sentence names."""


def topic_of(condition: Condition) -> str:
    """Whether it is about which wire is where, about the earth, or about anything else on the way."""
    if condition.contacts != HEALTHY:
        return "order"
    about_earth = "earth" in condition.joints or condition.leak_ohm is not None or not condition.bonded
    return "earth" if about_earth or condition.device_blind else "supply"


def wiring_checks(point: PointFacts, found: PointInterpretation) -> tuple[Check, ...]:
    """One check a topic; one alone where nothing is known of any, and first of all whether metalwork is live."""
    take = found.next_tests[0].measurement if found.next_tests else None
    if found.verdict in _NOTHING_KNOWN:
        text = _NOTHING_KNOWN[found.verdict] if found.conditions else found.summary
        return (Check("wiring", "Wiring", Result.OPEN, text, take=take),)
    standing = [o for o in found.conditions if o.standing]
    otherwise = Result.OPEN if any(o.severity.is_fine for o in standing) else Result.NO
    checks = [_topic(point, topic, standing, otherwise, take) for topic in TITLES]
    if found.verdict is Verdict.DANGER and not any(c.result is Result.NO for c in checks):
        checks.insert(0, Check("metalwork", "Metalwork", Result.NO, found.summary))
    if found.direct is not None:
        checks.insert(0, Check("direct", "Direct voltage", Result.NO, str(found.direct)))
    return tuple(checks)


def _topic(
    point: PointFacts,
    topic: str,
    standing: Sequence[ConditionOutcome],
    otherwise: Result,
    take: Measurement | None,
) -> Check:
    """`otherwise`: what it comes to where something of the topic stands that is not fine."""
    wrong = [o for o in standing if not o.severity.is_fine and topic_of(o.condition) == topic]
    if not wrong:
        return Check(topic, TITLES[topic], Result.YES, _SAYS[topic])
    wrong.sort(key=lambda o: (-o.severity, -o.likelihood))
    names = "; or ".join(_name(point, o) for o in wrong[:NAMED])
    more = f", and {len(wrong) - NAMED} more" if len(wrong) > NAMED else ""
    told = f"could still be: {names}{more}." if otherwise is Result.OPEN else f"{names}{more}."
    return Check(topic, TITLES[topic], otherwise, told[0].upper() + told[1:], take=take)


def _name(point: PointFacts, outcome: ConditionOutcome) -> str:
    words = outcome.condition.in_words(outcome.condition.title, point.practice)
    return words[0].lower() + words[1:]
