"""Signing: a snapshot with a name to it, as the next link of the crew's chain. A retry is the same sign-off."""

from collections.abc import Mapping
from typing import Any
from uuid import UUID

from django.db import IntegrityError, transaction
from django.db.models import QuerySet
from django.utils import timezone

from base.problems import NotFoundHere, Refused
from crews.models import Crew
from crews.rights import Act
from crews.second import by_whom
from crews.services import Author, name_of, person_of
from evenprobe.formats.signed import NotTested, SignedContent
from evenprobe.signing import Link, canonical, digest, link_after
from kit.hands import Hands
from signoffs.asked import asked_of
from signoffs.models import SignOff
from signoffs.snapshot import Asked, snapshot

_SHORTEST_WHY = 3
_LONGEST_WHY = 400
_LONGEST_REMARKS = 2000


def sign_offs_of(crew: Crew) -> QuerySet[SignOff]:
    """The latest first."""
    return SignOff.objects.filter(crew=crew).select_related("site", "brought")


def sign_off_of(crew: Crew, sign_off_id: UUID) -> SignOff:
    found = sign_offs_of(crew).filter(id=sign_off_id).first()
    if found is None:
        raise NotFoundHere("sign-off")
    return found


def draft(crew: Crew, author: Author, what: str, of: UUID) -> SignedContent:
    """What would be signed now."""
    return snapshot(asked_of(crew, what, of), name_of(author), Hands(crew, timezone.now()))


def sign(
    crew: Crew,
    author: Author,
    sign_off_id: UUID,
    what: str,
    of: UUID,
    typed_name: str,
    whys: Mapping[str, str],
    remarks: str,
) -> SignOff:
    """Sign what is found now. `whys`: why each of what was not tested was not, by its id.

    The snapshot is made before anything is locked; the chain alone is looked at and written in one transaction.
    """
    existing = _there(crew, sign_off_id, what, of)
    if existing is not None:
        return existing
    by = by_whom(crew, author, Act.SIGN_OFF, sign_off_id)
    asked = asked_of(crew, what, of)
    found = snapshot(asked, by, Hands(crew, timezone.now()))
    signed = found.model_copy(
        update={
            "typed_name": _own_name(author, typed_name),
            "remarks": _remarks(remarks),
            "not_tested": _with_whys(found.not_tested, whys),
        }
    )
    content = signed.model_dump(mode="json", exclude_none=True)
    try:
        return _chained(crew, author, sign_off_id, asked, signed, content)
    except IntegrityError:
        meanwhile = _there(crew, sign_off_id, what, of)
        if meanwhile is not None:
            return meanwhile
        raise Refused(("", "somebody else of the crew signed at the same moment; sign again"), status=409) from None


def _there(crew: Crew, sign_off_id: UUID, what: str, of: UUID) -> SignOff | None:
    """The one of that id, where this is a retry. Raises Refused where it is of something else."""
    existing = SignOff.objects.filter(id=sign_off_id).first()
    if existing is not None and (existing.crew_id, existing.what, existing.of) != (crew.id, what, of):
        raise Refused(("id", "this id already belongs to another sign-off"), status=409)
    return existing


@transaction.atomic
def _chained(
    crew: Crew, author: Author, sign_off_id: UUID, asked: Asked, signed: SignedContent, content: dict[str, Any]
) -> SignOff:
    """As the next link of the crew's chain."""
    last = SignOff.objects.filter(crew=crew, brought=None).order_by("-number").first()
    link = link_after(last.link() if last else None, digest(content))
    return SignOff.objects.create(
        id=sign_off_id, crew=crew, site=asked.site, what=asked.what, of=asked.of, name=asked.name[:160],
        signed_at=signed.signed_at, number=link.number, content=canonical(content).decode(),
        content_sha256=link.content_sha256, link_sha256=link.link_sha256,
        by=person_of(author), by_name=signed.by,
    )  # fmt: skip


def file_of(sign_off: SignOff) -> dict[str, Any]:
    """The sign-off as a file, with the crew's chain up to it."""
    return {
        "format": "even-probe/sign-off",
        "version": 1,
        "chain": _chain_to(sign_off),
        "content": sign_off.said(),
    }


def _chain_to(sign_off: SignOff) -> list[dict[str, Any]]:
    """The crew's own up to it; of one that came from a file the chain it came with."""
    if sign_off.brought is None:
        own = SignOff.objects.filter(crew=sign_off.crew, brought=None, number__lte=sign_off.number).order_by("number")
        return [vars(Link(*row)) for row in own.values_list("number", "content_sha256", "link_sha256")]
    link = vars(sign_off.link())
    whole: list[dict[str, Any]] = next(chain for chain in sign_off.brought.chains if link in chain)
    return whole[: whole.index(link) + 1]


def _own_name(author: Author, typed: str) -> str:
    own, typed = name_of(author), " ".join(typed.split())
    if typed.casefold() != own.casefold():
        raise Refused(("typed_name", f"type your own name as it is on the record: {own}"))
    return typed


def _remarks(text: str) -> str:
    if len(text) > _LONGEST_REMARKS:
        raise Refused(("remarks", f"is longer than {_LONGEST_REMARKS} characters"))
    return text.strip()


def _with_whys(items: list[NotTested], whys: Mapping[str, str]) -> list[NotTested]:
    """Each with its reason. Raises Refused where one has none."""
    found = [item.model_copy(update={"why": (whys.get(item.id) or item.why).strip()}) for item in items]
    missing = [item for item in found if len(item.why) < _SHORTEST_WHY]
    if missing:
        raise Refused(*((f"whys.{item.id}", f"say why this was not tested: {item.what}") for item in missing[:20]))
    long = [item for item in found if len(item.why) > _LONGEST_WHY]
    if long:
        raise Refused(*((f"whys.{item.id}", f"is longer than {_LONGEST_WHY} characters") for item in long[:20]))
    return found
