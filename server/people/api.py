"""People over HTTP: a keeper's list, one-time links, and coming in by one."""

from uuid import UUID

from django.db.models import Max, Q
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from django.views.decorators.csrf import csrf_protect
from django_otp.plugins.otp_totp.models import TOTPDevice
from ninja import Router
from ninja.decorators import decorate_view

from base.problems import Problems
from crews.models import Crew, Membership, SignInEvent
from crews.rights import SAYS
from crews.services import crew_of, name_of
from crews.shapes import Session
from crews.signing_in import let_in
from people.links import key_of, link_by, make, make_for_password, use, withdraw
from people.members import members_of, put_left, put_role
from people.models import OneTimeLink
from people.shapes import (
    Account,
    ComingIn,
    LeftIn,
    LinkShown,
    MemberOut,
    OneTimeLinkIn,
    OneTimeLinkOut,
    PeopleOut,
    RoleIn,
    RoleOut,
)

router = Router(tags=["people"])


@router.get("/people", response=PeopleOut)
def people(request: HttpRequest) -> PeopleOut:
    """The crew's people, those who left too, and the links that are open."""
    return _people(crew_of(request))


@router.put("/people/{account}", response={200: PeopleOut, 404: Problems, 409: Problems, 422: Problems})
def save_role(request: HttpRequest, account: Account, data: RoleIn) -> PeopleOut:
    crew = crew_of(request)
    put_role(crew, account, data.role, data.site, data.until)
    return _people(crew)


@router.put("/people/{account}/left", response={200: PeopleOut, 404: Problems, 409: Problems})
def save_left(request: HttpRequest, account: Account, data: LeftIn) -> PeopleOut:
    """They left: signed out at once everywhere. Or they are back."""
    crew = crew_of(request)
    put_left(crew, account, left=data.left)
    return _people(crew)


@router.put("/people/links/{link_id}", response={200: OneTimeLinkOut, 404: Problems, 409: Problems, 422: Problems})
def make_link(request: HttpRequest, link_id: UUID, data: OneTimeLinkIn) -> OneTimeLinkOut:
    """A link to join, or to set a new password: good once, for 48 hours."""
    crew = crew_of(request)
    if data.account is not None:
        return _link_out(make_for_password(crew, request.user, link_id, data.account))
    return _link_out(make(crew, request.user, link_id, data.name, data.role, data.site, data.until))


@router.put("/people/links/{link_id}/withdrawn", response={200: PeopleOut, 404: Problems})
def withdraw_link(request: HttpRequest, link_id: UUID) -> PeopleOut:
    crew = crew_of(request)
    withdraw(crew, link_id)
    return _people(crew)


@router.get("/links/{key}", auth=None, response={200: LinkShown, 404: Problems, 409: Problems})
def show_link(request: HttpRequest, key: str) -> LinkShown:  # noqa: ARG001
    link = link_by(key)
    return LinkShown(
        crew=link.crew.name, name=link.name, role=link.role, for_password=link.account is not None,
        username=link.account.get_username() if link.account else "", ends_at=link.ends_at,
    )  # fmt: skip


@router.post(
    "/links/{key}",
    auth=None,
    response={200: Session, 403: Problems, 404: Problems, 409: Problems, 422: Problems},
)
@decorate_view(csrf_protect)
def come_in(request: HttpRequest, response: HttpResponse, key: str, data: ComingIn) -> Session:
    """Join by a link, or set a new password by one; signed in then, in both steps where there are two."""
    link = link_by(key)
    user = use(key, data.username, data.name, data.password)
    session = Session.of(user)
    let_in(request, response, user, SignInEvent.What.PASSWORD if link.account else SignInEvent.What.JOINED)
    return session


def _people(crew: Crew) -> PeopleOut:
    signed_in = Q(user__sign_ins__what__in=(SignInEvent.What.IN, SignInEvent.What.JOINED))
    members = members_of(crew).annotate(seen=Max("user__sign_ins__at", filter=signed_in))
    careful = set(
        TOTPDevice.objects.filter(confirmed=True, user__membership__crew=crew).values_list("user_id", flat=True)
    )
    open_now = [link for link in OneTimeLink.objects.filter(crew=crew) if link.is_open(timezone.now())]
    return PeopleOut(
        members=[_member_out(one, one.user_id in careful) for one in members.order_by("left_at", "joined_at", "pk")],
        links=[_link_out(link) for link in open_now],
        roles=[RoleOut(id=role, does=does, beside=beside) for role, (does, beside) in SAYS.items()],
    )


def _member_out(one: Membership, two_step: bool) -> MemberOut:
    return MemberOut(
        account=one.user_id, name=name_of(one.user), username=one.user.get_username(), role=one.role,
        site=one.site, until=one.until, joined_at=one.joined_at, left_at=one.left_at,
        seen_at=getattr(one, "seen", None), two_step=two_step,
    )  # fmt: skip


def _link_out(link: OneTimeLink) -> OneTimeLinkOut:
    return OneTimeLinkOut(
        id=link.id, name=link.name, role=link.role, for_password=link.account_id is not None,
        made_at=link.made_at, made_by=link.made_by_name, ends_at=link.ends_at, key=key_of(link),
    )  # fmt: skip
