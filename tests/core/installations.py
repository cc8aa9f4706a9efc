"""Points, testers and readings the core tests share."""

from evenprobe.interpretation import PointInterpretation, interpret
from evenprobe.practices import CONTINENTAL, NORTH_AMERICA, Practice
from evenprobe.quantities import RESISTANCE, VOLTAGE, Measurement, Reading
from evenprobe.supplies import SYSTEMS, Earthing
from evenprobe.testers import TYPED
from evenprobe.wiring import CircuitFacts, PointFacts, PointKind, Terminal, conductor_named

CONTACTS = (Terminal.L, Terminal.N, Terminal.PE)


def outlet(
    practice: Practice = NORTH_AMERICA,
    system: str = "120",
    earthing: Earthing = Earthing.TN_C_S,
    circuit: CircuitFacts | None = None,
    kind: PointKind = PointKind.OUTLET,
) -> PointFacts:
    known = circuit or CircuitFacts(20, conductor_named("12 AWG"), 22)
    return PointFacts(practice, SYSTEMS[system], earthing, kind, CONTACTS, known)


def several(contacts: str, system: str = "120/240", earthing: Earthing = Earthing.TN_C_S) -> PointFacts:
    """`several("L1 L2 N PE")`: of the practice that uses the system."""
    america = system in NORTH_AMERICA.supplies
    practice = NORTH_AMERICA if america else CONTINENTAL
    conductor = conductor_named("6 AWG" if america else "6 mm2")
    terminals = tuple(Terminal(name) for name in contacts.split())
    circuit = CircuitFacts(40, conductor, 15)
    return PointFacts(practice, SYSTEMS[system], earthing, PointKind.OUTLET, terminals, circuit)


def continental(earthing: Earthing = Earthing.TN_S, kind: PointKind = PointKind.OUTLET) -> PointFacts:
    circuit = CircuitFacts(16, conductor_named("2.5 mm2"), 25)
    return outlet(CONTINENTAL, "230", earthing, circuit, kind)


def volts(pair: str, value: float, *, id: str | None = None, **how: object) -> Reading:
    """`volts("L-N", 119.8, input="low-z")`."""
    a, b = (Terminal(name) for name in pair.split("-"))
    measurement = Measurement(VOLTAGE, a, b, **{"instrument": TYPED, **how})
    return Reading(id or f"{pair} {how}", measurement, value=value)


def ohms(pair: str, value: float | None) -> Reading:
    """With the device open; None is over-range."""
    a, b = (Terminal(name) for name in pair.split("-"))
    measurement = Measurement(RESISTANCE, a, b, device="open")
    return Reading(f"{pair} ohms", measurement, value=value, over_range=value is None)


def standing(result: PointInterpretation) -> set[str]:
    return {o.condition.id for o in result.conditions if o.standing}


def read(point: PointFacts, *readings: Reading) -> PointInterpretation:
    return interpret(point, readings)
