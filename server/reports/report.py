"""A report: what was signed, or what would be, as the layout `report` takes it."""

from datetime import datetime
from typing import Any

from evenprobe.formats.report_words import CAUTION, PROOFS, RESULTS, STATES, VERDICTS
from evenprobe.formats.signed import SignedContent
from photos.models import Photo
from reports.dates import day_said, moment_said
from reports.printing import picture_svg, printed, qr_svg
from signoffs.models import SignOff

_MOST_PHOTOS = 60


def report_pdf(content: SignedContent, signed: SignOff | None) -> bytes:
    """`signed`: the sign-off it is of; None for a draft."""
    return printed("report", _data(content, signed))


def title_of(content: SignedContent) -> str:
    """Site and circuit, or the site alone."""
    return f"{content.site}: {content.of.name}" if content.of.what == "circuit" else content.site


def _data(content: SignedContent, signed: SignOff | None) -> dict[str, Any]:
    practice = content.practice
    language = practice.language
    what = {"circuit": "Report of a circuit", "site": "Report of a site", "visit": "Report of a visit"}
    return {
        "title": title_of(content),
        "subtitle": f"{what[content.of.what]} · {content.crew} · {moment_said(content.signed_at, language)}",
        "signed_at": moment_said(content.signed_at, language),
        "visited": _visited(content, language),
        "content": _said(content, language),
        "photos": _photos(content),
        "signed": None if signed is None else {"number": signed.number, "link_sha256": signed.link_sha256},
        "qr": qr_svg(signed.link_sha256) if signed else "<svg xmlns='http://www.w3.org/2000/svg'/>",
        "paper": practice.paper,
        "language": language,
        "board": practice.words["board"].capitalize(),
        "caution": CAUTION,
        "readings": sum(len(point.readings) for point in content.points()),
        "words": VERDICTS,
        "states": STATES,
        "results": RESULTS,
        "proofs": PROOFS,
    }


def _photos(content: SignedContent) -> dict[str, str]:
    """Pictures by their ids, small enough for paper; those of the first pages where there are many."""
    on_points = (photo for point in content.points() for photo in point.photos)
    wanted = [photo.id for photo in (*on_points, *(p for c in content.circuits for p in c.photos))][:_MOST_PHOTOS]
    return {str(photo.id): picture_svg(bytes(photo.image)) for photo in Photo.objects.filter(id__in=wanted)}


def _visited(content: SignedContent, language: str) -> str:
    visit = content.visit
    if visit is None or visit.begun_at is None:
        return ""
    begun = moment_said(visit.begun_at, language)
    return f"{begun} to {moment_said(visit.closed_at, language)}" if visit.closed_at else f"begun {begun}"


def _said(content: SignedContent, language: str) -> Any:
    """Everything but the evidence, with times and days in words."""
    whole = content.model_dump(mode="python", exclude={"evidence", "practice"}, exclude_none=True)
    return _in_words(whole, language)


def _in_words(one: Any, language: str) -> Any:
    if isinstance(one, dict):
        return {key: _in_words(value, language) for key, value in one.items()}
    if isinstance(one, list | tuple):
        return [_in_words(value, language) for value in one]
    if isinstance(one, datetime):
        return moment_said(one, language)
    return day_said(one, language) if hasattr(one, "isoformat") else one
