"""Sign-offs over HTTP, each also as the file that `evenprobe verify` reads."""

from typing import Any
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Router

from base.problems import Problems
from base.shapes import Named
from crews.services import at_own_site, crew_of, name_of
from evenprobe.formats.signed import SignedContent
from evenprobe.signing import canonical
from signoffs.models import SignOff
from signoffs.services import draft, file_of, sign, sign_off_of, sign_offs_of
from signoffs.shapes import DraftOut, SignIn, SignOffLine, SignOffOut

router = Router(tags=["sign-offs"])


@router.get("/sign-offs", response=list[SignOffLine])
def sign_offs(request: HttpRequest) -> list[SignOffLine]:
    """The latest first."""
    own = at_own_site(request, sign_offs_of(crew_of(request)), "site")
    return [SignOffLine(**_line(one)) for one in own.defer("content")]


@router.get("/drafts/{what}/{of}", response={200: DraftOut, 404: Problems})
def draft_of(request: HttpRequest, what: str, of: UUID) -> DraftOut:
    """What would be signed now."""
    return DraftOut(name=name_of(request.user), content=draft(crew_of(request), request.user, what, of))


@router.get("/sign-offs/{sign_off_id}", response={200: SignOffOut, 404: Problems})
def one_sign_off(request: HttpRequest, sign_off_id: UUID) -> SignOffOut:
    return _shown(sign_off_of(crew_of(request), sign_off_id))


@router.put("/sign-offs/{sign_off_id}", response={200: SignOffOut, 404: Problems, 409: Problems, 422: Problems})
def sign_now(request: HttpRequest, sign_off_id: UUID, data: SignIn) -> SignOffOut:
    crew = crew_of(request)
    told = data.what, data.of, data.typed_name, data.whys, data.remarks
    return _shown(sign(crew, request.user, sign_off_id, *told))


@router.get("/sign-offs/{sign_off_id}/file", response={404: Problems})
def sign_off_file(request: HttpRequest, sign_off_id: UUID) -> HttpResponse:
    """Byte for byte as it is checked."""
    found = sign_off_of(crew_of(request), sign_off_id)
    answer = HttpResponse(canonical(file_of(found)), content_type="application/json")
    answer["Content-Disposition"] = f'attachment; filename="sign-off-{found.number}.json"'
    return answer


def _line(one: SignOff) -> dict[str, Any]:
    return {
        "id": one.id,
        "number": one.number,
        "what": one.what,
        "of": one.of,
        "name": one.name,
        "site": Named(id=one.site.id, name=one.site.name),
        "signed_at": one.signed_at,
        "by": one.by_name,
        "link_sha256": one.link_sha256,
    }


def _shown(one: SignOff) -> SignOffOut:
    return SignOffOut(**_line(one), content=SignedContent.model_validate(one.said()))
