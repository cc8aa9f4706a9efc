"""What a browser may do with an answer, beside what Django says: no page's powers for data, no sensor for any.

What is on record is kept on no disk by a browser of its own accord; the page keeps it, and forgets it at signing out.
"""

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

_NEVER = ("accelerometer", "autoplay", "display-capture", "geolocation", "gyroscope", "magnetometer", "microphone",
          "midi", "payment", "publickey-credentials-get", "serial", "usb", "xr-spatial-tracking")  # fmt: skip
_PERMISSIONS = ", ".join([*(f"{sensor}=()" for sensor in _NEVER), "camera=(self)", "screen-wake-lock=(self)"])
_OF_DATA = "default-src 'none'; frame-ancestors 'none'"
_DATA = ("application/json", "image/", "text/csv")
_NO_PAGE = ("text/javascript", "text/css", "font/")
"""Has no powers of its own, and is so many small files that what stands over each is a tenth of them."""
Respond = Callable[[HttpRequest], HttpResponse]
"""What a middleware passes a request on to."""


def careful(respond: Respond) -> Respond:
    """Middleware, the outermost: also over what is served as a file."""

    def answer(request: HttpRequest) -> HttpResponse:
        response = respond(request)
        what = response.headers.get("Content-Type", "")
        if not what.startswith(_NO_PAGE):
            response.headers.setdefault("Permissions-Policy", _PERMISSIONS)
        if what.startswith(_DATA):
            response.headers.setdefault("Content-Security-Policy", _OF_DATA)
            response.headers.setdefault("Cache-Control", "private, no-store")
        return response

    return answer
