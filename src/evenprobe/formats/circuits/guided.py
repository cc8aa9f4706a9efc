"""The circuit file of a guided hunt: what was seen at its steps."""

from collections.abc import Iterable
from functools import cached_property
from typing import Annotated, Literal

from pydantic import Field, model_validator

from evenprobe.entries import FieldError, Name, Strict
from evenprobe.formats.circuits.common import MOST_PLACES, MOST_SEEN, Circuit, once
from evenprobe.hunting.guided.guides import GUIDES
from evenprobe.hunting.guided.step import OVER, Facts, Guide, Step
from evenprobe.hunting.guided.walk import Told, Walk, walk
from evenprobe.limits.protective_devices import Curve

_Figure = Annotated[float, Field(strict=True, ge=0, le=1e12)] | Literal["over"]
_Rated = Annotated[float, Field(strict=True, gt=0, le=10_000)]


class ToldEntry(Strict):
    """At a step: the outcome, or figures by what was measured; `name` of one of several; a picture, by its id."""

    step: Name
    outcome: Name | None = None
    name: Name | None = None
    figures: dict[str, _Figure] | None = None
    photo: Name | None = None

    def told(self) -> Told:
        figures = {key: OVER if shown == "over" else float(shown) for key, shown in (self.figures or {}).items()}
        return Told(self.step, self.outcome, self.name or "", figures, self.photo)

    def problems(self, guide: Guide, points: Iterable[str]) -> Iterable[tuple[str, str]]:
        """What of it cannot be, by key, with why."""
        step = guide.step(self.step)
        if step is None:
            yield "step", f"{self.step!r} is no step; use one of {', '.join(s.id for s in guide.steps)}"
            return
        if (self.outcome is None) is (self.figures is None):
            yield "outcome", "say what it showed: an outcome, or figures"
        yield from self._named(step, points)
        if self.photo is not None and not step.picture:
            yield "photo", "no picture is kept of this step"
        if self.outcome is not None and self.outcome not in {outcome.id for outcome in step.to_tap}:
            said = ", ".join(outcome.id for outcome in step.to_tap) or "none: figures decide"
            yield "outcome", f"{self.outcome!r} is none of this step's: {said}"
        if self.figures is not None:
            yield from self._measured(step, self.figures)

    def _named(self, step: Step, points: Iterable[str]) -> Iterable[tuple[str, str]]:
        of_all = any(outcome.id == self.outcome and outcome.of_all for outcome in step.outcomes)
        if self.name is None and (step.names or (step.each and not of_all)):
            yield "name", f"is missing: which {step.each or 'one'}"
        if self.name is not None and not step.names and (not step.each or of_all):
            yield "name", "is of one of several; this step, or outcome, is of none"
        if step.each == "point" and self.name is not None and self.name not in points:
            yield "name", f"{self.name!r} is no point of this run"

    def _measured(self, step: Step, figures: dict[str, float | Literal["over"]]) -> Iterable[tuple[str, str]]:
        asked = {each.id: each for each in step.asks}
        for key, shown in figures.items():
            if key not in asked:
                yield f"figures.{key}", f"is nothing that is measured here: {', '.join(asked) or 'nothing is'}"
            elif shown == "over" and not asked[key].may_be_over:
                yield f"figures.{key}", "has no over-range"
        for key in asked:
            if key not in figures:
                yield f"figures.{key}", "is missing"


class PlaceEntry(Strict):
    id: Name


class GuidedFile(Circuit):
    """A guided hunt.

    `rated_a`, `residual_ma`, `curve`: of the circuit's device. `points`: to go round, where it is needed.
    """

    rated_a: _Rated | None = None
    residual_ma: _Rated | None = None
    curve: Curve | None = None
    points: Annotated[list[PlaceEntry], Field(max_length=MOST_PLACES)] = []
    seen: Annotated[list[ToldEntry], Field(max_length=MOST_SEEN)] = []

    @property
    def guide(self) -> Guide:
        return GUIDES[str(getattr(self, "hunt", ""))]

    @cached_property
    def names(self) -> list[str]:
        return [point.id for point in self.points]

    @model_validator(mode="after")
    def _fits(self) -> "GuidedFile":
        once("points", "id", self.names)
        for index, each in enumerate(self.seen):
            for key, why in each.problems(self.guide, self.names):
                raise FieldError(f"seen[{index}].{key}", why)
        return self

    def hunted(self) -> Walk:
        volts = self.practice.systems[0].nominal_volts
        facts = Facts(volts, self.rated_a, self.residual_ma, self.curve)
        return walk(self.guide, [each.told() for each in self.seen], facts, self.names)


class TrippedFile(GuidedFile):
    """A tripped device."""

    hunt: Literal["tripped-device"]


class ProtectiveOutletFile(GuidedFile):
    """A dead outlet behind a protective outlet."""

    hunt: Literal["protective-outlet"]


class TingleFile(GuidedFile):
    """A tingle from metalwork."""

    hunt: Literal["tingle"]
