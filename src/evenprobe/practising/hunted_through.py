"""A hunt as the program would go through it: the look that is offered next, until one thing is left."""

from dataclasses import dataclass

from evenprobe.practising.case import Case
from evenprobe.practising.hunted import Ahead, Hunted, Seen

_MOST_LOOKS = 60


@dataclass(frozen=True)
class LookTaken:
    """One look and what it did. `at_s`: when it was told; `struck_out`: ids of what could be at fault before it."""

    ahead: Ahead
    seen: Seen
    at_s: float
    struck_out: tuple[str, ...]


@dataclass(frozen=True)
class HuntedThrough:
    """`stands`: ids of what is left at the end."""

    case: Case
    hunted: Hunted
    looks: tuple[LookTaken, ...]
    stands: frozenset[str]

    @property
    def solved(self) -> bool:
        """Whether it is found."""
        return self.stands == {self.hunted.truth}

    @property
    def seconds(self) -> float:
        """What it took."""
        return self.looks[-1].at_s if self.looks else 0.0

    @property
    def in_time(self) -> bool:
        return self.solved and self.seconds <= 60 * self.case.minutes


def hunt_through(case: Case) -> HuntedThrough:
    """The hunt of a case from its first look to its last.

    Parameters
    ----------
    case : Case
        One in which something is hunted.

    Returns
    -------
    HuntedThrough
        The same each time.

    Raises
    ------
    ValueError
        Where nothing is hunted in it.

    Examples
    --------
    >>> from evenprobe.formats.case import shipped
    >>> through = hunt_through(shipped()["loom-will-not-start"].case())
    >>> through.solved, through.in_time
    (True, True)
    """
    if case.hunted is None:
        raise ValueError("nothing is hunted in this case")
    looks = looks_as_planned(case.hunted)
    return HuntedThrough(case, case.hunted, looks, case.hunted.came([look.seen for look in looks]).left)


def looks_as_planned(hunted: Hunted) -> tuple[LookTaken, ...]:
    """Each look that is offered next, and what was really seen there, until nothing more tells."""
    seen: list[Seen] = []
    looks: list[LookTaken] = []
    at_s, came = 0.0, hunted.came([])
    while came.ahead is not None and len(looks) < _MOST_LOOKS:
        look = hunted.look(came.ahead)
        at_s += 60 * hunted.minutes(seen, look)
        seen.append(look)
        after = hunted.came(seen)
        struck = tuple(name for name in hunted.suspects if name in came.left - after.left)
        looks.append(LookTaken(came.ahead, look, at_s, struck))
        came = after
    return tuple(looks)
