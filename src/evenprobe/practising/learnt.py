"""What somebody has met in practice and mastered: what was hidden, testers that were used, slips that were made."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

_WITHOUT_IT = 3
"""Cases in a row without a slip, and it is mastered."""


@dataclass(frozen=True)
class Gone:
    """One case that was gone through: what it was about, the testers that were used, the slips made in it, by name."""

    about: str
    mastered: bool
    testers: frozenset[str] = frozenset()
    slips: frozenset[str] = frozenset()


@dataclass(frozen=True)
class Learnt:
    """Each by name, and whether it is mastered by now."""

    about: Mapping[str, bool] = field(default_factory=dict)
    testers: Mapping[str, bool] = field(default_factory=dict)
    slips: Mapping[str, bool] = field(default_factory=dict)


def learnt(cases: Sequence[Gone]) -> Learnt:
    """What was met and mastered.

    What a case was about, and a tester, are as well mastered as the last case was in which they were met; a slip, once
    the last few cases went without it.

    Parameters
    ----------
    cases : sequence of Gone
        In the order they were gone through.

    Returns
    -------
    Learnt
        In the order of the names.

    Examples
    --------
    >>> slipped = Gone("open neutral", False, slips=frozenset(["a guess"]))
    >>> found = learnt([slipped, Gone("open neutral", True), Gone("open earth", True), Gone("open line", False)])
    >>> found.about["open neutral"], found.about["open line"], found.slips
    (True, False, {'a guess': True})
    """
    about = {case.about: case.mastered for case in cases}
    testers = {tester: case.mastered for case in cases for tester in case.testers}
    last = {slip: number for number, case in enumerate(cases) for slip in case.slips}
    slips = {slip: len(cases) - 1 - number >= _WITHOUT_IT for slip, number in last.items()}
    return Learnt(*(dict(sorted(each.items())) for each in (about, testers, slips)))
