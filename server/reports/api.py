"""What is printed, over HTTP: each a PDF."""

import re
from typing import Any, Literal
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Query, Router, Schema

from base.problems import Problems
from crews.services import crew_of, name_of
from evenprobe.formats.signed import SignedContent
from reports.labels import LabelSheet, labels_data, schedule_data, tags_data
from reports.printing import printed, qr_svg
from reports.report import report_pdf
from signoffs.services import draft, sign_off_of
from sites.models import Board, Circuit, Point
from sites.services import find, site_of

router = Router(tags=["reports"])

Form = Literal["pdf", "png"]
"""To print, or to look at on the page."""


class LabelsAsked(Schema):
    """Millimetres; all outlets of the site where no circuit is named."""

    circuit: UUID | None = None
    width: float = LabelSheet.width
    height: float = LabelSheet.height
    left: float = LabelSheet.left
    top: float = LabelSheet.top
    gap: float = LabelSheet.gap
    form: Form = "pdf"


@router.get("/sign-offs/{sign_off_id}/report", response={404: Problems})
def report_of_sign_off(request: HttpRequest, sign_off_id: UUID) -> HttpResponse:
    """What was signed, as it was."""
    found = sign_off_of(crew_of(request), sign_off_id)
    content = SignedContent.model_validate(found.said())
    return _pdf(report_pdf(content, found), f"report-{found.number}")


@router.get("/sign-offs/{sign_off_id}/code", response={404: Problems})
def code_of_sign_off(request: HttpRequest, sign_off_id: UUID) -> HttpResponse:
    """Its hash as a QR code, as it stands on the report."""
    found = sign_off_of(crew_of(request), sign_off_id)
    return HttpResponse(qr_svg(found.link_sha256), content_type="image/svg+xml")


@router.get("/drafts/{what}/{of}/report", response={404: Problems})
def report_of_draft(request: HttpRequest, what: str, of: UUID) -> HttpResponse:
    """What is so now, signed by nobody."""
    return _pdf(report_pdf(draft(crew_of(request), request.user, what, of), None), "report-draft")


@router.get("/boards/{board_id}/schedule", response={404: Problems})
def schedule(request: HttpRequest, board_id: UUID, form: Form = "pdf") -> HttpResponse:
    """Which device feeds what: one page, to fit inside the door."""
    board = find(crew_of(request), Board, board_id, lambda rows: rows.prefetch_related("circuits__points"))
    return _printed("schedule", schedule_data(board, name_of(request.user)), form, f"schedule {board.name}")


@router.get("/sites/{site_id}/labels", response={404: Problems, 422: Problems})
def labels(request: HttpRequest, site_id: UUID, asked: Query[LabelsAsked]) -> HttpResponse:
    """A label an outlet, on sheets by millimetres."""
    crew = crew_of(request)
    site = site_of(crew, site_id)
    points = (
        Point.objects.in_use()
        .filter(circuit__board__supply__site=site)
        .select_related("circuit__board")
        .order_by("circuit__board__supply__position", "circuit__board__position", "circuit__position", "position")
    )
    if asked.circuit is not None:
        points = points.filter(circuit=find(crew, Circuit, asked.circuit))
    sheet = LabelSheet(asked.width, asked.height, asked.left, asked.top, asked.gap)
    data = labels_data(site, list(points), sheet, request.build_absolute_uri, qr_svg)
    return _printed("labels", data, asked.form, f"labels {site.name}")


@router.get("/sites/{site_id}/lock-tags", response={404: Problems, 422: Problems})
def lock_tags(request: HttpRequest, site_id: UUID, phone: str = "", form: Form = "pdf") -> HttpResponse:
    """A tag for every lock that is on at a site."""
    site = site_of(crew_of(request), site_id)
    proofs = site.proofs.filter(brought_at=None).select_related("site").prefetch_related("events")
    data = tags_data(site, list(proofs), phone.strip()[:40], request.build_absolute_uri, qr_svg)
    return _printed("tags", data, form, f"lock tags {site.name}")


def _printed(layout: str, data: dict[str, Any], form: Form, name: str) -> HttpResponse:
    content = printed(layout, data, form)
    return _pdf(content, name) if form == "pdf" else HttpResponse(content, content_type="image/png")


def _pdf(content: bytes, name: str) -> HttpResponse:
    answer = HttpResponse(content, content_type="application/pdf")
    answer["Content-Disposition"] = f'inline; filename="{_plain(name)}.pdf"'
    answer["Cache-Control"] = "private, no-store"
    return answer


def _plain(name: str) -> str:
    """A name that any file system takes and no header trips over."""
    return re.sub(r"[^A-Za-z0-9 ,.-]+", "-", name).strip() or "report"
