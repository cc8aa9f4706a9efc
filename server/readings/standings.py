"""How points stand, kept beside them: what lists say of a point, with no interpretation on the way.

Made again when something changes that it hangs on (`changes`), and when the core is another. Until then it is an old
one: it is shown as that, and one that was safe is not shown as safe any more.
"""

from collections.abc import Iterable, Iterator
from datetime import date, datetime
from typing import Any

from django.db import transaction
from django.db.models import Case, F, Q, QuerySet, When

from base.failures import each_shown
from evenprobe.deadtests.judgement import Result
from evenprobe.formats.answers import UNKNOWN, BesideWiringOut, InterpretationOut
from evenprobe.interpretation import Verdict
from evenprobe.interpretation.findings import State
from evenprobe.this_core import fingerprint
from readings.interpretations import interpretation_of
from readings.models import PointStanding
from readings.point_view import PointView, with_record
from sheets.records import SheetView
from sites.models import Point

_AT_A_TIME = 20
_VERDICTS = frozenset(map(str, Verdict))
_BESIDE = ("insulation", "protection")
_CHANGED_SINCE = ~Q(made_of=F("changes"))
_NOT_MADE_YET = "Not worked out yet."
_CHANGED = "Changed since: being worked out again."
_WAS_SAFE = "It was found safe, and something changed since. Being worked out again. Treat as live until then."
_OTHER_CORE = "Said by an earlier version: being worked out again."


def short_of(standing: PointStanding) -> dict[str, Any]:
    """The fields of `InShort`."""
    if standing.made_of == PointStanding.NEVER:
        return {**not_shown(_NOT_MADE_YET), "unshown": "", "old": _NOT_MADE_YET}
    verdict = verdict_of(standing)
    said = {**standing.said, "verdict": verdict, "unshown": standing.unshown, "old": _why_old(standing)}
    if standing.made_of == standing.changes:
        return said
    if verdict != standing.verdict:
        said["summary"] = _WAS_SAFE
    passed = (name for name in _BESIDE if said[name]["state"] == State.PASS)
    return said | {name: UNKNOWN.model_dump(mode="json") for name in passed}


def stands_as(verdict: str, made_of: int, changes: int) -> str:
    """The verdict as it may be shown: nothing is safe any more that something changed of, nor what cannot be read."""
    if made_of == PointStanding.NEVER or verdict not in _VERDICTS or (made_of != changes and Verdict(verdict).is_safe):
        return str(Verdict.UNTESTED)
    return verdict


def verdict_of(standing: PointStanding) -> str:
    """The same of a standing that was looked up."""
    return stands_as(standing.verdict, standing.made_of, standing.changes)


def _why_old(standing: PointStanding) -> str:
    if standing.made_of != standing.changes:
        return _CHANGED
    return "" if standing.made_by == fingerprint() else _OTHER_CORE


def not_shown(why: str) -> dict[str, Any]:
    """The same of one that cannot be shown."""
    return {"verdict": str(Verdict.UNTESTED), **_kept_as(f"{why} Treat as live.", UNKNOWN, UNKNOWN), "unshown": why}


def old_ones() -> QuerySet[PointStanding]:
    """Of the points in use those whose answer has to be made again: first what changed, then what another core said."""
    is_old = _CHANGED_SINCE | ~Q(made_by=fingerprint())
    found = PointStanding.objects.filter(is_old, point__in=Point.objects.in_use())
    return found.order_by(Case(When(_CHANGED_SINCE, then=0), default=1))


def settle(old: QuerySet[PointStanding], at_most: int | None = None) -> int:
    """Make again the answers that are old ones, a few at a time. Gives how many there were."""
    wanted = list(old.values_list("pk", flat=True)[:at_most])
    for start in range(0, len(wanted), _AT_A_TIME):
        points = with_record(Point.objects.filter(pk__in=wanted[start : start + _AT_A_TIME]))
        _keep(each_shown(points, lambda point: _made(PointView(point)), _failed_to_make))
    return len(wanted)


def keep(view: PointView) -> None:
    """What a view comes to, beside its point, where it was worked out anyway."""
    _keep([_made(view)])


def _made(view: PointView) -> PointStanding:
    answer = interpretation_of(view)
    return PointStanding(
        point=view.point,
        made_of=view.changes,
        made_by=fingerprint(),
        verdict=answer.verdict,
        said=_kept_as(answer.summary, answer.insulation, answer.protection),
        unshown="",
        failed=list(_failed(view, answer)),
        last_tested=_last_tested(view),
        last_read=max((row.taken_at for row in view.counting().values()), default=None),
        days=_days(view),
    )


def _failed_to_make(point: Point, why: str) -> PointStanding:
    """It is not tried again before something changes."""
    return PointStanding(
        point=point, made_of=point.standing.changes, made_by=fingerprint(), verdict=str(Verdict.UNTESTED),
        said=_kept_as(f"{why} Treat as live.", UNKNOWN, UNKNOWN), unshown=why, failed=[], days=[],
    )  # fmt: skip


def _kept_as(summary: str, insulation: BesideWiringOut, protection: BesideWiringOut) -> dict[str, Any]:
    beside = {"insulation": insulation, "protection": protection}
    return {"summary": summary, **{name: one.model_dump(mode="json") for name, one in beside.items()}}


@transaction.atomic
def _keep(made: Iterable[PointStanding]) -> None:
    """Beside their points; never over what was made of more."""
    for one in made:
        newer = Q(made_of__gt=one.made_of, made_by=one.made_by)
        PointStanding.objects.filter(~newer, pk=one.pk).update(
            made_of=one.made_of, made_by=one.made_by, verdict=one.verdict, said=one.said, unshown=one.unshown,
            failed=one.failed, last_tested=one.last_tested, last_read=one.last_read, days=one.days,
        )  # fmt: skip


def _sheets(view: PointView) -> list[SheetView]:
    """Of its circuit, the latest first."""
    return [SheetView(sheet) for sheet in view.point.circuit.sheets.all()]


def _is_of(view: PointView, point: str | None) -> bool:
    return point in (None, str(view.point.id))


def _last_tested(view: PointView) -> datetime | None:
    """The last reading that counts, or test of its circuit."""
    readings = (row.taken_at for row in view.counting().values())
    tests = (e.at for sheet in _sheets(view) for e in sheet.of("tested") if _is_of(view, e.entry.get("point")))
    return max([*readings, *tests], default=None)


def _days(view: PointView) -> list[tuple[int, str, str]]:
    days: dict[date, list[datetime]] = {}
    for row in view.rows:
        if row.entry is not None:
            days.setdefault(row.taken_at.date(), []).append(row.taken_at)
    return [(len(times), min(times).isoformat(), max(times).isoformat()) for times in days.values()]


def _failed(view: PointView, answer: InterpretationOut) -> Iterator[str]:
    """Dead tests in force that failed, and the two answers beside the wiring's."""
    for sheet in _sheets(view)[:1]:
        for line in sheet.lines:
            taken = sheet.taken.get(line.id)
            if taken is not None and taken.outcome.result is Result.FAIL and _is_of(view, line.point):
                yield sheet.line_title(line.id)
    for beside, name in ((answer.insulation, "Insulation"), (answer.protection, "Protective device")):
        if beside.state == State.FAIL:
            yield name
