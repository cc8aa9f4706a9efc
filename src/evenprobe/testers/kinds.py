"""Kinds of tester, a row each: what it shows and how well, what it answers, what it is blind to, what to check on it.

Errors are the makers' usual ± (percent of reading + counts of the display). Two-pole testers: IEC 61243-3;
meters: IEC 61010-2-033; low-ohm testers: IEC 61557-4; insulation testers: IEC 61557-2; loop testers: IEC 61557-3.
"""

from dataclasses import dataclass

from evenprobe.registry import Listed, Registry
from evenprobe.testers.purposes import Purpose


@dataclass(frozen=True)
class Ability:
    """One quantity a kind of tester shows: its error, and for volts what it loads the circuit with."""

    percent: float
    counts: float
    resolution: float
    top: float
    """Highest value shown, in volts, ohms or amperes; for ohms, what over-range is certain to exceed."""
    input_ohm: float = 0.0
    input_farad: float = 0.0
    low_input_ohm: float | None = None

    def error(self, shows: float) -> float:
        """By which a value shown may be off, in its unit."""
        return shows * self.percent / 100 + self.counts * self.resolution


@dataclass(frozen=True, kw_only=True, eq=False, repr=False)
class Kind(Listed):
    """A kind of tester.

    Parameters
    ----------
    id, name
        As files write it, and as people say it.
    says, blind_to
        What it can say, and what it cannot, in the trade's words.
    purposes
        What it may be wanted for.
    functions
        What can be recorded with it, by the ids of the quantities' functions, the usual first.
    contact
        Whether it touches metal, so that a proved zero is a reading.
    volts, ohms, amps, loop
        What it shows and how well; None where it has no such range.
    accuracy_is_of_ohms
        Whether the accuracy that a register gives for it is that of its ohms, and not of its volts.
    plugs_in
        Into the outlet, so it meets its contacts only, and nothing else is plugged in beside it.
    stepped
        Whether it usually shows volts as steps, and not as digits.
    shows_sequence
        Whether it says in which order three lines turn.
    clamps
        Whether it measures a current round a conductor, without opening the circuit.
    screens
        Whether it sees a field without touching, so that its silence, once it is proved, ranks what stands.
    leads
        Whether it has leads that come off it.
    leads_may_be_fixed
        Whether they may be part of it, so that nobody need say which ones are on it.
    has
        What else there is to check on it: `meter`, `ampere jack`.
    silent_when_flat
        Whether a flat one without a light that is always on looks like one that sees nothing.
    has_battery
        Whether a battery can be flat in it.
    rated
        Whether a category and a voltage are printed on it.
    may_prove_dead
        Whether a crew may let it prove dead; which kinds do is the practice's, or the crew's own rule.
    tells_direct
        Whether it shows direct and alternating voltage alike, without a switch to be set wrong.
    proves
        Whether it is no tester of circuits but a source that testers are proved on.
    goes_round
        Whether a round of outlets can be made with it.
    best_for
        What it is taken for first where several could.
    """

    listed_as = "kind of tester"

    id: str
    name: str
    says: str
    blind_to: tuple[str, ...]
    purposes: frozenset[Purpose]
    functions: tuple[str, ...]
    contact: bool
    volts: Ability | None = None
    ohms: Ability | None = None
    amps: Ability | None = None
    loop: Ability | None = None
    accuracy_is_of_ohms: bool = False
    plugs_in: bool = False
    stepped: bool = False
    shows_sequence: bool = False
    clamps: bool = False
    screens: bool = False
    leads: bool = True
    leads_may_be_fixed: bool = False
    has: frozenset[str] = frozenset()
    silent_when_flat: bool = False
    has_battery: bool = True
    rated: bool = True
    may_prove_dead: bool = False
    tells_direct: bool = False
    proves: bool = False
    goes_round: bool = False
    best_for: frozenset[Purpose] = frozenset()

    @property
    def with_article(self) -> str:
        """`a multimeter`, `an insulation tester`."""
        return f"{'an' if self.name[0] in 'aeiou' else 'a'} {self.name}"


HIGHEST_OHMS = 1e12
"""More than any tester shows."""

KINDS: Registry[Kind] = Registry(Kind.listed_as)

MULTIMETER = KINDS.add(
    Kind(
        id="multimeter",
        name="multimeter",
        says="The value of every pair: volts, ohms, and current through its own jack.",
        blind_to=(
            "a wrong range, function or jack: it reads 0 on a live conductor",
            "ghosts at 10 MΩ: volts on a conductor that only lies beside a live one",
            "insulation at working voltage",
        ),
        purposes=frozenset({Purpose.LIVE_VOLTAGE, Purpose.CONTINUITY, Purpose.CURRENT}),
        functions=("volts", "low-z", "ohms", "ohms-joined", "dc", "amps", "hertz", "board-volts", "load-held"),
        contact=True,
        volts=Ability(1.0, 3, 0.1, 1000, 10e6, 100e-12, 3e3),
        ohms=Ability(1.0, 3, 0.1, 1e6),
        amps=Ability(1.5, 3, 0.01, 10),
        has=frozenset({"meter", "ampere jack"}),
        may_prove_dead=True,
        goes_round=True,
    )
)
TWO_POLE = KINDS.add(
    Kind(
        id="two-pole",
        name="two-pole tester",
        says="The voltage as a band of steps, polarity, a single-pole line check.",
        blind_to=("the exact value", "resistance and insulation, unless it says so"),
        purposes=frozenset({Purpose.LIVE_VOLTAGE, Purpose.CONTINUITY, Purpose.RESIDUAL_CURRENT}),
        functions=("steps", "volts", "trip", "sequence", "board-volts", "load-held"),
        contact=True,
        volts=Ability(3.0, 3, 1.0, 1000, 200e3, 0.0, 7e3),
        ohms=Ability(5.0, 5, 1.0, 1e5),
        stepped=True,
        shows_sequence=True,
        leads_may_be_fixed=True,
        may_prove_dead=True,
        tells_direct=True,
        goes_round=True,
    )
)
CLAMP = KINDS.add(
    Kind(
        id="clamp",
        name="clamp",
        says="The current now, inrush with min/max, and at the board by which conductor a load comes back.",
        blind_to=("both conductors at once: the fields cancel", "voltage, unless leads are plugged in"),
        purposes=frozenset({Purpose.LIVE_VOLTAGE, Purpose.CONTINUITY, Purpose.CURRENT}),
        functions=("amps", "residual-amps", "volts", "ohms", "hertz", "board-volts", "load-held"),
        contact=True,
        volts=Ability(1.5, 5, 0.1, 1000, 10e6, 100e-12),
        ohms=Ability(1.5, 5, 0.1, 1e4),
        amps=Ability(2.0, 5, 0.01, 600),
        clamps=True,
        has=frozenset({"meter"}),
        may_prove_dead=True,
        goes_round=True,
    )
)
LAMP_TESTER = KINDS.add(
    Kind(
        id="lamp-tester",
        name="lamp tester",
        says="Which of three pairs carry voltage.",
        blind_to=(
            "neutral and earth swapped",
            "an earth jumpered to neutral at the outlet",
            "the same on a reversed outlet: every metal part live while the lamps are right",
            "how good any path is, and the value",
        ),
        purposes=frozenset({Purpose.LAMPS, Purpose.RESIDUAL_CURRENT}),
        functions=("lamps", "trip"),
        contact=True,
        plugs_in=True,
        leads=False,
        has_battery=False,
        goes_round=True,
    )
)
DIGITAL_PLUG_TESTER = KINDS.add(
    Kind(
        id="digital-plug-tester",
        name="digital plug tester",
        says="The voltages of the pairs, and whether its one test current trips the device.",
        blind_to=(
            "neutral and earth swapped",
            "an earth jumpered to neutral, also on a reversed outlet",
            "a device rated above its test current: no trip says nothing",
        ),
        purposes=frozenset({Purpose.LIVE_VOLTAGE, Purpose.LAMPS, Purpose.RESIDUAL_CURRENT}),
        functions=("volts", "lamps", "trip", "load-held"),
        contact=True,
        volts=Ability(2.0, 2, 1.0, 300, 100e3, 0.0),
        plugs_in=True,
        leads=False,
        goes_round=True,
    )
)
LOW_OHM = KINDS.add(
    Kind(
        id="low-ohm",
        name="low-ohm tester",
        says="How well two points are joined, at 200 mA.",
        blind_to=("insulation", "volts"),
        purposes=frozenset({Purpose.CONTINUITY}),
        functions=("ohms", "ohms-joined"),
        contact=True,
        ohms=Ability(2.0, 3, 0.01, 1e3),
        accuracy_is_of_ohms=True,
        best_for=frozenset({Purpose.CONTINUITY}),
        has=frozenset({"meter"}),
    )
)
INSULATION_TESTER = KINDS.add(
    Kind(
        id="insulation-tester",
        name="insulation tester",
        says="Leakage at 250, 500 or 1000 V DC.",
        blind_to=("the order of the wires", "electronics left in: it destroys them and reads them as leakage"),
        purposes=frozenset({Purpose.LIVE_VOLTAGE, Purpose.CONTINUITY, Purpose.INSULATION}),
        functions=("volts", "ohms", "ohms-joined"),
        contact=True,
        volts=Ability(2.0, 3, 1.0, 700, 100e3, 0.0),
        ohms=Ability(3.0, 5, 0.1, 1e6),
        best_for=frozenset({Purpose.INSULATION}),
    )
)
LOOP_TESTER = KINDS.add(
    Kind(
        id="loop-tester",
        name="loop tester",
        says="What is in a line and in its way back, by the earth or by the neutral, without a load.",
        blind_to=("which conductor of the loop is the poor one", "insulation", "a small fault beside a long run"),
        purposes=frozenset({Purpose.LIVE_VOLTAGE}),
        functions=("loop", "volts"),
        contact=True,
        volts=Ability(2.0, 3, 1.0, 500, 100e3, 0.0),
        loop=Ability(5.0, 5, 0.01, 1e3),
    )
)
NON_CONTACT = KINDS.add(
    Kind(
        id="non-contact",
        name="non-contact detector",
        says="An alternating field: something near may be live. Works through sheath; finds where a line stops.",
        blind_to=(
            "DC",
            "shielded or armoured cable",
            "any value",
            "a flat battery: some show no light when off or empty",
            "some fail while the button is held at switch-on",
            "static, quick movement and neighbours set it off falsely",
        ),
        purposes=frozenset({Purpose.SCREEN}),
        functions=("presence", "sweep"),
        contact=False,
        screens=True,
        leads=False,
        silent_when_flat=True,
    )
)
PROVING_UNIT = KINDS.add(
    Kind(
        id="proving-unit",
        name="proving unit",
        says="That the voltage tester works, anywhere, without hunting for a live outlet.",
        blind_to=("the circuit: it proves the tester, not the point",),
        purposes=frozenset(),
        functions=(),
        contact=False,
        leads=False,
        rated=False,
        proves=True,
    )
)
TONE_TRACER = KINDS.add(
    Kind(
        id="tone-tracer",
        name="tone tracer",
        says="Which cable it is, a short or an open.",
        blind_to=("which side is live: it must be off the cable before power returns",),
        purposes=frozenset(),
        functions=(),
        contact=False,
        leads=False,
        rated=False,
    )
)
