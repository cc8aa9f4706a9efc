"""The circuit files of a run of boxes and cable: shorts, opens and poor joints, with what was seen so far."""

from collections.abc import Iterator, Mapping, Sequence
from functools import cached_property
from typing import Annotated, Literal

from pydantic import Field, model_validator

from evenprobe.entries import FieldError, Name, Strict, YesNo
from evenprobe.formats.circuits.common import MOST_PLACES, MOST_SEEN, Circuit, Volts
from evenprobe.hunting.between import PROBE_MINUTES
from evenprobe.hunting.evidence import Looked, Loop, Presence, Split
from evenprobe.hunting.findings import Hunt
from evenprobe.hunting.intake import Conductor
from evenprobe.hunting.opens import hunt_open, shows_live
from evenprobe.hunting.poor_joints import Drop, hunt_poor_joint
from evenprobe.hunting.run import BOARD, HIDDEN_MINUTES, OPEN_MINUTES, Box, Run, RunError
from evenprobe.hunting.shorts import hunt_short
from evenprobe.wiring import conductor_named

Metres = Annotated[float, Field(strict=True, ge=0, le=5_000)]
Minutes = Annotated[float, Field(strict=True, ge=0, le=1_440)]
Suspicion = Annotated[float, Field(strict=True, gt=0, le=1_000)]
Ohms = Annotated[float, Field(strict=True, ge=0, le=1e9)]


class BoxEntry(Strict):
    """A point of the run. `after`: the one before it in cable order, or `board`."""

    id: Name
    after: Name
    length_m: Metres
    suspicion: Suspicion = 1.0
    stretch_suspicion: Suspicion = 1.0
    open_minutes: Minutes | None = None
    hidden: YesNo = False

    def box(self) -> Box:
        usual = HIDDEN_MINUTES if self.hidden else OPEN_MINUTES
        minutes = usual if self.open_minutes is None else self.open_minutes
        return Box(self.id, self.after, self.length_m, self.suspicion, self.stretch_suspicion, minutes)


class SeenEntry(Strict):
    """Something seen at a box or at the board."""

    at: Name


class SplitEntry(SeenEntry):
    """At the board or an opened box, on which sides the joint shows; or ohms of the joined conductors from there."""

    feed: YesNo | None = None
    onward: YesNo | dict[str, YesNo] | None = None
    resistance_ohm: Ohms | None = None
    null_ohm: Ohms | None = None

    @model_validator(mode="after")
    def _one_thing(self) -> "SplitEntry":
        of_sides = self.feed is not None or self.onward is not None
        if self.resistance_ohm is None and not of_sides:
            raise FieldError("onward", "is missing: say what showed on the feed side and onward, or resistance_ohm")
        if self.resistance_ohm is not None and of_sides:
            raise FieldError("resistance_ohm", "stands beside what showed: make two of it")
        if self.null_ohm is not None and self.resistance_ohm is None:
            raise FieldError("null_ohm", "is of leads: there is no resistance_ohm")
        if self.resistance_ohm is not None and (self.null_ohm or 0.0) > self.resistance_ohm:
            raise FieldError("null_ohm", f"is more than the {self.resistance_ohm:g} ohm measured through the leads")
        return self

    def seen(self) -> Split | Loop:
        if self.resistance_ohm is not None:
            return Loop(self.at, self.resistance_ohm, self.null_ohm or 0.0)
        return Split(self.at, self.feed, self.onward)

    def misplaced(self, run: Run) -> Iterator[tuple[str, str]]:
        """What of it cannot be there, by key, with why."""
        if self.at == BOARD and self.feed is not None:
            yield "feed", "the board has no feed side on this run"
        for name in self.onward if isinstance(self.onward, Mapping) else ():
            if name not in run.after[self.at]:
                yield "onward", f"{name!r} is not next after {self.at}"


class VoltsEntry(Strict):
    """Volts of contact pairs under a known load."""

    l_n: Annotated[Volts | None, Field(alias="L-N")] = None
    l_pe: Annotated[Volts | None, Field(alias="L-PE")] = None
    n_pe: Annotated[Volts | None, Field(alias="N-PE")] = None

    def by_pair(self) -> dict[str, float]:
        pairs = {"L-N": self.l_n, "L-PE": self.l_pe, "N-PE": self.n_pe}
        return {pair: volts for pair, volts in pairs.items() if volts is not None}


class PresenceEntry(SeenEntry):
    """Whether a box is live, or volts that tell it; or, opened, whether the fault is here."""

    live: YesNo | None = None
    here: YesNo | None = None
    volts: VoltsEntry | None = None

    @model_validator(mode="after")
    def _one_thing(self) -> "PresenceEntry":
        if self.here is not None and self.at == BOARD:
            raise FieldError("here", "is of a box of the run")
        if sum(each is not None for each in (self.live, self.here, self.volts)) != 1:
            raise FieldError("live", "say whether it is live, or its volts, or, opened, whether the fault is here")
        return self

    def seen(self, pair: str, nominal: float) -> Presence | Looked:
        """`pair`: of which one is open, for volts to be of. Raises FieldError for volts that tell nothing."""
        if self.here is not None:
            return Looked(self.at, self.here)
        if self.volts is None:
            return Presence(self.at, bool(self.live))
        volts = self.volts.by_pair()
        if pair not in volts:
            raise FieldError(f"volts.{pair}", "is missing: one of these two is open")
        live = shows_live(volts[pair], nominal)
        if live is None:
            why = f"{volts[pair]:g} V is neither live nor dead: measure with a load in, or with a low impedance"
            raise FieldError(f"volts.{pair}", why)
        return Presence(self.at, live, volts)


class DropEntry(SeenEntry):
    """Volts at a box, or the board, under a known load; or, opened, whether the fault is here."""

    volts: VoltsEntry | None = None
    load_a: Annotated[float | None, Field(strict=True, gt=0, le=10_000)] = None
    load_at: Name | None = None
    here: YesNo | None = None

    @model_validator(mode="after")
    def _one_thing(self) -> "DropEntry":
        if self.here is not None and self.at == BOARD:
            raise FieldError("here", "is of a box of the run")
        if (self.volts is None) is (self.here is None):
            raise FieldError("volts", "say what was measured, or, opened, whether the fault is here")
        if self.volts is not None and not self.volts.by_pair():
            raise FieldError("volts", "names no pair: L-N, L-PE or N-PE")
        if self.volts is not None and self.load_a is None:
            raise FieldError("load_a", "is missing: volts tell a joint under a known load only")
        return self

    def seen(self) -> Drop | Looked:
        if self.volts is None:
            return Looked(self.at, bool(self.here))
        return Drop(self.at, self.volts.by_pair(), self.load_a or 0.0, self.load_at)


class RunFile(Circuit):
    """A run of boxes and cable."""

    between: tuple[Conductor, Conductor] | None = None
    points: Annotated[list[BoxEntry], Field(min_length=1, max_length=MOST_PLACES)]
    conductor: Name | None = None
    standing_at: Name = BOARD
    walk_minutes_per_m: Annotated[float, Field(strict=True, gt=0, le=10)] = 0.1
    probe_minutes: Minutes = PROBE_MINUTES

    @cached_property
    def run(self) -> Run:
        try:
            return Run([point.box() for point in self.points], self.walk_minutes_per_m)
        except RunError as error:
            raise FieldError(f"points[{error.index}].{error.key}", error.why) from None

    @cached_property
    def ohm_per_m(self) -> float | None:
        if self.conductor is None:
            return None
        try:
            return conductor_named(self.conductor).ohm_per_m
        except ValueError as error:
            raise FieldError("conductor", str(error)) from None

    def _check(self, seen: Sequence[SeenEntry]) -> None:
        if self.between is not None and self.between[0] == self.between[1]:
            raise FieldError("between", f"joins {self.between[0]} to itself")
        _ = self.ohm_per_m
        places = {BOARD, *self.run.box}
        for index, each in enumerate(seen):
            if each.at not in places:
                raise FieldError(f"seen[{index}].at", f"{each.at!r} is no point of this run")
        if self.standing_at not in places:
            raise FieldError("standing_at", f"{self.standing_at!r} is no point of this run")


class ShortFile(RunFile):
    """A short or an earth fault."""

    hunt: Literal["short"]
    seen: Annotated[list[SplitEntry], Field(max_length=MOST_SEEN)] = []

    @model_validator(mode="after")
    def _fits(self) -> "ShortFile":
        self._check(self.seen)
        for index, each in enumerate(self.seen):
            for key, why in each.misplaced(self.run):
                raise FieldError(f"seen[{index}].{key}", why)
        return self

    @property
    def looks(self) -> Sequence[Split | Loop]:
        return [each.seen() for each in self.seen]

    def hunted(self) -> Hunt:
        volts = self.practice.systems[0].nominal_volts
        return hunt_short(self.run, self.looks, self.standing_at, ohm_per_m=self.ohm_per_m, volts=volts)


class OpenFile(RunFile):
    """An open conductor."""

    hunt: Literal["open"]
    seen: Annotated[list[PresenceEntry], Field(max_length=MOST_SEEN)] = []

    @model_validator(mode="after")
    def _fits(self) -> "OpenFile":
        self._check(self.seen)
        for index, each in enumerate(self.seen):
            try:
                self._look(each)
            except FieldError as error:
                raise FieldError(f"seen[{index}].{error.field}", str(error)) from None
        return self

    def _look(self, entry: PresenceEntry) -> Presence | Looked:
        pair = "L-PE" if self.between is not None and "N" not in self.between else "L-N"
        return entry.seen(pair, self.practice.systems[0].nominal_volts)

    @property
    def looks(self) -> Sequence[Presence | Looked]:
        return [self._look(each) for each in self.seen]

    def hunted(self) -> Hunt:
        return hunt_open(self.run, self.looks, self.standing_at, probe_minutes=self.probe_minutes)


class PoorJointFile(RunFile):
    """A poor joint."""

    hunt: Literal["poor-joint"]
    seen: Annotated[list[DropEntry], Field(max_length=MOST_SEEN)] = []

    @model_validator(mode="after")
    def _fits(self) -> "PoorJointFile":
        self._check(self.seen)
        for index, each in enumerate(self.seen):
            if each.load_at is not None and each.load_at not in self.run.box:
                raise FieldError(f"seen[{index}].load_at", f"{each.load_at!r} is no point of this run")
        if self.conductor is None:
            raise FieldError("conductor", "is missing: what a sound cable loses depends on it")
        return self

    @property
    def looks(self) -> Sequence[Drop | Looked]:
        return [each.seen() for each in self.seen]

    def hunted(self) -> Hunt:
        ohm_per_m = self.ohm_per_m or 0.0
        return hunt_poor_joint(
            self.run, self.looks, self.standing_at, ohm_per_m=ohm_per_m, probe_minutes=self.probe_minutes
        )
