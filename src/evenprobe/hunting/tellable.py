"""What can be told of a place along a run, whatever the plan is: one may stand elsewhere than it says."""

from collections.abc import Callable, Sequence
from typing import NamedTuple

from evenprobe.hunting.evidence import Looked, Presence, Split
from evenprobe.hunting.findings import Seen, Task
from evenprobe.hunting.run import BOARD, Run


class Tellable(NamedTuple):
    """In words, and what was seen where it is told; `task`: what has to be done for it."""

    when: str
    task: Task
    seen: Seen


def tellable(kind: str, run: Run, at: str) -> Sequence[Tellable]:
    """What can be told in one tap.

    Parameters
    ----------
    kind
        What is hunted, as a circuit file says it.
    run
        The run.
    at
        A box, or the board.

    Returns
    -------
    sequence of Tellable
        Of a box with more than one cable onward, one each; nothing where only figures tell.

    Examples
    --------
    >>> from evenprobe.hunting.run import Box
    >>> run = Run([Box("p1", "board", 5.0), Box("p2", "p1", 20.0)])
    >>> [each.when for each in tellable("short", run, "p1")]
    ['feed side', 'onward side', 'in this box']
    >>> [each.when for each in tellable("open", run, "p2")]
    ['live', 'dead', 'in this box', 'not here']
    """
    return _TELLABLE[kind](run, at) if kind in _TELLABLE else ()


def _of_a_short(run: Run, at: str) -> Sequence[Tellable]:
    ahead = run.after[at]
    if at == BOARD:
        shows = Tellable("the joint shows", Task.MEASURE, Split(at, onward=True))
        return shows, Tellable("clear", Task.MEASURE, Split(at, onward=False))
    if len(ahead) < 2:
        onward = [Tellable("onward side", Task.OPEN, Split(at, feed=False, onward=True))] if ahead else []
        none: bool | dict[str, bool] = False
    else:
        none = dict.fromkeys(ahead, False)
        onward = [Tellable(f"towards {name}", Task.OPEN, Split(at, False, {**none, name: True})) for name in ahead]
    feed = Tellable("feed side", Task.OPEN, Split(at, feed=True, onward=none))
    return feed, *onward, Tellable("in this box", Task.OPEN, Split(at, feed=False, onward=none))


def _of_an_open(_run: Run, at: str) -> Sequence[Tellable]:
    faces = [Tellable(when, Task.PROBE, Presence(at, live)) for when, live in (("live", True), ("dead", False))]
    return [*faces, *([] if at == BOARD else _opened(at))]


def _of_a_poor_joint(_run: Run, at: str) -> Sequence[Tellable]:
    return [] if at == BOARD else _opened(at)


def _opened(at: str) -> list[Tellable]:
    return [
        Tellable("in this box", Task.OPEN, Looked(at, here=True)),
        Tellable("not here", Task.OPEN, Looked(at, here=False)),
    ]


_TELLABLE: dict[str, Callable[[Run, str], Sequence[Tellable]]] = {
    "short": _of_a_short,
    "open": _of_an_open,
    "poor-joint": _of_a_poor_joint,
}
