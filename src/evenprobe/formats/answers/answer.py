"""What every answer is: a model that is written as JSON with the format's own keys."""

from typing import Any

from pydantic import BaseModel, ConfigDict, Field


class Answer(BaseModel):
    """An answer of the core, as the command prints it and the routes give it."""

    model_config = ConfigDict(populate_by_name=True, serialize_by_alias=True)

    def as_json(self) -> dict[str, Any]:
        """Plain data, with the format's own keys."""
        return self.model_dump(mode="json")


class Identified(Answer):
    """One of several, known by its id, which is written first."""

    id: str


def unless_none(alias: str | None = None) -> Any:
    """A field that is left out where there is nothing to say."""
    return Field(None, alias=alias, exclude_if=lambda value: value is None)
