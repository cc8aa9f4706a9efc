"""The short question that opens a hunt, in a practice's words."""

from evenprobe.hunting.intake import HAPPENED, HUNTED, MARKS, Hunted
from evenprobe.practices import Practice
from hunts.shapes import HappenedOut, HuntChoice, IntakeOut, SuspicionMark


def intake_in(practice: Practice) -> IntakeOut:
    return IntakeOut(
        happened=[
            HappenedOut(
                id=str(row),
                title=practice.in_words(row.title),
                first=practice.in_words(row.first),
                hunts=[_choice(HUNTED[hunt], practice) for hunt in row.hunts],
            )
            for row in HAPPENED.values()
        ],
        marks=[SuspicionMark(id=str(mark), title=mark.title) for mark in MARKS.values()],
    )


def _choice(hunted: Hunted, practice: Practice) -> HuntChoice:
    title = practice.in_words(hunted.title)
    return HuntChoice(id=str(hunted), title=title, along=hunted.along, between=list(hunted.between))
