"""What a thing to be plugged in needs of its outlet, as its plate says."""

from dataclasses import dataclass

from evenprobe.limits import Limit, limit_for
from evenprobe.practices import Practice
from evenprobe.supplies import SupplySystem
from evenprobe.wiring import PointFacts, Terminal, contact_pairs


@dataclass(frozen=True)
class Needs:
    """`lines`: how many it is connected to. Volts line to neutral, or line to line, None where it uses none.

    `amperes`: what it draws. `continuous`: for three hours and more. `hertz`: None where any frequency will do.
    """

    lines: int
    amperes: float
    volts_to_neutral: float | None = None
    volts_between_lines: float | None = None
    earth: bool = True
    continuous: bool = False
    hertz: float | None = None

    @property
    def neutral(self) -> bool:
        return self.volts_to_neutral is not None

    def pairs_at(self, point: PointFacts) -> tuple[tuple[Terminal, Terminal, float], ...]:
        """The outlet's pairs it would be connected between, with its nominal volts there."""
        found = []
        for one, other in contact_pairs(point.terminals):
            ends = {one, other}
            if self.volts_between_lines is not None and ends <= set(point.lines):
                found.append((one, other, self.volts_between_lines))
            if self.volts_to_neutral is not None and Terminal.N in ends and ends - {Terminal.N} <= set(point.lines):
                found.append((one, other, self.volts_to_neutral))
        return tuple(found)


def band_for(nominal: float, practice: Practice, system: SupplySystem) -> Limit:
    """The supply's band as shares of its own nominal voltage, on the thing's: what such equipment is made for."""
    return limit_for("voltage.band", practice, system).times(nominal / system.nominal_volts)
