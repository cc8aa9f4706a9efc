"""Who may ask for what: every route has an act, and a guest's routes have the way to the one site they read.

A route that stands in no table reads, if it is asked with GET, and records otherwise; a guest gets none of those.
"""

import re
from collections.abc import Callable, Mapping
from typing import Any
from uuid import UUID

from django.db.models import Model
from django.http import HttpRequest
from ninja.security import SessionAuth

from base.acting import acts
from base.problems import NotFoundHere, Refused
from base.unchanged import answers_to
from crews.models import Membership, Role
from crews.rights import Act
from crews.services import membership_of, refuse_unless_may
from photos.models import PhotoOn
from proofs.models import Proof
from sheets.models import Sheet
from signoffs.models import SignOff
from sites.models import Board, Circuit, Point, Site
from visits.models import Visit

Route = tuple[str, str]

_ACTS: Mapping[Route, Act] = {
    ("PUT", "/rules"): Act.RULES,
    ("PUT", "/places/{what}/{place_id}/retired"): Act.RETIRE,
    ("PUT", "/kit/{kit_id}/back"): Act.RETIRE,
    ("PUT", "/testers/{tester_id}/ours"): Act.TAKE_OVER,
    ("GET", "/people"): Act.PEOPLE,
    ("PUT", "/people/{account}"): Act.PEOPLE,
    ("PUT", "/people/{account}/left"): Act.PEOPLE,
    ("PUT", "/people/links/{link_id}"): Act.PEOPLE,
    ("PUT", "/people/links/{link_id}/withdrawn"): Act.PEOPLE,
}
"""Routes that are neither just read nor just recorded."""

_OWN = re.compile(r"^/(session|own(/.*)?|reference(/.*)?)$")
"""What is one's own, or the same to everybody."""

_SITE_OF_SCOPE: Mapping[str, tuple[type[Model], str]] = {
    "site": (Site, "pk"),
    "circuit": (Circuit, "board__supply__site_id"),
    "point": (Point, "circuit__board__supply__site_id"),
}


def _of(model: type[Model], key: str, way: str) -> Callable[[Mapping[str, Any]], Any]:
    return lambda given: model._default_manager.filter(pk=given[key]).values_list(way, flat=True).first()


def _of_scope(given: Mapping[str, Any]) -> Any:
    if given["scope"] not in _SITE_OF_SCOPE:
        return None
    model, way = _SITE_OF_SCOPE[given["scope"]]
    return _of(model, "of", way)(given)


_OF_SIGN_OFF = _of(SignOff, "sign_off_id", "site_id")
_OF_POINT = _of(Point, "point_id", "circuit__board__supply__site_id")
_GUESTS: Mapping[str, Callable[[Mapping[str, Any]], Any]] = {
    "/sites/{site_id}": _of(Site, "site_id", "pk"),
    "/points/{point_id}/bench": _OF_POINT,
    "/points/{point_id}/trends": _OF_POINT,
    "/boards/{board_id}/schedule": _of(Board, "board_id", "supply__site_id"),
    "/proofs/{proof_id}": _of(Proof, "proof_id", "site_id"),
    "/sheets/{sheet_id}": _of(Sheet, "sheet_id", "circuit__board__supply__site_id"),
    "/visits/{visit_id}": _of(Visit, "visit_id", "site_id"),
    "/timeline/{scope}/{of}": _of_scope,
    "/photos/{photo_id}": lambda given: (
        PhotoOn.objects.filter(photo=given["photo_id"]).values_list("site_id", flat=True).first()
    ),
    "/sign-offs/{sign_off_id}": _OF_SIGN_OFF,
    "/sign-offs/{sign_off_id}/file": _OF_SIGN_OFF,
    "/sign-offs/{sign_off_id}/report": _OF_SIGN_OFF,
    "/sign-offs/{sign_off_id}/code": _OF_SIGN_OFF,
}
"""What a guest reads, and which site it is of."""

_GUESTS_LISTS = ("/sites", "/sign-offs", "/visits")
"""Lists that hold, for a guest, their own site alone."""


def _route_of(request: HttpRequest) -> Route:
    """As the document of the API writes it."""
    match = request.resolver_match
    path = "" if match is None else re.sub(r"<(?:\w+:)?(\w+)>", r"{\1}", match.route.removeprefix("api"))
    return request.method or "GET", path


class OfTheCrew(SessionAuth):
    """Signed in, and in a role that may do this."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        user = super().authenticate(request, key)
        if not user:
            return None
        acts(user)
        method, path = _route_of(request)
        if not _OWN.match(path):
            member = membership_of(user)
            is_guest = member.role == Role.GUEST
            answers_to(request, f"user {user.pk}" if is_guest else f"crew {member.crew_id} as {member.role}")
            if is_guest:
                _refuse_guest(member, method, path, request.resolver_match.kwargs if request.resolver_match else {})
            refuse_unless_may(user, _ACTS.get((method, path), Act.READ if method == "GET" else Act.RECORD))
        return user


def _refuse_guest(member: Membership, method: str, path: str, given: Mapping[str, Any]) -> None:
    """Raises Refused unless it is something of a guest's own site."""
    if method == "GET" and path in _GUESTS_LISTS:
        return
    site = _GUESTS.get(path) if method == "GET" else None
    if site is None:
        raise Refused(("", "you are a guest here: you read one site"), status=403)
    found: UUID | None = site(given)
    if found is None or found != member.site:
        raise NotFoundHere("such thing at your site")
