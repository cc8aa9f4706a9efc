"""The case file: an installation with something hidden, for practice. The installation is a survey without readings."""

from dataclasses import replace
from functools import cached_property
from importlib import resources
from typing import Annotated, Any, Literal

from pydantic import Field, StringConstraints, model_validator

from evenprobe.conditions import CONDITIONS, Condition, conditions_for
from evenprobe.entries import FieldError, Name, Positive, Strict, Text, YesNo, parse, parse_json
from evenprobe.entries.fields import OneOf
from evenprobe.formats.case_hunt import hunted_along
from evenprobe.formats.survey import PointEntry, SurveyFile
from evenprobe.hunting.intake import Conductor
from evenprobe.interpretation import Verdict
from evenprobe.practising import Case
from evenprobe.practising.gone_round import SETTLED
from evenprobe.practising.hunted import Hunted

Step = Literal[1, 2, 3, 4]
"""From the first three voltages to what takes a whole kit and a morning."""
MINUTES: dict[int, float] = {1: 15, 2: 20, 3: 30, 4: 45}
"""What a careful person needs at most, by step, where nobody played it before."""
AT_MOST = 3
"""Conditions that may stand when one of those is solved."""
Title = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
"""What the point in it is called too, where that has no name."""


class HiddenEntry(Strict):
    """What is wrong, or that nothing is; `seed`: which of the many ways it can be, and how far off the testers are.

    `other_feed`: what feeds the circuit beside its own device, by name. Of a hunt, `at`: the box or the element that is
    at fault, or with `in_the_cable` the cable to it; `conductor`: which is open. Of a round, `elsewhere`: what is true
    at some of its outlets instead, by id.
    """

    condition: Annotated[Condition, OneOf(CONDITIONS)]
    seed: Annotated[int, Field(ge=0, le=2**31)]
    other_feed: Title | None = None
    at: Name | None = None
    in_the_cable: YesNo = False
    conductor: Conductor = "L"
    elsewhere: dict[Name, Annotated[Condition, OneOf(CONDITIONS)]] = {}


class SolvedEntry(Strict):
    """When it is solved: what may stand then, and the verdicts that are right then, any where none is named.

    `at_most`: instead, how many may stand, or as few as what is at hand can tell. `dead`: instead, that hands are on
    it, proved dead. `found`: instead, that what is hunted is found. `each`: instead, that each of a round is known.
    """

    among: list[Annotated[Condition, OneOf(CONDITIONS)]] = []
    verdicts: list[Verdict] = []
    at_most: Annotated[int, Field(ge=1, le=6)] | None = None
    dead: YesNo = False
    found: YesNo = False
    each: YesNo = False

    @model_validator(mode="after")
    def _one_of_them(self) -> "SolvedEntry":
        said = bool(self.among), self.at_most is not None, self.dead, self.found, self.each
        if said.count(True) != 1:
            raise FieldError(
                "among", "say one of: what may stand when it is solved, at_most how many, dead, found, each"
            )
        return self


class CaseFile(Strict):
    """The whole file, checked."""

    format: Literal["even-probe/case"]
    version: Literal[1]
    title: Title
    step: Step
    complaint: Text
    """In the customer's words."""
    installation: SurveyFile
    circuit: dict[str, Any] | None = None
    """A circuit file without what was seen: along what something is hunted."""
    hidden: HiddenEntry
    solved: SolvedEntry
    minutes: Positive
    """What a careful person needs at most."""

    @model_validator(mode="after")
    def _can_be_played(self) -> "CaseFile":
        points = self.installation.points
        if (len(points) > 1) is not self.solved.each:
            raise FieldError("installation.points", f"must hold one point, not {len(points)}; a round's (each) several")
        if self.solved.among and self.hidden.condition not in self.solved.among:
            raise FieldError("solved.among", "must name what is hidden")
        for number, point in enumerate(points):
            self._check_point(number, point)
        for name in self.hidden.elsewhere:
            if name not in {point.id for point in points}:
                raise FieldError(f"hidden.elsewhere.{name}", "is no point of the installation")
        if self.solved.found is (self.circuit is None):
            raise FieldError("circuit", "is what something is hunted along; it goes with solved.found, and only so")
        _ = self.hunted
        return self

    def _check_point(self, number: int, point: PointEntry) -> None:
        """Raises FieldError for what cannot be practised at."""
        path = f"installation.points[{number}]"
        if point.readings:
            raise FieldError(f"{path}.readings", "a case begins without readings")
        facts = self.installation.facts(point)
        if facts.no_lines:
            raise FieldError(f"{path}.terminals", facts.no_lines)
        known = [c.id for c in conditions_for(facts)]
        elsewhere = point.id in self.hidden.elsewhere
        if self._hidden_at(point).id not in known:
            key = f"hidden.elsewhere.{point.id}" if elsewhere else "hidden.condition"
            raise FieldError(key, f"cannot be true here; use one of {', '.join(known)}")

    def _hidden_at(self, point: PointEntry) -> Condition:
        return self.hidden.elsewhere.get(point.id, self.hidden.condition)

    @cached_property
    def hunted(self) -> Hunted | None:
        """What is hunted in it. Raises FieldError for what cannot be."""
        if self.circuit is None:
            return None
        if self.circuit.get("practice") != str(self.installation.practice):
            raise FieldError("circuit.practice", f"must be that of the installation, {self.installation.practice}")
        return hunted_along(self.circuit, self.hidden.at, self.hidden.in_the_cable, self.hidden.conductor)

    def possible(self) -> dict[str, str]:
        """All that could be true at its point, or be at fault along what is hunted, in words by its id."""
        if self.hunted is not None:
            return dict(self.hunted.suspects)
        if self.solved.each:
            return {point.id: point.label or point.id for point in self.installation.points}
        return {c.id: c.title_in(self.installation.practice) for c in self.conditions()}

    def conditions(self) -> tuple[Condition, ...]:
        """All that could be true at its point."""
        return conditions_for(self.installation.facts(self.installation.points[0]))

    def case(self) -> Case:
        """The case, to be played."""
        return replace(
            self._case_at(0),
            name=self.title,
            among=frozenset(c.id for c in self.solved.among),
            verdicts=frozenset(self.solved.verdicts),
            outlets={point.id: self._outlet(number) for number, point in enumerate(self.installation.points)}
            if self.solved.each
            else {},
        )

    def _outlet(self, number: int) -> Case:
        """One of a round: known once its verdict is."""
        case = self._case_at(number)
        return replace(case, among=frozenset(c.id for c in conditions_for(case.point)), verdicts=SETTLED)

    def _case_at(self, number: int) -> Case:
        point = self.installation.points[number]
        facts = self.installation.facts(point)
        return Case(
            name=point.label or point.id,
            point=facts,
            truth=next(c for c in conditions_for(facts) if c.id == self._hidden_at(point).id),
            seed=self.hidden.seed,
            kit=tuple(self.installation.kit()),
            among=frozenset(),
            minutes=self.minutes,
            cannot=point.cannot,
            noticed=point.noticed,
            at_most=self.solved.at_most,
            to_be_made_dead=self.solved.dead,
            other_feed=self.hidden.other_feed or "",
            hunted=self.hunted,
            held=tuple(entry.held() for entry in self.installation.instruments),
        )


def shipped() -> dict[str, CaseFile]:
    """The cases that come with the program, by name.

    Returns
    -------
    dict of str to CaseFile
        In the order of their names.

    Examples
    --------
    >>> shipped()["cold-kettle"].title
    'The kettle stays cold'
    """
    files = sorted(resources.files("evenprobe.practising").joinpath("cases").iterdir(), key=lambda file: file.name)
    return {file.name.removesuffix(".json"): parse(CaseFile, parse_json(file.read_text("utf-8"))) for file in files}
