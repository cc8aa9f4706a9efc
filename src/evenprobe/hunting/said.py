"""What was seen along a run, in a few words."""

from collections.abc import Callable, Mapping

from evenprobe.hunting.evidence import Looked, Loop, Presence, Split
from evenprobe.hunting.poor_joints import Drop


def said_of(
    seen: Split | Loop | Presence | Looked | Drop, names: Mapping[str, str], letters: Mapping[str, str] | None = None
) -> str:
    """What was seen, without the place.

    Parameters
    ----------
    seen
        At a box or at the board.
    names
        Of boxes, by id.
    letters
        Of conductors, where they are called otherwise than `L`, `N` and `PE`.

    Returns
    -------
    str
        A few words.

    Examples
    --------
    >>> said_of(Split("p1", feed=False, onward=True), {})
    'feed side clear, shows onward'
    >>> said_of(Presence("p1", live=False), {})
    'dead'
    >>> said_of(Drop("p1", {"N-PE": 9.0}, 10.0), {}, {"PE": "G"})
    'N to G 9 V at 10 A'
    """
    match seen:
        case Split():
            return _split(seen, lambda name: names.get(name, name))
        case Loop():
            return f"{seen.ohm:g} Ω, leads {seen.null_ohm:g} Ω"
        case Presence():
            shown = f", {_volts(seen.volts, letters or {})}" if seen.volts else ""
            return f"{'live' if seen.live else 'dead'}{shown}"
        case Looked():
            return "it is here" if seen.here else "opened, not here"
        case Drop():
            return f"{_volts(seen.volts, letters or {})} at {seen.load_a:g} A"


def _volts(volts: Mapping[str, float], letters: Mapping[str, str]) -> str:
    return ", ".join(f"{_pair(pair, letters)} {shown:g} V" for pair, shown in volts.items())


def _pair(pair: str, letters: Mapping[str, str]) -> str:
    return " to ".join(letters.get(end, end) for end in pair.split("-"))


def _split(split: Split, called: Callable[[str], str]) -> str:
    parts = []
    if split.feed is not None:
        parts.append("shows on the feed side" if split.feed else "feed side clear")
    if isinstance(split.onward, Mapping):
        parts += [f"{'shows' if it else 'clear'} towards {called(name)}" for name, it in split.onward.items()]
    elif split.onward is not None:
        parts.append("shows onward" if split.onward else "onward clear")
    return ", ".join(parts)
