"""A case as it is solved by what the program would do next, whatever sort of case it is."""

from evenprobe.practising.case import Case
from evenprobe.practising.hunted_through import HuntedThrough, hunt_through
from evenprobe.practising.made_dead import MadeDead, make_dead
from evenprobe.practising.played import Played, play


def as_planned(case: Case) -> Played | MadeDead | HuntedThrough:
    """By the readings that are offered first, the steps of the proof where it is to be made dead, or look by look.

    Parameters
    ----------
    case : Case

    Returns
    -------
    Played, MadeDead or HuntedThrough
        The same each time.

    Examples
    --------
    >>> from evenprobe.formats.case import shipped
    >>> as_planned(shipped()["two-ways-in"].case()).solved
    True
    """
    if case.hunted is not None:
        return hunt_through(case)
    return make_dead(case) if case.to_be_made_dead else play(case)
