"""The API as one: routers, and the mapping of errors to one shape."""

import re
from typing import Any

from django.conf import settings
from django.core.exceptions import RequestDataTooBig, TooManyFieldsSent, TooManyFilesSent
from django.http import HttpRequest, HttpResponse
from django.http.multipartparser import MultiPartParserError
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError
from ninja.parser import Parser

from base.failures import failed
from base.problems import Refused, as_body
from crews.api import router as crews
from evenprobe.entries.problems import named, refuse_implausible
from evenprobe.formats import FormatError
from exchange.api import router as exchange
from hunts.api import router as hunts
from kit.api import router as kit
from meters.api import router as meters
from overviews.site import router as sites
from overviews.standing import router as standing
from overviews.tester import router as tester
from overviews.today import router as today
from people.api import router as people
from photos.api import router as photos
from plugging.api import router as plugging
from practising.api import router as practising
from project.gate import OfTheCrew
from project.reference import router as reference
from proofs.api import router as proofs
from readings.api import router as work
from reports.api import router as reports
from rounds.api import router as rounds
from sheets.api import router as sheets
from signoffs.api import router as signoffs
from tables.api import router as tables
from timeline.api import router as timeline
from visits.api import router as visits

_INSIDE = re.compile(r"^(entry|survey|log|tests)\.")


class Careful(Parser):
    """Takes nothing that can be in no input, at any route; problems are named by the keys of what is inside."""

    def parse_body(self, request: HttpRequest) -> Any:
        data = super().parse_body(request)
        try:
            refuse_implausible(data)
        except FormatError as error:
            raise FormatError([(_INSIDE.sub("", path), text) for path, text in error.problems]) from None
        return data

    def parse_querydict(self, data: Any, list_fields: list[str], request: HttpRequest) -> Any:
        """Of an address or a form."""
        found = super().parse_querydict(data, list_fields, request)
        refuse_implausible(found)
        return found


api = NinjaAPI(
    title="Even Probe", version="1", auth=OfTheCrew(csrf=True), docs_url=None, urls_namespace="api", parser=Careful()
)
api.add_router("", crews)
api.add_router("", people)
api.add_router("", reference)
api.add_router("", kit)
api.add_router("", tester)
api.add_router("", sites)
api.add_router("", work)
api.add_router("", meters)
api.add_router("", proofs)
api.add_router("", photos)
api.add_router("", sheets)
api.add_router("", rounds)
api.add_router("", plugging)
api.add_router("", hunts)
api.add_router("", visits)
api.add_router("", practising)
api.add_router("", signoffs)
api.add_router("", reports)
api.add_router("", timeline)
api.add_router("", tables)
api.add_router("", standing)
api.add_router("", exchange)
api.add_router("", today)


@api.exception_handler(Refused)
def refused(request: HttpRequest, error: Refused) -> HttpResponse:
    return api.create_response(request, as_body(error.problems), status=error.status)


@api.exception_handler(FormatError)
def bad_format(request: HttpRequest, error: FormatError) -> HttpResponse:
    return api.create_response(request, as_body(error.problems), status=422)


@api.exception_handler(ValidationError)
def bad_request(request: HttpRequest, error: ValidationError) -> HttpResponse:
    problems = [named({**e, "loc": [p for p in e["loc"][1:] if p not in ("data", "entry_in")]}) for e in error.errors]
    return api.create_response(request, as_body(problems), status=422)


@api.exception_handler(HttpError)
def unreadable(request: HttpRequest, error: HttpError) -> HttpResponse:
    """What cannot be parsed never reaches a route."""
    if isinstance(error.__cause__, FormatError):
        return bad_format(request, error.__cause__)
    return api.create_response(request, as_body([("", "the request is not JSON")]), status=error.status_code)


@api.exception_handler(RequestDataTooBig)
def too_large(request: HttpRequest, _error: RequestDataTooBig) -> HttpResponse:
    most = settings.DATA_UPLOAD_MAX_MEMORY_SIZE // 1024**2
    said = f"This is larger than {most} MB, the most at a time"
    return api.create_response(request, as_body([("", said)]), status=413)


@api.exception_handler(MultiPartParserError)
@api.exception_handler(TooManyFilesSent)
@api.exception_handler(TooManyFieldsSent)
def no_form(request: HttpRequest, _error: Exception) -> HttpResponse:
    return api.create_response(request, as_body([("", "the request is no form with a file")]), status=400)


@api.exception_handler(Exception)
def unforeseen(request: HttpRequest, error: Exception) -> HttpResponse:
    return failed(request, error)


@api.exception_handler(AuthenticationError)
def signed_out(request: HttpRequest, _error: AuthenticationError) -> HttpResponse:
    return api.create_response(request, as_body([("", "sign in first")]), status=401)
