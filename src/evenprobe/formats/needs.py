"""What a thing to be plugged in needs, as its plate says, and the answer whether an outlet has it."""

from typing import Annotated, Any, Literal

from pydantic import Field, StringConstraints, model_validator

from evenprobe.entries import FieldError, Strict
from evenprobe.formats.answers import circumstance
from evenprobe.formats.tests import limit_answer
from evenprobe.plugging import Check, Needs, PlugIn
from evenprobe.quantities import Measurement

Volts = Annotated[float, Field(strict=True, gt=0, le=1000)]


class NeedsEntry(Strict):
    """Volts line to neutral where it uses the neutral, line to line where it has several lines."""

    label: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
    lines: Literal[1, 2, 3]
    amperes: Annotated[float, Field(strict=True, gt=0, le=6300)]
    volts_to_neutral: Volts | None = None
    volts_between_lines: Volts | None = None
    earth: bool = True
    continuous: bool = False
    hertz: Annotated[float, Field(strict=True, gt=0, le=1000)] | None = None

    @model_validator(mode="after")
    def _connected_between_something(self) -> "NeedsEntry":
        if self.lines == 1 and self.volts_to_neutral is None:
            raise FieldError("volts_to_neutral", "is missing: one line is used against the neutral")
        if self.lines == 1 and self.volts_between_lines is not None:
            raise FieldError("volts_between_lines", "it has one line only")
        if self.lines > 1 and self.volts_between_lines is None:
            raise FieldError("volts_between_lines", "is missing: several lines are used against each other")
        return self

    def needs(self) -> Needs:
        return Needs(**self.model_dump(exclude={"label"}))


def plug_in_answer(found: PlugIn) -> dict[str, Any]:
    return {
        "answer": str(found.answer),
        "says": found.says,
        "take": _take(found.take) if found.take else None,
        "checks": [_check(c) for c in found.checks],
    }


def _take(m: Measurement) -> dict[str, Any]:
    ends = {"from": m.from_ and str(m.from_), "to": m.to and str(m.to)}
    return {"quantity": str(m.quantity), **ends, "circumstance": circumstance(m)}


def _check(check: Check) -> dict[str, Any]:
    limit = None if check.limit is None else limit_answer(check.limit)
    return {"id": check.id, "title": check.title, "result": str(check.result), "text": check.text, "limit": limit}
