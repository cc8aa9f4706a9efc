"""A hidden fault along a run, a chain or over a board, and what each look at it shows a person.

A joint shows on every side that leads to it; its ohms are those of the two conductors there and back, and its own
(R = 2 · r20 · d + joint). Behind an open conductor there is no voltage, behind an open contact neither.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from evenprobe.hunting.chains import FEED
from evenprobe.hunting.evidence import Looked, Presence, Split
from evenprobe.hunting.intake import Conductor
from evenprobe.hunting.run import BOARD, Place, Run

Side = Literal["feed", "onward"]
_JOINT_OHM = 0.12
_STRAY_V = 0.4
"""What is left behind an open one."""
_STAYS_LIVE_BEHIND = {"L": frozenset[str](), "N": frozenset({"L-PE", "N-PE"}), "PE": frozenset({"L-N"})}
"""Pairs at the line's voltage behind an open conductor, a load being in: an open neutral is at the line there."""


@dataclass(frozen=True)
class HiddenShort:
    """Two conductors joined at a place of a run.

    Parameters
    ----------
    run
        The run.
    truth
        Where it is.
    ohm_per_m
        Of one conductor.
    """

    run: Run
    truth: Place
    ohm_per_m: float = 0.0

    def split(self, at: str) -> Split:
        """What shows at the board, or at a box whose pairs are taken apart."""
        onward = {name: self.truth.box in self.run.beyond(name) for name in self.run.after[at]}
        shows = onward if len(onward) > 1 else any(onward.values())
        return Split(at, None if at == BOARD else self._on_the_feed_side(at), shows)

    def _on_the_feed_side(self, at: str) -> bool:
        return self.truth.box not in self.run.beyond(at) or self.truth == Place(at, stretch=True)

    def ohm(self, at: str, side: Side) -> float | None:
        """Between the two on one side of an opened box; None where nothing is joined there."""
        split = self.split(at)
        if not (split.feed if side == "feed" else split.shows_onward()):
            return None
        box = self.run.box[self.truth.box]
        stretch = box.length_m / 2 if self.truth.stretch else 0.0
        metres = abs(self.run.distance_m[self.truth.box] - stretch - self.run.distance_m[at])
        return 2 * self.ohm_per_m * metres + _JOINT_OHM


@dataclass(frozen=True)
class HiddenOpen:
    """A conductor open at a place of a run: in a box behind its own face."""

    run: Run
    truth: Place
    volts: float
    conductor: Conductor = "N"

    def is_live(self, at: str) -> bool:
        """Whether there is voltage at the board, or at the face of a box."""
        path = self.run.path(at)
        return self.truth.box not in path or (at == self.truth.box and not self.truth.stretch)

    def presence(self, at: str) -> Presence:
        """What a contact tester shows at the face."""
        return Presence(at, self.is_live(at))

    def looked(self, at: str) -> Looked:
        """What is found in an opened box: an open in a stretch is found at neither end."""
        return Looked(at, self.truth == Place(at))

    def volts_between(self, at: str, ends: str) -> float:
        """At the face of a box, with a load in."""
        shows = ends != "N-PE" if self.is_live(at) else ends in _STAYS_LIVE_BEHIND[self.conductor]
        return self.volts if shows else _STRAY_V


@dataclass(frozen=True)
class HiddenChain:
    """A control chain with one element that does not let through."""

    elements: Sequence[str]
    truth: str
    supply_v: float

    def volts_after(self, joint: str) -> float:
        """Of a joint against the return."""
        joints = [FEED, *self.elements]
        return _STRAY_V if joints.index(joint) >= joints.index(self.truth) else self.supply_v


@dataclass(frozen=True)
class HiddenBoard:
    """Which way really feeds which outlet."""

    feeds: Mapping[str, str]

    def is_live(self, outlet: str, on: Sequence[str]) -> bool:
        """Whether an outlet is live while these ways are on."""
        return self.feeds[outlet] in on
