"""When something happened, by the server's clock, where a device or a file tells of it: theirs may be an hour off."""

from datetime import datetime, timedelta

_LATEST = timedelta(days=2)
"""How long a device may keep something to itself before its time is no longer believed."""


_AGREES = timedelta(seconds=60)
"""A device whose clock is no further off than this, on its way here included, is believed to the second."""


_AHEAD = timedelta(minutes=2)
"""How far a file may be ahead of the server's clock."""


def still_to_come(at: datetime | None, now: datetime) -> str:
    """What is wrong with a time that something is said to have happened at; nothing where it can have."""
    return f"{at.isoformat()} is still to come" if at is not None and at > now + _AHEAD else ""


def by_our_clock(now: datetime, at: datetime | None, sent_at: datetime | None) -> datetime:
    """When it happened. `at`, `sent_at`: by the device's clock, when it happened and when it was sent.

    Of a clock that agrees with ours the time itself is believed: how long a message was on its way moves nothing then,
    and what happened in order stays in order. Of any other only how long ago it was.
    """
    if at is None or sent_at is None:
        return now
    if abs(now - sent_at) < _AGREES and now - at <= _LATEST:
        return min(at, now)
    waited = sent_at - at
    return now - waited if timedelta(0) <= waited <= _LATEST else now
