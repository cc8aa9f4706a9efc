"""Practice: a case hides something at a simulated point, and is played on the same physics that answers outside.

Nothing here knows a record. What testers show comes from `simulation`, what it means from `interpretation`.
"""

from evenprobe.practising.acts import Act, Danger, Doing, Progress, next_hint, progress, refusal
from evenprobe.practising.case import Case
from evenprobe.practising.debrief import Conclusion, Debrief, debrief
from evenprobe.practising.gone_round import GoneRound, RoundDebrief, debrief_round, go_round, wrong_outlets
from evenprobe.practising.hints import hint, hunt_hint
from evenprobe.practising.hunt_debrief import HuntDebrief, Told, debrief_hunt
from evenprobe.practising.hunted_through import HuntedThrough, LookTaken, hunt_through
from evenprobe.practising.learnt import Gone, Learnt, learnt
from evenprobe.practising.made_dead import MadeDead, WorkStep
from evenprobe.practising.planner import as_planned
from evenprobe.practising.played import Played, Turn, play
from evenprobe.practising.sentences import done_said
from evenprobe.practising.simulated import AlongAHunt, Simulated
from evenprobe.practising.spacing import due

__all__ = [
    "Act", "AlongAHunt", "Case", "Conclusion", "Danger", "Debrief", "Doing", "Gone", "GoneRound", "HuntDebrief",
    "HuntedThrough", "Learnt", "LookTaken", "MadeDead", "Played", "Progress", "RoundDebrief", "Simulated", "Told",
    "Turn", "WorkStep", "as_planned", "debrief", "debrief_hunt", "debrief_round", "done_said", "due", "go_round",
    "hint", "hunt_hint", "hunt_through", "learnt", "next_hint", "play", "progress", "refusal", "wrong_outlets",
]  # fmt: skip
