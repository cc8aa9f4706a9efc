"""Signing in and out."""

from typing import Any

from django.contrib.auth import login, logout
from django.http import HttpRequest, HttpResponse
from django.views.decorators.csrf import csrf_protect, ensure_csrf_cookie
from ninja import Router, Schema, Status
from ninja.decorators import decorate_view
from pydantic import Field

from base.problems import Problems, Refused
from crews.services import crew_of_user
from crews.signing_in import person_signing_in, remember_device

router = Router(tags=["session"])


class Credentials(Schema):
    username: str = Field(max_length=150)
    password: str = Field(max_length=1000)


class Session(Schema):
    """`account`: the person's own number, for two of a crew may have one name."""

    account: int
    name: str
    crew: str

    @classmethod
    def of(cls, user: Any) -> "Session":
        name = user.get_full_name() or user.get_username()
        return cls(account=user.pk, name=name, crew=crew_of_user(user).name)


@router.get("/session", auth=None, response={200: Session, 401: Problems})
@decorate_view(ensure_csrf_cookie)
def who_am_i(request: HttpRequest) -> Session:
    if not request.user.is_authenticated:
        raise Refused(("", "sign in first"), status=401)
    return Session.of(request.user)


@router.post("/session", auth=None, response={200: Session, 403: Problems, 429: Problems})
@decorate_view(csrf_protect)
def sign_in(request: HttpRequest, response: HttpResponse, data: Credentials) -> Session:
    user = person_signing_in(request, data.username, data.password)
    session = Session.of(user)
    login(request, user)
    remember_device(response, data.username)
    return session


@router.delete("/session", response={204: None})
def sign_out(request: HttpRequest) -> Status[None]:
    logout(request)
    return Status(204, None)
