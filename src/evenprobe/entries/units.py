"""Units as they may be written, and what they are in SI."""

from typing import Literal

Unit = Literal["V", "mV", "kV", "ohm", "kohm", "Mohm", "Hz", "A", "mA"]

FACTOR: dict[str, float] = {
    "V": 1.0, "mV": 1e-3, "kV": 1e3, "ohm": 1.0, "kohm": 1e3, "Mohm": 1e6, "Hz": 1.0, "A": 1.0, "mA": 1e-3,
}  # fmt: skip


def to_si(value: float, unit: str) -> float:
    """The value in volts, ohms, amperes or hertz."""
    return value * FACTOR[unit]
