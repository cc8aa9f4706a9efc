"""Continuity of what must be joined, separation of what must not, contacts open and closed. Circuit dead.

R = r20 · length · (1 + α (θ − 20)) (IEC 60228, ASTM B258); the leads come off. A "short" of several ohms is
shown as the load it would be, U²/R, and a bolted one by its distance along the run, half the loop.
"""

from dataclasses import dataclass

from evenprobe.deadtests.accuracy import Shown
from evenprobe.deadtests.judgement import Outcome, Result, held_against, worst
from evenprobe.deadtests.sentences import JUDGED
from evenprobe.deadtests.slips import did_you_mean
from evenprobe.limits.dead_tests import (
    BOND_UNKNOWN_RUN,
    CONTACT,
    CONTACT_GOOD_OHMS,
    LEADS_NULL,
    SEPARATE,
    SEPARATE_OHMS,
    bond,
)
from evenprobe.practices.lengths import METRE, LengthUnit
from evenprobe.sentences import Sentence
from evenprobe.supplies import SupplySystem
from evenprobe.wiring.conductors import Conductor, Material

REFERENCE_C = 20.0
_LARGEST_LOAD_W = 25e3
"""What would take more than this on one circuit is no load but a joint."""
_WITHIN_A_TOUCH_OHMS = 0.02
"""How far below the null a reading may come by the probes' touch alone."""
_NO_MAINS_LOAD_W = 1.0


@dataclass(frozen=True)
class Run:
    """The conductor under test, as far as known. `temperature_c` None: taken as 20 °C, and said so."""

    conductor: Conductor | None = None
    length_m: float | None = None
    temperature_c: float | None = None
    material: Material = "copper"

    @property
    def ohms(self) -> float | None:
        """What it should have, one way; None where size or length is not known."""
        if self.conductor is None or self.length_m is None:
            return None
        return self.conductor.ohms(self.length_m, self._temperature, self.material)

    @property
    def ohms_per_metre(self) -> float | None:
        return None if self.conductor is None else self.conductor.ohms(1.0, self._temperature, self.material)

    @property
    def assumption(self) -> list[Sentence]:
        return [] if self.temperature_c is not None else [JUDGED.say("conductor-at-20")]

    @property
    def _temperature(self) -> float:
        return REFERENCE_C if self.temperature_c is None else self.temperature_c


def continuity(measured: Shown, null_ohm: float | None, run: Run) -> Outcome:
    """A conductor that must be joined, end to end, in ohms. An over-range display is an open conductor."""
    if measured.beyond:
        return Outcome(Result.FAIL, [JUDGED.say("continuity.open")])
    corrected = measured.less(null_ohm or 0.0)
    expected = run.ohms
    computed = {"corrected_ohm": max(0.0, corrected.value), "expected_ohm": expected}
    limit = BOND_UNKNOWN_RUN if expected is None else bond(expected)
    if _below_the_null(corrected):
        return Outcome(Result.INVALID, [JUDGED.say("below-the-null")], limit, computed)
    result = held_against(limit, corrected.interval)
    if expected is None and result is Result.PASS:
        result = Result.NOTE
    said = JUDGED.say(f"continuity.{result}", expected=expected or 0.0)
    question = did_you_mean(measured.value, expected or None, "ohm")
    result, leads = _with_leads(result, null_ohm)
    sentences = [said, *leads, *(run.assumption if expected else [])]
    return Outcome(result, sentences, limit, computed, question, corrected, expected)


def separation(
    measured: Shown,
    null_ohm: float | None,
    run: Run,
    system: SupplySystem,
    between: tuple[str, str] = ("L", "N"),
    unit: LengthUnit = METRE,
) -> Outcome:
    """Two conductors that must not be joined, in ohms.

    `between`: which, for the voltage a load would take. `unit`: what the way to a short is said in.
    """
    if measured.beyond:
        return Outcome(Result.PASS, [JUDGED.say("separation.apart")], SEPARATE)
    corrected = measured.less(null_ohm or 0.0)
    ohms = max(0.0, corrected.value)
    volts = system.volts_between(*between) or system.nominal_volts
    per_metre = run.ohms_per_metre
    watts = volts**2 / ohms if ohms else None
    metres = ohms / (2 * per_metre) if per_metre else None
    computed = {"corrected_ohm": ohms, "load_w": watts, "distance_m": metres}
    if _below_the_null(corrected):
        return Outcome(Result.INVALID, [JUDGED.say("below-the-null")], SEPARATE, computed)
    if ohms >= SEPARATE_OHMS:
        return Outcome(Result.BORDERLINE, [JUDGED.say("separation.high")], SEPARATE, computed)
    if watts is None or watts > _LARGEST_LOAD_W:
        said = JUDGED.say("separation.short")
        if metres is not None:
            said = JUDGED.say("separation.short-at", distance=unit.said(round(metres)))
    elif watts >= _NO_MAINS_LOAD_W:
        said = JUDGED.say("separation.load", power=_watts(watts))
    else:
        said = JUDGED.say("separation.leak")
    return Outcome(Result.FAIL, [said, *(run.assumption if metres is not None else [])], SEPARATE, computed)


def closed_contact(
    what: str, closed: Shown | None, null_ohm: float | None, opens: bool | None, *, latches: bool | None = None
) -> Outcome:
    """A fuse, switch or breaker. `opens`: whether it read over-range open; `latches`: whether it stays in.

    None of either: it has no such thing, or nobody tried.
    """
    if latches is False:
        return Outcome(Result.FAIL, [JUDGED.say("contact.not-latching", what=what)], CONTACT)
    if opens is False:
        return Outcome(Result.FAIL, [JUDGED.say("contact.not-opening", what=what)], CONTACT)
    if closed is None:
        return Outcome(Result.NOTE, [JUDGED.say("contact.closed-not-measured", what=what)], CONTACT)
    if closed.beyond:
        said = JUDGED.say("contact.blown" if what == "fuse" else "contact.not-closing", what=what)
        return Outcome(Result.FAIL, [said], CONTACT)
    corrected = closed.less(null_ohm or 0.0)
    computed = {"corrected_ohm": max(0.0, corrected.value)}
    if _below_the_null(corrected):
        return Outcome(Result.INVALID, [JUDGED.say("below-the-null")], CONTACT, computed)
    result = held_against(CONTACT, corrected.interval)
    if result is Result.PASS and corrected.value > CONTACT_GOOD_OHMS:
        result = Result.NOTE
    sentences = [JUDGED.say(f"contact.{result}", what=what, good=CONTACT_GOOD_OHMS)]
    if result is Result.PASS and opens is None and what != "fuse":
        result = Result.NOTE
        sentences.append(JUDGED.say("contact.opening-not-tried"))
    result, leads = _with_leads(result, null_ohm)
    return Outcome(result, [*sentences, *leads], CONTACT, computed, held=corrected)


def _below_the_null(corrected: Shown) -> bool:
    return corrected.value < 0 and corrected.interval[1] < _WITHIN_A_TOUCH_OHMS


def _with_leads(result: Result, null_ohm: float | None) -> tuple[Result, list[Sentence]]:
    """A result with leads in it that should not be trusted, and what to say of them."""
    if null_ohm is None:
        return result, [JUDGED.say("leads-not-nulled")]
    if null_ohm > LEADS_NULL.band.high:
        return worst([result, Result.NOTE]), [JUDGED.say("leads-resistive", ohm=null_ohm)]
    return result, []


def _watts(watts: float) -> str:
    return f"{watts / 1000:.1f} kW" if watts >= 1000 else f"{watts:.0f} W"
