"""What the routes of signing in and of one's own account take and give."""

from datetime import date, datetime
from typing import Annotated, Any
from uuid import UUID

from ninja import Schema
from pydantic import Field

from crews.models import Role, SignInEvent
from crews.rights import MAY, Act, needs_a_second
from crews.services import membership_of, name_of
from evenprobe.entries.documented import Among

ActWord = Annotated[str, Among(tuple(Act))]
_LONGEST_PASSWORD = 1000


class Credentials(Schema):
    """`code`: of whoever signs in in two steps."""

    username: str = Field(max_length=150)
    password: str = Field(max_length=_LONGEST_PASSWORD)
    code: str = Field("", max_length=40)


class Session(Schema):
    """`account`: the person's own number, for two of a crew may have one name.

    `may`: what their role does alone. `beside`: what it does only with a second person. `site`, `until`: of a guest.
    """

    account: int
    name: str
    crew: str
    role: Annotated[str, Among(tuple(Role.values))]
    may: list[ActWord]
    beside: list[ActWord]
    site: UUID | None
    until: date | None

    @classmethod
    def of(cls, user: Any) -> "Session":
        """Raises Refused for somebody in no crew."""
        member = membership_of(user)
        role = Role(member.role)
        return cls(
            account=user.pk, name=name_of(user), crew=member.crew.name, role=role, site=member.site,
            until=member.until, may=[act for act in Act if act in MAY[role]],
            beside=[act for act in Act if needs_a_second(role, act)],
        )  # fmt: skip


class DeviceOut(Schema):
    """Somewhere one is signed in. `here`: the device that asks."""

    id: str
    device: str
    address: str
    since: datetime | None
    seen: datetime | None
    here: bool


class SignInLine(Schema):
    what: Annotated[str, Among(tuple(SignInEvent.What.values))]
    at: datetime
    address: str
    device: str


class OwnOut(Schema):
    """One's own account. `log`: the latest first."""

    name: str
    username: str
    two_step: bool
    devices: list[DeviceOut]
    log: list[SignInLine]


class PasswordIn(Schema):
    """`old`: the one that is good now."""

    old: str = Field(max_length=_LONGEST_PASSWORD)
    new: str = Field(max_length=_LONGEST_PASSWORD)


class TwoStepOut(Schema):
    """`picture`: the same as `secret` for a phone's camera, as an address that holds it."""

    secret: str
    picture: str


class CodeIn(Schema):
    code: str = Field(max_length=40)


class PaperOut(Schema):
    """Codes to keep on paper, shown this once; each is good once."""

    codes: list[str]


class OffIn(Schema):
    password: str = Field(max_length=_LONGEST_PASSWORD)


class SecondIn(Credentials):
    """A second person's own name and password, for one act of whoever is signed in."""

    act: ActWord


class SecondOut(Schema):
    by: str
