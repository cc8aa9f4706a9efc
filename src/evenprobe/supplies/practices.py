"""What differs between the practices of the trade apart from the limits: words, and which way round a plug goes."""

from dataclasses import dataclass
from enum import StrEnum

from evenprobe.supplies.systems import SYSTEMS, SupplySystem


class PracticeId(StrEnum):
    NORTH_AMERICA = "north-america"
    CONTINENTAL = "continental"
    BRITISH = "british"


@dataclass(frozen=True)
class Practice:
    """`words` maps the code's terms to the practice's; `letters` are what is written on a contact."""

    id: PracticeId
    name: str
    polarised_plugs: bool
    words: dict[str, str]
    letters: dict[str, str]
    conductor_colours: dict[str, str]
    """Insulation colour of a fixed conductor, by name: NEC 200.6, 250.119; IEC 60446 / BS 7671 table 51."""
    earth_size_ratio: tuple[float, float]
    """Resistance of the protective conductor of a final circuit over that of its line conductor."""
    dead_kinds: tuple[str, ...]
    """Kinds of tester accepted to prove dead."""

    @property
    def systems(self) -> tuple[SupplySystem, ...]:
        return tuple(s for s in SYSTEMS.values() if self.id in s.practices)


WITH_BOARD_END = ("L", "L1", "L2", "L3", "N", "PE")
"""Terminals whose conductor's other end, at the board, has a name of its own."""
_EUROPEAN_COLOURS = {
    "L": "brown",
    "L1": "brown",
    "L2": "black",
    "L3": "grey",
    "N": "blue",
    "PE": "green-yellow",
    "CASE": "bare",
    "REF": "bare",
}


def _at_both_ends(colours: dict[str, str]) -> dict[str, str]:
    return colours | {f"BOARD-{end}": colours[end] for end in WITH_BOARD_END}


def _letters(line: str, earth: str) -> dict[str, str]:
    """What is written on a contact; the far end of a conductor is the same letter, at the board."""
    contacts = {"L": line, **{f"L{n}": f"{line}{n}" for n in (1, 2, 3)}, "N": "N", "PE": earth, "CASE": "C", "REF": "R"}
    return contacts | {f"BOARD-{end}": f"{contacts[end]} at the board" for end in WITH_BOARD_END}


PRACTICES: dict[PracticeId, Practice] = {
    PracticeId.NORTH_AMERICA: Practice(
        id=PracticeId.NORTH_AMERICA,
        name="North America",
        polarised_plugs=True,
        words={
            "L": "hot",
            "N": "neutral",
            "PE": "ground",
            "CASE": "metal enclosure",
            "REF": "independent ground",
            "outlet": "receptacle",
            "board": "panel",
            "earth": "ground",
            "line": "hot",
            "protective device": "breaker",
        },
        letters=_letters("H", "G"),
        conductor_colours=_at_both_ends(
            {
                "L": "black",
                "L1": "black",
                "L2": "red",
                "L3": "blue",
                "N": "white",
                "PE": "green",
                "CASE": "bare",
                "REF": "bare",
            }
        ),
        earth_size_ratio=(0.97, 1.7),
        dead_kinds=("two-pole", "multimeter", "clamp"),
    ),
    PracticeId.CONTINENTAL: Practice(
        id=PracticeId.CONTINENTAL,
        name="Continental",
        polarised_plugs=False,
        words={
            "L": "line",
            "N": "neutral",
            "PE": "protective conductor",
            "CASE": "exposed metalwork",
            "REF": "independent earth",
            "outlet": "socket",
            "board": "distribution board",
            "earth": "earth",
            "line": "line",
            "protective device": "circuit-breaker",
        },
        letters=_letters("L", "E"),
        conductor_colours=_at_both_ends(_EUROPEAN_COLOURS),
        earth_size_ratio=(0.97, 1.7),
        dead_kinds=("two-pole",),
    ),
    PracticeId.BRITISH: Practice(
        id=PracticeId.BRITISH,
        name="British",
        polarised_plugs=True,
        words={
            "L": "line",
            "N": "neutral",
            "PE": "earth",
            "CASE": "exposed metalwork",
            "REF": "independent earth",
            "outlet": "socket",
            "board": "consumer unit",
            "earth": "earth",
            "line": "line",
            "protective device": "MCB",
        },
        letters=_letters("L", "E"),
        conductor_colours=_at_both_ends(_EUROPEAN_COLOURS),
        earth_size_ratio=(0.97, 2.7),
        dead_kinds=("two-pole",),
    ),
}
