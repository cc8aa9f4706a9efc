"""Two questions beside the wiring, each with an answer of its own: does it insulate, and does its device trip.

The wiring is decided by elimination. How well it insulates a dead test says (IEC 60364-6, 6.4.3.3), and whether the
residual-current device trips, and in time where it was timed, only a trip does (6.4.3.7): neither keeps a wiring from
safe while nobody has tested it, and either makes it a hazard when it fails.
"""

from collections.abc import Sequence

from evenprobe.deadtests import Accuracy, Result
from evenprobe.deadtests.protective import DeviceType, residual_current
from evenprobe.interpretation.findings import BesideWiring, Judgement, JudgementResult, State
from evenprobe.interpretation.sentences import BESIDE
from evenprobe.limits.protective_devices import PEOPLE_TRIP_MA
from evenprobe.quantities import TRIP, Evidence, Reading
from evenprobe.wiring import PointFacts

_WORSE = (JudgementResult.PASS, JudgementResult.BORDERLINE, JudgementResult.FAIL)
_WORSE_STATES = (State.PASS, State.BORDERLINE, State.FAIL)
_STATE_OF = {Result.PASS: State.PASS, Result.BORDERLINE: State.BORDERLINE, Result.FAIL: State.FAIL}
_TIMER = Accuracy(1.0, 1, 1.0)
"""Of a tester that times a trip: a per cent and a millisecond."""
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
    trips = sorted((e.reading for e in evidence if e.quantity is TRIP), key=lambda r: r.id)
    if trips:
        return max((_of_a_trip(point, trip) for trip in trips), key=lambda answer: _WORSE_STATES.index(answer.state))
    state = State.NOT_PRESENT if point.circuit.residual_ma is None else State.NOT_TESTED
    return BesideWiring(state, str(BESIDE.say(f"protection-{state}", **words)))


def _of_a_trip(point: PointFacts, trip: Reading) -> BesideWiring:
    """Whether it came, and in time where somebody timed it: a device on record, as a general one of its rating."""
    rated_ma, test_ma, after_ms = point.circuit.residual_ma, trip.measurement.test_ma, trip.after_ms
    state = State.PASS if trip.tripped else State.FAIL
    if not trip.tripped or after_ms is None or rated_ma is None or test_ma is None:
        return BesideWiring(state, str(BESIDE.say(f"protection-{state}", **point.practice.named)), trip.id)
    kind: DeviceType = "class-a-people" if rated_ma <= PEOPLE_TRIP_MA else "general"
    shown = _TIMER.shows(after_ms)
    outcome = residual_current(kind, rated_ma, test_ma, tripped=True, practice=point.practice, after_ms=shown)
    if outcome.limit is None or outcome.result not in _STATE_OF:
        return BesideWiring(state, str(BESIDE.say(f"protection-{state}", **point.practice.named)), trip.id)
    state = _STATE_OF[outcome.result]
    said = BESIDE.say(f"in-time-{state}", ms=after_ms, most=outcome.limit.band.high, **point.practice.named)
    return BesideWiring(state, str(said), trip.id)
