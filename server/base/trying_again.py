"""A request that found the database locked is tried again: it wrote nothing, and its own ids make it one record."""

import time

from django.http import HttpRequest, HttpResponse

from base.headers import Respond

TRIES = 3
WAIT_S = 0.2
_BUSY = 503


def tried_again(respond: Respond) -> Respond:
    """Middleware, the outermost."""

    def answer(request: HttpRequest) -> HttpResponse:
        for wait in [WAIT_S] * (TRIES - 1):
            response = respond(request)
            if response.status_code != _BUSY or "Retry-After" not in response:
                return response
            time.sleep(wait)
        return respond(request)

    return answer
