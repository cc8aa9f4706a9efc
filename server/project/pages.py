"""The single page of the front end. Its files are served beside it, so it works with no network."""

from collections.abc import MutableMapping

from django.conf import settings
from django.core.exceptions import DisallowedHost
from django.http import FileResponse, Http404, HttpRequest, HttpResponse
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_safe

from base.lan import TRUSTED

_POLICY = {
    "Cache-Control": "no-cache",
    "Content-Security-Policy": (
        "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; frame-ancestors 'none'"
    ),
}
_ASKED_FOR_ANEW = ("/index.html", "/sw.js", "/manifest.webmanifest")
"""Files that say which others there are: by these a browser finds a new version."""


@require_safe
@ensure_csrf_cookie
def front_end(_request: HttpRequest) -> HttpResponse:
    page = settings.WEB_DIST / "index.html"
    if not page.exists():
        return HttpResponse("The front end is not built: run make build.", status=503, content_type="text/plain")
    return HttpResponse(page.read_bytes(), headers=_POLICY)


def with_page_policy(headers: MutableMapping[str, str], _path: str, url: str) -> None:
    """The page kept by a service worker has the same policy as the page of the server."""
    if url in _ASKED_FOR_ANEW:
        for name, value in _POLICY.items():
            headers[name] = value


@require_safe
def trusted(_request: HttpRequest) -> FileResponse:
    """The authority that signs for this server in the house, for a phone to trust; there is one where `lan` was run."""
    kept = settings.DATA_DIR / "lan" / TRUSTED
    if not kept.exists():
        raise Http404
    return FileResponse(kept.open("rb"), content_type="application/x-x509-ca-cert", filename=TRUSTED)


def not_this_name(request: HttpRequest, exception: Exception | None = None) -> HttpResponse:
    """A request the server does not take, most often because it was opened by a name it does not answer to."""
    if isinstance(exception, DisallowedHost):
        text = (
            f"This server does not answer to {request.META.get('HTTP_HOST', 'that name')}.\n\n"
            "For phones in the house run make lan and open the address it prints.\n"
            "For a name of your own set ALLOWED_HOSTS, and for HTTPS CSRF_TRUSTED_ORIGINS."
        )
    else:
        text = "The server could not read this request. Load the page again."
    return HttpResponse(text, status=400, content_type="text/plain; charset=utf-8")
