"""A second person on the spot: what a life hangs on, an apprentice does only with somebody beside them.

The second types their own name and password on the apprentice's device, for this one act: its id is made before it
happens, so that the word is good for nothing else, and a retry is the same word.
"""

from datetime import timedelta
from uuid import UUID

from django.contrib.auth.models import User
from django.http import HttpRequest
from django.utils import timezone

from base.problems import Refused
from crews.models import Crew, SecondPerson
from crews.rights import Act, may, needs_a_second, refusal
from crews.services import Author, membership_of, name_of, person_of
from crews.signing_in import person_signing_in

GOOD_FOR = timedelta(minutes=10)


def give_word(request: HttpRequest, word_id: UUID, act: Act, username: str, password: str, code: str) -> SecondPerson:
    """The second person says they stand beside whoever is signed in. The same again changes nothing."""
    member = membership_of(request.user)
    if not needs_a_second(member.role, act):
        raise Refused(("act", "this needs no second person"))
    second = person_signing_in(request, username, password, code)
    theirs = membership_of(second)
    if theirs.crew_id != member.crew_id or second.pk == request.user.pk or not may(theirs.role, act):
        raise Refused(("username", f"the second person is another of your crew; {refusal(act)}"), status=403)
    found, _ = SecondPerson.objects.get_or_create(
        id=word_id,
        defaults={
            "crew": member.crew, "act": act, "beside": _person(request.user), "by": second, "by_name": name_of(second),
        },
    )  # fmt: skip
    if (found.act, found.beside_id) != (act, request.user.pk):
        raise Refused(("id", "this id already belongs to another act"), status=409)
    return found


def by_whom(crew: Crew, author: Author, act: Act, of: UUID) -> str:
    """How it is signed: by name, and by whom beside. Raises Refused where a second person is needed and is not there.

    `of`: the id of the event, the entry or the sign-off. Commands and the demo act as whoever they name.
    """
    person = person_of(author)
    if person is None or not needs_a_second(membership_of(person).role, act):
        return name_of(author)
    since = timezone.now() - GOOD_FOR
    second = SecondPerson.objects.filter(id=of, crew=crew, act=act, beside=person, at__gt=since).first()
    if second is None:
        raise Refused(("second", f"not alone: {refusal(act)}, and types name and password here"), status=403)
    return f"{name_of(author)} with {second.by_name}"


def _person(author: Author) -> User:
    assert isinstance(author, User)
    return author
