"""Signing in and out."""

from django.contrib.auth import authenticate, login, logout
from django.http import HttpRequest
from django.views.decorators.csrf import csrf_protect, ensure_csrf_cookie
from ninja import Router, Schema, Status
from ninja.decorators import decorate_view

from crews.services import crew_of_user
from project.problems import Problems, Refused

router = Router(tags=["session"])


class Credentials(Schema):
    username: str
    password: str


class Session(Schema):
    name: str
    crew: str


@router.get("/session", auth=None, response={200: Session, 401: Problems})
@decorate_view(ensure_csrf_cookie)
def who_am_i(request: HttpRequest) -> Session:
    if not request.user.is_authenticated:
        raise Refused(("", "sign in first"), status=401)
    return Session(
        name=request.user.get_full_name() or request.user.get_username(), crew=crew_of_user(request.user).name
    )


@router.post("/session", auth=None, response={200: Session, 403: Problems})
@decorate_view(csrf_protect)
def sign_in(request: HttpRequest, data: Credentials) -> Session:
    user = authenticate(request, username=data.username, password=data.password)
    if user is None:
        raise Refused(("password", "name and password do not belong together"), status=403)
    crew = crew_of_user(user)
    login(request, user)
    return Session(name=user.get_full_name() or user.get_username(), crew=crew.name)


@router.delete("/session", response={204: None})
def sign_out(request: HttpRequest) -> Status[None]:
    logout(request)
    return Status(204, None)
