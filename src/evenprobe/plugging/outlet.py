"""What the outlet has by its contacts, its device and its supply: contacts, current, frequency, trip."""

from collections.abc import Sequence

from evenprobe.limits import limit_for
from evenprobe.limits.protective_devices import load_share, residual_span_ma
from evenprobe.plugging.check import Check, Result
from evenprobe.plugging.needs import Needs
from evenprobe.quantities import FREQUENCY, TRIP, Evidence, Measurement, Reading, weigh
from evenprobe.wiring import PointFacts, Terminal
from evenprobe.wiring.points import METALWORK

READS_HERTZ_WITHIN = 0.001
"""Share by which a meter may misread a frequency."""


def contacts(point: PointFacts, needs: Needs) -> Check:
    missing = []
    if len(point.lines) < needs.lines:
        missing.append(f"{needs.lines} lines where the outlet has {len(point.lines)}")
    if needs.neutral and Terminal.N not in point.terminals:
        missing.append("a neutral")
    if needs.earth and not set(METALWORK) & set(point.terminals):
        missing.append("a protective earth")
    text = f"It needs {' and '.join(missing)}." if missing else "The outlet has every contact it needs."
    return Check("contacts", "Contacts", Result.NO if missing else Result.YES, text)


def current(point: PointFacts, needs: Needs) -> Check:
    """Against the device's rating; what is not recorded has to be read off it."""
    limit, rating = load_share(point.practice, continuous=needs.continuous), point.circuit.rating_a
    if rating is None:
        text = f"It draws {needs.amperes:g} A. Read the rating off the device and record it with the circuit."
        return Check("current", "Current", Result.OPEN, text, limit)
    share = 100 * needs.amperes / rating
    within = share <= limit.band.high
    text = f"{needs.amperes:g} A is {share:.0f} % of the {rating:g} A device, {limit.band.high:g} % allowed."
    return Check("current", "Current", Result.YES if within else Result.NO, text, limit)


def frequency(point: PointFacts, needs: Needs, readings: Sequence[Reading]) -> Check | None:
    """Of a grid it is known; a source of its own has to be measured."""
    if needs.hertz is None:
        return None
    limit = limit_for("frequency.band", point.practice, point.system)
    spread = limit.band.high - point.system.frequency_hz
    seen = [r.value for r in readings if r.measurement.quantity is FREQUENCY and r.value is not None]
    if seen:
        doubt = READS_HERTZ_WITHIN * seen[-1]
        off = abs(seen[-1] - needs.hertz)
        result = Result.YES if off + doubt <= spread else Result.NO if off - doubt > spread else Result.OPEN
        return Check("frequency", "Frequency", result, f"{seen[-1]:g} Hz; it needs {needs.hertz:g} Hz.", limit)
    if abs(point.system.frequency_hz - needs.hertz) > spread:
        text = f"This supply has {point.system.frequency_hz:g} Hz; it needs {needs.hertz:g} Hz."
        return Check("frequency", "Frequency", Result.NO, text, limit)
    if point.system.standalone:
        text = "A source of its own may run at any frequency: measure it."
        take = Measurement(FREQUENCY, None, None)
        return Check("frequency", "Frequency", Result.OPEN, text, limit, take)
    return Check("frequency", "Frequency", Result.YES, f"{needs.hertz:g} Hz, as this supply has.", limit)


def trip(point: PointFacts, readings: Sequence[Reading]) -> Check:
    """Whether a residual-current device protects it; one nobody recorded may well not be there."""
    title, rated = "Trip", point.circuit.residual_ma
    tests = [r for r in readings if r.measurement.quantity is TRIP]
    if any(r.tripped and isinstance(weigh(r, point)[0], Evidence) for r in tests):
        return Check("trip", title, Result.YES, "The residual-current device tripped.")
    if any(r.tripped is False and isinstance(weigh(r, point)[0], Evidence) for r in tests):
        text = "The residual-current device did not trip: it fails, or the earth leads nowhere."
        return Check("trip", title, Result.NO, text)
    if rated is None:
        text = "No residual-current device is recorded here. Put a portable one of your own in between."
        return Check("trip", title, Result.NOTE, text)
    least = residual_span_ma(rated)[1]
    text = f"The {rated:g} mA device was not tested: press a tester that drives {least:g} mA or more."
    take = None
    if Terminal.PE in point.terminals and point.lines:
        take = Measurement(TRIP, point.lines[0], Terminal.PE, test_ma=least)
    return Check("trip", title, Result.OPEN, text, take=take)
