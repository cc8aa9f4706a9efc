"""Single readings against single limits. Where the limit lies inside a reading's interval it is borderline."""

from collections.abc import Iterable, Sequence
from math import inf

from evenprobe.deadtests import Accuracy, Result
from evenprobe.deadtests.insulation import insulation
from evenprobe.interpretation.outcome import Judgement, JudgementResult
from evenprobe.supplies import Limit, Override, limit_for
from evenprobe.supplies.test_limits import insulation_rule
from evenprobe.testers import Evidence, Quantity, Reading, port_of
from evenprobe.wiring import PointFacts

INSULATION_PERCENT = 5.0
"""An insulation tester's usual error."""
_BORDERLINE_TEXT = "the limit lies inside the tester's error: repeat with a more accurate tester"
_RESULT = {True: JudgementResult.PASS, False: JudgementResult.FAIL, None: JudgementResult.BORDERLINE}


def judge_limit(limit: Limit, reading: str, interval: tuple[float, float]) -> Judgement:
    """Pass when the whole interval is inside the band, fail when none of it is."""
    low, high = interval
    band, unit = limit.band, limit.unit
    result = _RESULT[band.holds(interval)]
    text = {
        JudgementResult.PASS: f"within {band.low:g} to {band.high:g} {unit}",
        JudgementResult.FAIL: f"outside {band.low:g} to {band.high:g} {unit}",
        JudgementResult.BORDERLINE: _BORDERLINE_TEXT,
    }[result]
    tolerable = limit.tolerable
    if result is JudgementResult.FAIL and tolerable and tolerable.low <= low and high <= tolerable.high:
        text += f"; tolerable, {tolerable.low:g} to {tolerable.high:g} {unit}: note it"
    return Judgement(limit, reading, result, interval, text)


def judgements(
    point: PointFacts, evidence: Sequence[Evidence], kept: Sequence[Reading], overrides: Sequence[Override]
) -> tuple[Judgement, ...]:
    """Every reading that a limit applies to; `kept` are readings, such as frequency, that decide no condition."""
    found = [
        judge_limit(limit_for(name, point.practice, point.system, overrides), e.reading.id, e.interval)
        for e in evidence
        if (name := _limit_of(e, point)) is not None
    ]
    for reading in kept:
        measurement = reading.measurement
        if measurement.quantity is Quantity.FREQUENCY and reading.value is not None:
            limit = limit_for("frequency.band", point.practice, point.system, overrides)
            doubt = 0.001 * reading.value
            found.append(judge_limit(limit, reading.id, (reading.value - doubt, reading.value + doubt)))
    readings = [*(e.reading for e in evidence), *kept]
    return (*found, *_drops(point, evidence, overrides), *_insulation(point, readings))


def _pair(e: Evidence) -> frozenset[str]:
    m = e.measurement
    return frozenset(port_of(t) for t in (m.from_, m.to) if t is not None)


def _limit_of(e: Evidence, point: PointFacts) -> str | None:
    if e.measurement.quantity is not Quantity.VOLTAGE or e.measurement.device == "open":
        return None
    pair = _pair(e)
    if pair == {"L", "N"}:
        return "voltage.band"
    if pair == {"PE", "REF"}:
        return "touch.limit"
    if e.measurement.as_is and _neutral_to_earth(pair, e, point):
        return "n-pe.unloaded"
    return None


def _neutral_to_earth(pair: frozenset[str], e: Evidence, point: PointFacts) -> bool:
    """On a plug that fits both ways the neutral is whichever contact is nearer the earth."""
    if point.polarised:
        return pair == {"N", "PE"}
    return pair in ({"N", "PE"}, {"L", "PE"}) and e.high < point.system.nominal_volts / 2


def _insulation(point: PointFacts, readings: Sequence[Reading]) -> Iterable[Judgement]:
    """As ordinary wiring. An unfit tester, or a test made another way than asked, can fail it and not pass it."""
    rule = insulation_rule("ordinary", point.system)
    accuracy = Accuracy(INSULATION_PERCENT)
    for reading in readings:
        if reading.measurement.quantity is not Quantity.INSULATION or _joined_at_the_board(reading):
            continue
        if reading.value is None:
            shown = accuracy.beyond(inf if reading.at_least is None else reading.at_least / 1e6)
        else:
            shown = accuracy.shows(reading.value / 1e6)
        outcome = insulation(shown, rule, reading.test_volts, loads=reading.loads)
        counts = not reading.unfit and outcome.result is not Result.INVALID
        result = _RESULT[rule.limit.band.holds(shown.interval)]
        if counts or result is JudgementResult.FAIL:
            yield Judgement(rule.limit, reading.id, result, shown.interval, outcome.text)


def _joined_at_the_board(reading: Reading) -> bool:
    """Neutral and earth are joined at the origin, so between them nothing insulates while the neutral is on its bar."""
    m = reading.measurement
    wires = {port_of(t).removeprefix("BOARD-") for t in (m.from_, m.to) if t}
    return wires == {"N", "PE"} and m.neutral == "connected"


def _drops(point: PointFacts, evidence: Sequence[Evidence], overrides: Sequence[Override]) -> tuple[Judgement, ...]:
    """Loaded against unloaded with the same tester: what the two have in common, its gain, cancels."""
    volts = [e for e in evidence if _limit_of(e, point) == "voltage.band" and e.reading.value is not None]
    unloaded = [e for e in volts if e.measurement.as_is]
    found = []
    for loaded in volts:
        if loaded.measurement.load_here_a is None:
            continue
        before = next((e for e in unloaded if e.tester == loaded.tester), None)
        if before is None:
            continue
        drop = before.low - loaded.low
        doubt = (before.tolerance + loaded.tolerance) / 2
        limit = limit_for("voltage.drop", point.practice, point.system, overrides)
        found.append(judge_limit(limit, loaded.reading.id, (max(0.0, drop - doubt), max(0.0, drop + doubt))))
    return tuple(found)
