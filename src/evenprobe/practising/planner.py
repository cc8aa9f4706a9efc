"""A case as it is solved by what the program would do next, whatever sort of case it is."""

from evenprobe.practising.case import Case
from evenprobe.practising.gone_round import GoneRound, go_round
from evenprobe.practising.hunted_through import HuntedThrough, hunt_through
from evenprobe.practising.made_dead import MadeDead, make_dead
from evenprobe.practising.played import Played, play


def as_planned(case: Case) -> Played | MadeDead | HuntedThrough | GoneRound:
    """By the readings that are offered first, at each outlet of a round; by the steps of a proof; or look by look.

    Parameters
    ----------
    case : Case

    Returns
    -------
    Played, MadeDead, HuntedThrough or GoneRound
        The same each time.

    Examples
    --------
    >>> from evenprobe.formats.case import shipped
    >>> as_planned(shipped()["two-ways-in"].case()).solved
    True
    """
    if case.hunted is not None:
        return hunt_through(case)
    if case.outlets:
        return go_round(case)
    return make_dead(case) if case.to_be_made_dead else play(case)
