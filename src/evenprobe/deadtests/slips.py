"""The slip of a thousand: ohms written for milliohms, kilohms for ohms, millivolts for volts.

A number is compared with what was to be expected; it is asked about when it is about a thousand times off.
"""

from math import log10

from evenprobe.deadtests.sentences import SLIPS

_THOUSAND = 1000.0
NEAR = 4.0
"""How many times off the expected value, once put right, still makes a slip likely."""

_SMALLER = {"ohm": "mΩ", "Mohm": "kΩ", "V": "mV", "µF": "nF", "A": "mA"}
_LARGER = {"ohm": "kΩ", "Mohm": "GΩ", "V": "kV", "µF": "mF", "A": "kA"}
_AS_WRITTEN = {"ohm": "Ω", "Mohm": "MΩ"}


def did_you_mean(value: float, expected: float | None, unit: str) -> str:
    """A question when `value` is a likely slip for something near `expected`, both in `unit`; else empty."""
    if not expected or value <= 0 or expected <= 0:
        return ""
    off = log10(value / expected)
    if abs(abs(off) - log10(_THOUSAND)) > log10(NEAR):
        return ""
    meant = (_SMALLER if off > 0 else _LARGER)[unit]
    written = _AS_WRITTEN.get(unit, unit)
    return str(SLIPS.say("more" if off > 0 else "less", value=value, meant=meant, written=written))
