"""What is printed, over HTTP: each a PDF."""

from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Router

from base.problems import Problems
from crews.services import crew_of
from evenprobe.formats.signed import SignedContent
from reports.report import report_pdf
from signoffs.services import draft, sign_off_of

router = Router(tags=["reports"])


@router.get("/sign-offs/{sign_off_id}/report", response={404: Problems})
def report_of_sign_off(request: HttpRequest, sign_off_id: UUID) -> HttpResponse:
    """What was signed, as it was."""
    found = sign_off_of(crew_of(request), sign_off_id)
    content = SignedContent.model_validate(found.said())
    return _pdf(report_pdf(content, found), f"report-{found.number}")


@router.get("/drafts/{what}/{of}/report", response={404: Problems})
def report_of_draft(request: HttpRequest, what: str, of: UUID) -> HttpResponse:
    """What is so now, signed by nobody."""
    return _pdf(report_pdf(draft(crew_of(request), request.user, what, of), None), "report-draft")


def _pdf(content: bytes, name: str) -> HttpResponse:
    answer = HttpResponse(content, content_type="application/pdf")
    answer["Content-Disposition"] = f'inline; filename="{name}.pdf"'
    answer["Cache-Control"] = "private, no-store"
    return answer
