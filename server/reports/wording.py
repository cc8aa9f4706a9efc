"""The words of a printed page that the record has only codes for, and dates as the practice writes them."""

from datetime import date, datetime
from zoneinfo import ZoneInfo

from django.conf import settings

VERDICTS = {
    "correct": "Correct",
    "safe": "Safe",
    "untested": "Untested",
    "unconfirmed": "Not confirmed yet",
    "contradictory": "Contradictory",
    "defect": "Defect",
    "hazard": "Hazard",
    "danger": "Danger",
}
STATES = {
    "not-tested": "not tested",
    "not-present": "none on record",
    "pass": "passes",
    "borderline": "borderline",
    "fail": "fails",
}
RESULTS = {"pass": "Passes", "fail": "Fails", "borderline": "Borderline", "note": "Note", "invalid": "Does not count"}
PROOFS = {
    "energised": "energised",
    "isolated": "isolated, not proved dead",
    "proving": "begun, not all tests done",
    "proved-dead": "proved dead",
    "void": "no longer valid",
    "closed": "closed",
}
CAUTION = (
    "This says what the readings can mean, and no more: what was not measured is not known. Treat every conductor as "
    "live until you have proved it dead yourself. Local codes, makers' instructions and a licensed electrician's "
    "judgement come first."
)
_MONTHS = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec")


def day_said(at: date, language: str) -> str:
    """`Nov 24, 2026` where months come first, `24 Nov 2026` elsewhere."""
    month = _MONTHS[at.month - 1]
    return f"{month} {at.day}, {at.year}" if language == "en-US" else f"{at.day} {month} {at.year}"


def moment_said(at: datetime, language: str) -> str:
    """Day and time of day, by the server's time zone."""
    here = at.astimezone(ZoneInfo(settings.TIME_ZONE))
    return f"{day_said(here.date(), language)}, {here:%H:%M}"
