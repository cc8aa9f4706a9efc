"""Limits of coils, capacitors, elements, sensors and batteries, each with its source. Data."""

from dataclasses import dataclass

from evenprobe.limits.limit import Band, Limit

COIL_PULL_IN = Limit("coil.pull-in", "%", Band(85, 110), "IEC 60947-4-1")
COIL_DROP_OUT = Limit("coil.drop-out", "%", Band(0, 20), "IEC 60947-4-1")
CAPACITOR_TOLERANCE_PERCENT = 6.0
"""Where none is printed."""
SENSOR_TOLERANCE_C = 1.0
PANEL_STRING = Limit("panels.open-circuit", "%", Band(88, 118), "IEC 62446-1, the printed sum; hot to freezing cells")
ELEMENT = Limit("element.resistance", "ohm", Band(0.8, 1.25), "V²/P as a guide")
FILAMENT_COLD_SHARE = 0.1
FILAMENT = Limit("filament.resistance", "ohm", Band(0.4, 2.5), "a tenth of V²/P as a guide, cold")
"""Bands of these two are shares of the expected value."""


@dataclass(frozen=True)
class BatteryState:
    """From `volts` at rest on. `good`: nothing to do; `usable`: worth a note."""

    volts: float
    says: str
    good: bool = False
    usable: bool = True


BATTERIES: dict[str, tuple[BatteryState, ...]] = {
    "lead-acid-12": (
        BatteryState(12.6, "charged", good=True),
        BatteryState(12.4, "three quarters charged"),
        BatteryState(12.2, "half charged"),
        BatteryState(12.0, "nearly flat"),
        BatteryState(0.0, "flat", usable=False),
    ),
    "alkaline-1.5": (
        BatteryState(1.5, "fresh", good=True),
        BatteryState(1.2, "used"),
        BatteryState(0.0, "to be replaced", usable=False),
    ),
}
"""At rest, highest first. Makers' data for both chemistries."""
