"""How a reading of a quantity is written down: which ends it has, what is seen of it, and in which units."""

from dataclasses import dataclass
from typing import Literal

Ends = Literal["none", "one", "two", "line to earth"]
Seen = Literal["number", "yes or no", "lamps"]
Need = Literal["test current", "one line", "three lines", "low impedance", "residual device"]


@dataclass(frozen=True, kw_only=True)
class Written:
    """How a reading of a quantity is written down.

    Parameters
    ----------
    ends
        Points it is between: `one` may have a second, `none` may have any.
    seen
        What a person writes down of it.
    units
        What its number may be given in, the first where nothing is said.
    called
        What it is called where its number is refused.
    at_board
        Whether an end may be the far end of a conductor, at the board.
    signed_direct
        Whether it may be negative on a DC range.
    over_range
        Whether a display may show only that it is more than its range.
    most_si
        The most any tester shows, in SI units.
    extremes
        Whether what it fell and rose to, how often the conductor goes through and whether it lasts belong to it.
    walked
        Whether it may be taken at several places along a walk instead.
    device_open
        Whether the circuit's device is open where nobody says so.
    device
        Whether the circuit's device may be said to be open or closed.
    neutral_lifted
        Whether the neutral may be off its bar.
    joins
        Whether the two conductors may be joined at the board.
    load
        Whether a known load may be on.
    unplugged
        Whether it may be said that everything is unplugged meanwhile.
    timed
        Whether how long it took belongs to it.
    reference
        Whether it may be said which reference earth a probe was on.
    """

    ends: Ends
    seen: Seen = "number"
    units: tuple[str, ...] = ()
    called: str = ""
    at_board: bool = False
    signed_direct: bool = False
    over_range: bool = False
    most_si: float | None = None
    extremes: bool = False
    walked: bool = False
    device_open: bool = False
    device: bool = False
    neutral_lifted: bool = False
    joins: bool = False
    load: bool = False
    unplugged: bool = False
    timed: bool = False
    reference: bool = False


@dataclass(frozen=True, kw_only=True)
class Function:
    """What a person sets a tester to, to take a quantity.

    Parameters
    ----------
    id, name
        As the front end keeps it, and as it is shown.
    probes
        Where it is put: on two contacts, at one place, or on none in particular.
    entered
        How it is put in: a number, one of a few answers, lamps, steps, or a walk.
    answers
        The answers to pick from, by what is written down: (value, label).
    fixes
        What it sets in the entry, such as the mode or the input.
    needs
        What the tester or the point must have.
    on_a_wire
        Whether a meter with a link can show it by itself.
    at_the_board
        Whether its probes are on conductors where they leave the board.
    may_reach_the_board
        Whether one of its probes may be there.
    hint, hint_at
        What to do, where it is put to two contacts by nothing; and once it has a place, `{at}`.
    """

    id: str
    name: str
    probes: Literal["two", "one", "none"] = "two"
    entered: Literal["number", "pick", "lamps", "steps", "walk"] = "number"
    answers: tuple[tuple[bool, str], ...] = ()
    fixes: tuple[tuple[str, str], ...] = ()
    needs: tuple[Need, ...] = ()
    on_a_wire: bool = False
    at_the_board: bool = False
    may_reach_the_board: bool = True
    hint: str = ""
    hint_at: str = ""
