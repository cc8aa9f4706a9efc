"""Two questions beside the wiring, each with an answer of its own: does it insulate, and does its device trip.

The wiring is decided by elimination. How well it insulates a dead test says (IEC 60364-6, 6.4.3.3), and whether the
residual-current device trips only a trip does (6.4.3.7): neither keeps a wiring from safe while nobody has tested it,
and either makes it a hazard when it fails.
"""

from collections.abc import Sequence

from evenprobe.interpretation.findings import BesideWiring, Judgement, JudgementResult, State
from evenprobe.interpretation.sentences import BESIDE
from evenprobe.quantities import TRIP, Evidence
from evenprobe.wiring import PointFacts

_WORSE = (JudgementResult.PASS, JudgementResult.BORDERLINE, JudgementResult.FAIL)
_INSULATION_LIMIT = "insulation.least"


def insulation_of(judgements: Sequence[Judgement]) -> BesideWiring:
    """The worst that the point's insulation tests came to."""
    tests = [j for j in judgements if j.limit.id == _INSULATION_LIMIT]
    if not tests:
        return BesideWiring(State.NOT_TESTED, str(BESIDE.say("insulation-not-tested")))
    worst = max(tests, key=lambda j: _WORSE.index(j.result))
    return BesideWiring(State(worst.result), worst.text, worst.reading)


def protection_of(point: PointFacts, evidence: Sequence[Evidence]) -> BesideWiring:
    """What the trips came to that count; one that failed outweighs those that did not."""
    words = point.practice.named
    trips = sorted((e.reading for e in evidence if e.quantity is TRIP), key=lambda r: (bool(r.tripped), r.id))
    if trips:
        state = State.PASS if trips[0].tripped else State.FAIL
        return BesideWiring(state, str(BESIDE.say(f"protection-{state}", **words)), trips[0].id)
    state = State.NOT_PRESENT if point.circuit.residual_ma is None else State.NOT_TESTED
    return BesideWiring(state, str(BESIDE.say(f"protection-{state}", **words)))
