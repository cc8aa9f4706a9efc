"""The way into a case: whoever goes through one asks for everything under its own address, `/practice/<id>/api/…`.

There the same routes answer as everywhere, of the case's sandbox instead of the person's own crew: one code path for
what is real and what is not. What the readings allow is covered until it is asked for, or the case is over.
"""

import re

from django.http import HttpRequest, HttpResponse, JsonResponse

from base.headers import Respond
from base.problems import Refused, as_body
from crews.models import Membership, Role
from crews.services import membership_of
from practising.models import Practised
from practising.open_cases import how_far
from readings.covering import cover

_ADDRESS = re.compile(r"^/practice/([0-9a-f-]{36})(/api/.*)$")
_ID = r"[0-9a-f-]{36}"
_THERE = re.compile(
    rf"GET /api/(session|sheets|sites(/{_ID})?|testers(/{_ID})?|parts|meters|rules|proofs(/{_ID})?)"
    rf"|GET /api/(reference(/[a-z]+)?|points/{_ID}/(bench|capabilities/{_ID}))"
    rf"|PUT /api/points/{_ID}/(cannot|(readings|withdrawals)/{_ID})"
    rf"|PUT /api/proofs/{_ID}(/events/{_ID})?"
    rf"|(GET|PUT) /api/sheets/{_ID}|PUT /api/sheets/{_ID}/entries/{_ID}|POST /api/sheets/{_ID}/judge"
    rf"|GET /api/rounds|(GET|PUT) /api/rounds/{_ID}|PUT /api/rounds/{_ID}/events/{_ID}"
    rf"|GET /api/sites/{_ID}/hunts/intake|GET /api/hunts/{_ID}|PUT /api/hunts/{_ID}/events/{_ID}"
    rf"|POST /api/testers/{_ID}/holding"
    r"|(GET|PUT|POST) /api/practised(/.*)?"
)
"""What there is in a sandbox: what one practises with. Nothing is made or changed there but by practising, and no file
leaves it that could come into a record: none but the case's own, once it is over."""
HERE = "practising.here"


def in_a_case(respond: Respond) -> Respond:
    """Middleware: what is asked under a case's address is answered of its sandbox, to whoever goes through it."""

    def answer(request: HttpRequest) -> HttpResponse:
        asked = _ADDRESS.match(request.path_info)
        if asked is None:
            return respond(request)
        request.path_info = asked[2]
        if not request.user.is_authenticated:
            return JsonResponse(as_body([("", "you are not signed in")]), status=401)
        own = Practised.objects.select_related("sandbox").filter(pk=asked[1], user=request.user.pk).first()
        if own is None or not _THERE.fullmatch(f"{request.method} {request.path_info}"):
            return JsonResponse(as_body([("", "no such thing in this case")]), status=404)
        try:
            membership_of(request.user)
        except Refused as why:
            return JsonResponse(as_body(why.problems), status=why.status)
        request.META[HERE] = own
        cover(request, lambda: _is_covered(own))
        request.user.membership = Membership(user_id=request.user.pk, crew=own.sandbox, role=Role.ELECTRICIAN)
        return respond(request)

    return answer


def _is_covered(practised: Practised) -> bool:
    found = how_far(practised)
    return not (found.shown or found.is_over)
