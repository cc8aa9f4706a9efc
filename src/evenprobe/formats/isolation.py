"""The isolation log: a proof of isolation as its events, in time order."""

from math import isfinite
from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from evenprobe.entries import FieldError, Name, Positive, Strict, Text, Time, YesNo
from evenprobe.entries.units import to_si
from evenprobe.formats.fields import KindId, PracticeName, Terminals
from evenprobe.formats.kit import InstrumentEntry
from evenprobe.formats.supply import SupplyEntry
from evenprobe.isolation import Event, EventType, HouseRules, IsolationLog, Source, SourceKind
from evenprobe.isolation.log import Mode
from evenprobe.isolation.rules import HANDBOOK, LONGEST_UNATTENDED_MIN, LONGEST_WINDOW_MIN
from evenprobe.practices import Practice
from evenprobe.supplies import SYSTEMS
from evenprobe.testers import KINDS
from evenprobe.testers.ratings import Place
from evenprobe.wiring import Terminal

HIGHEST_VOLTS = 10_000.0
"""No contact tester of this trade goes on a conductor above it."""

_NEEDS: dict[EventType, tuple[str, ...]] = {
    EventType.OFF: ("source",),
    EventType.LOCKED: ("source",),
    EventType.PROVED: ("tester",),
    EventType.PROVE_FAILED: ("tester",),
    EventType.TESTED: ("tester", "from", "to"),
    EventType.SCREENED: ("alarm",),
    EventType.SOURCE_FOUND: ("source", "label"),
}
_SHOWN_BY = (EventType.PROVED, EventType.TESTED)


class SourceEntry(Strict):
    id: Name
    label: Annotated[str, Field(min_length=1, max_length=120)]
    kind: SourceKind = SourceKind.DEVICE

    def source(self) -> Source:
        return Source(self.id, self.label, self.kind)


class RulesEntry(Strict):
    """A crew's own rules; each left out is the handbook's."""

    proof_window_min: Annotated[float, Field(gt=0, le=LONGEST_WINDOW_MIN)] = HANDBOOK.window_min
    unattended_min: Annotated[float, Field(gt=0, le=LONGEST_UNATTENDED_MIN)] = HANDBOOK.unattended_min
    dead_kinds: Annotated[list[KindId], Field(min_length=1)] | None = None
    least_rating: YesNo = False
    reason: Text = ""

    def rules(self) -> HouseRules:
        kinds = None if self.dead_kinds is None else tuple(self.dead_kinds)
        return HouseRules(self.proof_window_min, self.unattended_min, kinds, self.least_rating, self.reason.strip())

    def check(self, practice: Practice) -> None:
        """Raises FieldError where a rule is looser than usual's without a reason, or never allowed."""
        for index, kind in enumerate(self.dead_kinds or ()):
            if not kind.may_prove_dead:
                allowed = ", ".join(str(k) for k in KINDS.values() if k.may_prove_dead)
                raise FieldError(f"dead_kinds[{index}]", f"a {kind} never proves dead; use {allowed}")
        loosened = self.rules().loosened(practice)
        if loosened and not self.reason.strip():
            raise FieldError("reason", f"is missing: looser than usual needs one ({'; '.join(loosened)})")


class EventDetails(Strict):
    """What is known of an event beside what it was, when, and with what and by whom."""

    source: Name | None = None
    label: Annotated[str, Field(min_length=1, max_length=120)] | None = None
    kind: SourceKind | None = None
    lock: Text | None = None
    tag: YesNo | None = None
    against: Literal["proving-unit", "known-live"] | None = None
    from_: Annotated[Terminal | None, Field(alias="from")] = None
    to: Terminal | None = None
    shows_v: float | None = None
    at_least: Positive | None = None
    below: Positive | None = None
    unit: Literal["V", "mV", "kV"] | None = None
    mode: Mode | None = None
    range: Text | None = None
    input: Literal["high-z", "low-z"] | None = None
    alarm: YesNo | None = None
    note: Text | None = None


class Happening(EventDetails):
    """An event as it is told while it happens: now, by whoever tells it."""

    type: EventType


class EventEntry(Happening):
    """An event of the log. `told_at`: when it was heard of, where that was later."""

    at: Time
    told_at: Time | None = None
    tester: Name | None = None
    by: Text | None = None

    @model_validator(mode="before")
    @classmethod
    def _numbers_are_numbers(cls, data: Any) -> Any:
        if isinstance(data, dict):
            for key in ("shows_v", "at_least", "below"):
                given = data.get(key)
                if isinstance(given, str | bool | list | dict):
                    raise FieldError(key, f"must be a number of volts, not {given!r}")
                if isinstance(given, float) and not isfinite(given):
                    raise FieldError(key, "must be a finite number")
        return data

    @model_validator(mode="after")
    def _makes_sense(self) -> "EventEntry":
        if self.told_at is not None and self.told_at < self.at:
            raise FieldError(
                "told_at", f"{self.told_at.isoformat()} is earlier than at; nothing is told before it happens"
            )
        for name in _NEEDS.get(self.type, ()):
            if getattr(self, "from_" if name == "from" else name) is None:
                raise FieldError(name, f"is missing: {self.type} needs it")
        if self.from_ is not None and self.from_ == self.to:
            raise FieldError("to", f"both probes are on {self.to}; put one on another contact")
        if self.type in _SHOWN_BY:
            self._check_shown()
        return self

    def _check_shown(self) -> None:
        stepped = self.at_least is not None or self.below is not None
        if self.shows_v is None and not stepped:
            raise FieldError("shows_v", "is missing: what did the display show")
        if self.shows_v is not None and stepped:
            raise FieldError("shows_v", "give a value or steps, not both")
        if self.at_least is not None and self.below is not None and self.at_least >= self.below:
            raise FieldError("below", "must be above at_least: the first step that stayed dark")
        for name in ("shows_v", "at_least", "below"):
            volts = self._volts(getattr(self, name))
            if volts is not None and abs(volts) > HIGHEST_VOLTS:
                raise FieldError(name, f"{volts:g} V is more than any tester here shows; check the number and its unit")
        if self.shows_v is not None and self.shows_v < 0 and self.mode != "dc":
            raise FieldError("shows_v", "an AC voltage cannot be negative: check the sign, or DC was meant")

    def _volts(self, number: float | None) -> float | None:
        return None if number is None else to_si(number, self.unit or "V")

    def event(self) -> Event:
        found = None
        if self.type is EventType.SOURCE_FOUND and self.source and self.label:
            found = Source(self.source, self.label, self.kind or SourceKind.DEVICE)
        return Event(
            at=self.at,
            type=self.type,
            source=self.source,
            found=found,
            tester=self.tester,
            from_=self.from_,
            to=self.to,
            volts=self._volts(self.shows_v),
            at_least=self._volts(self.at_least),
            below=self._volts(self.below),
            mode=self.mode or "ac",
            range=(self.range or "").strip(),
            low_impedance=self.input == "low-z",
            against=self.against or "",
            alarm=self.alarm is True,
            lock=self.lock or "",
            by=self.by or "",
            told_at=self.told_at,
        )


class IsolationFile(Strict):
    """An isolation log: what is to be dead, every source, the testers, and what happened in order of time."""

    format: Literal["even-probe/isolation"]
    version: Literal[1]
    practice: PracticeName
    at: Time
    supply: SupplyEntry
    terminals: Terminals
    place: Place = Place.INSTALLATION
    wet: YesNo = False
    label: Text | None = None
    sources: Annotated[list[SourceEntry], Field(min_length=1)]
    testers: list[InstrumentEntry] = []
    rules: RulesEntry = RulesEntry()
    events: list[EventEntry] = []

    @model_validator(mode="after")
    def _hangs_together(self) -> "IsolationFile":
        try:
            self.rules.check(self.practice)
        except FieldError as error:
            raise FieldError(f"rules.{error.field}", str(error)) from None
        sources = _unrepeated("sources", [s.id for s in self.sources])
        testers = _unrepeated("testers", [t.id for t in self.testers])
        for index, event in enumerate(self.events):
            self._check_event(f"events[{index}]", index, event, sources, testers)
            if event.type is EventType.SOURCE_FOUND:
                sources.add(event.source or "")
        return self

    def _check_event(self, path: str, index: int, event: EventEntry, sources: set[str], testers: set[str]) -> None:
        at = event.at.isoformat()
        if index and event.at < self.events[index - 1].at:
            earlier = f"events[{index - 1}].at ({self.events[index - 1].at.isoformat()})"
            raise FieldError(f"{path}.at", f"{at} is earlier than {earlier}; put them in time order")
        if event.at > self.at:
            raise FieldError(f"{path}.at", f"{at} is later than the log's own at ({self.at.isoformat()})")
        found = event.type is EventType.SOURCE_FOUND
        if found and event.source in sources:
            raise FieldError(f"{path}.source", f"{event.source!r} is a source already")
        if event.source is not None and event.source not in sources and not found:
            known = ", ".join(sorted(sources))
            raise FieldError(f"{path}.source", f"no source {event.source!r}; use one of {known}")
        if event.tester is not None and event.tester not in testers and event.type is not EventType.SCREENED:
            raise FieldError(f"{path}.tester", f"no tester {event.tester!r} in testers")
        for key, end in (("from", event.from_), ("to", event.to)):
            if end is not None and end not in (*self.terminals, Terminal.REF):
                names = ", ".join((*self.terminals, Terminal.REF))
                raise FieldError(f"{path}.{key}", f"{str(end)!r} is none of the terminals; use {names}")

    def log(self) -> IsolationLog:
        return IsolationLog(
            practice=self.practice,
            system=SYSTEMS[self.supply.system],
            terminals=self.terminals,
            place=self.place,
            sources=tuple(s.source() for s in self.sources),
            testers={t.id: t.held() for t in self.testers},
            events=tuple(e.event() for e in self.events),
            at=self.at,
            wet=self.wet,
            rules=self.rules.rules(),
        )


def _unrepeated(key: str, names: list[str]) -> set[str]:
    for index, name in enumerate(names):
        if name in names[:index]:
            raise FieldError(f"{key}[{index}].id", f"{name!r} stands twice")
    return set(names)
