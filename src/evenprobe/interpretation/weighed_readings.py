"""The readings of a point by what each of them may do: confine, raise an alarm, or be kept and clear nothing."""

from collections.abc import Sequence
from functools import cached_property

from evenprobe.interpretation.beside_wiring import insulation_of
from evenprobe.interpretation.direct import direct_voltage
from evenprobe.interpretation.elimination import Elimination, Standing, agrees_with
from evenprobe.interpretation.ensemble import Ensemble
from evenprobe.interpretation.findings import BesideWiring, ConditionOutcome, Judgement, Verdict
from evenprobe.interpretation.judgements import judgements
from evenprobe.interpretation.verdict import decide, standing_alarms
from evenprobe.limits import Override
from evenprobe.quantities import Alarm, Direct, Evidence, Kept, Reading, Weighed, weigh_all
from evenprobe.wiring import PointFacts
from evenprobe.wiring.points import METALWORK


class WeighedReadings:
    """What the readings come to by themselves, before any condition is held against them."""

    def __init__(self, point: PointFacts, readings: Sequence[Reading], overrides: Sequence[Override]) -> None:
        self.point, self.overrides = point, overrides
        self.each: list[Weighed] = weigh_all(readings, point)
        self.evidence = [w for w in self.each if isinstance(w, Evidence)]
        self.alarms = [w for w in self.each if isinstance(w, Alarm)]
        self.kept = [w for w in self.each if isinstance(w, Kept)]
        self.directs = direct_voltage([w for w in self.each if isinstance(w, Direct)], self.kept)

    @cached_property
    def unanswered(self) -> list[Alarm]:
        """Alarms at metalwork that no contact reading has answered."""
        return standing_alarms(self.alarms, self.evidence)

    @cached_property
    def _answered(self) -> list[Alarm]:
        """Those at metalwork that one has."""
        return [a for a in self.alarms if a.terminal in METALWORK and a not in self.unanswered]

    @cached_property
    def judged(self) -> tuple[Judgement, ...]:
        """Each reading against its limits."""
        beside = [w.reading for w in self.each if isinstance(w, Kept | Direct)]
        return judgements(self.point, self.evidence, beside, self.overrides)

    @cached_property
    def insulation(self) -> BesideWiring:
        """What the insulation tests among them came to."""
        return insulation_of(self.judged)

    def strain(self, ensemble: Ensemble, elimination: Elimination, standing: Standing) -> bool:
        """Whether what stands leaves an alarm unexplained.

        One at metalwork that a contact reading has answered is explained by nothing.
        """
        if self._answered:
            return True
        return any(not agrees_with(ensemble, elimination, standing, alarm) for alarm in self.alarms)

    def verdict(self, outcomes: Sequence[ConditionOutcome]) -> Verdict:
        """The verdict where these conditions stand or fell."""
        return decide(outcomes, self.evidence, self.alarms, self.insulation.state, self.directs)
