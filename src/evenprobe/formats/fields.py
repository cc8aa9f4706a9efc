"""Fields of the files that name what the core has rows of, and the terminals of a point."""

from typing import Annotated

from pydantic import AfterValidator, Field

from evenprobe.conditions.symptoms import SYMPTOMS, Symptom
from evenprobe.entries.fields import OneOf
from evenprobe.practices import PRACTICES, Practice
from evenprobe.quantities import QUANTITIES, Quantity
from evenprobe.testers import KINDS, Kind
from evenprobe.wiring import Terminal
from evenprobe.wiring.points import BOARD_END
from evenprobe.wiring.references import REFERENCES, ReferenceKind

QuantityId = Annotated[Quantity, OneOf(QUANTITIES)]
KindId = Annotated[Kind, OneOf(KINDS)]
ReferenceId = Annotated[ReferenceKind, OneOf(REFERENCES)]
SymptomId = Annotated[Symptom, OneOf(SYMPTOMS)]
PracticeName = Annotated[Practice, OneOf(PRACTICES)]


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
