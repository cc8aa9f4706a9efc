"""What a thing to be plugged in needs, as its plate says, and the answer whether an outlet has it."""

from typing import Annotated, Literal

from pydantic import Field, StringConstraints, model_validator

from evenprobe.entries import FieldError, Strict, YesNo
from evenprobe.plugging import Needs

Volts = Annotated[float, Field(strict=True, gt=0, le=1000)]


class NeedsEntry(Strict):
    """Volts line to neutral where it uses the neutral, line to line where it has several lines."""

    label: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
    lines: Literal[1, 2, 3]
    amperes: Annotated[float, Field(strict=True, gt=0, le=6300)]
    volts_to_neutral: Volts | None = None
    volts_between_lines: Volts | None = None
    earth: YesNo = True
    continuous: YesNo = False
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
