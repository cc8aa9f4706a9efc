"""The words of a report that answers have only ids for, printed and on the screen alike."""

from collections.abc import Mapping

from evenprobe.deadtests.judgement import Result
from evenprobe.interpretation import Verdict
from evenprobe.interpretation.findings import State
from evenprobe.isolation import State as Isolated

VERDICTS: Mapping[Verdict, str] = {
    Verdict.CORRECT: "Correct",
    Verdict.SAFE: "Safe",
    Verdict.UNTESTED: "Untested",
    Verdict.UNCONFIRMED: "Not confirmed yet",
    Verdict.CONTRADICTORY: "Contradictory",
    Verdict.DEFECT: "Defect",
    Verdict.HAZARD: "Hazard",
    Verdict.DANGER: "Danger",
}
STATES: Mapping[State, str] = {
    State.NOT_TESTED: "not tested",
    State.NOT_PRESENT: "none on record",
    State.PASS: "passes",
    State.BORDERLINE: "borderline",
    State.FAIL: "fails",
}
"""Of insulation and of the protective device."""
RESULTS: Mapping[Result, str] = {
    Result.PASS: "Passes",
    Result.FAIL: "Fails",
    Result.BORDERLINE: "Borderline",
    Result.NOTE: "Note",
    Result.INVALID: "Does not count",
}
PROOFS: Mapping[Isolated, str] = {
    Isolated.ENERGISED: "begun, and it is energised",
    Isolated.ISOLATED: "begun, not proved dead",
    Isolated.PROVING: "begun, not all tests done",
    Isolated.PROVED_DEAD: "proved dead",
    Isolated.VOID: "no longer valid",
    Isolated.CLOSED: "closed",
}
"""How a proof of isolation stands."""
CAUTION = (
    "This says what the readings can mean, and no more: what was not measured is not known. Treat every conductor as "
    "live until you have proved it dead yourself. Local codes, makers' instructions and a licensed electrician's "
    "judgement come first."
)
