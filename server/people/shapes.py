"""What the routes of people take and give."""

from datetime import date, datetime
from typing import Annotated
from uuid import UUID

from ninja import Schema
from pydantic import Field

from crews.models import Role
from evenprobe.entries import Day
from evenprobe.entries.documented import Among

RoleWord = Annotated[str, Among(tuple(Role.values))]


class MemberOut(Schema):
    """`site`, `until`: of a guest. `seen_at`: when they last signed in."""

    account: int
    name: str
    username: str
    role: RoleWord
    site: UUID | None
    until: date | None
    joined_at: datetime
    left_at: datetime | None
    seen_at: datetime | None
    two_step: bool


class OneTimeLinkOut(Schema):
    """`key`: the secret part of its address. `for_password`: it sets a new password of somebody who is here already."""

    id: UUID
    name: str
    role: RoleWord
    for_password: bool
    made_at: datetime
    made_by: str
    ends_at: datetime
    key: str


class RoleOut(Schema):
    """`does`: what somebody of it does alone; `beside`: what only with a second person."""

    id: RoleWord
    does: str
    beside: str


class PeopleOut(Schema):
    members: list[MemberOut]
    links: list[OneTimeLinkOut]
    roles: list[RoleOut]


Account = Annotated[int, Field(ge=1, le=2**63 - 1)]
"""What a database counts accounts by."""


class RoleIn(Schema):
    role: RoleWord
    site: UUID | None = None
    until: Day | None = None


class OneTimeLinkIn(RoleIn):
    """To join, for whom and as what; or with `account` to set a new password, and nothing else."""

    name: str = Field("", max_length=200)
    role: RoleWord = Role.ELECTRICIAN.value
    account: Account | None = None


class LeftIn(Schema):
    left: bool


class LinkShown(Schema):
    """What a link opens, to whoever has it. `username`: of whoever forgot their password."""

    crew: str
    name: str
    role: RoleWord
    for_password: bool
    username: str
    ends_at: datetime


class ComingIn(Schema):
    """`username`, `name`: of somebody who joins; a new password alone needs neither."""

    username: str = Field("", max_length=150)
    name: str = Field("", max_length=200)
    password: str = Field(max_length=1000)
