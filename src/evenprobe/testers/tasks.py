"""What a tester may be wanted for, and which kinds and functions can answer it.

Two-pole testers: IEC 61243-3; meters: IEC 61010-2-033; what proves dead is the practice's, or a crew's own rule.
"""

from dataclasses import dataclass
from datetime import date
from enum import StrEnum

from evenprobe.supplies import PRACTICES, PracticeId, SupplySystem
from evenprobe.testers.instruments import InstrumentKind
from evenprobe.testers.ratings import Place


class Purpose(StrEnum):
    PROVE_DEAD = "prove-dead"
    LIVE_VOLTAGE = "live-voltage"
    LAMPS = "lamps"
    SCREEN = "screen"
    CONTINUITY = "continuity"
    INSULATION = "insulation"
    RESIDUAL_CURRENT = "residual-current"
    CURRENT = "current"


@dataclass(frozen=True)
class Task:
    """What a tester is wanted for. `device_ma`: rated residual current; `test_volts`: insulation test, DC."""

    purpose: Purpose
    place: Place
    system: SupplySystem
    practice: PracticeId
    line_to_line: bool | None = None
    device_ma: float | None = None
    test_volts: float | None = None
    on: date | None = None
    house_rule: bool = False
    """Whether the crew refuses less than category III 600 V on building wiring, not only warns of it."""
    dead_kinds: tuple[InstrumentKind, ...] | None = None
    """Kinds the crew accepts to prove dead; None: the practice's own."""


_K = InstrumentKind
LEADLESS = (_K.NON_CONTACT, _K.LAMP_TESTER, _K.DIGITAL_PLUG_TESTER, _K.TONE_TRACER, _K.PROVING_UNIT)

KINDS_FOR: dict[Purpose, tuple[InstrumentKind, ...]] = {
    Purpose.LIVE_VOLTAGE: (_K.MULTIMETER, _K.TWO_POLE, _K.CLAMP, _K.DIGITAL_PLUG_TESTER, _K.INSULATION_TESTER),
    Purpose.LAMPS: (_K.LAMP_TESTER, _K.DIGITAL_PLUG_TESTER),
    Purpose.SCREEN: (_K.NON_CONTACT,),
    Purpose.CONTINUITY: (_K.MULTIMETER, _K.TWO_POLE, _K.CLAMP, _K.LOW_OHM, _K.INSULATION_TESTER),
    Purpose.INSULATION: (_K.INSULATION_TESTER,),
    Purpose.RESIDUAL_CURRENT: (_K.DIGITAL_PLUG_TESTER, _K.TWO_POLE),
    Purpose.CURRENT: (_K.CLAMP, _K.MULTIMETER),
}

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

WHY_NOT: dict[Purpose, str] = {
    Purpose.PROVE_DEAD: "{kind} does not prove dead in this practice; use {kinds}",
    Purpose.LIVE_VOLTAGE: "{kind} does not measure volts; use {kinds}",
    Purpose.LAMPS: "{kind} has no three lamps; use {kinds}",
    Purpose.SCREEN: "{kind} does not screen; use {kinds}",
    Purpose.CONTINUITY: "{kind} does not measure ohms; use {kinds}",
    Purpose.INSULATION: "{kind} puts no test voltage on the insulation; use {kinds}",
    Purpose.RESIDUAL_CURRENT: "{kind} injects no residual current; use {kinds}",
    Purpose.CURRENT: "{kind} does not measure current; use {kinds}",
}

NAMES: dict[InstrumentKind, str] = {
    kind: {_K.NON_CONTACT: "non-contact detector", _K.TWO_POLE: "two-pole tester", _K.LOW_OHM: "low-ohm tester"}.get(
        kind, str(kind).replace("-", " ")
    )
    for kind in InstrumentKind
}


def one_of(kind: InstrumentKind) -> str:
    """`a multimeter`, `an insulation tester`."""
    name = NAMES[kind]
    return f"{'an' if name[0] in 'aeiou' else 'a'} {name}"


def kinds_for(task: Task) -> tuple[InstrumentKind, ...]:
    """Kinds of tester that can answer the task's question at all."""
    if task.purpose is Purpose.PROVE_DEAD:
        accepted = task.dead_kinds
        return tuple(_K(k) for k in PRACTICES[task.practice].dead_kinds) if accepted is None else accepted
    return KINDS_FOR[task.purpose]
