"""Whose work a request is about."""

from typing import Any

from django.contrib.auth.models import AbstractBaseUser, AnonymousUser, User
from django.db.models import QuerySet
from django.http import HttpRequest
from django.utils import timezone

from base.problems import Refused
from crews.models import Crew, Membership, Role
from crews.rights import Act, may, refusal

Author = AbstractBaseUser | AnonymousUser


def person_of(author: Author) -> User | None:
    return author if isinstance(author, User) else None


def name_of(author: Author) -> str:
    """As it stands on the record."""
    person = person_of(author)
    return (person.get_full_name() or person.get_username()) if person else ""


def membership_of(author: Author) -> Membership:
    """Raises Refused for somebody in no crew, or not any more."""
    found: Membership | None = getattr(author, "membership", None)
    if found is None:
        raise Refused(("", "you are in no crew yet; ask whoever runs this server to add you"), status=403)
    if found.ended(timezone.localdate()):
        raise Refused(("", f"you are not in {found.crew} any more; a keeper of it can bring you back"), status=403)
    return found


def crew_of(request: HttpRequest) -> Crew:
    """The crew of the signed-in person. Raises Refused for someone in no crew."""
    return membership_of(request.user).crew


def at_own_site(request: HttpRequest, rows: QuerySet[Any], way: str) -> QuerySet[Any]:
    """Of a list of the crew's what somebody sees: a guest what is of their one site, `way` leads to it."""
    member = membership_of(request.user)
    return rows.filter(**{way: member.site}) if member.role == Role.GUEST else rows


def refuse_unless_may(author: Author, act: Act) -> None:
    """Raises Refused for somebody whose role may not do it."""
    if not may(membership_of(author).role, act):
        raise Refused(("", refusal(act)), status=403)
