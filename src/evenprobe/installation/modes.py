"""How an installation is solved: energised as it is found, with its device open, or dead for an ohmmeter."""

from typing import NamedTuple


class Mode(NamedTuple):
    """How the installation is solved: at DC with its sources at zero, with the device open, the neutral off its bar.

    `taps`: whether where other loads tap the run can be measured and loaded too. `clamped`: whether what flows in each
    conductor where it leaves the board can be measured. `others`: what else is on along the run: what a sample has
    there (""), nothing ("off"), or the most there can be between two wires and nothing else. `unplugged`: whether
    nothing is at the contacts either, as a person can see to on a dead circuit.
    """

    dc: bool = False
    device_open: bool = False
    neutral_lifted: bool = False
    taps: bool = False
    clamped: bool = False
    others: str = ""
    unplugged: bool = False

    def at_the_board(self) -> "Mode":
        """The same, where what leaves the board can be measured."""
        return self._replace(taps=True, clamped=True)


OFF = "off"


def only_between(one: str, other: str) -> str:
    """What is on where nothing is but between these two wires."""
    return f"{one} {other}"


AS_FOUND = Mode()
CLAMPED = AS_FOUND.at_the_board()
DEAD = Mode(dc=True, device_open=True)
NEUTRAL_LIFTED = Mode(dc=True, device_open=True, neutral_lifted=True)
UNPLUGGED = {mode: mode._replace(others=OFF, unplugged=True) for mode in (DEAD, NEUTRAL_LIFTED)}
"""The same with all equipment off the circuit."""
