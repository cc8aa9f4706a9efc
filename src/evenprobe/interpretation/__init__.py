"""What the readings of a point can still mean, by elimination on one ensemble of samples."""

from evenprobe.interpretation.ensemble import Ensemble, ensemble_for, forget_ensembles
from evenprobe.interpretation.forecast import Forecast, forecast
from evenprobe.interpretation.interpret import interpret
from evenprobe.interpretation.outcome import (
    WORST_FIRST,
    ConditionOutcome,
    Judgement,
    JudgementResult,
    NextMeasurement,
    PointInterpretation,
    Reason,
    Story,
    Verdict,
)
from evenprobe.interpretation.sight import SightHere, sight_here
from evenprobe.interpretation.supply import SupplyGuess, what_supply

__all__ = [
    "WORST_FIRST",
    "ConditionOutcome",
    "Ensemble",
    "Forecast",
    "Judgement",
    "JudgementResult",
    "NextMeasurement",
    "PointInterpretation",
    "Reason",
    "SightHere",
    "Story",
    "SupplyGuess",
    "Verdict",
    "ensemble_for",
    "forecast",
    "forget_ensembles",
    "interpret",
    "sight_here",
    "what_supply",
]
