"""What each role of a crew may do.

An apprentice records, and does what a life hangs on only with somebody beside them who may do it; a guest reads.
"""

from collections.abc import Mapping
from enum import StrEnum

from crews.models import Role


class Act(StrEnum):
    """What there is to do."""

    READ = "read"
    RECORD = "record"
    STATE_DEAD = "state-dead"
    ENERGISE = "energise"
    TAKE_OVER = "take-over"
    SIGN_OFF = "sign-off"
    RETIRE = "retire"
    RULES = "rules"
    PEOPLE = "people"


_RECORDS = frozenset({Act.READ, Act.RECORD})
_ANSWERS_FOR = _RECORDS | {Act.STATE_DEAD, Act.ENERGISE, Act.TAKE_OVER}

MAY: Mapping[Role, frozenset[Act]] = {
    Role.GUEST: frozenset({Act.READ}),
    Role.APPRENTICE: _RECORDS,
    Role.ELECTRICIAN: _ANSWERS_FOR,
    Role.KEEPER: frozenset(Act),
}
"""What each may do alone."""

SAYS: Mapping[Role, tuple[str, str]] = {
    Role.KEEPER: ("everything, including people, rules, taking out of use and signing off", ""),
    Role.ELECTRICIAN: ("everything but people, rules and taking out of use", "signs off"),
    Role.APPRENTICE: ("measures and records", "confirms dead, energises and signs off"),
    Role.GUEST: ("reads one site, until a day", ""),
}
"""What each does alone, and what only with a second person, as it is shown."""

_WITH_A_SECOND = frozenset({Act.STATE_DEAD, Act.ENERGISE, Act.SIGN_OFF})
"""What whoever may not do it alone does with a second person who may."""

_TITLES: Mapping[Act, str] = {
    Act.READ: "reads",
    Act.RECORD: "records",
    Act.STATE_DEAD: "confirms dead",
    Act.ENERGISE: "energises",
    Act.TAKE_OVER: "says that a tester is the crew's",
    Act.SIGN_OFF: "signs off",
    Act.RETIRE: "takes out of use",
    Act.RULES: "changes the crew's rules",
    Act.PEOPLE: "looks after the crew's people",
}


def may(role: str, act: Act) -> bool:
    """Whether somebody of this role may do it alone."""
    return act in MAY[Role(role)]


def needs_a_second(role: str, act: Act) -> bool:
    """Whether somebody of this role does it, but not alone."""
    return act in _WITH_A_SECOND and may(role, Act.RECORD) and not may(role, act)


def _who_may(act: Act) -> list[Role]:
    """The roles that may do it alone, the one that may most first."""
    return [role for role in Role if act in MAY[role]]


def refusal(act: Act) -> str:
    """Why somebody who may not do it is refused."""
    *others, last = (f"{'an' if role[0] in 'aeiou' else 'a'} {role}" for role in _who_may(act))
    who = f"{', '.join(others)} or {last}" if others else last
    return f"{who} {_TITLES[act]}; ask one of your crew"
