"""Parts checked alone: capacitors, batteries, panels, sensors, coils, heating elements, filaments.

Fuses, switches and breakers are contacts, see `continuity`. R = V²/P for what only heats, a tenth of it for a
cold filament; IEC 60947-4-1 for coils; makers' figures else.
"""

from collections.abc import Sequence
from typing import Literal

from evenprobe.deadtests.accuracy import Accuracy, Shown
from evenprobe.deadtests.judgement import Outcome, Result, held_against, worst
from evenprobe.deadtests.sentences import JUDGED
from evenprobe.deadtests.slips import did_you_mean
from evenprobe.limits import Band, Limit
from evenprobe.limits.components import (
    BATTERIES,
    CAPACITOR_TOLERANCE_PERCENT,
    COIL_DROP_OUT,
    COIL_PULL_IN,
    ELEMENT,
    FILAMENT,
    FILAMENT_COLD_SHARE,
    PANEL_STRING,
    SENSOR_TOLERANCE_C,
)

_SHORTED_SHARE = 0.1
"""An element with so little of its resistance has turns joined."""


def capacitor(printed_uf: float, measured: Shown, tolerance_percent: float | None) -> Outcome:
    """Capacitance in microfarads, discharged and disconnected first."""
    tolerance = CAPACITOR_TOLERANCE_PERCENT if tolerance_percent is None else tolerance_percent
    source = "usual tolerance" if tolerance_percent is None else "printed tolerance"
    limit = Limit("capacitor.tolerance", "%", Band(-tolerance, tolerance), source)
    if measured.beyond:
        return Outcome(Result.FAIL, [JUDGED.say("capacitor.over-range")], limit)
    deviation = Shown(100 * (measured.value / printed_uf - 1), 100 * measured.doubt / printed_uf)
    result = held_against(limit, deviation.interval)
    said = [JUDGED.say(f"capacitor.{result}")]
    question = did_you_mean(measured.value, printed_uf, "µF")
    return Outcome(result, said, limit, {"deviation_percent": deviation.value}, question, deviation, 0.0)


def battery(chemistry: str, measured: Shown) -> Outcome:
    """Volts at rest. A minus sign says the leads are the other way round; it is judged by its magnitude."""
    states = BATTERIES[chemistry]
    volts = Shown(abs(measured.value), measured.doubt)
    least = next(s for s in reversed(states) if s.usable)
    limit = Limit("battery.at-rest", "V", Band(least.volts, float("inf")), "makers' data, at rest")
    state = next(s for s in states if volts.value >= s.volts)
    result = held_against(limit, volts.interval)
    if result is Result.PASS and not state.good:
        result = Result.NOTE
    said = [JUDGED.say("battery.state", state=state.says.capitalize())]
    if measured.value < 0:
        result = worst([result, Result.NOTE])
        said.append(JUDGED.say("battery.minus"))
    question = did_you_mean(volts.value, states[0].volts, "V")
    computed = {"state": state.says, "volts": volts.value}
    return Outcome(result, said, limit, computed, question, volts, states[0].volts)


def panel_string(panels: int, panel_v: float, measured: Shown) -> Outcome:
    """Volts of panels in series at open circuit: they add up, and the sign decides (IEC 62446-1, 6.1).

    A panel that is bypassed is missing from the sum, one the other way round is taken off it.
    """
    expected = panels * panel_v
    share = measured.times(100 / expected)
    limit, computed = PANEL_STRING, {"expected_v": expected}
    question = did_you_mean(abs(measured.value), expected, "V")
    if measured.value + measured.doubt < 0:
        return Outcome(Result.FAIL, [JUDGED.say("panels.minus")], limit, computed, question, measured, expected)
    result = held_against(limit, share.interval)
    said = [JUDGED.say(f"panels.{result}", expected=expected)]
    missing = round((expected - measured.value) / panel_v)
    if result is Result.FAIL and share.value < limit.band.low and 1 <= missing < panels:
        said.append(JUDGED.say("panels.missing", count=missing))
    return Outcome(result, said, limit, computed, question, share, 100.0)


def temperature_sensor(pairs: Sequence[tuple[float, float]], tolerance_c: float | None, accuracy: Accuracy) -> Outcome:
    """Pairs of (true, shown) temperatures in °C; one alone says nothing of the slope."""
    tolerance = SENSOR_TOLERANCE_C if tolerance_c is None else tolerance_c
    limit = Limit("sensor.difference", "°C", Band(-tolerance, tolerance), "maker's figure, else 1 °C")
    differences = [Shown(shown - true, accuracy.shows(shown).doubt) for true, shown in pairs]
    result = worst(held_against(limit, d.interval) for d in differences)
    said = [JUDGED.say(f"sensor.{result}")]
    if len({true for true, _ in pairs}) < 2:
        result = worst([result, Result.NOTE])
        said.append(JUDGED.say("sensor.one-temperature"))
    greatest = max(differences, key=lambda d: abs(d.value))
    return Outcome(result, said, limit, {"difference_c": greatest.value}, "", greatest, 0.0)


def coil(rated_v: float, measured: Shown | None, *, energised: bool = True, winding: Shown | None = None) -> Outcome:
    """A contactor's or relay's coil: volts across it, energised or to drop out; ohms of its winding."""
    if winding is not None and winding.beyond:
        return Outcome(Result.FAIL, [JUDGED.say("coil.open")], COIL_PULL_IN)
    if measured is None:
        return Outcome(Result.NOTE, [JUDGED.say("coil.volts-next")], COIL_PULL_IN)
    share = measured.times(100 / rated_v)
    limit = COIL_PULL_IN if energised else COIL_DROP_OUT
    result = held_against(limit, share.interval)
    if energised and result is Result.FAIL and share.value > limit.band.high:
        result, said = Result.NOTE, "coil.too-much"
    else:
        said = f"coil.pull-in.{result}" if energised else f"coil.drop-out.{result}"
    question = did_you_mean(measured.value, rated_v, "V")
    return Outcome(result, [JUDGED.say(said)], limit, {"share_percent": share.value}, question, share)


def element(
    rated_v: float, rated_w: float, measured: Shown, null_ohm: float | None, what: Literal["element", "filament"]
) -> Outcome:
    """A heating element, or a filament cold, in ohms."""
    guide, share = (FILAMENT, FILAMENT_COLD_SHARE) if what == "filament" else (ELEMENT, 1.0)
    expected = share * rated_v**2 / rated_w
    limit = Limit(guide.id, guide.unit, Band(guide.band.low * expected, guide.band.high * expected), guide.source)
    if measured.beyond:
        return Outcome(Result.FAIL, [JUDGED.say("element.broken", what=what)], limit, {"expected_ohm": expected})
    corrected = measured.less(null_ohm or 0.0)
    computed = {"expected_ohm": expected, "corrected_ohm": max(0.0, corrected.value)}
    inside = held_against(limit, corrected.interval)
    if corrected.value < _SHORTED_SHARE * expected:
        result, said = Result.FAIL, "element.shorted"
    elif inside is Result.PASS:
        result, said = Result.PASS, "element.pass"
    else:
        result, said = Result.NOTE, "element.note"
    question = did_you_mean(measured.value, expected, "ohm")
    return Outcome(result, [JUDGED.say(said)], limit, computed, question, corrected, expected)
