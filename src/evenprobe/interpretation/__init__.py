"""What the readings of a point can still mean, by elimination on one bank of samples."""

from evenprobe.interpretation.bank import Bank, bank_for, forget_banks
from evenprobe.interpretation.forecast import Forecast, forecast
from evenprobe.interpretation.interpret import interpret
from evenprobe.interpretation.outcome import (
    WORST_FIRST,
    ConditionOutcome,
    Judgement,
    JudgementResult,
    NextTest,
    PointInterpretation,
    Reason,
    Story,
    Verdict,
)
from evenprobe.interpretation.sight import SightHere, sight_here
from evenprobe.interpretation.supply import SupplyGuess, what_supply

__all__ = [
    "WORST_FIRST",
    "Bank",
    "ConditionOutcome",
    "Forecast",
    "Judgement",
    "JudgementResult",
    "NextTest",
    "PointInterpretation",
    "Reason",
    "SightHere",
    "Story",
    "SupplyGuess",
    "Verdict",
    "bank_for",
    "forecast",
    "forget_banks",
    "interpret",
    "sight_here",
    "what_supply",
]
