"""What is admitted to a proof of isolation: which proof of a tester holds, and which reading of nothing counts.

Any tester may raise an alarm; only one that is fit here, was just shown to work, and is set to what it is to see may
clear (NFPA 70E 120.5; EN 50110-1, 6.2.3). Each rule that keeps something out says so by a code and in words.
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

from evenprobe.isolation.bracketing import Bracketing, Refusal
from evenprobe.isolation.log import Event, IsolationLog, Mode
from evenprobe.isolation.sentences import PROBLEMS
from evenprobe.isolation.standing import Doubt
from evenprobe.limits.isolation import DEAD_STEP_VOLTS
from evenprobe.limits.voltages import DRY_TOUCH_VOLTS
from evenprobe.testers.fitness import Fitness, fitness

_KNOWN_LIVE_SHARE = 0.8
"""A known live source shows at least this share of the practice's lowest nominal voltage, or it proves nothing."""
_LEAST_DC_LIVE_VOLTS = 10.0
"""The same of a battery."""


@dataclass(frozen=True)
class Submitted:
    """A reading of nothing that asks to be admitted, and how the proof stands when it was taken.

    Parameters
    ----------
    event : Event
        The reading itself.
    modes : sequence of {"ac", "dc"}
        What has to be read of every pair here.
    isolated : bool
        Whether every source was off and locked.
    doubt : Doubt or None
        What nobody explained yet on this pair.
    bracketings : mapping
        Every tester's part so far, by the tester's name in the log.
    """

    event: Event
    modes: Sequence[Mode]
    isolated: bool
    doubt: Doubt | None
    bracketings: Mapping[str, Bracketing]

    @property
    def own(self) -> Bracketing:
        return self.bracketings[self.event.tester or ""]


class Admission:
    """The rules of one log."""

    def __init__(self, log: IsolationLog) -> None:
        self._log = log
        self._least_live = _KNOWN_LIVE_SHARE * min(system.nominal_volts for system in log.practice.systems)

    def fitness(self, event: Event) -> Fitness:
        """What the tester amounts to here, on the day."""
        log = self._log
        task = log.rules.task(log.practice, log.system, log.place, event.at.date())
        return fitness(task, log.testers[event.tester or ""])

    def unfit(self, event: Event) -> Refusal | None:
        """Why the tester could clear nothing here, whatever it shows."""
        found = self.fitness(event)
        if found.fit:
            return None
        held = self._log.testers[event.tester or ""]
        problems = "; ".join(p.text for p in found.problems)
        said = PROBLEMS.say("tester-unfit", tester=held.name or held.id, problems=problems)
        return Refusal("tester-unfit", said, tuple(p.code for p in found.problems))

    def too_low(self, event: Event) -> Refusal | None:
        """Why what a tester showed on its known source does not prove it."""
        least = self._least_proof(event)
        if event.seen >= least:
            return None
        return Refusal("prove-failed", PROBLEMS.say("proved-too-low", seen=event.seen, least=least))

    def _least_proof(self, event: Event) -> float:
        if event.against != "known-live":
            return DRY_TOUCH_VOLTS
        return self._least_live if event.mode == "ac" else _LEAST_DC_LIVE_VOLTS

    def why_not(self, reading: Submitted) -> Refusal | None:
        """Why a reading of nothing does not count, by the first rule that keeps it out; None where it counts."""
        return next((found for rule in _READING_RULES if (found := rule(self, reading)) is not None), None)

    def _by_a_fit_tester(self, reading: Submitted) -> Refusal | None:
        return self.unfit(reading.event)

    def _by_a_low_step(self, reading: Submitted) -> Refusal | None:
        event = reading.event
        if event.volts is not None or (event.below or 0) <= min(DEAD_STEP_VOLTS, self._log.touch_volts):
            return None
        return Refusal("step-too-high", PROBLEMS.say("step-too-high", below=event.below))

    def _on_a_function_that_sees_it(self, reading: Submitted) -> Refusal | None:
        wanted = {*reading.modes, *([reading.doubt.mode] if reading.doubt else [])}
        if wanted & set(reading.own.modes_of(reading.event)):
            return None
        return Refusal("wrong-function", PROBLEMS.say("wrong-function"))

    def _of_what_is_isolated(self, reading: Submitted) -> Refusal | None:
        if reading.isolated:
            return None
        return Refusal("tested-before-isolation", PROBLEMS.say("tested-before-isolation"))

    def _after_a_proof(self, reading: Submitted) -> Refusal | None:
        why = reading.own.why_not(reading.event)
        others = [r for r in reading.bracketings.values() if r is not reading.own and r.begun]
        if why is None or why.code != "not-proved-before" or not others:
            return why
        proved = others[0].held.name or others[0].held.id
        return Refusal("tester-changed", PROBLEMS.say("read-by-another", proved=proved))


_READING_RULES: tuple[Callable[[Admission, Submitted], Refusal | None], ...] = (
    Admission._by_a_fit_tester,
    Admission._by_a_low_step,
    Admission._on_a_function_that_sees_it,
    Admission._of_what_is_isolated,
    Admission._after_a_proof,
)
