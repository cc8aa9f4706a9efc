"""What to do at the next place, step by step, by what is hunted."""

from collections.abc import Sequence

from evenprobe.hunting.findings import HuntState, Task
from evenprobe.practices import Practice

_DEAD = "Switch off, lock, and prove dead. Every load out."
_STEPS: dict[tuple[str, Task], tuple[str, ...]] = {
    ("short", Task.MEASURE): (
        _DEAD,
        "Take the outgoing conductors off the device and test {one} to {other} on them.",
    ),
    ("short", Task.OPEN): (
        _DEAD,
        "Open the box. Mark the feed pair and each onward pair, and take them apart.",
        "Test {one} to {other} on the feed side and on each onward side.",
    ),
    ("open", Task.PROBE): (
        "Live: one hand, a contact tester at the face or the screws. A detector only points.",
        "Measure {one} to {other} with a load in; where there is nothing, {one} to {earth} as well.",
    ),
    ("open", Task.OPEN): (
        "Switch off, lock, and prove dead before a hand goes in.",
        "Open the box and try its joints.",
    ),
    ("poor-joint", Task.MEASURE): (
        "A known load at the far end, the same all along.",
        "Live, one hand: measure {line} to {neutral}, {line} to {earth}, {neutral} to {earth}, and the amperes.",
    ),
    ("poor-joint", Task.OPEN): (
        "Load off, switch off, lock, and prove dead before a hand goes in.",
        "Open the box; look for heat and loose screws.",
    ),
}
_WHEN_FOUND = (
    "Isolated and proved dead: mend it.",
    "Test both sides again, then from the device on.",
    "Close every box. Energise once, and measure at the last point.",
)


def steps_at(kind: str, task: Task, practice: Practice, between: tuple[str, str]) -> Sequence[str]:
    """What to do there.

    Parameters
    ----------
    kind
        What is hunted, as a circuit file says it.
    task
        What is to be done there.
    practice
        Whose words are used.
    between
        Conductors the fault is between.

    Returns
    -------
    sequence of str
        In order.

    Examples
    --------
    >>> from evenprobe.practices import PRACTICES
    >>> steps_at("short", Task.MEASURE, PRACTICES["british"], ("L", "PE"))[1]
    'Take the outgoing conductors off the device and test L to E on them.'
    """
    letters = {"one": practice.letters[between[0]], "other": practice.letters[between[1]]}
    return [text.format(**practice.named, **letters) for text in _STEPS.get((kind, task), ())]


def said_of_task(task: Task, place: str) -> str:
    """What is to be done, in a few words.

    Parameters
    ----------
    task
        What it is.
    place
        Where, by name.

    Returns
    -------
    str
        Without a capital.

    Examples
    --------
    >>> said_of_task(Task.PROBE, "Box 3")
    'measure at Box 3'
    """
    return f"open {place}" if task is Task.OPEN else f"measure at {place}"


def steps_after(state: HuntState) -> Sequence[str]:
    """What is left to do where the hunt is over."""
    return _WHEN_FOUND if state is HuntState.FOUND else ()


_CHAIN = (
    "Live, one hand: the black probe stays on the return, the other goes from joint to joint.",
    "Hold the button, or let the machine ask, so that what should be closed is closed.",
)
_CHAIN_FOUND = (
    "Operate it while measuring: a limit or a button may only wait for something.",
    "Isolate, prove dead, mend or replace it. Measure the chain again before it runs.",
)
_MAP = (
    "Warn everybody: what is fed from this {board} goes off and on.",
    "Switch the ways as listed, then go round: live or dead at every {outlet}, with a plug-in lamp or a tester.",
)
_MAP_FOUND = (
    "Go through what is odd again, one way at a time.",
    "Fill the schedule and label the {board}. Before work, prove dead: a map only says where to begin.",
)


def chain_steps(state: HuntState, practice: Practice) -> Sequence[str]:
    """What to do along a control chain."""
    return [practice.in_words(text) for text in (_CHAIN if state is HuntState.HUNTING else _CHAIN_FOUND)]


def map_steps(state: HuntState, practice: Practice) -> Sequence[str]:
    """What to do to map a board."""
    return [practice.in_words(text) for text in (_MAP if state is HuntState.HUNTING else _MAP_FOUND)]
