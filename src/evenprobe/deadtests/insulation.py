"""Insulation resistance: at the right voltage, at 20 °C, against the limit and against last time.

IEC 60364-6 table 6A, ANSI/NETA ATS. Resistance halves for every 10 °C more, R20 = R · 2^((θ − 20)/10).
Conductances of circuits in parallel add. A cable is a capacitor: it charges through the tester and holds
the test voltage afterwards.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import inf, log

from evenprobe.deadtests.accuracy import Shown
from evenprobe.deadtests.judgement import Outcome, Result, held_against, worst
from evenprobe.deadtests.sentences import JUDGED
from evenprobe.deadtests.slips import did_you_mean
from evenprobe.limits.dead_tests import (
    ABSORPTION,
    DISCHARGED_VOLTS,
    POLARISATION,
    POLARISATION_UP_TO_MOHM,
    WATCH,
    WATCH_TREND,
    InsulationRule,
)
from evenprobe.sentences import Sentence

REFERENCE_C = 20.0
_HALVES_EVERY_K = 10.0
_FARAD_PER_M = 120e-12
"""One conductor to another along a cable, the most it may be."""
_TEST_AMPERES = 1e-3
"""What an insulation tester at least drives (IEC 61557-2)."""
_DISCHARGE_OHMS = 100e3
"""Through the tester, once the test is over."""
_WINDING_DISCHARGE_TIMES = 4
"""At least so many times the test's own duration."""


def at_20_degrees(mohm: float, temperature_c: float) -> float:
    """Megohms at 20 °C of what was measured at another temperature."""
    return float(mohm * 2 ** ((temperature_c - REFERENCE_C) / _HALVES_EVERY_K))


def as_measured_at(mohm_20c: float, temperature_c: float) -> float:
    """The other way round: what would be measured at that temperature."""
    return mohm_20c / at_20_degrees(1.0, temperature_c)


def insulation(
    measured: Shown,
    rule: InsulationRule,
    test_volts: float | None,
    *,
    temperature_c: float | None = None,
    previous_mohm_20c: float | None = None,
    loads: str | None = None,
    length_m: float | None = None,
) -> Outcome:
    """Megohms between two conductors. `loads`: connected, disconnected, None where nobody wrote it down.

    Judged by the value at 20 °C. Loads connected or another test voltage: it does not count, though it may alarm.
    """
    warmth = at_20_degrees(1.0, REFERENCE_C if temperature_c is None else temperature_c)
    corrected = measured.times(warmth)
    known = corrected.value < inf
    trend = corrected.value / previous_mohm_20c if previous_mohm_20c and known else None
    computed = {
        "mohm_20c": corrected.value if known else None,
        "required_mohm": rule.least_mohm,
        "required_test_v": rule.test_volts,
        "trend": trend,
        **(_charging(length_m, rule.test_volts, measured.value) if length_m else {}),
    }
    result = held_against(rule.limit, corrected.interval)
    assumed = [JUDGED.say("taken-as-20")] if temperature_c is None and known else []
    wrong = _does_not_count(rule, test_volts, loads)
    if wrong:
        alarm = [JUDGED.say("insulation.alarm")] if result is Result.FAIL else []
        return Outcome(Result.INVALID, [wrong, *alarm, *assumed], rule.limit, computed, held=corrected)
    notes = _notes(measured, corrected, rule, trend)
    question = did_you_mean(
        measured.value, previous_mohm_20c and as_measured_at(previous_mohm_20c, temperature_c or 20), "Mohm"
    )
    said = "beyond" if result is Result.BORDERLINE and measured.beyond else result
    sentences = [JUDGED.say(f"insulation.{said}", least=rule.least_mohm), *notes, *assumed]
    result = worst([result, *(Result.NOTE for _ in notes)])
    return Outcome(result, sentences, rule.limit, computed, question, corrected, previous_mohm_20c)


def _does_not_count(rule: InsulationRule, test_volts: float | None, loads: str | None) -> Sentence | None:
    if loads == "connected":
        return JUDGED.say("insulation.loads")
    if test_volts is None:
        return JUDGED.say("insulation.no-test-voltage", why=rule.why)
    if test_volts != rule.test_volts:
        why = rule.why[0].upper() + rule.why[1:]
        return JUDGED.say("insulation.wrong-test-voltage", volts=test_volts, why=why)
    return None


def _notes(measured: Shown, corrected: Shown, rule: InsulationRule, trend: float | None) -> list[Sentence]:
    if corrected.beyond:
        return []
    notes = []
    if rule.building_wiring and rule.least_mohm <= corrected.value < WATCH.band.low:
        notes.append(JUDGED.say("insulation.watch", watch=WATCH.band.low))
    if measured.value < rule.least_mohm <= corrected.value:
        notes.append(JUDGED.say("insulation.warm"))
    if trend is not None and trend < WATCH_TREND.band.low:
        notes.append(JUDGED.say("insulation.falling", trend=trend))
    return notes


def ratios(r30: float | None, r60: float, r600: float | None) -> Outcome:
    """Absorption 60 s / 30 s and polarisation 10 min / 1 min of windings and long cables, all in megohms."""
    absorption = r60 / r30 if r30 else None
    polarisation = r600 / r60 if r600 else None
    results, said, limit = [], [], ABSORPTION
    if absorption is not None:
        least = ABSORPTION.band.low
        found = "falling" if absorption < 1.0 else "good" if absorption >= least else "questionable"
        results.append(_ABSORPTION[found])
        said.append(JUDGED.say(f"absorption.{found}", ratio=absorption, good=least))
    if polarisation is not None and r60 <= POLARISATION_UP_TO_MOHM:
        limit, least = POLARISATION, POLARISATION.band.low
        found = "good" if polarisation >= least else "wet" if polarisation < 1 else "low"
        results.append(Result.PASS if found == "good" else Result.FAIL)
        said.append(JUDGED.say(f"polarisation.{found}", ratio=polarisation, good=least))
    elif polarisation is not None:
        said.append(JUDGED.say("polarisation.not-judged", most=POLARISATION_UP_TO_MOHM))
    said.append(JUDGED.say("ratios.discharge", times=_WINDING_DISCHARGE_TIMES))
    computed = {"absorption": absorption, "polarisation": polarisation}
    return Outcome(worst(results) if results else Result.NOTE, said, limit, computed)


_ABSORPTION = {"falling": Result.FAIL, "questionable": Result.NOTE, "good": Result.PASS}


@dataclass(frozen=True)
class CircuitInsulation:
    """A circuit's last known value at 20 °C, None where it was never measured alone."""

    id: str
    mohm_20c: float | None


def in_parallel(mohms: Sequence[float]) -> float:
    """Megohms of several side by side."""
    leakage = sum(1 / m for m in mohms if m > 0)
    return 0.0 if any(m <= 0 for m in mohms) else 1 / leakage if leakage else inf


def several(circuits: Sequence[CircuitInsulation], measured_20c: Shown | None, rule: InsulationRule) -> Outcome:
    """Circuits measured together: what they should read, and which to split off first when they read low.

    First the one nobody knows; else the one that leaks most of what is known.
    """
    predicted = in_parallel([c.mohm_20c for c in circuits if c.mohm_20c is not None])
    unknown = [c for c in circuits if c.mohm_20c is None]
    leakiest = min((c for c in circuits if c.mohm_20c is not None), key=lambda c: c.mohm_20c or 0.0, default=None)
    first = unknown[0] if unknown else leakiest
    share = 100 * predicted / leakiest.mohm_20c if leakiest and leakiest.mohm_20c and predicted < inf else None
    computed = {
        "predicted_mohm": predicted if predicted < inf else None,
        "split_first": first.id if first else None,
        "leak_share_percent": share,
        "required_mohm": rule.least_mohm,
    }
    if measured_20c is None:
        known = predicted < inf
        said = [JUDGED.say("together.predicted", mohm=predicted) if known else JUDGED.say("together.nothing-known")]
        if first is not leakiest or share is None or leakiest is None:
            said.append(JUDGED.say("together.split-unknown", first=first.id if first else "one"))
        else:
            said.append(JUDGED.say("together.split-leakiest", first=leakiest.id, share=share))
        return Outcome(Result.NOTE, said, rule.limit, computed)
    if held_against(rule.limit, measured_20c.interval) is Result.PASS:
        return Outcome(Result.PASS, [JUDGED.say("together.pass")], rule.limit, computed)
    below = measured_20c.value < predicted / 2
    said = [JUDGED.say("together.low")]
    if first:
        said.append(JUDGED.say("together.first-unknown" if unknown else "together.first-leakiest", first=first.id))
    if below and not unknown:
        said.append(JUDGED.say("together.fallen"))
    return Outcome(Result.NOTE, said, rule.limit, computed)


def _charging(length_m: float, test_volts: float, mohm: float) -> Mapping[str, float]:
    """Seconds to charge a cable, to discharge it through the tester, and how long it holds if left alone."""
    farad = _FARAD_PER_M * length_m
    decay = log(test_volts / DISCHARGED_VOLTS)
    return {
        "charge_s": farad * test_volts / _TEST_AMPERES,
        "discharge_s": farad * _DISCHARGE_OHMS * decay,
        "holds_s": farad * min(mohm, 1e6) * 1e6 * decay,
    }
