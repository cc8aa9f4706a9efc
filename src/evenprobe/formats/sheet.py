"""What is put down on a circuit's sheet, one thing at a time: seen, said, measured, left, energised."""

from typing import Annotated, Any, Literal

from pydantic import AfterValidator, Field

from evenprobe.deadtests.energising import SHORTEST_REASON
from evenprobe.deadtests.kinds.entry import Ohms
from evenprobe.deadtests.sheet import LOOK_FOR
from evenprobe.entries import Name, Strict, Text, YesNo
from evenprobe.entries.documented import Among
from evenprobe.formats.tests import TestEntry
from evenprobe.wiring.circumstances import Loads, Neutral

_LOOKED_FOR = tuple(item.id for item in LOOK_FOR)


def _looked_for(item: str) -> str:
    if item not in _LOOKED_FOR:
        raise ValueError(f"must be one of {', '.join(_LOOKED_FOR)}, not {item!r}")
    return item


LookedAt = Annotated[str, AfterValidator(_looked_for), Among(_LOOKED_FOR)]
Reason = Annotated[str, Field(min_length=SHORTEST_REASON, max_length=1000)]
"""A written reason; a word is none."""


class Looked(Strict):
    type: Literal["looked"]
    item: LookedAt
    good: YesNo
    photo: Name | None = None
    note: Text | None = None


class LoadsSaid(Strict):
    type: Literal["loads"]
    loads: Loads
    neutral: Neutral


class LeadsNulled(Strict):
    type: Literal["leads"]
    null_ohm: Ohms


class Tested(Strict):
    """`line`: of the sheet, None for a test of something else. `point`: where the far probe was."""

    type: Literal["tested"]
    line: Name | None = None
    point: Name | None = None
    test: TestEntry


class Left(Strict):
    type: Literal["left"]
    line: Name
    reason: Reason


class Believed(Strict):
    """Somebody was asked about a test's question and stands by it."""

    type: Literal["believed"]
    test: Name


class Discharged(Strict):
    type: Literal["discharged"]


class Said(Strict):
    type: Literal["said"]
    what: Literal["boxes-closed", "people-told"]


class Energised(Strict):
    """`reason`: why it was done though something stood in the way."""

    type: Literal["energised"]
    reason: Reason | None = None


SheetEntry = Annotated[
    Looked | LoadsSaid | LeadsNulled | Tested | Left | Believed | Discharged | Said | Energised,
    Field(discriminator="type"),
]


class TestedAsTyped(Strict):
    """A test as it is typed: what its line and its tester say of it is left out."""

    type: Literal["tested"]
    line: Name | None = None
    test: dict[str, Any]


SheetEntryAsTyped = Annotated[
    Looked | LoadsSaid | LeadsNulled | TestedAsTyped | Left | Believed | Discharged | Said | Energised,
    Field(discriminator="type"),
]


class TypedSheetEntryFile(Strict):
    """One entry by itself, as a client sends it."""

    entry: SheetEntryAsTyped


class SheetEntryFile(Strict):
    """One entry by itself, as it is checked."""

    entry: SheetEntry
