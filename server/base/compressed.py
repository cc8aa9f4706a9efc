"""Text goes compressed (RFC 9110, 8.4.1); pictures and files of pages are so already."""

from django.http import HttpRequest, HttpResponseBase
from django.middleware.gzip import GZipMiddleware

_TEXT = ("application/json", "text/csv")


class Compressed(GZipMiddleware):
    """Django's own, with bytes added by chance against guessing at what is inside by its length."""

    def process_response(self, request: HttpRequest, response: HttpResponseBase) -> HttpResponseBase:
        if not response.headers.get("Content-Type", "").startswith(_TEXT):
            return response
        return super().process_response(request, response)
