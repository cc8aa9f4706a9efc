"""When something in a file happened: it says so, and not in time to come."""

from datetime import datetime, timedelta

from exchange.rows.fates import Cannot

_AHEAD = timedelta(minutes=2)
"""A file may be this much ahead of the server's clock."""


def not_ahead(header: str, at: datetime | None, now: datetime) -> datetime:
    """The time a row says. Raises Cannot where it says none, or one that is still to come."""
    if at is None:
        raise Cannot((header, "is missing: what says no time is as old as anything"))
    if at > now + _AHEAD:
        raise Cannot((header, f"{at.isoformat()} is still to come"))
    return at
