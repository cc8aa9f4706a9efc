"""What each kind of tester can say and what it is blind to, in the trade's words."""

from dataclasses import dataclass

from evenprobe.testers.instruments import InstrumentKind


@dataclass(frozen=True)
class Sight:
    says: str
    blind_to: tuple[str, ...]


SIGHT: dict[InstrumentKind, Sight] = {
    InstrumentKind.NON_CONTACT: Sight(
        "An alternating field: something near may be live. Works through sheath; finds where a line stops.",
        (
            "DC",
            "shielded or armoured cable",
            "any value",
            "a flat battery: some show no light when off or empty",
            "some fail while the button is held at switch-on",
            "static, quick movement and neighbours set it off falsely",
        ),
    ),
    InstrumentKind.TWO_POLE: Sight(
        "The voltage as a band of steps, polarity, a single-pole line check.",
        ("the exact value", "resistance and insulation, unless it says so"),
    ),
    InstrumentKind.LAMP_TESTER: Sight(
        "Which of three pairs carry voltage.",
        (
            "neutral and earth swapped",
            "an earth made from neutral at the outlet",
            "the same on a reversed outlet: every metal part live while the lamps are right",
            "how good any path is, and the value",
        ),
    ),
    InstrumentKind.DIGITAL_PLUG_TESTER: Sight(
        "The voltages of the pairs, and whether its one test current trips the device.",
        (
            "neutral and earth swapped",
            "an earth made from neutral, also on a reversed outlet",
            "a device rated above its test current: no trip says nothing",
        ),
    ),
    InstrumentKind.MULTIMETER: Sight(
        "The value of every pair: volts, ohms, and current through its own jack.",
        (
            "a wrong range, function or jack: it reads 0 on a live conductor",
            "ghosts at 10 MΩ: volts on a conductor that only lies beside a live one",
            "insulation at working voltage",
        ),
    ),
    InstrumentKind.LOW_OHM: Sight("How well two points are joined, at 200 mA.", ("insulation", "volts")),
    InstrumentKind.INSULATION_TESTER: Sight(
        "Leakage at 250, 500 or 1000 V DC.",
        ("the order of the wires", "electronics left in: it destroys them and reads them as leakage"),
    ),
    InstrumentKind.CLAMP: Sight(
        "The current now, inrush with min/max, and at the board by which conductor a load comes back.",
        ("both conductors at once: the fields cancel", "voltage, unless leads are plugged in"),
    ),
    InstrumentKind.TONE_TRACER: Sight(
        "Which cable it is, a short or an open.",
        ("which side is live: it must be off the cable before power returns",),
    ),
    InstrumentKind.PROVING_UNIT: Sight(
        "That the voltage tester works, anywhere, without hunting for a live outlet.",
        ("the circuit: it proves the tester, not the point",),
    ),
}
