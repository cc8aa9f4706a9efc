"""What the files' entries are made of: strict objects, bounded text, plain numbers."""

from typing import Annotated

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, StringConstraints

from evenprobe.wiring import Terminal
from evenprobe.wiring.points import BOARD_END

Name = Annotated[str, StringConstraints(min_length=1, max_length=120, strip_whitespace=True)]
Text = Annotated[str, StringConstraints(max_length=4000)]
Positive = Annotated[float, Field(gt=0)]
NotNegative = Annotated[float, Field(ge=0)]


class Strict(BaseModel):
    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, frozen=True, populate_by_name=True)


def _plausible(terminals: tuple[Terminal, ...]) -> tuple[Terminal, ...]:
    if len(set(terminals)) < len(terminals):
        raise ValueError("names a terminal twice")
    if Terminal.REF in terminals:
        raise ValueError("REF is an earth brought along, not a terminal of the point")
    if set(BOARD_END.values()) & set(terminals):
        raise ValueError("an end at the board is no terminal of the point")
    if Terminal.L in terminals and {Terminal.L1, Terminal.L2, Terminal.L3} & set(terminals):
        raise ValueError("use L alone, or L1, L2, L3")
    return terminals


Terminals = Annotated[tuple[Terminal, ...], Field(min_length=2), AfterValidator(_plausible)]
