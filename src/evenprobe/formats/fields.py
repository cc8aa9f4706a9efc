"""What the files' entries are made of: strict objects, bounded text, plain numbers."""

import json
from dataclasses import dataclass
from typing import Annotated, Any

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, GetJsonSchemaHandler, StringConstraints
from pydantic_core import CoreSchema, core_schema

from evenprobe.practices import PRACTICES, Practice
from evenprobe.quantities import QUANTITIES, Quantity
from evenprobe.registry import Listed, Registry
from evenprobe.testers import KINDS, Kind
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


@dataclass(frozen=True, eq=False)
class OneOf:
    """A field that holds a row of a registry, written as its id."""

    registry: Registry[Any]

    def __get_pydantic_core_schema__(self, source: Any, handler: Any) -> CoreSchema:
        return core_schema.no_info_plain_validator_function(
            self._row, serialization=core_schema.plain_serializer_function_ser_schema(str)
        )

    def __get_pydantic_json_schema__(self, schema: CoreSchema, handler: GetJsonSchemaHandler) -> dict[str, Any]:
        return {"type": "string", "enum": list(self.registry)}

    def _row(self, given: Any) -> Listed:
        if isinstance(given, Listed):
            given = given.id
        found: Listed | None = self.registry.get(given) if isinstance(given, str) else None
        if found is None:
            *most, last = (f"'{name}'" for name in self.registry)
            shown = f", not {json.dumps(given)}" if isinstance(given, str | int | float | bool) else ""
            raise ValueError(f"must be {', '.join(most)} or {last}{shown}")
        return found


QuantityId = Annotated[Quantity, OneOf(QUANTITIES)]
KindId = Annotated[Kind, OneOf(KINDS)]
PracticeName = Annotated[Practice, OneOf(PRACTICES)]
