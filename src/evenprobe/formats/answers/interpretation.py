"""What the readings of a point can still mean, rounded for reading: volts to 0.1, ohms and shares to three figures."""

from collections.abc import Iterable
from math import isfinite
from typing import Annotated, Literal

from pydantic import Field

from evenprobe.entries.documented import Among
from evenprobe.formats.answers.answer import Answer, Identified, unless_none
from evenprobe.formats.words import KindWord, ObstacleWord, QuantityWord, SeverityWord, StateWord, VerdictWord
from evenprobe.interpretation import ConditionOutcome, Judgement, NextMeasurement, PointInterpretation, Reason, Story
from evenprobe.interpretation.findings import BesideWiring, JudgementResult, Near, State
from evenprobe.interpretation.next_measurement import Obstacle, obstacles_to
from evenprobe.practices import Practice
from evenprobe.quantities import Measurement
from evenprobe.rounding import figures, rounded
from evenprobe.wiring.circumstances import Device, FarEnds, Input, Neutral


class ReasonOut(Answer):
    """Why a condition fell. `text`: what it would have shown, in words."""

    reading: str
    would_show: list[float]
    unit: str
    seen: float
    text: str

    @classmethod
    def of(cls, reason: Reason) -> "ReasonOut":
        unit = reason.quantity.unit
        return cls(
            reading=reason.reading,
            would_show=[rounded(v, unit) for v in reason.would_show],
            unit=unit,
            seen=rounded(reason.seen, unit),
            text=reason.text,
        )


class ConditionOut(Answer):
    """`fine`: it is no fault. `lines`: of a condition about one line of several, those it can be about."""

    id: str
    title: str
    notice: str
    look_for: str
    mend: str
    severity: SeverityWord
    fine: bool
    standing: bool
    strained: bool
    likelihood: float
    lines: list[list[str]]
    reasons: list[ReasonOut]

    @classmethod
    def of(cls, outcome: ConditionOutcome, practice: Practice) -> "ConditionOut":
        condition = outcome.condition
        return cls(
            id=condition.id,
            title=condition.title_in(practice),
            notice=practice.in_words(condition.symptom),
            look_for=practice.in_words(condition.cause),
            mend=practice.in_words(condition.remedy),
            severity=outcome.severity.label,
            fine=outcome.severity.is_fine,
            standing=outcome.standing,
            strained=outcome.strained,
            likelihood=figures(outcome.likelihood),
            lines=[list(lines) for lines in outcome.lines],
            reasons=[ReasonOut.of(reason) for reason in outcome.reasons],
        )


class NearOut(Answer):
    """What comes near to explaining readings that nothing explains. `misfit`: in tolerances."""

    id: str
    title: str
    misfit: float
    reason: ReasonOut

    @classmethod
    def of(cls, near: Near, practice: Practice) -> "NearOut":
        title = near.condition.title_in(practice)
        return cls(id=near.condition.id, title=title, misfit=figures(near.misfit), reason=ReasonOut.of(near.reason))


class JudgementOut(Answer):
    limit: str
    reading: str
    result: Annotated[str, Among(JudgementResult)]
    low: float
    high: float | None
    unit: str
    source: str
    text: str

    @classmethod
    def of(cls, judgement: Judgement) -> "JudgementOut":
        limit = judgement.limit
        return cls(
            limit=limit.id,
            reading=judgement.reading,
            result=str(judgement.result),
            low=limit.band.low,
            high=limit.band.high if isfinite(limit.band.high) else None,
            unit=limit.unit,
            source=limit.source,
            text=judgement.text,
        )


class CircumstanceOut(Answer):
    """The circumstances that are not as they are found."""

    load_here_a: float | None = unless_none()
    load_elsewhere_a: float | None = unless_none()
    load_between: list[str] | None = unless_none()
    nothing_else_on: Literal[True] | None = unless_none()
    device: Device | None = unless_none()
    neutral: Neutral | None = unless_none()
    far_ends: FarEnds | None = unless_none()
    input: Input | None = unless_none()
    test_ma: float | None = unless_none()

    @classmethod
    def of(cls, measurement: Measurement) -> "CircumstanceOut":
        between = measurement.load_between
        return cls(
            load_here_a=measurement.load_here_a,
            load_elsewhere_a=measurement.load_elsewhere_a,
            load_between=None if between is None else [str(t) for t in between],
            nothing_else_on=True if measurement.nothing_else_on else None,
            device="open" if measurement.device == "open" else None,
            neutral="lifted" if measurement.neutral == "lifted" else None,
            far_ends="joined" if measurement.far_ends == "joined" else None,
            input="low-z" if measurement.input == "low-z" else None,
            test_ma=measurement.test_ma,
        )


class NextTestOut(Answer):
    quantity: QuantityWord
    from_: str | None = Field(alias="from")
    to: str | None
    instrument: str
    instrument_kind: KindWord
    circumstance: CircumstanceOut
    rules_out: list[str]
    information_bits: float
    seconds: int
    why: str
    needs: list[ObstacleWord]
    """What must be to be had for it."""

    @classmethod
    def of(cls, test: NextMeasurement) -> "NextTestOut":
        measurement = test.measurement
        return cls(
            quantity=str(measurement.quantity),
            from_=measurement.from_ and str(measurement.from_),
            to=measurement.to and str(measurement.to),
            instrument=measurement.instrument.id,
            instrument_kind=str(measurement.instrument.kind),
            circumstance=CircumstanceOut.of(measurement),
            rules_out=list(test.rules_out),
            information_bits=figures(test.information_bits),
            seconds=round(test.seconds),
            why=test.why,
            needs=[obstacle for obstacle in Obstacle if obstacle in obstacles_to(measurement)],
        )


class NotCountedOut(Answer):
    reading: str
    why: str
    warns: bool = False


class StoryOut(Answer):
    """`phasors`: of each conductor volts in line with the first line's source, and at right angles to it."""

    title: str
    conditions: list[str]
    severity: SeverityWord
    potentials: dict[str, list[float]]
    phasors: dict[str, list[float]]

    @classmethod
    def of(cls, story: Story) -> "StoryOut":
        return cls(
            title=story.title,
            conditions=list(story.conditions),
            severity=story.severity.label,
            potentials={str(t): [round(v, 1) for v in span] for t, span in story.potentials.items()},
            phasors={str(t): [round(v.real, 1), round(v.imag, 1)] for t, v in story.phasors.items()},
        )


class BesideWiringOut(Answer):
    """A question beside the wiring: whether it insulates, whether its device trips. `reading`: the one that decides."""

    state: StateWord
    why: str
    reading: str | None

    @classmethod
    def of(cls, found: BesideWiring) -> "BesideWiringOut":
        return cls(state=str(found.state), why=found.why, reading=found.reading)


UNKNOWN = BesideWiringOut(state=str(State.NOT_TESTED), why="", reading=None)
"""Of a point that cannot be shown."""


class InterpretationOut(Answer):
    """What the readings of one point can still mean."""

    verdict: VerdictWord
    summary: str
    insulation: BesideWiringOut
    protection: BesideWiringOut
    conditions: list[ConditionOut]
    judgements: list[JudgementOut]
    retake: list[str]
    nearest: list[NearOut]
    next_tests: list[NextTestOut]
    next_tests_note: str
    not_counted: list[NotCountedOut]
    stories: list[StoryOut]
    healthy_band: list[float] | None

    @classmethod
    def of(cls, result: PointInterpretation) -> "InterpretationOut":
        return cls(**_of_a_point(result))


class PointOut(InterpretationOut, Identified):
    """The same of one point among others."""


class SurveyOut(Answer):
    """What `interpret` answers: every point of a survey."""

    points: list[PointOut]

    @classmethod
    def of(cls, points: Iterable[tuple[str, PointInterpretation]]) -> "SurveyOut":
        return cls(points=[PointOut(id=name, **_of_a_point(result)) for name, result in points])


def _of_a_point(result: PointInterpretation) -> dict[str, object]:
    return {
        "verdict": str(result.verdict),
        "summary": result.summary,
        "insulation": BesideWiringOut.of(result.insulation),
        "protection": BesideWiringOut.of(result.protection),
        "conditions": [ConditionOut.of(c, result.practice) for c in result.conditions],
        "judgements": [JudgementOut.of(j) for j in result.judgements],
        "retake": list(result.retake),
        "nearest": [NearOut.of(near, result.practice) for near in result.nearest],
        "next_tests": [NextTestOut.of(t) for t in result.next_tests],
        "next_tests_note": result.next_tests_note,
        "not_counted": [NotCountedOut(reading=n.reading, why=n.why, warns=n.warns) for n in result.not_counted],
        "stories": [StoryOut.of(s) for s in result.stories],
        "healthy_band": list(result.healthy_band) if result.healthy_band else None,
    }
