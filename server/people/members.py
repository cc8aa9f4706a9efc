"""Who is in a crew and as what. Nobody is deleted: whoever left keeps their name on the record."""

from datetime import date
from uuid import UUID

from django.db import transaction
from django.db.models import QuerySet
from django.utils import timezone

from base.problems import NotFoundHere, Refused
from crews.models import Crew, Membership, Role
from crews.services import name_of
from crews.sessions import end_all
from history.noting import note
from sites.services import sites_of


def members_of(crew: Crew) -> QuerySet[Membership]:
    return Membership.objects.filter(crew=crew).select_related("user", "crew")


def member_of(crew: Crew, account: int) -> Membership:
    found = members_of(crew).filter(user_id=account).first()
    if found is None:
        raise NotFoundHere("person")
    return found


def role_wanted(crew: Crew, role: str, site: UUID | None, until: date | None) -> None:
    """Raises Refused for a role there is not, or a guest of no site of the crew's."""
    if role not in Role.values:
        raise Refused(("role", f"must be one of {', '.join(Role.values)}"))
    if role != Role.GUEST:
        if site is not None or until is not None:
            raise Refused(("site", "only a guest is kept to a site and a date"))
        return
    if site is None or not sites_of(crew).filter(id=site).exists():
        raise Refused(("site", "say which of your sites a guest reads"))
    if until is None:
        raise Refused(("until", "say until which day a guest reads it"))


@transaction.atomic
def put_role(crew: Crew, account: int, role: str, site: UUID | None, until: date | None) -> Membership:
    """What somebody is from now on. The same again changes nothing."""
    member = member_of(crew, account)
    role_wanted(crew, role, site, until)
    if member.role == Role.KEEPER != role:
        _refuse_the_last_keeper(member)
    _changed(member, role=role, site=site, until=until)
    return member


@transaction.atomic
def put_left(crew: Crew, account: int, *, left: bool) -> Membership:
    """They left: signed out everywhere, and in no more; or they are back. The same again changes nothing."""
    member = member_of(crew, account)
    if left == (member.left_at is not None):
        return member
    if left and member.role == Role.KEEPER:
        _refuse_the_last_keeper(member)
    _changed(member, left_at=timezone.now() if left else None)
    if left:
        end_all(account)
    return member


def _changed(member: Membership, **now: object) -> None:
    before = _told(member)
    for key, value in now.items():
        setattr(member, key, value)
    member.save()
    note(member.crew, "person", member.user_id, name_of(member.user), before, _told(member))


def _told(member: Membership) -> dict[str, str]:
    said = {"role": member.role, "site": member.site, "until": member.until, "left_at": member.left_at}
    return {key: str(value) for key, value in said.items() if value is not None}


def _refuse_the_last_keeper(member: Membership) -> None:
    others = members_of(member.crew).filter(role=Role.KEEPER, left_at=None).exclude(pk=member.pk)
    if not others.select_for_update().exists():
        raise Refused(("role", "a crew needs a keeper; make somebody else one first"), status=409)
