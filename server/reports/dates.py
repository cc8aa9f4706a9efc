"""Dates on a printed page, as the practice writes them."""

from datetime import date, datetime
from zoneinfo import ZoneInfo

from django.conf import settings

_MONTHS = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec")


def day_said(at: date, language: str) -> str:
    """`Nov 24, 2026` where months come first, `24 Nov 2026` elsewhere."""
    month = _MONTHS[at.month - 1]
    return f"{month} {at.day}, {at.year}" if language == "en-US" else f"{at.day} {month} {at.year}"


def moment_said(at: datetime, language: str) -> str:
    """Day and time of day, by the server's time zone."""
    here = at.astimezone(ZoneInfo(settings.TIME_ZONE))
    return f"{day_said(here.date(), language)}, {here:%H:%M}"
