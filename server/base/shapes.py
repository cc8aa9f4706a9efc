"""Shapes that several apps' answers are made of."""

from uuid import UUID

from ninja import Schema


class Named(Schema):
    id: UUID
    name: str


class Titled(Schema):
    """A choice of a form, or whatever is known by a word of its own."""

    id: str
    title: str
