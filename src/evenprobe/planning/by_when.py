"""By when something has to be done, by the verdict of the point it is at."""

from collections.abc import Mapping

from evenprobe.interpretation import Verdict

BY_WHEN: Mapping[Verdict, str] = {
    Verdict.DANGER: "Now: keep it switched off and guarded until it is repaired",
    Verdict.CONTRADICTORY: "Now: treat as live until the readings are taken again",
    Verdict.HAZARD: "Before it is used again",
    Verdict.DEFECT: "At the next visit",
    Verdict.UNCONFIRMED: "Before anybody relies on it",
    Verdict.UNTESTED: "Before anybody relies on it",
}
"""What is safe or correct asks for nothing."""
