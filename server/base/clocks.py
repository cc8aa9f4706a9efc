"""When something happened, by the server's clock, where a device tells of it later: its own may be an hour off."""

from datetime import datetime, timedelta

_LATEST = timedelta(days=2)
"""How long a device may keep something to itself before its time is no longer believed."""


def by_our_clock(now: datetime, at: datetime | None, sent_at: datetime | None) -> datetime:
    """When it happened. `at`, `sent_at`: by the device's clock, then and when it was sent; only how long ago counts."""
    if at is None or sent_at is None:
        return now
    waited = sent_at - at
    return now - waited if timedelta(0) <= waited <= _LATEST else now
