"""What the JSON schema of a field says beyond what is checked of it there.

An answer is made by the core, and an entry is checked where its problems can be named by its own keys; a client is told
of both all the same (JSON Schema 2020-12, Validation, 6.1.2).
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from pydantic import GetCoreSchemaHandler, GetJsonSchemaHandler
from pydantic.json_schema import JsonSchemaValue
from pydantic_core import CoreSchema, core_schema


@dataclass(frozen=True, eq=False)
class Among:
    """Text that is one of a closed list: an enumeration, a registry's ids, or words given outright."""

    words: Iterable[str]

    def __get_pydantic_json_schema__(self, _schema: CoreSchema, _handler: GetJsonSchemaHandler) -> JsonSchemaValue:
        return {"type": "string", "enum": [str(word) for word in self.words]}


@dataclass(frozen=True, eq=False)
class WrittenAs:
    """A JSON object that is, or is to become, an entry of `model`, a class or a union of them.

    From Python it is taken as it is.
    """

    model: Any

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        return core_schema.json_or_python_schema(
            json_schema=handler.generate_schema(self.model),
            python_schema=handler(source),
            serialization=core_schema.plain_serializer_function_ser_schema(lambda entry: entry),
        )


def without_null(schema: Mapping[str, Any]) -> JsonSchemaValue:
    """The schema of an object whose keys are left out where they would be null."""
    return {**schema, "properties": {key: _present(field) for key, field in schema.get("properties", {}).items()}}


def _present(field: Mapping[str, Any]) -> JsonSchemaValue:
    kinds = [_even(kind) for kind in field.get("anyOf", ()) if kind != {"type": "null"}]
    if len(kinds) == len(field.get("anyOf", ())):
        return _even(field)
    rest = {key: value for key, value in field.items() if key not in ("anyOf", "default")}
    return {**rest, **kinds[0]} if len(kinds) == 1 else {**rest, "anyOf": kinds}


def _even(field: Mapping[str, Any]) -> JsonSchemaValue:
    """A list of a fixed length of things that are alike as a list, which clients in more languages have a type for."""
    if "items" in field:
        return {**field, "items": _even(field["items"])}
    first, *more = field.get("prefixItems", (None,))
    if first is None or any(one != first for one in more):
        return dict(field)
    return {**{key: value for key, value in field.items() if key != "prefixItems"}, "items": first}
