"""One-time links: made by a keeper, handed over by whatever way there is, good for 48 hours and once.

A link is its id and a signature of the server's own, so that nobody guesses one and nothing secret is kept.
"""

from datetime import date, timedelta
from uuid import UUID

from django.contrib.auth.models import User
from django.contrib.auth.validators import UnicodeUsernameValidator
from django.core.exceptions import ValidationError
from django.core.signing import BadSignature, Signer
from django.db import IntegrityError, transaction
from django.utils import timezone

from base.problems import NotFoundHere, Refused
from crews.models import Crew, Membership
from crews.passwords import refuse_weak
from crews.services import Author, name_of
from crews.sessions import end_all
from people.members import member_of, role_wanted
from people.models import OneTimeLink

GOOD_FOR = timedelta(hours=48)
_LONGEST = 120
_signer = Signer(salt="one-time link")


@transaction.atomic
def make(
    crew: Crew, author: Author, link_id: UUID, name: str, role: str, site: UUID | None, until: date | None
) -> OneTimeLink:
    """For somebody who is to join. The same id again is the same link."""
    name = _name(name)
    role_wanted(crew, role, site, until)
    return _made(crew, author, link_id, name=name, role=role, site=site, until=until)


@transaction.atomic
def make_for_password(crew: Crew, author: Author, link_id: UUID, account: int) -> OneTimeLink:
    """For somebody who has forgotten theirs. The same id again is the same link."""
    member = member_of(crew, account)
    if member.left_at is not None:
        raise Refused(("account", "they have left; bring them back first"))
    return _made(crew, author, link_id, name=name_of(member.user), role=member.role, account=member.user)


def _made(crew: Crew, author: Author, link_id: UUID, **about: object) -> OneTimeLink:
    existing = OneTimeLink.objects.filter(id=link_id).first()
    if existing is not None:
        if existing.crew_id != crew.id or any(getattr(existing, key) != value for key, value in about.items()):
            raise Refused(("id", "this id already belongs to another link"), status=409)
        return existing
    now = timezone.now()
    return OneTimeLink.objects.create(
        id=link_id, crew=crew, made_at=now, ends_at=now + GOOD_FOR, made_by_name=name_of(author), **about
    )


@transaction.atomic
def withdraw(crew: Crew, link_id: UUID) -> OneTimeLink:
    """Nobody comes in by it any more. The same again changes nothing."""
    link = OneTimeLink.objects.filter(crew=crew, id=link_id).first()
    if link is None:
        raise NotFoundHere("link")
    if link.withdrawn_at is None and link.used_at is None:
        link.withdrawn_at = timezone.now()
        link.save()
    return link


def key_of(link: OneTimeLink) -> str:
    """What of a link is secret."""
    return _signer.sign(link.id.hex)


def link_by(key: str) -> OneTimeLink:
    """Raises Refused for a key that opens nothing, or no more: which of the two is said to whoever has a real one."""
    try:
        link = OneTimeLink.objects.select_related("crew", "account").filter(id=UUID(_signer.unsign(key))).first()
    except (BadSignature, ValueError):
        link = None
    if link is None:
        raise Refused(("", "this link opens nothing; ask for another"), status=404)
    if link.used_at is not None:
        raise Refused(("", "this link was used already; sign in, or ask for another"), status=409)
    if not link.is_open(timezone.now()):
        raise Refused(("", "this link has ended; ask for another"), status=409)
    return link


def use(key: str, username: str, name: str, password: str) -> User:
    """Come in by a link: a new account in the crew, or a new password. Raises Refused; the link is good still then."""
    link = link_by(key)
    person = link.account or User(username=_username(username))
    if link.account is None:
        person.first_name, person.last_name = _split(_name(name))
    refuse_weak(password, person)
    person.set_password(password)
    try:
        with transaction.atomic():
            if not OneTimeLink.objects.filter(id=link.id, used_at=None).update(used_at=timezone.now()):
                raise Refused(("", "this link was used already; sign in, or ask for another"), status=409)
            person.save()
            if link.account is None:
                Membership.objects.create(user=person, crew=link.crew, role=link.role, site=link.site, until=link.until)
            else:
                end_all(person.pk)
    except IntegrityError:
        raise Refused(("username", "somebody has this name already; take another")) from None
    return User.objects.select_related("membership__crew").get(pk=person.pk)


def _username(given: str) -> str:
    given = given.strip()
    try:
        UnicodeUsernameValidator()(given)
    except ValidationError:
        raise Refused(("username", "letters, digits and @ . + - _ only, with no space")) from None
    if len(given) > _LONGEST:
        raise Refused(("username", f"is longer than {_LONGEST} characters"))
    if User.objects.filter(username__iexact=given).exists():
        raise Refused(("username", "somebody has this name already; take another"))
    return given


def _name(given: str) -> str:
    given = " ".join(given.split())
    if not given:
        raise Refused(("name", "needs a name, as it is to stand on the record"))
    if len(given) > _LONGEST:
        raise Refused(("name", f"is longer than {_LONGEST} characters"))
    return given


def _split(name: str) -> tuple[str, str]:
    """As an account keeps it."""
    first, _, last = name.partition(" ")
    return first, last
