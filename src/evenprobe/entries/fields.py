"""What the files' entries are made of: strict objects, bounded text, plain numbers, rows of a registry by their id."""

import json
from dataclasses import dataclass
from typing import Annotated, Any

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, GetJsonSchemaHandler, StringConstraints
from pydantic.json_schema import JsonSchemaValue
from pydantic_core import CoreSchema, core_schema

from evenprobe.entries.documented import without_null
from evenprobe.registry import Listed, Registry
from evenprobe.supplies import SYSTEMS

Name = Annotated[str, StringConstraints(min_length=1, max_length=120, strip_whitespace=True)]
Text = Annotated[str, StringConstraints(max_length=4000)]
Positive = Annotated[float, Field(gt=0)]
YesNo = Annotated[bool, Field(strict=True)]
"""True or false, and no other word or number for it."""
NotNegative = Annotated[float, Field(ge=0)]


class Strict(BaseModel):
    """An entry: an unknown key is refused, and what is not known is left out."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, frozen=True, populate_by_name=True)

    @classmethod
    def __get_pydantic_json_schema__(cls, schema: CoreSchema, handler: GetJsonSchemaHandler) -> JsonSchemaValue:
        written = handler(schema)
        whole = handler.resolve_ref_schema(written)
        whole.update(without_null(whole))
        return written


@dataclass(frozen=True, eq=False)
class OneOf:
    """A field that holds a row of a registry, written as its id."""

    registry: Registry[Any]

    def __get_pydantic_core_schema__(self, source: Any, handler: Any) -> CoreSchema:
        return core_schema.no_info_plain_validator_function(
            self._row, serialization=core_schema.plain_serializer_function_ser_schema(str)
        )

    def __get_pydantic_json_schema__(self, schema: CoreSchema, handler: GetJsonSchemaHandler) -> JsonSchemaValue:
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


def _system(name: str) -> str:
    if name not in SYSTEMS:
        raise ValueError(f"unknown supply system {name!r}; use one of {', '.join(SYSTEMS)}")
    return name


SystemId = Annotated[str, AfterValidator(_system)]
