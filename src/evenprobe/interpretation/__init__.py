"""What the readings of a point can still mean, by elimination on one ensemble of samples."""

from evenprobe.interpretation.at_once import at_once
from evenprobe.interpretation.capabilities import Capabilities, capabilities_here
from evenprobe.interpretation.covered import covered
from evenprobe.interpretation.ensemble import Ensemble, ensemble_for, forget_ensembles
from evenprobe.interpretation.findings import (
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
from evenprobe.interpretation.forecast import Forecast, forecast
from evenprobe.interpretation.interpret import interpret
from evenprobe.interpretation.supply import SupplyGuess, what_supply

__all__ = [
    "WORST_FIRST",
    "Capabilities",
    "ConditionOutcome",
    "Ensemble",
    "Forecast",
    "Judgement",
    "JudgementResult",
    "NextMeasurement",
    "PointInterpretation",
    "Reason",
    "Story",
    "SupplyGuess",
    "Verdict",
    "at_once",
    "capabilities_here",
    "covered",
    "ensemble_for",
    "forecast",
    "forget_ensembles",
    "interpret",
    "what_supply",
]
