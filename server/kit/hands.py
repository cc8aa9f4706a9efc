"""What is in a hand at a time: a tester with its leads and adapters, as the check of that working day found it."""

from collections.abc import Sequence
from datetime import datetime
from typing import Any
from uuid import UUID

from base.failures import each_shown
from crews.models import Crew
from evenprobe.formats import InstrumentEntry
from evenprobe.testers.daily_check import HOLDS
from kit.models import Check, Part, Tester
from kit.services import tester_of, testers_of
from kit.strangers import STRANGE

_RETIRED = "taken out of the register on {:%Y-%m-%d}"


def check_in_force(tester: Tester, at: datetime) -> Check | None:
    """The latest of the working day."""
    return tester.checks.filter(at__gt=at - HOLDS, at__lte=at).first()


def in_hand(tester: Tester, at: datetime, leads: Part | None = None, adapters: Sequence[Part] = ()) -> InstrumentEntry:
    """The tester with leads and adapters as that day's check found it; its usual leads where none are named."""
    return _as_found(tester, check_in_force(tester, at), leads, adapters)


def _as_found(
    tester: Tester, check: Check | None, leads: Part | None = None, adapters: Sequence[Part] = ()
) -> InstrumentEntry:
    entry = tester.instrument()
    on_it = leads or tester.usual_leads
    if on_it is not None:
        entry = entry.model_copy(update={"leads": on_it.leads()})
    if tester.is_strange:
        entry = entry.model_copy(update={"known_issue": STRANGE})
    if tester.suspect_from is not None:
        entry = entry.model_copy(update={"known_issue": f"found faulty: {tester.fault}"})
    if tester.retired_at is not None:
        entry = entry.model_copy(update={"known_issue": _RETIRED.format(tester.retired_at)})
    if check is not None:
        entry = check.found().applied(entry)
    return entry.model_copy(update={"adapters": [adapter.adapter() for adapter in adapters]})


class Hands:
    """Every tester of a crew, as it would be picked up at any time from `since` on: looked up in two queries."""

    def __init__(self, crew: Crew, since: datetime) -> None:
        self._crew, self._since = crew, since
        self._testers = {tester.id: tester for tester in testers_of(crew)}
        self._checks: dict[UUID, list[Check]] = {}
        for check in Check.objects.filter(tester__crew=crew, at__gt=since - HOLDS):
            self._checks.setdefault(check.tester_id, []).append(check)

    @property
    def testers(self) -> list[Tester]:
        """Those in use."""
        return list(self._testers.values())

    def tester(self, tester_id: UUID) -> Tester:
        """One in use, or one out of use that is looked up. Raises NotFoundHere."""
        return self._testers.get(tester_id) or tester_of(self._crew, tester_id)

    def check_in_force(self, tester: Tester, at: datetime) -> Check | None:
        if tester.id not in self._testers or at < self._since:
            return check_in_force(tester, at)
        return next((check for check in self._checks.get(tester.id, ()) if at - HOLDS < check.at <= at), None)

    def holding(self, tester: Tester, at: datetime) -> InstrumentEntry:
        """The tester with its usual leads, as `in_hand` has it."""
        return _as_found(tester, self.check_in_force(tester, at))

    def kept(self, tester: Tester, at: datetime) -> dict[str, Any]:
        """The same as it is kept with what was measured, without its id."""
        return self.holding(tester, at).model_dump(mode="json", exclude_defaults=True, exclude={"id"})

    def all_at(self, at: datetime) -> list[tuple[Tester, InstrumentEntry]]:
        """Those in use; one that cannot be read is left lying."""
        found = each_shown(self.testers, lambda one: (one, self.holding(one, at)), lambda _one, _why: None)
        return [one for one in found if one is not None]


def in_hands(crew: Crew, now: datetime) -> list[tuple[Tester, InstrumentEntry]]:
    """Every tester of the crew that is in use, as it would be picked up now."""
    return Hands(crew, now).all_at(now)
