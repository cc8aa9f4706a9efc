"""Single readings against single limits. Where the limit lies inside a reading's interval it is borderline."""

from collections.abc import Iterable, Sequence
from math import inf

from evenprobe.deadtests import Accuracy, Result
from evenprobe.deadtests.insulation import insulation
from evenprobe.interpretation.findings import Judgement, JudgementResult
from evenprobe.interpretation.sentences import JUDGED
from evenprobe.limits import Limit, Override, limit_for
from evenprobe.limits.dead_tests import insulation_rule
from evenprobe.quantities import FREQUENCY, INSULATION, VOLTAGE, Evidence, Measurement, Reading
from evenprobe.quantities.insulation import GAIN_SHARE
from evenprobe.quantities.probes import load_between, port_of, ports_of, unloaded
from evenprobe.wiring import PointFacts, Terminal

_RESULT = {True: JudgementResult.PASS, False: JudgementResult.FAIL, None: JudgementResult.BORDERLINE}


def _judge_limit(limit: Limit, reading: str, interval: tuple[float, float]) -> Judgement:
    """Pass when the whole interval is inside the band, fail when none of it is."""
    low, high = interval
    band, unit = limit.band, limit.unit
    result = _RESULT[band.holds(interval)]
    about = {"low": band.low, "high": band.high, "unit": unit}
    said, tolerable = JUDGED.say(result, **about), limit.tolerable
    if result is JudgementResult.FAIL and tolerable and tolerable.low <= low and high <= tolerable.high:
        said = JUDGED.say("tolerable", least=tolerable.low, most=tolerable.high, **about)
    return Judgement(limit, reading, result, interval, str(said))


def judgements(
    point: PointFacts, evidence: Sequence[Evidence], kept: Sequence[Reading], overrides: Sequence[Override]
) -> tuple[Judgement, ...]:
    """Every reading that a limit applies to; `kept` are readings, such as frequency, that decide no condition."""
    found = [
        _judge_limit(limit, e.reading.id, e.interval)
        for e in evidence
        if (limit := _limit_of(e, point, overrides)) is not None
    ]
    for reading in kept:
        measurement = reading.measurement
        if measurement.quantity is FREQUENCY and reading.value is not None:
            limit = limit_for("frequency.band", point.practice, point.system, overrides)
            doubt = 0.001 * reading.value
            found.append(_judge_limit(limit, reading.id, (reading.value - doubt, reading.value + doubt)))
        if _direct_at_metal(measurement) and reading.value is not None:
            limit = limit_for("touch.limit.dc", point.practice, point.system, overrides)
            found.append(_judge_limit(limit, reading.id, _direct_interval(reading)))
    readings = [*(e.reading for e in evidence), *kept]
    return (
        *found,
        *_drops(point, evidence, overrides),
        *_leg_match(point, evidence, overrides),
        *_insulation(point, readings),
    )


def _direct_at_metal(m: Measurement) -> bool:
    return m.quantity is VOLTAGE and m.dc and m.of_metal_to_reference


def _direct_interval(reading: Reading) -> tuple[float, float]:
    """Without its sign, with the tester's error."""
    shows, ability = abs(reading.value or 0.0), reading.measurement.instrument.volts()
    error = ability.error(shows) if ability else 0.0
    return max(0.0, shows - error), shows + error


def _limit_of(e: Evidence, point: PointFacts, overrides: Sequence[Override]) -> Limit | None:
    if e.measurement.quantity is not VOLTAGE or e.measurement.device == "open":
        return None
    pair = ports_of(e.measurement)
    if _is_live(pair, point):
        return _for_pair("voltage.band", pair, point, overrides)
    if pair == {"PE", "REF"}:
        return limit_for("touch.limit", point.practice, point.system, overrides)
    if e.measurement.as_is and _neutral_to_earth(pair, e, point):
        return limit_for("n-pe.unloaded", point.practice, point.system, overrides)
    return None


def _is_live(pair: frozenset[str], point: PointFacts) -> bool:
    """Whether the pair is what equipment is connected between: a line and the neutral, or two lines."""
    return pair <= {*map(str, point.lines), "N"} and len(pair) == 2


def _for_pair(limit: str, pair: frozenset[str], point: PointFacts, overrides: Sequence[Override]) -> Limit:
    """A limit on volts from line to neutral, for what is between these two."""
    one, other = (Terminal(end) for end in pair)
    of_nominal = point.volts_between(one, other) / point.system.nominal_volts
    return limit_for(limit, point.practice, point.system, overrides).times(of_nominal)


def _neutral_to_earth(pair: frozenset[str], e: Evidence, point: PointFacts) -> bool:
    """On a plug that fits both ways the neutral is whichever contact is nearer the earth."""
    if point.polarised:
        return pair == {"N", "PE"}
    earth_to_contact = "PE" in pair and pair <= {"PE", "N", *map(str, point.lines)}
    return earth_to_contact and e.high < point.system.nominal_volts / 2


def _insulation(point: PointFacts, readings: Sequence[Reading]) -> Iterable[Judgement]:
    """As ordinary wiring. An unfit tester, or a test made another way than asked, can fail it and not pass it."""
    rule = insulation_rule("ordinary", point.system)
    accuracy = Accuracy(100 * GAIN_SHARE)
    for reading in readings:
        if reading.measurement.quantity is not INSULATION or _joined_at_the_board(reading):
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


def _values(point: PointFacts, evidence: Sequence[Evidence]) -> list[Evidence]:
    """Volts shown between what equipment is connected between."""
    volts = [e for e in evidence if e.measurement.quantity is VOLTAGE and e.reading.value is not None]
    return [e for e in volts if _is_live(ports_of(e.measurement), point)]


def _drops(point: PointFacts, evidence: Sequence[Evidence], overrides: Sequence[Override]) -> Iterable[Judgement]:
    """Loaded against unloaded with the same tester: what the two have in common, its gain, cancels.

    The load is between the two contacts themselves. Of several readings without it every one may be the right one.
    """
    values = _values(point, evidence)
    for after in values:
        m, pair = after.measurement, ports_of(after.measurement)
        if m.load_here_a is None or {str(end) for end in load_between(m, point)} != pair:
            continue
        setup = unloaded(m).setup()
        drops = [
            (e.low - after.low, (e.tolerance + after.tolerance) / 2)
            for e in values
            if e.tester == after.tester and e.measurement.setup() == setup
        ]
        if drops:
            low, high = min(drop - doubt for drop, doubt in drops), max(drop + doubt for drop, doubt in drops)
            limit = _for_pair("voltage.drop", pair, point, overrides)
            yield _judge_limit(limit, after.reading.id, (max(0.0, low), max(0.0, high)))


def _leg_match(point: PointFacts, evidence: Sequence[Evidence], overrides: Sequence[Override]) -> Iterable[Judgement]:
    """Two lines to neutral that should be alike, with the same tester, in percent of their mean.

    Named by the reading of the line that comes later in the order of the contacts.
    """
    limit = limit_for("leg.match", point.practice, point.system, overrides)
    as_found = [
        (e, pair, _for_pair("voltage.band", pair, point, ()))
        for e in _values(point, evidence)
        if e.measurement.as_is and "N" in (pair := ports_of(e.measurement))
    ]
    for later, its_pair, its_band in as_found:
        for e, pair, band in as_found:
            if sorted(pair) < sorted(its_pair) and e.tester == later.tester and band == its_band:
                mean = max((e.low + later.low) / 2, 1.0)
                apart, doubt = abs(e.low - later.low), (e.tolerance + later.tolerance) / 2
                interval = max(0.0, apart - doubt) / mean * 100, (apart + doubt) / mean * 100
                yield _judge_limit(limit, later.reading.id, interval)
