"""A case as it is solved by what the program would do next, whatever sort of case it is."""

from evenprobe.practising.case import Case
from evenprobe.practising.made_dead import MadeDead, make_dead
from evenprobe.practising.played import Played, play


def as_planned(case: Case) -> Played | MadeDead:
    """By the readings that are offered first, or by the steps of the proof where it is to be made dead.

    Parameters
    ----------
    case : Case

    Returns
    -------
    Played or MadeDead
        The same each time.

    Examples
    --------
    >>> from evenprobe.formats.case import shipped
    >>> as_planned(shipped()["two-ways-in"].case()).solved
    True
    """
    return make_dead(case) if case.to_be_made_dead else play(case)
