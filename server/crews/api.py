"""Signing in and out, one's own account, and a second person's word."""

from datetime import datetime
from typing import Any
from uuid import UUID

from django.contrib.auth import logout, update_session_auth_hash
from django.contrib.auth.models import User
from django.http import HttpRequest, HttpResponse
from django.views.decorators.csrf import csrf_protect, ensure_csrf_cookie
from ninja import Router, Status
from ninja.decorators import decorate_view

from base.problems import Problems, Refused
from crews.devices import note
from crews.models import SignInEvent
from crews.passwords import refuse_weak, refuse_wrong
from crews.rights import Act
from crews.second import give_word
from crews.services import name_of
from crews.sessions import end, end_all, public_id, sessions_of, still_there
from crews.shapes import (
    CodeIn,
    Credentials,
    DeviceOut,
    OffIn,
    OwnOut,
    PaperOut,
    PasswordIn,
    SecondIn,
    SecondOut,
    Session,
    SignInLine,
    TwoStepOut,
)
from crews.signing_in import let_in, person_signing_in
from crews.two_step import begin, has_two_step, turn_off, turn_on

router = Router(tags=["session"])

_SHOWN = 40
"""Of the sign-in log."""


@router.get("/session", auth=None, response={200: Session, 401: Problems})
@decorate_view(ensure_csrf_cookie)
def who_am_i(request: HttpRequest) -> Session:
    """Whoever is in no crew any more is signed out, so that another can sign in on the device."""
    if not request.user.is_authenticated:
        raise Refused(("", "sign in first"), status=401)
    try:
        session = Session.of(request.user)
    except Refused as ended:
        logout(request)
        raise Refused(*ended.problems, status=401) from None
    still_there(request)
    return session


@router.post("/session", auth=None, response={200: Session, 403: Problems, 429: Problems})
@decorate_view(csrf_protect)
def sign_in(request: HttpRequest, response: HttpResponse, data: Credentials) -> Session:
    user = person_signing_in(request, data.username, data.password, data.code)
    session = Session.of(user)
    let_in(request, response, user, SignInEvent.What.IN)
    return session


@router.delete("/session", response={204: None})
def sign_out(request: HttpRequest) -> Status[None]:
    note(request, _own(request).pk, SignInEvent.What.OUT)
    logout(request)
    return Status(204, None)


@router.get("/own", response=OwnOut)
def own(request: HttpRequest) -> OwnOut:
    """One's own account: where one is signed in, and what happened to the way in."""
    return _own_out(request)


@router.put("/own/password", response={200: OwnOut, 403: Problems, 422: Problems, 429: Problems})
def change_password(request: HttpRequest, data: PasswordIn) -> OwnOut:
    """Every other device is signed out."""
    user = _own(request)
    refuse_wrong(request, user, data.old, "old")
    refuse_weak(data.new, user, "new")
    user.set_password(data.new)
    user.save()
    update_session_auth_hash(request, user)
    end_all(user.pk, but=request.session.session_key)
    note(request, user.pk, SignInEvent.What.PASSWORD)
    return _own_out(request)


@router.delete("/own/devices/{device_id}", response={200: OwnOut, 404: Problems})
def end_device(request: HttpRequest, device_id: str) -> OwnOut:
    """Signed out there, as with a phone that is lost."""
    end(_own(request).pk, device_id)
    note(request, _own(request).pk, SignInEvent.What.ENDED)
    return _own_out(request)


@router.post("/own/two-step", response={200: TwoStepOut, 409: Problems})
def begin_two_step(request: HttpRequest) -> TwoStepOut:
    """A secret for an app on one's phone. Nothing is asked for at sign-in before a code from it was told."""
    found = begin(_own(request))
    return TwoStepOut(secret=found.secret, picture=found.picture)


@router.put("/own/two-step", response={200: PaperOut, 409: Problems, 422: Problems})
def turn_two_step_on(request: HttpRequest, data: CodeIn) -> PaperOut:
    codes = turn_on(_own(request), data.code)
    note(request, _own(request).pk, SignInEvent.What.TWO_STEP_ON)
    return PaperOut(codes=codes)


@router.put("/own/two-step/off", response={200: OwnOut, 403: Problems, 429: Problems})
def turn_two_step_off(request: HttpRequest, data: OffIn) -> OwnOut:
    refuse_wrong(request, _own(request), data.password, "password")
    turn_off(_own(request))
    note(request, _own(request).pk, SignInEvent.What.TWO_STEP_OFF)
    return _own_out(request)


@router.put("/seconds/{word_id}", response={200: SecondOut, 403: Problems, 409: Problems, 422: Problems, 429: Problems})
def second_person(request: HttpRequest, word_id: UUID, data: SecondIn) -> SecondOut:
    """Somebody stands beside whoever is signed in, for the act that will have this id."""
    word = give_word(request, word_id, Act(data.act), data.username, data.password, data.code)
    return SecondOut(by=word.by_name)


def _own(request: HttpRequest) -> User:
    assert isinstance(request.user, User)
    return request.user


def _own_out(request: HttpRequest) -> OwnOut:
    user = _own(request)
    here = request.session.session_key
    return OwnOut(
        name=name_of(user),
        username=user.get_username(),
        two_step=has_two_step(user),
        devices=[
            DeviceOut(
                id=public_id(row.session_key), device=told.get("device", ""), address=told.get("address", ""),
                since=_time(told.get("since")), seen=_time(told.get("seen")), here=row.session_key == here,
            )
            for row, told in sessions_of(user.pk)
        ],
        log=[
            SignInLine(what=one.what, at=one.at, address=one.address, device=one.device)
            for one in SignInEvent.objects.filter(user=user)[:_SHOWN]
        ],
    )  # fmt: skip


def _time(told: Any) -> datetime | None:
    return datetime.fromisoformat(told) if told else None
