"""Whose work a request is about."""

from django.contrib.auth.models import AbstractBaseUser, AnonymousUser, User
from django.http import HttpRequest

from base.problems import Refused
from crews.models import Crew, Membership

Author = AbstractBaseUser | AnonymousUser


def person_of(author: Author) -> User | None:
    return author if isinstance(author, User) else None


def name_of(author: Author) -> str:
    """As it stands on the record."""
    person = person_of(author)
    return (person.get_full_name() or person.get_username()) if person else ""


def crew_of(request: HttpRequest) -> Crew:
    """The crew of the signed-in person. Raises Refused for someone in no crew."""
    return crew_of_user(request.user)


def crew_of_user(user: AbstractBaseUser | AnonymousUser) -> Crew:
    membership: Membership | None = getattr(user, "membership", None)
    if membership is None:
        raise Refused(("", "you are in no crew yet; ask whoever runs this server to add you"), status=403)
    return membership.crew
