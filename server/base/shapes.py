"""Shapes that several apps' answers are made of."""

from datetime import datetime
from uuid import UUID

from django.utils import timezone
from ninja import Schema

from base.clocks import by_our_clock
from evenprobe.entries import Time


class Named(Schema):
    id: UUID
    name: str


class Titled(Schema):
    """A choice of a form, or whatever is known by a word of its own."""

    id: str
    title: str


class ToldLater(Schema):
    """What a device may keep until there is a line.

    `at`, `sent_at`: by the device's clock, when it happened and when it was sent; only the difference is believed.
    """

    at: Time | None = None
    sent_at: Time | None = None

    def happened(self) -> datetime:
        """When, by the server's clock."""
        return by_our_clock(timezone.now(), self.at, self.sent_at)
