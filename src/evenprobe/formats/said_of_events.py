"""What happened to a proof of isolation, an event in a few words."""

from collections.abc import Callable, Mapping

from evenprobe.formats.isolation import EventEntry
from evenprobe.isolation import EventType
from evenprobe.practices import Practice

Names = Mapping[str, str]


def event_said(event: EventEntry, practice: Practice, sources: Names) -> str:
    """An event in words.

    Parameters
    ----------
    event : EventEntry
        As the log has it.
    practice : Practice
        Whose letters are on the contacts.
    sources : mapping of str to str
        What each source is called, by its id.

    Returns
    -------
    str
        A few words.

    Examples
    --------
    >>> from evenprobe.entries import parse
    >>> from evenprobe.practices import BRITISH
    >>> off = {"at": "2026-11-24T09:00:00+00:00", "type": "off", "source": "s1"}
    >>> event_said(parse(EventEntry, off), BRITISH, {"s1": "board W, way 3"})
    'board W, way 3: off'
    """
    source = event.label or sources.get(event.source or "", event.source or "every source")
    return _WORDS[event.type](event, practice, source)


def _shown(event: EventEntry) -> str:
    if event.shows_v is not None:
        return f"{event.shows_v:g} {event.unit or 'V'}"
    if event.at_least is not None:
        return f"{event.at_least:g} V lit"
    return "no lamp lit" if event.below is not None else ""


def _proved(event: EventEntry, _: Practice, __: str) -> str:
    on = (event.against or "known source").replace("-", " ")
    return ", ".join(filter(None, (f"Proved on {on}", _shown(event))))


def _tested(event: EventEntry, practice: Practice, _: str) -> str:
    how = ("low impedance" if event.input == "low-z" else "", "DC" if event.mode == "dc" else "")
    return ", ".join(filter(None, (f"{practice.between(event.from_, event.to, word='to')}: {_shown(event)}", *how)))


def _locked(event: EventEntry, _: Practice, source: str) -> str:
    return f"{source}: locked{f', {event.lock}' if event.lock else ''}"


def _handed_over(event: EventEntry, _: Practice, __: str) -> str:
    return f"Handed over to {event.note}" if event.note else "Handed over"


def _words(words: str) -> Callable[[EventEntry, Practice, str], str]:
    return lambda _event, _practice, source: words.format(source=source)


_WORDS: Mapping[EventType, Callable[[EventEntry, Practice, str], str]] = {
    EventType.OFF: _words("{source}: off"),
    EventType.LOCKED: _locked,
    EventType.UNLOCKED: _words("{source}: lock removed"),
    EventType.RE_ENERGISED: _words("{source}: on again"),
    EventType.SOURCE_FOUND: _words("Source found: {source}"),
    EventType.PROVED: _proved,
    EventType.PROVE_FAILED: _words("The tester failed its proof"),
    EventType.TESTED: _tested,
    EventType.SCREENED: lambda event, _, __: "Screened: alarm" if event.alarm else "Screened: silent",
    EventType.STATED: _words("Confirmed dead"),
    EventType.LEFT: _words("Left"),
    EventType.RETURNED: _words("Here"),
    EventType.HANDED_OVER: _handed_over,
    EventType.CLOSED: _words("Closed"),
}
