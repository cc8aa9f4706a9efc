"""Supply systems: which lines there are, and at what voltage and phase.

ANSI C84.1 and IEC 60038 nominal voltages. A line's phasor is relative to the neutral, so that of the
high-leg delta's L2 is 208 V at right angles to L1 and L3.
"""

import cmath
from dataclasses import dataclass
from math import pi, sqrt


@dataclass(frozen=True)
class SupplySystem:
    """`lines`: name to (volts to neutral, degrees)."""

    id: str
    lines: dict[str, tuple[float, float]]
    frequency_hz: float
    standalone: bool = False

    def phasor(self, line: str) -> complex:
        volts, degrees = self.lines[line]
        return cmath.rect(volts, degrees * pi / 180)

    @property
    def title(self) -> str:
        """As a person says it: 120/240 V, 240 V high leg, 230 V standalone."""
        *kind, volts = sorted(self.id.split("-"), key=lambda part: part[0].isdigit())
        return " ".join([f"{volts} V", *kind])

    @property
    def split_phase(self) -> bool:
        """Whether its two lines are the ends of one tapped winding."""
        return len(self.lines) == 2

    @property
    def has_high_leg(self) -> bool:
        """Whether one of its lines is at a higher voltage to neutral than the others."""
        return len({round(volts) for volts, _ in self.lines.values()}) > 1

    @property
    def nominal_volts(self) -> float:
        """Line to neutral of the ordinary lines, in volts."""
        return min(volts for volts, _ in self.lines.values())

    def volts_between(self, one: str, other: str) -> float:
        """Nominal voltage between two conductors; whatever is no line sits at the neutral's potential."""
        volts = [self.phasor(name) if name in self.lines else 0j for name in (one, other)]
        return abs(volts[0] - volts[1])

    @property
    def highest_volts(self) -> float:
        """The highest nominal voltage between any two of its conductors."""
        conductors = (*self.lines, "N")
        return max(self.volts_between(a, b) for a in conductors for b in conductors)

    @property
    def other_line_phasors(self) -> tuple[complex, ...]:
        """What a second line can sit at, per volt of the first.

        A one-line supply may still be a tap of a split-phase or star service, so those are what a wrongly connected
        second line would be.
        """
        if len(self.lines) > 1:
            first = self.phasor("L1")
            return tuple(self.phasor(line) / first for line in self.lines if line != "L1")
        star = cmath.rect(1, 2 * pi / 3)
        return (star, star.conjugate()) if self.nominal_volts > 200 else (-1 + 0j, star, star.conjugate())


def _star(volts: float) -> dict[str, tuple[float, float]]:
    return {"L1": (volts, 0), "L2": (volts, -120), "L3": (volts, 120)}


SYSTEMS: dict[str, SupplySystem] = {
    system.id: system
    for system in (
        SupplySystem("120", {"L": (120, 0)}, 60),
        SupplySystem("120/240", {"L1": (120, 0), "L2": (120, 180)}, 60),
        SupplySystem("208Y/120", _star(120), 60),
        SupplySystem("240-high-leg", {"L1": (120, 0), "L2": (120 * sqrt(3), 90), "L3": (120, 180)}, 60),
        SupplySystem("480Y/277", _star(277), 60),
        SupplySystem("230", {"L": (230, 0)}, 50),
        SupplySystem("230/400", _star(230), 50),
        SupplySystem("standalone-120", {"L": (120, 0)}, 60, standalone=True),
        SupplySystem("standalone-230", {"L": (230, 0)}, 50, standalone=True),
    )
}
