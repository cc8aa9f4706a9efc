"""Pictures over HTTP, as they were taken."""

from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Router

from base.problems import Problems
from base.shapes import Titled, ToldLater
from crews.services import crew_of
from photos.services import photo_of, put_photo

router = Router(tags=["photos"])


class PhotoIn(ToldLater):
    """`image`: base 64 of a JPEG or PNG."""

    image: str


@router.put("/photos/{photo_id}", response={200: Titled, 409: Problems, 413: Problems, 422: Problems})
def keep_photo(request: HttpRequest, photo_id: UUID, data: PhotoIn) -> Titled:
    photo = put_photo(crew_of(request), request.user, photo_id, data.image, data.happened())
    return Titled(id=str(photo.id), title=photo.kind)


@router.get("/photos/{photo_id}", response={404: Problems})
def photo(request: HttpRequest, photo_id: UUID) -> HttpResponse:
    found = photo_of(crew_of(request), photo_id)
    response = HttpResponse(bytes(found.image), content_type=found.kind)
    response["Cache-Control"] = "private, max-age=31536000, immutable"
    response["X-Content-Type-Options"] = "nosniff"
    return response
