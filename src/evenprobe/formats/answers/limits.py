"""A limit, and a value held against it, as every answer gives them."""

from math import isfinite
from typing import Annotated, Any

from pydantic import Field

from evenprobe.deadtests import Outcome
from evenprobe.deadtests.judgement import Result
from evenprobe.entries.documented import Among
from evenprobe.formats.answers.answer import Answer
from evenprobe.limits import Limit
from evenprobe.rounding import figures

_COMPUTED_FIGURES = 4


class LimitOut(Answer):
    """`value`: the one bound there is, both where there are two, null where only over-range passes."""

    id: str
    value: float | list[float] | None
    unit: str
    source: str

    @classmethod
    def of(cls, limit: Limit) -> "LimitOut":
        bounds = [b for b in (limit.band.low, limit.band.high) if isfinite(b)]
        if limit.band.low == 0:
            bounds = bounds[1:]
        value = None if not bounds else bounds[0] if len(bounds) == 1 else bounds
        return cls(id=limit.id, value=_rounded(value), unit=limit.unit, source=limit.source)


class OutcomeOut(Answer):
    """What a test comes to. `question`: what to ask before it is believed; left out where there is nothing."""

    result: Annotated[str, Among(Result)]
    limit: LimitOut | None
    computed: dict[str, Any]
    text: str
    question: str = Field("", exclude_if=lambda question: not question)

    @classmethod
    def of(cls, outcome: Outcome) -> "OutcomeOut":
        return cls(
            result=str(outcome.result),
            limit=None if outcome.limit is None else LimitOut.of(outcome.limit),
            computed={name: _rounded(value) for name, value in outcome.computed.items()},
            text=outcome.text,
            question=outcome.question,
        )


def _rounded(value: Any) -> Any:
    if isinstance(value, bool) or not isinstance(value, float):
        return [_rounded(v) for v in value] if isinstance(value, list) else value
    return figures(value, _COMPUTED_FIGURES)
