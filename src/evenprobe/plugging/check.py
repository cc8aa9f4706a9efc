"""One thing an outlet must have for what is plugged in, and whether it does."""

from dataclasses import dataclass
from enum import StrEnum

from evenprobe.limits import Limit
from evenprobe.quantities import Measurement


class Result(StrEnum):
    """`NOTE` is worth saying and stops nobody."""

    YES = "yes"
    NOTE = "note"
    OPEN = "open"
    NO = "no"


@dataclass(frozen=True)
class Check:
    """`take`: the reading that would decide it, where one would."""

    id: str
    title: str
    result: Result
    text: str
    limit: Limit | None = None
    take: Measurement | None = None
