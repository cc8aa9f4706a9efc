"""What there is to practise: cases by step, how each went, which comes next; and how the crew's learners get on."""

from collections import defaultdict
from collections.abc import Iterable, Sequence
from datetime import date
from typing import Any

from django.utils import timezone

from crews.models import Crew, Role
from crews.services import membership_of
from evenprobe.conditions import CONDITIONS
from evenprobe.formats.case import shipped
from evenprobe.hunting.intake import HUNTED
from evenprobe.practices import PRACTICES
from evenprobe.practising import Conclusion, Gone, due, learnt
from evenprobe.practising.sentences import SLIPS
from evenprobe.testers import KINDS
from practising.models import Practised
from practising.services import practised_by
from practising.shapes import CaseLine, Learner, LearntOut, MetOne, PracticeList, went_through

_SHOWN_LAST = 20
_SLIPS_OF_THOUGHT = (Conclusion.GUESSED, Conclusion.WRONG)


def practice_of(user: Any) -> PracticeList:
    rows = list(practised_by(user))
    lines = _lines(rows)
    member = membership_of(user)
    answers_for = member.role in (Role.KEEPER, Role.ELECTRICIAN)
    return PracticeList(
        cases=lines,
        went_through=went_through(rows[:_SHOWN_LAST]),
        learnt=_learnt(reversed(rows)),
        next=_next(lines, timezone.localdate()),
        learners=_learners(member.crew, user) if answers_for else [],
    )


def _lines(rows: Sequence[Practised]) -> list[CaseLine]:
    went: dict[str, list[tuple[date, bool]]] = defaultdict(list)
    for row in reversed(rows):
        if hasattr(row, "debrief"):
            went[row.name].append((timezone.localdate(row.debrief.at), row.debrief.mastered))
    return sorted(
        (
            CaseLine(
                name=name,
                title=file.title,
                complaint=file.complaint,
                step=file.step,
                practice=str(file.installation.practice),
                minutes=file.minutes,
                times=len(went[name]),
                mastered=bool(went[name]) and went[name][-1][1],
                due=due(went[name]) if went[name] else None,
            )
            for name, file in shipped().items()
        ),
        key=lambda line: (line.step, line.title),
    )


def _next(lines: Sequence[CaseLine], today: date) -> str:
    """What was missed comes back first, then what is new, the easiest first; then what is due the longest."""
    back = [line for line in lines if line.due is not None and line.due <= today]
    new = [line for line in lines if line.due is None]
    missed = [line for line in back if not line.mastered]
    return next(iter([*missed, *new, *sorted(back, key=lambda line: str(line.due)), *lines])).name


def _learners(crew: Crew, user: Any) -> list[Learner]:
    """Whoever of the crew practised, but for who asks."""
    rows = Practised.objects.filter(home=crew).exclude(user=user.pk).select_related("debrief").order_by("begun_at")
    of_each: dict[int, list[Practised]] = defaultdict(list)
    for row in rows:
        of_each[row.user_id].append(row)
    return sorted(map(_learner, of_each.values()), key=lambda learner: learner.name)


def _what_it_was(row: Practised) -> str:
    """What somebody learns by it: a condition, a hunt, a round, or making dead."""
    practice = PRACTICES[row.case["installation"]["practice"]]
    if "circuit" in row.case:
        return f"Hunting {practice.in_words(HUNTED[row.case['circuit']['hunt']].title)}"
    if row.case["solved"].get("each"):
        return "Going round outlets"
    if row.case["solved"].get("dead"):
        return "Proving dead, fed from elsewhere too" if row.case["hidden"].get("other_feed") else "Proving dead"
    return CONDITIONS[row.debrief.condition].title_in(practice)


def _gone(row: Practised) -> Gone:
    """A case that was gone through, by its debrief."""
    shown, conclusion = row.debrief.shown, row.debrief.conclusion
    kinds = {each["id"]: each["kind"] for each in row.case["installation"].get("instruments", [])}
    used = {kinds[taken["with"]] for taken in shown["taken"] if taken["with"] in kinds}
    slips = [met["danger"] for met in shown["dangers"]]
    slips += ["written-otherwise"] if shown["slips"] else []
    slips += [conclusion] if conclusion in _SLIPS_OF_THOUGHT else []
    return Gone(
        _what_it_was(row),
        row.debrief.mastered,
        frozenset(KINDS[kind].name for kind in used if kind in KINDS),
        frozenset(str(SLIPS.say(slip)) for slip in slips),
    )


def _learnt(rows: Iterable[Practised]) -> LearntOut:
    """`rows`: in the order they were begun."""
    found = learnt([_gone(row) for row in rows if hasattr(row, "debrief")])
    return LearntOut(
        about=[MetOne(name=name, mastered=well) for name, well in found.about.items()],
        testers=[MetOne(name=name, mastered=well) for name, well in found.testers.items()],
        slips=[MetOne(name=name, mastered=well) for name, well in found.slips.items()],
    )


def _learner(rows: Sequence[Practised]) -> Learner:
    return Learner(
        name=rows[-1].by_name,
        cases=len(rows),
        learnt=_learnt(rows),
        last=timezone.localdate(rows[-1].begun_at),
    )
