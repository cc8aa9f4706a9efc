"""What a national practice of the trade is: its words, colours and outlets, its usual circuits, its limits' figures."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

from evenprobe.practices.lengths import LengthUnit
from evenprobe.registry import Listed, Registry
from evenprobe.supplies.systems import SYSTEMS, SupplySystem

WITH_BOARD_END = ("L", "L1", "L2", "L3", "N", "PE")
"""Terminals whose conductor's other end, at the board, has a name of its own."""

ContactShape = Literal["slot", "tall-slot", "round", "wide-round", "arch", "bar"]


@dataclass(frozen=True)
class FaceContact:
    """A contact of an outlet as the person in front of it sees it, in a picture 300 wide and 340 high.

    `letter_below`: others are beside it, so its letter stands under it.
    """

    x: float
    y: float
    shape: ContactShape
    letter_below: bool = False


@dataclass(frozen=True)
class Face:
    """An outlet's face: its plate, and its contacts by terminal."""

    plate: Literal["plate", "disc", "round"]
    contacts: Mapping[str, FaceContact]


@dataclass(frozen=True)
class Contacts:
    """The contacts an outlet or a box may have, and what people call them."""

    name: str
    terminals: tuple[str, ...]


@dataclass(frozen=True)
class Shares:
    """A lowest and a highest value as shares of nominal."""

    low: float
    high: float


@dataclass(frozen=True)
class Sourced:
    """A share of nominal and where it comes from."""

    share: float
    source: str


@dataclass(frozen=True, kw_only=True, eq=False, repr=False)
class Practice(Listed):
    """A national practice.

    Parameters
    ----------
    id, rank, name
        As files write it, where it stands in lists, and as it is shown.
    language
        The language tag that dates, times and numbers are written by (BCP 47).
    words
        The code's terms in the practice's words.
    letters
        What is written on a contact; the far end of a conductor is the same letter, at the board.
    conductor_colours
        Insulation colour of a fixed conductor, by name.
    outlets
        Faces of its usual outlets, by their terminals in order, as `L N PE`.
    round_outlet_has
        What the contacts are where several lie on a circle: bars, or round pins.
    polarised_plugs
        Whether a plug of one line goes in one way only.
    supplies
        Ids of the supply systems it has.
    usual_rating_a
        Rating of the largest usual device of a socket circuit, where nobody recorded one.
    final_ohm_per_m
        Resistance of the conductors a final circuit may have, at 20 °C: least and most.
    earth_size_ratio
        Resistance of the protective conductor of a final circuit over that of its line conductor: least and most.
    conductor_unit
        What conductors are sized in.
    length_unit
        What lengths of cable are written in.
    ring_circuits
        Whether socket circuits may be rings.
    paper
        What it is printed on.
    dead_kinds
        Kinds of tester accepted to prove dead.
    voltage, tolerable_voltage, voltage_source
        The band at the point of use, a wider one that is worth a note where there is one, and where both come from.
    drop
        Volts lost along a branch at full load.
    leg_match_percent
        By how much two lines to neutral may differ.
    continuous_load
        How much of its device's rating a load of three hours and more may take, where that is less than all of it.
    """

    listed_as = "practice"

    id: str
    rank: int
    name: str
    language: str
    words: Mapping[str, str]
    letters: Mapping[str, str]
    conductor_colours: Mapping[str, str]
    outlets: Mapping[str, Face]
    round_outlet_has: Literal["bars", "pins"]
    polarised_plugs: bool
    supplies: tuple[str, ...]
    usual_rating_a: float
    final_ohm_per_m: tuple[float, float]
    earth_size_ratio: tuple[float, float]
    conductor_unit: Literal["AWG", "mm2"]
    length_unit: LengthUnit
    dead_kinds: tuple[str, ...]
    voltage: Shares
    voltage_source: str
    drop: Sourced
    leg_match_percent: float
    tolerable_voltage: Shares | None = None
    ring_circuits: bool = False
    paper: Literal["a4", "us-letter"] = "a4"
    continuous_load: Sourced = field(default=Sourced(1.0, "the device's rating"))

    @property
    def systems(self) -> tuple[SupplySystem, ...]:
        """The supply systems it has."""
        return tuple(system for system in SYSTEMS.values() if system.id in self.supplies)

    def contacts_on(self, system: SupplySystem) -> tuple[Contacts, ...]:
        """The contacts an outlet or a box may have on a supply, those with the fewest lines first.

        Parameters
        ----------
        system : SupplySystem
            One of its own.

        Examples
        --------
        >>> from evenprobe.practices import NORTH_AMERICA
        >>> from evenprobe.supplies import SYSTEMS
        >>> [contacts.name for contacts in NORTH_AMERICA.contacts_on(SYSTEMS["120"])]
        ['Hot, neutral, ground', 'Hot, neutral, ground and metal enclosure']
        """
        line, neutral, earth = (self.words[word] for word in ("line", "N", "earth"))
        one = Contacts(f"{line}, {neutral}, {earth}".capitalize(), ("L", "N", "PE"))
        found = [one]
        for count, says in _SEVERAL.items():
            lines = tuple(str(system_line) for system_line in list(system.lines)[:count])
            if len(lines) == count:
                found.append(Contacts(f"{says} {line}s, {neutral}, {earth}", (*lines, "N", "PE")))
                found.append(Contacts(f"{says} {line}s, {earth}", (*lines, "PE")))
        return (*found, Contacts(f"{one.name} and {self.words['CASE']}", (*one.terminals, "CASE")))

    def between(self, *ends: str | None, word: str) -> str:
        """What is written on contacts, with a word between: `H to N`."""
        return f" {word} ".join(self.letters.get(end, end) for end in map(str, filter(None, ends)))

    def in_words(self, text: str) -> str:
        """A text of the core in the practice's words.

        Parameters
        ----------
        text : str
            With what the practice names in braces: `line`, `neutral`, `earth`, `protective` (conductor), `rcd`,
            `device`, `outlet`, `board`.

        Examples
        --------
        >>> from evenprobe.practices import BRITISH, NORTH_AMERICA
        >>> BRITISH.in_words("the {rcd} at the {board}"), NORTH_AMERICA.in_words("the {rcd} at the {board}")
        ('the RCD at the consumer unit', 'the GFCI at the panel')
        """
        return text.format(**self.named)

    @property
    def named(self) -> dict[str, str]:
        """Its words, by what a text of the core calls them."""
        return {name: self.words[word] for name, word in CALLED.items()}


_SEVERAL = {2: "Two", 3: "Three"}
CALLED = {
    "line": "line",
    "neutral": "N",
    "earth": "earth",
    "protective": "protective conductor",
    "rcd": "residual-current device",
    "device": "protective device",
    "outlet": "outlet",
    "board": "board",
}
"""How a text of the core names a practice's word."""

PRACTICES: Registry[Practice] = Registry(Practice.listed_as, lambda practice: practice.rank)
"""Adding one is adding a module to this package."""

EUROPEAN_COLOURS = {
    "L": "brown",
    "L1": "brown",
    "L2": "black",
    "L3": "grey",
    "N": "blue",
    "PE": "green-yellow",
    "CASE": "bare",
    "REF": "bare",
}
"""IEC 60445; BS 7671 table 51."""


def at_both_ends(colours: Mapping[str, str]) -> dict[str, str]:
    """Colours by terminal, with those of the same conductors' ends at the board."""
    return {**colours, **{f"BOARD-{end}": colours[end] for end in WITH_BOARD_END}}


def letters(line: str, earth: str) -> dict[str, str]:
    """Letters by terminal, of a practice that writes these on its line and earth contacts."""
    contacts = {"L": line, **{f"L{n}": f"{line}{n}" for n in (1, 2, 3)}, "N": "N", "PE": earth, "CASE": "C", "REF": "R"}
    return contacts | {f"BOARD-{end}": f"{contacts[end]} at the board" for end in WITH_BOARD_END}
