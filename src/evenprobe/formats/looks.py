"""A look along what is hunted in words: where it was, and what was seen there."""

from evenprobe.hunting.chains import FEED, Volts
from evenprobe.hunting.evidence import Looked, Split
from evenprobe.hunting.run import BOARD
from evenprobe.hunting.said import said_of
from evenprobe.hunting.steps import said_of_task
from evenprobe.practices import Practice
from evenprobe.practising.hunted import Ahead, Hunted, HuntedChain, Seen


def ahead_said(hunted: Hunted, ahead: Ahead, practice: Practice) -> str:
    """Where one would look next.

    Examples
    --------
    >>> from evenprobe.formats.case import shipped
    >>> from evenprobe.practices import CONTINENTAL
    >>> loom = shipped()["loom-will-not-start"].case().hunted
    >>> ahead_said(loom, loom.came([]).ahead, CONTINENTAL)
    'measure after warp stop'
    """
    place = _place(ahead.at, practice)
    return f"measure after {place}" if isinstance(hunted, HuntedChain) else said_of_task(ahead.task, place)


def look_said(seen: Seen, practice: Practice) -> tuple[str, str]:
    """Where a look was, and what was seen.

    Examples
    --------
    >>> from evenprobe.hunting.evidence import Presence
    >>> from evenprobe.practices import BRITISH
    >>> look_said(Presence("stage socket", False), BRITISH), look_said(Volts("stop", 0.4), BRITISH)
    (('At stage socket', 'dead'), ('After stop', '0.4 V'))
    """
    if isinstance(seen, Volts):
        return f"After {_place(seen.after, practice)}", f"{seen.volts:g} V"
    place = _place(seen.at, practice)
    match seen:
        case Looked(_, here):
            return f"Opened {place}", "it is here" if here else "not here"
        case Split(at) if at != BOARD:
            return f"Opened {place}", said_of(seen, {}, practice.letters)
    return f"At {place}", said_of(seen, {}, practice.letters)


def _place(name: str, practice: Practice) -> str:
    return {BOARD: f"the {practice.named['board']}", FEED: "the feed"}.get(name, name)
