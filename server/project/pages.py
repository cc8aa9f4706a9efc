"""The single page of the front end. Its files are served beside it, so it works with no network."""

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_safe


@require_safe
@ensure_csrf_cookie
def front_end(_request: HttpRequest) -> HttpResponse:
    page = settings.WEB_DIST / "index.html"
    if not page.exists():
        return HttpResponse("The front end is not built: run make build.", status=503, content_type="text/plain")
    response = HttpResponse(page.read_bytes())
    response["Cache-Control"] = "no-cache"
    response["Content-Security-Policy"] = (
        "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; frame-ancestors 'none'"
    )
    return response
