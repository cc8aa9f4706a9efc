"""Testers of a crew by what they are called, and what each was at a time."""

from datetime import datetime
from typing import Any

from crews.models import Crew
from exchange.rows.names import plain
from kit.hands import Hands
from kit.models import Tester
from kit.strangers import unlisted


class TestersByLabel:
    """Those in use before those out of use, the crew's own before those known from a file."""

    def __init__(self, crew: Crew, since: datetime) -> None:
        self._hands = Hands(crew, since)
        every = Tester.objects.filter(crew=crew).select_related("usual_leads")
        self._by_label: dict[str, Tester] = {}
        for tester in sorted(every, key=lambda one: (one.retired_at is not None, one.is_strange)):
            self._by_label.setdefault(plain(str(tester)), tester)
        self._held: dict[tuple[Any, Any], dict[str, Any]] = {}

    def called(self, label: str | None) -> Tester | None:
        return self._by_label.get(plain(label)) if label else None

    def held(self, tester: Tester, at: datetime) -> dict[str, Any]:
        """As this record knows it at a time, whatever a file says."""
        check = self._hands.check_in_force(tester, at)
        known = (tester.id, check.id if check else None)
        if known not in self._held:
            self._held[known] = self._hands.kept(tester, at)
        return self._held[known]

    def in_hand(self, label: str | None, quantity: str, at: datetime) -> tuple[Tester | None, dict[str, Any]]:
        """What a reading was taken with; a tester the kit does not have by its name alone."""
        tester = self.called(label)
        if tester is not None:
            return tester, self.held(tester, at)
        named = unlisted(quantity, None)
        return None, {**named, "label": label} if label else named
