"""Every sentence that practice says: of a danger, a hint, a conclusion."""

from evenprobe.practising.acts import Danger, Doing
from evenprobe.sentences import Sentences

DANGERS = Sentences(
    {
        Danger.BLOWN: (
            "The circuit was live, and {tester} on a range with a source of its own. Its fuse is blown. "
            "Switch off, lock and prove dead before any dead test."
        ),
        Danger.LIFTED_LIVE: (
            "The neutral was taken off its bar with the circuit live: what was on it may stand at line voltage. "
            "Switch off and lock first."
        ),
        Danger.ONTO_FAULT: (
            "You closed it onto the fault: it tripped again, and every closing burns what is joined. "
            "Find it dead; never reset a device to find out."
        ),
        Danger.LIVE_LOCK: "A lock was put on a device that was on. A lock holds what is off.",
        Danger.TOUCHED_LIVE: "You touched it live. Outside, this is where it ends.",
        Danger.TOUCHED_UNPROVED: (
            "You touched it before it was proved dead. It was dead this time; nobody knew. "
            "Off, locked, tester proved, every pair tested, tester proved again: then hands."
        ),
    }
)

SLIPS = Sentences(
    {
        Danger.BLOWN: "ohms on a live circuit",
        Danger.LIFTED_LIVE: "the neutral off its bar, live",
        Danger.ONTO_FAULT: "closed onto a fault",
        Danger.LIVE_LOCK: "a lock on what was on",
        Danger.TOUCHED_LIVE: "touched live",
        Danger.TOUCHED_UNPROVED: "touched before it was proved dead",
        "written-otherwise": "written down otherwise than it was",
        "guessed": "concluded by a guess",
        "wrong": "concluded what it was not",
    }
)
"""What one learns not to do, by a danger, by what was recorded and by what a conclusion was worth."""

HINTS = Sentences(
    {
        "first": "Nothing that counts is measured yet. Which voltages does every outlet of this kind owe you?",
        "which": "Open is whether it is this: {one}; or this: {other}. What would they show differently?",
        "one-left": "Only one thing fits what you read: {one}. Is that enough to conclude?",
        "contradiction": "No single fault explains all your readings. Which one would you take again?",
        "decides": "The reading that decides: {what}, with {tester}.",
        "nothing-decides": "With what is at hand no further reading tells more apart.",
        "why": "Why: {why}",
        "where-it-can-be": "It can still be in {count} places. Where would one look part them most evenly?",
        "one-place-left": "Only one place is left: {one}. Is that enough to conclude?",
        "no-place-left": "No place fits all you told. Which of it would you look at again?",
        "at-an-outlet": "Nothing settles {one} yet. {said}",
        "all-settled": "Your readings settle every outlet. Which of them are right?",
        "look-next": "The look that decides most: {what}.",
    }
)

CONCLUSIONS = Sentences(
    {
        "followed": "It is {truth}. Your readings leave nothing else that matters: the conclusion followed from them.",
        "guessed": "It is {truth}, and you named it. But your readings still allow {other}: that was a guess.",
        "left-open": "It is {truth}. Your readings leave more open than was needed: {other}.",
        "wrong": "It is {truth}. Nothing you read rules that out.",
        "ended": "It was {truth}.",
        "found": "The fault is here: {truth}. Your looks leave nothing else: the conclusion followed from them.",
        "found-guessed": "The fault is here: {truth}. But your looks still allow {other}: that was a guess.",
        "found-left-open": "The fault is here: {truth}. Your looks leave more open than was needed: {other}.",
        "found-wrong": "The fault is here: {truth}. Nothing you saw rules that out.",
        "found-ended": "The fault was here: {truth}.",
        "round-followed": "Not right: {wrong}. Your readings settle every outlet: the conclusion followed from them.",
        "round-guessed": "Not right: {wrong}, and you named them. But nothing settled {open}: that was a guess.",
        "round-left-open": "Not right: {wrong}. You left more under suspicion: {more}.",
        "round-wrong": "Not right: {wrong}. You let {missed} pass.",
        "round-ended": "Not right were: {wrong}.",
        "dead": "It is dead, and you proved it before your hands were on it.",
        "dead-twice-fed": "It is dead, and you proved it before your hands were on it, {feed} too.",
        "still-fed": "It was also fed by {feed}. Off is only what is proved dead.",
        "not-proved": "Its own device was all that fed it. Nobody knew before it was proved dead.",
    }
)

_DONE = Sentences(
    {
        Doing.OFF: "Switched the circuit off.",
        Doing.ON: "Switched the circuit on.",
        Doing.LOCKED: "Locked its device.",
        Doing.UNLOCKED: "Took the lock off its device.",
        Doing.LOOKED: "Looked for what else feeds it.",
        Doing.FEED_OFF: "Switched the other feed off.",
        Doing.FEED_ON: "Switched the other feed on.",
        Doing.FEED_LOCKED: "Locked the other feed.",
        Doing.FEED_UNLOCKED: "Took the lock off the other feed.",
        Doing.OPENED: "Opened {box}.",
        Doing.TOUCHED: "Put hands on the conductors.",
        Doing.HINT: "Took a hint.",
        Doing.SHOWN: "Asked for what the readings allow.",
    }
)
"""What is told of somebody's way through a case, beside its readings."""


def done_said(doing: Doing, box: str = "") -> str:
    """What was done, in words.

    Parameters
    ----------
    doing : Doing
    box : str
        That was opened.

    Returns
    -------
    str
        Empty for a step of thought.

    Examples
    --------
    >>> done_said(Doing.LOOKED), done_said(Doing.RULED_OUT)
    ('Looked for what else feeds it.', '')
    """
    return str(_DONE.say(doing, box=box)) if doing in _DONE.words else ""
