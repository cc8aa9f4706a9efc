"""What `verify` answers: whether a file is as it was signed, and whether this core says the same of its readings."""

from datetime import datetime

from evenprobe.formats.answers.answer import Answer


class ProblemOut(Answer):
    """`path`: in the file; empty where it is the whole."""

    path: str
    text: str


class JudgedAgainOut(Answer):
    """A verdict, result or state that comes out otherwise now."""

    id: str
    name: str
    signed: str
    now: str


class SignOffOut(Answer):
    """One sign-off of the file. `core`: what it was signed with; `judged`: how many were made again."""

    number: int
    of: str
    by: str
    signed_at: datetime
    link_sha256: str
    core: str
    same_core: bool
    judged: int
    differ: list[JudgedAgainOut]


class VerificationOut(Answer):
    """`sound`: nothing was changed and nothing is missing. `core`: the one that looked."""

    sound: bool
    core: str
    problems: list[ProblemOut]
    sign_offs: list[SignOffOut]
