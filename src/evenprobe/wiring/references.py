"""What a reference earth is: whatever earth can be reached, for nobody carries a rod, and what can be wrong with it.

IEC 60364-5-54: the main earthing terminal joins the earth electrode, the bonding of pipework and every circuit's
protective conductor. Whatever hangs on it rises with it where the neutral is lost at the source; a rod does not.
"""

from dataclasses import dataclass

from evenprobe.registry import Listed, Registry


@dataclass(frozen=True, eq=False, repr=False)
class ReferenceKind(Listed):
    """A kind of reference earth.

    `at_bar`: it is at the potential of the board's earth bar, not at that of the mass of earth. `at_most`: it may be
    anywhere between the two, so that what is read to it is the most that there may be. `alone`: it counts without
    another that agrees. `name` and `wrong`, what can be wrong with it, are in the practice's words.
    """

    listed_as = "reference"

    id: str
    name: str
    wrong: str
    at_bar: bool = False
    at_most: bool = False
    alone: bool = False


REFERENCES: Registry[ReferenceKind] = Registry(ReferenceKind.listed_as)

ROD = REFERENCES.add(
    ReferenceKind(
        id="rod",
        name="Rod, or a lead to a proven {earth}",
        wrong="dry ground, or a lead that came off",
        alone=True,
    )
)
BAR = REFERENCES.add(
    ReferenceKind(
        id="bar",
        name="Long lead to the {earth} bar of the {board}",
        wrong="it rises with everything that is joined there",
        at_bar=True,
        alone=True,
    )
)
OUTLET = REFERENCES.add(
    ReferenceKind(
        id="outlet",
        name="Another circuit's {outlet}",
        wrong="that {outlet} may have the same fault",
        at_bar=True,
    )
)
PIPEWORK = REFERENCES.add(
    ReferenceKind(
        id="pipework",
        name="Bonded pipework",
        wrong="it may not be bonded, or be plastic further on",
        at_bar=True,
        at_most=True,
    )
)


@dataclass(frozen=True)
class Reference:
    """A reference earth that was used. `at`: which one, as whoever used it calls it; two of one name are one."""

    kind: ReferenceKind = ROD
    at: str = ""


A_ROD = Reference()
