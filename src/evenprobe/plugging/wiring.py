"""What the outlet's wiring can still be, by what it means for whoever plugs in: polarity, earth, supply and joints."""

from collections.abc import Sequence

from evenprobe.conditions import Condition
from evenprobe.conditions.variants import HEALTHY, OPEN
from evenprobe.interpretation import ConditionOutcome, PointInterpretation, Verdict
from evenprobe.plugging.check import Check, Result
from evenprobe.plugging.sentences import WIRING, title_of
from evenprobe.quantities import Measurement
from evenprobe.wiring import PointFacts

_TOPICS = ("order", "earth", "supply")
"""Which wire is where; the earth; anything else on the way."""
_NOTHING_KNOWN = (Verdict.UNTESTED, Verdict.CONTRADICTORY)
_SAID_OF = {Result.OPEN: "could-still-be", Result.NOTE: "not-excluded", Result.NO: "is"}
NAMED = 2
"""How many explanations a sentence names."""


def topic_of(condition: Condition) -> str:
    """Which of the topics it is about."""
    if condition.contacts != HEALTHY:
        return "order"
    about_earth = "earth" in condition.joints or condition.leak_ohm is not None or not condition.bonded
    return "earth" if about_earth or condition.device_blind else "supply"


def _at_worst_warms(condition: Condition) -> bool:
    """Whether it is a poor joint or a long run, which no meter tells from a sound one for certain and warmth does."""
    poor = any(joint is not OPEN for joint in condition.joints.values())
    return not condition.severity.can_hurt and (poor or condition.overloaded)


def wiring_checks(point: PointFacts, found: PointInterpretation) -> tuple[Check, ...]:
    """One check a topic; one alone where nothing is known of any, and first of all whether metalwork is live."""
    take = found.next_tests[0].measurement if found.next_tests else None
    if found.verdict in _NOTHING_KNOWN:
        text = str(WIRING.say(found.verdict)) if found.conditions else found.summary
        return (Check("wiring", title_of("wiring", point), Result.OPEN, text, take=take),)
    standing = [o for o in found.conditions if o.standing]
    otherwise = Result.OPEN if any(o.severity.is_fine for o in standing) else Result.NO
    checks = [_topic(point, topic, standing, otherwise, take) for topic in _TOPICS]
    if found.verdict is Verdict.DANGER and not any(c.result is Result.NO for c in checks):
        checks.insert(0, Check("metalwork", title_of("metalwork", point), Result.NO, found.summary))
    if found.direct is not None:
        checks.insert(0, Check("direct", title_of("direct", point), Result.NO, str(found.direct)))
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
        return Check(topic, title_of(topic, point), Result.YES, str(WIRING.say(topic, **point.practice.named)))
    wrong.sort(key=lambda o: (-o.severity, -o.likelihood))
    if otherwise is Result.OPEN and take is None and all(_at_worst_warms(o.condition) for o in wrong):
        likeliest = max(standing, key=lambda o: o.likelihood)
        otherwise = Result.NOTE if likeliest.severity.is_fine else otherwise
    names = "; or ".join(o.condition.name_in(point.practice) for o in wrong[:NAMED])
    more = len(wrong) - NAMED
    key = _SAID_OF[otherwise] + ("-more" if more > 0 else "")
    told = str(WIRING.say(key, names=names, more=more))
    return Check(topic, title_of(topic, point), otherwise, told[0].upper() + told[1:], take=take)
