"""When something in a file happened: it says so, and not in time to come."""

from datetime import datetime

from base.clocks import still_to_come
from exchange.rows.fates import Cannot


def not_ahead(header: str, at: datetime | None, now: datetime) -> datetime:
    """The time a row says. Raises Cannot where it says none, or one that is still to come."""
    if at is None:
        raise Cannot((header, "is missing: what says no time is as old as anything"))
    if wrong := still_to_come(at, now):
        raise Cannot((header, wrong))
    return at
