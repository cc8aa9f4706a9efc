"""What a tester may be wanted for, and which of its functions can answer it."""

from enum import StrEnum


class Purpose(StrEnum):
    """What a tester may be wanted for."""

    PROVE_DEAD = "prove-dead"
    LIVE_VOLTAGE = "live-voltage"
    LAMPS = "lamps"
    SCREEN = "screen"
    CONTINUITY = "continuity"
    INSULATION = "insulation"
    RESIDUAL_CURRENT = "residual-current"
    CURRENT = "current"


TITLES: dict[Purpose, str] = {
    Purpose.PROVE_DEAD: "Prove dead",
    Purpose.LIVE_VOLTAGE: "Live voltage",
    Purpose.LAMPS: "Lamp pattern",
    Purpose.SCREEN: "Screen",
    Purpose.CONTINUITY: "Continuity, ohms",
    Purpose.INSULATION: "Insulation",
    Purpose.RESIDUAL_CURRENT: "Residual-current device",
    Purpose.CURRENT: "Current",
}

FUNCTIONS = (
    "voltage-ac",
    "voltage-dc",
    "resistance",
    "continuity",
    "current-ac",
    "current-dc",
    "insulation",
    "frequency",
    "capacitance",
    "temperature",
)
"""Names a register may use; others are kept as they are."""

FUNCTIONS_FOR: dict[Purpose, tuple[str, ...]] = {
    Purpose.PROVE_DEAD: ("voltage-ac",),
    Purpose.LIVE_VOLTAGE: ("voltage-ac",),
    Purpose.CONTINUITY: ("continuity", "resistance", "low-ohm"),
    Purpose.INSULATION: ("insulation",),
    Purpose.CURRENT: ("current-ac", "current-dc", "current"),
}
"""Any one of them will do."""
