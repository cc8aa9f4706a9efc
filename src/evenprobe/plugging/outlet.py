"""What the outlet has by its contacts, its device and its supply: contacts, current, frequency, trip."""

from collections.abc import Sequence

from evenprobe.limits import limit_for
from evenprobe.limits.protective_devices import load_share, residual_span_ma
from evenprobe.plugging.check import Check, Result
from evenprobe.plugging.needs import Needs
from evenprobe.plugging.sentences import CONTACTS, CURRENT, FREQUENCY, TRIP, title_of
from evenprobe.quantities import FREQUENCY as FREQUENCY_READ
from evenprobe.quantities import TRIP as TRIP_TEST
from evenprobe.quantities import Evidence, Measurement, Reading, weigh
from evenprobe.wiring import PointFacts, Terminal
from evenprobe.wiring.points import METALWORK

_READS_HERTZ_WITHIN = 0.001
"""Share by which a meter may misread a frequency."""


def contacts(point: PointFacts, needs: Needs) -> Check:
    """Whether every contact it needs is there."""
    missing, words = [], point.practice.named
    if len(point.lines) < needs.lines:
        missing.append(CONTACTS.say("lines", needed=needs.lines, present=len(point.lines), **words))
    if needs.neutral and Terminal.N not in point.terminals:
        missing.append(CONTACTS.say("neutral", **words))
    if needs.earth and not set(METALWORK) & set(point.terminals):
        missing.append(CONTACTS.say("earth", **words))
    result = Result.NO if missing else Result.YES
    said = CONTACTS.say(result, missing=", ".join(map(str, missing)))
    return Check("contacts", title_of("contacts", point), result, str(said))


def current(point: PointFacts, needs: Needs) -> Check:
    """Against the device's rating; what is not recorded has to be read off it."""
    limit, rating = load_share(point.practice, continuous=needs.continuous), point.circuit.rating_a
    title = title_of("current", point)
    if rating is None:
        return Check("current", title, Result.OPEN, str(CURRENT.say("no-rating", amperes=needs.amperes)), limit)
    share = 100 * needs.amperes / rating
    result = Result.YES if share <= limit.band.high else Result.NO
    said = CURRENT.say("share", amperes=needs.amperes, share=share, rating=rating, allowed=limit.band.high)
    return Check("current", title, result, str(said), limit)


def frequency(point: PointFacts, needs: Needs, readings: Sequence[Reading]) -> Check | None:
    """Of a grid it is known; a source of its own has to be measured."""
    if needs.hertz is None:
        return None
    limit, take = limit_for("frequency.band", point.practice, point.system), None
    supplied, spread = point.system.frequency_hz, limit.band.high - point.system.frequency_hz
    seen = [r.value for r in readings if r.measurement.quantity is FREQUENCY_READ and r.value is not None]
    if seen:
        doubt = _READS_HERTZ_WITHIN * seen[-1]
        off = abs(seen[-1] - needs.hertz)
        result = Result.YES if off + doubt <= spread else Result.NO if off - doubt > spread else Result.OPEN
        said = FREQUENCY.say("measured", measured=seen[-1], needed=needs.hertz)
    elif abs(supplied - needs.hertz) > spread:
        result, said = Result.NO, FREQUENCY.say("another", supplied=supplied, needed=needs.hertz)
    elif point.system.standalone:
        result, said, take = Result.OPEN, FREQUENCY.say("standalone"), Measurement(FREQUENCY_READ, None, None)
    else:
        result, said = Result.YES, FREQUENCY.say("as-supplied", needed=needs.hertz)
    return Check("frequency", title_of("frequency", point), result, str(said), limit, take)


def trip(point: PointFacts, readings: Sequence[Reading]) -> Check:
    """Whether a residual-current device protects it; one nobody recorded may well not be there."""
    rated, words = point.circuit.residual_ma, point.practice.named
    tests = [r for r in readings if r.measurement.quantity is TRIP_TEST and isinstance(weigh(r, point)[0], Evidence)]
    take = None
    if any(r.tripped for r in tests):
        result, said = Result.YES, TRIP.say("tripped", **words)
    elif any(r.tripped is False for r in tests):
        result, said = Result.NO, TRIP.say("did-not-trip", **words)
    elif rated is None:
        result, said = Result.NOTE, TRIP.say("none-recorded", **words)
    else:
        least = residual_span_ma(rated)[1]
        result, said = Result.OPEN, TRIP.say("not-tested", rated=rated, least=least)
        if Terminal.PE in point.terminals and point.lines:
            take = Measurement(TRIP_TEST, point.lines[0], Terminal.PE, test_ma=least)
    return Check("trip", title_of("trip", point), result, str(said), take=take)
