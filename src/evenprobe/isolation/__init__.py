"""The proof of isolation as a pure function of its log: complete, or visibly not."""

from evenprobe.isolation.log import Event, EventType, IsolationLog, Source, SourceKind, pairs_to_test
from evenprobe.isolation.questions import QUESTIONS, Question
from evenprobe.isolation.rules import HANDBOOK, HouseRules
from evenprobe.isolation.standing import Isolation, Missing, PairState, Problem, SourceState, State, Step, StepKind
from evenprobe.isolation.state import isolation

__all__ = [
    "HANDBOOK",
    "QUESTIONS",
    "Event",
    "EventType",
    "HouseRules",
    "Isolation",
    "IsolationLog",
    "Missing",
    "PairState",
    "Problem",
    "Question",
    "Source",
    "SourceKind",
    "SourceState",
    "State",
    "Step",
    "StepKind",
    "isolation",
    "pairs_to_test",
]
