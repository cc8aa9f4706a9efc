"""What a measurement costs: seconds, live ones dearer, and what comes first while metalwork may be live."""

from evenprobe.quantities import Measurement

_TOUCHED_METAL_FIRST = 0.4
"""While a danger stands the metal a hand touches comes first, of all that would rule the danger out."""
_MERELY_NARROWING = 6.0
"""A reading that strikes nothing out, even if all is well, comes after those that do."""
_PLUGGING_IN_NEAR_DANGER = 3.0
"""Nothing is plugged in while metalwork may be live, so tests that need it wait until it is known."""


def cost(measurement: Measurement, *, danger_stands: bool, rules_out: bool) -> float:
    """In seconds, weighted."""
    seconds = measurement.quantity.seconds(measurement)
    if danger_stands and measurement.under_load:
        seconds *= _PLUGGING_IN_NEAR_DANGER
    if danger_stands and measurement.of_metal_to_reference:
        seconds *= _TOUCHED_METAL_FIRST
    return seconds if rules_out else seconds * _MERELY_NARROWING
