"""What is hunted in a case: all that can be at fault, what a look really shows, and what looks leave of it.

Whatever can be at fault has an id: a box or an element its own; a stretch of cable has `to ` before that of the box it
leads to.
"""

from abc import ABC, abstractmethod
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import ClassVar

from evenprobe.hunting.between import PROBE_MINUTES
from evenprobe.hunting.chains import FEED, JOINT_MINUTES, Element, Volts, hunt_chain
from evenprobe.hunting.evidence import Looked, Loop, Presence, Split
from evenprobe.hunting.findings import Hunt, Task
from evenprobe.hunting.hidden import HiddenChain, HiddenOpen, HiddenShort, Side
from evenprobe.hunting.intake import Conductor
from evenprobe.hunting.opens import hunt_open
from evenprobe.hunting.run import BOARD, Place, Run
from evenprobe.hunting.sentences import WHY
from evenprobe.hunting.shorts import hunt_short
from evenprobe.sentences import Sentence

Seen = Split | Loop | Presence | Looked | Volts
_TOLD_ALIKE_SHARE, _TOLD_ALIKE_V = 0.05, 1.0
"""Two displays of one voltage differ by no more."""


@dataclass(frozen=True)
class Ahead:
    """Where to look next, what to do there, and why."""

    at: str
    task: Task
    why: Sentence


@dataclass(frozen=True)
class Came:
    """What looks have come to: ids of what can still be at fault, and where to look next, if anything tells more."""

    left: frozenset[str]
    ahead: Ahead | None


class Hunted(ABC):
    """Something to be found along a run or a chain. `trips`: whether its device cannot be closed."""

    trips: ClassVar[bool] = False

    @property
    @abstractmethod
    def truth(self) -> str:
        """The id of what is at fault."""

    @property
    @abstractmethod
    def suspects(self) -> Mapping[str, str]:
        """What it is called, by the id of each thing that can be at fault, in cable order."""

    @property
    @abstractmethod
    def places(self) -> Sequence[str]:
        """Where one can look."""

    @abstractmethod
    def came(self, seen: Sequence[Seen]) -> Came:
        """What was seen comes to."""

    @abstractmethod
    def look(self, ahead: Ahead) -> Seen:
        """What is really seen there."""

    @abstractmethod
    def instead(self, seen: Seen) -> Seen | None:
        """What there was to see where that was written down; None where it is the same."""

    @abstractmethod
    def minutes(self, before: Sequence[Seen], seen: Seen) -> float:
        """What a look takes after those before it."""

    @abstractmethod
    def volts(self, at: str, ends: str) -> float:
        """Between two at a face, or from a joint to the return, with the supply on."""

    def ohm(self, at: str, side: Side, ends: str) -> float | None:
        """Between two on one side of an opened box, all off; None where they are apart."""
        del at, side, ends
        return None


@dataclass(frozen=True)
class HuntedAlongARun(Hunted):
    """`ohm_per_m`: of one conductor. `nominal_volts`: of the supply."""

    run: Run
    place: Place
    nominal_volts: float
    ohm_per_m: float | None = None

    @property
    def truth(self) -> str:
        return _id(self.place)

    @cached_property
    def suspects(self) -> Mapping[str, str]:
        return {_id(place): _called(place) for place in self.run.places}

    @property
    def places(self) -> Sequence[str]:
        return [BOARD, *(box.id for box in self.run.boxes)]

    @abstractmethod
    def hunt(self, seen: Sequence[Seen], standing_at: str) -> Hunt:
        """As it stands."""

    def came(self, seen: Sequence[Seen]) -> Came:
        found = self.hunt(seen, _stood(seen))
        ahead = None if found.next is None else Ahead(found.next.at, found.next.task, found.next.why)
        return Came(frozenset(_id(place) for place, share in found.share.items() if share > 0), ahead)


@dataclass(frozen=True)
class HuntedShort(HuntedAlongARun):
    """Two conductors joined."""

    between: tuple[Conductor, Conductor] = ("L", "PE")
    trips: ClassVar[bool] = True

    @cached_property
    def _hidden(self) -> HiddenShort:
        return HiddenShort(self.run, self.place, self.ohm_per_m or 0.0)

    def hunt(self, seen: Sequence[Seen], standing_at: str) -> Hunt:
        told = [each for each in seen if isinstance(each, Split | Loop)]
        return hunt_short(self.run, told, standing_at, ohm_per_m=self.ohm_per_m, volts=self.nominal_volts)

    def look(self, ahead: Ahead) -> Seen:
        return self._hidden.split(ahead.at)

    def instead(self, seen: Seen) -> Seen | None:
        if not isinstance(seen, Split):
            return None
        really = self._hidden.split(seen.at)
        return None if _told_alike(seen, really) else really

    def minutes(self, before: Sequence[Seen], seen: Seen) -> float:
        at = _at(seen)
        is_open = at == BOARD or any(_at(each) == at for each in before)
        return self.run.walk_minutes(_stood(before), at) + (0.0 if is_open else self.run.box[at].open_minutes)

    def volts(self, at: str, ends: str) -> float:
        del at, ends
        return 0.0

    def ohm(self, at: str, side: Side, ends: str) -> float | None:
        return self._hidden.ohm(at, side) if set(ends.split("-")) == set(self.between) else None


@dataclass(frozen=True)
class HuntedOpen(HuntedAlongARun):
    """One conductor open."""

    conductor: Conductor = "L"
    probe_minutes: float = PROBE_MINUTES

    @cached_property
    def _hidden(self) -> HiddenOpen:
        return HiddenOpen(self.run, self.place, self.nominal_volts, self.conductor)

    def hunt(self, seen: Sequence[Seen], standing_at: str) -> Hunt:
        told = [each for each in seen if isinstance(each, Presence | Looked)]
        return hunt_open(self.run, told, standing_at, probe_minutes=self.probe_minutes)

    def look(self, ahead: Ahead) -> Seen:
        return self._hidden.looked(ahead.at) if ahead.task is Task.OPEN else self._hidden.presence(ahead.at)

    def instead(self, seen: Seen) -> Seen | None:
        match seen:
            case Presence(at, live):
                really: Presence | Looked = self._hidden.presence(at)
                return None if live is self._hidden.is_live(at) else really
            case Looked(at):
                really = self._hidden.looked(at)
                return None if seen == really else really
        return None

    def minutes(self, before: Sequence[Seen], seen: Seen) -> float:
        at = _at(seen)
        there = self.run.box[at].open_minutes if isinstance(seen, Looked) else self.probe_minutes
        return self.run.walk_minutes(_stood(before), at) + there

    def volts(self, at: str, ends: str) -> float:
        return self._hidden.volts_between(at, ends)


@dataclass(frozen=True)
class HuntedChain(Hunted):
    """An element of a control chain that does not let through."""

    elements: Sequence[Element]
    element: str
    supply_v: float

    @property
    def truth(self) -> str:
        return self.element

    @property
    def suspects(self) -> Mapping[str, str]:
        return {element.id: _sentence(element.id) for element in self.elements}

    @property
    def places(self) -> Sequence[str]:
        return [FEED, *(element.id for element in self.elements)]

    @cached_property
    def _hidden(self) -> HiddenChain:
        return HiddenChain([element.id for element in self.elements], self.element, self.supply_v)

    def came(self, seen: Sequence[Seen]) -> Came:
        found = hunt_chain(self.elements, [each for each in seen if isinstance(each, Volts)], self.supply_v)
        after = found.next_after
        ahead = None if after is None else Ahead(after, Task.MEASURE, WHY.say("joint-halves"))
        return Came(frozenset(found.share), ahead)

    def look(self, ahead: Ahead) -> Seen:
        return Volts(ahead.at, self._hidden.volts_after(ahead.at))

    def instead(self, seen: Seen) -> Seen | None:
        if not isinstance(seen, Volts):
            return None
        shown = self._hidden.volts_after(seen.after)
        alike = abs(seen.volts - shown) <= _TOLD_ALIKE_V + _TOLD_ALIKE_SHARE * max(seen.volts, shown)
        return None if alike else Volts(seen.after, shown)

    def minutes(self, before: Sequence[Seen], seen: Seen) -> float:
        del before, seen
        return JOINT_MINUTES

    def volts(self, at: str, ends: str) -> float:
        del ends
        return self._hidden.volts_after(at)


def _id(place: Place) -> str:
    return f"to {place.box}" if place.stretch else place.box


def _called(place: Place) -> str:
    return f"The cable to {place.box}" if place.stretch else _sentence(place.box)


def _sentence(name: str) -> str:
    return name[:1].upper() + name[1:]


def _at(seen: Seen) -> str:
    return seen.after if isinstance(seen, Volts) else seen.at


def _stood(seen: Sequence[Seen]) -> str:
    return _at(seen[-1]) if seen else BOARD


def _told_alike(told: Split, really: Split) -> bool:
    """Whether all that was told of a box is so."""
    if told.feed is not None and told.feed is not bool(really.feed):
        return False
    if isinstance(told.onward, Mapping) and isinstance(really.onward, Mapping):
        return all(really.onward.get(name) is shows for name, shows in told.onward.items())
    return told.onward is None or told.shows_onward() is really.shows_onward()
