"""What a simulated reading is taken from: a point whose truth is known, and testers with their errors."""

from typing import TYPE_CHECKING, Protocol

import numpy as np

from evenprobe.installation.installation import Solved
from evenprobe.installation.modes import Mode
from evenprobe.testers.instrument import Instrument
from evenprobe.wiring import PointFacts, Terminal

if TYPE_CHECKING:
    from evenprobe.quantities.quantity import Quantity


class Errors(Protocol):
    """How far off testers are."""

    rng: np.random.Generator

    def gain(self, tester: Instrument, quantity: "Quantity") -> float:
        """A tester's own gain for a quantity, from -1 to 1 of the percent it is allowed."""


class Hidden(Protocol):
    """A point whose truth is known: one sample. `direct_volts`: of contacts, from a source none of the supply's."""

    direct_volts: dict[Terminal, float]

    @property
    def point(self) -> PointFacts: ...

    def solved(self, mode: Mode) -> Solved: ...
