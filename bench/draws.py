"""Random surveys with a known truth: a random sample of a random condition, read by testers with their full error."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import product

import numpy as np

from evenprobe.conditions import Condition, conditions_for, with_slight_joint
from evenprobe.interpretation.findings import ConditionOutcome
from evenprobe.limits.voltages import DRY_TOUCH_DC_VOLTS
from evenprobe.practices import PRACTICES
from evenprobe.quantities import (
    CURRENT,
    LAMPS,
    LOAD_HELD,
    LOOP,
    PRESENCE,
    RESIDUAL_CURRENT,
    RESISTANCE,
    SEQUENCE,
    TRIP,
    VOLTAGE,
    Measurement,
    Reading,
)
from evenprobe.simulation import HiddenPoint, TesterErrors
from evenprobe.supplies import SYSTEMS, Earthing
from evenprobe.testers import Instrument, kinds
from evenprobe.wiring import CircuitFacts, PointFacts, PointKind, Terminal, conductor_named, contact_pairs
from evenprobe.wiring.circumstances import Neutral
from evenprobe.wiring.points import LINES, board_ends
from evenprobe.wiring.references import A_ROD, BAR, OUTLET, PIPEWORK, Reference

METER = Instrument("meter", kinds.MULTIMETER, proved=True)
OTHER_METER = Instrument("other", kinds.MULTIMETER, proved=True, accuracy_percent=0.7, accuracy_counts=2)
STEPPED = Instrument("stepped", kinds.TWO_POLE, proved=True)
LOW_OHM = Instrument("low-ohm", kinds.LOW_OHM, proved=True)
LOOP_TESTER = Instrument("loop", kinds.LOOP_TESTER, proved=True)
LAMP_TESTER = Instrument("lamps", kinds.LAMP_TESTER, proved=True)
PLUG_TESTER = Instrument("plug", kinds.DIGITAL_PLUG_TESTER, proved=True)
CLAMP = Instrument("clamp", kinds.CLAMP, proved=True)
DETECTOR = Instrument("detector", kinds.NON_CONTACT, proved=True)
FLAT = Instrument("flat", kinds.MULTIMETER, proved=False)
"""Not proved, and it shows less than there is."""
TESTERS = (METER, OTHER_METER, STEPPED, FLAT, CLAMP, PLUG_TESTER)
WITHOUT_VOLTS_SHARE, CLAMPED_SHARE, ALL_CLAMPED_SHARE = 0.2, 0.35, 0.3
DIRECT_SHARE, UNSAID_SHARE = 0.15, 0.4
"""Of surveys with a direct source on a contact, and of known loads of which nobody says between what they are."""
TIMED_SHARE, SOON_S, ALONE_SHARE = 0.5, 90.0, 0.25
"""Of surveys whose times are known; the longest between two readings then; and of readings with nothing else on."""
REFERENCE_SHARE, ANOTHER_SHARE, AT_FAULT_SHARE = 0.5, 0.6, 0.3
"""Of readings to an earth brought along, to one that is no rod; of those, taken to another as well; and of surveys
where one of them is not what it is said to be."""
LOOP_SHARE = 0.2
"""Of readings of no volts that are of a loop."""
JOINED_SHARE = 0.4
"""Of ohms between two contacts that are taken with their conductors joined at the board."""
SLIGHT_SHARE = 0.4
"""Of poor joints that are only a little poor."""
TESTER_SHARES = (0.51, 0.18, 0.18, 0.03, 0.05, 0.05)
CONTACTS = (Terminal.L, Terminal.N, Terminal.PE)
L1, L2, L3, N, PE = Terminal.L1, Terminal.L2, Terminal.L3, Terminal.N, Terminal.PE
KITCHEN, LOFT, PIPE = Reference(OUTLET, "kitchen"), Reference(OUTLET, "loft"), Reference(PIPEWORK, "pipe")
REFERENCES = (KITCHEN, LOFT, PIPE, Reference(BAR))
NEUTRALS: tuple[Neutral, ...] = ("connected", "lifted")


def points() -> list[PointFacts]:
    """Points of every system, practice, earthing, number of lines and way of knowing the circuit."""
    america, continent, britain = PRACTICES.values()
    wired = CircuitFacts(15, conductor_named("14 AWG"), 30), CircuitFacts(20, conductor_named("12 AWG"), 18)
    metric = (
        CircuitFacts(16, conductor_named("2.5 mm2"), 24),
        CircuitFacts(32, conductor_named("2.5 mm2"), 45),
    )
    unknown = CircuitFacts()
    rows = [
        *product([america], ["120"], list(Earthing), [wired[0], unknown]),
        *product([america], ["120/240", "208Y/120", "480Y/277"], [Earthing.TN_C_S], [wired[1]]),
        *product([america], ["standalone-120"], [Earthing.TN_S, Earthing.IT], [wired[1], unknown]),
        *product([continent, britain], ["230"], list(Earthing), [metric[0], unknown]),
        *product([continent], ["230/400"], [Earthing.TN_S, Earthing.TT], [metric[1]]),
        *product([continent, britain], ["standalone-230"], [Earthing.TN_S, Earthing.IT], [metric[0]]),
    ]
    outlets = [
        PointFacts(practice, SYSTEMS[system], earthing, PointKind.OUTLET, CONTACTS, circuit)
        for practice, system, earthing, circuit in rows
    ]
    with_casing = [replace(o, kind=PointKind.FIXED, terminals=(*CONTACTS, Terminal.CASE)) for o in outlets[::9]]
    return outlets + with_casing + several_lines()


def several_lines() -> list[PointFacts]:
    """Two and three lines, with a neutral and without."""
    america, continent, britain = PRACTICES.values()
    known = {
        america: CircuitFacts(30, conductor_named("10 AWG"), 16, residual_ma=6),
        continent: CircuitFacts(32, conductor_named("6 mm2"), 22, residual_ma=30),
        britain: CircuitFacts(32, conductor_named("4 mm2"), 30),
    }
    rows = [
        *product([america], ["120/240"], [Earthing.TN_C_S, Earthing.TN_S], [(L1, L2, N, PE), (L1, L2, PE)]),
        (america, "208Y/120", Earthing.TN_C_S, (L1, L2, N, PE)),
        (america, "208Y/120", Earthing.TN_C_S, (L1, L2, L3, N, PE)),
        (america, "480Y/277", Earthing.TN_S, (L1, L2, L3, PE)),
        (america, "240-high-leg", Earthing.TN_C_S, (L1, L2, N, PE)),
        (america, "240-high-leg", Earthing.TN_C_S, (L1, L2, PE)),
        (america, "240-high-leg", Earthing.TN_C_S, (L1, L2, L3, N, PE)),
        (america, "240-high-leg", Earthing.TN_C_S, CONTACTS),
        (continent, "230/400", Earthing.TN_S, (L1, L2, L3, N, PE)),
        (continent, "230/400", Earthing.TT, (L1, L2, L3, N, PE)),
        (britain, "230/400", Earthing.TN_C_S, (L1, L2, L3, PE)),
        (continent, "230/400", Earthing.IT, (L1, L2, L3, N, PE)),
    ]
    return [
        PointFacts(practice, SYSTEMS[system], earthing, PointKind.OUTLET, terminals, circuit)
        for number, (practice, system, earthing, terminals) in enumerate(rows)
        for circuit in ([known[practice]] if number % 3 else [known[practice], CircuitFacts()])
    ]


def contacts_of(point: PointFacts) -> tuple[Terminal, ...]:
    return tuple(t for t in point.terminals if t is not Terminal.CASE)


@dataclass(frozen=True)
class Draw:
    """`slight`: the truth is a joint that is only a little poor, as good as none while the wiring may be fine."""

    truth: Condition
    readings: tuple[Reading, ...]
    slight: bool = False

    def is_held(self, outcomes: Sequence[ConditionOutcome]) -> bool:
        """Whether what stands has the truth in it."""
        standing = [o for o in outcomes if o.standing]
        return any(o.condition is self.truth or (self.slight and o.severity.is_fine) for o in standing)

    @property
    def direct_on_metal(self) -> bool:
        """Whether a reading shows metalwork at a direct voltage that is dangerous by itself."""
        at_metal = [r for r in self.readings if r.measurement.dc and r.measurement.of_metal_to_reference]
        return any(abs(r.value or 0.0) > DRY_TOUCH_DC_VOLTS for r in at_metal)


def draw(point: PointFacts, rng: np.random.Generator) -> Draw:
    """One survey: one to twelve measurements in any order and under any circumstances."""
    catalogue = conditions_for(point)
    truth = catalogue[rng.integers(len(catalogue))]
    slight = with_slight_joint(truth) if rng.random() < SLIGHT_SHARE else None
    hidden, errors = HiddenPoint(point, slight or truth, rng, moves=True), TesterErrors(rng)
    if rng.random() < AT_FAULT_SHARE:
        hidden.references = _one_at_fault(rng, point)
    taken = [_brought_along(rng, _measurement(rng, point)) for _ in range(rng.integers(1, 13))]
    doubtful = [m for m in taken if Terminal.REF in m.ends and not m.reference.kind.alone]
    taken += [replace(m, reference=_other(rng, m.reference)) for m in doubtful if rng.random() < ANOTHER_SHARE]
    if rng.random() < DIRECT_SHARE:
        contact = contacts_of(point)[rng.integers(len(contacts_of(point)))]
        hidden.direct_volts[contact] = float(rng.uniform(-400, 400))
        taken.append(Measurement(VOLTAGE, contact, Terminal.REF, METER, dc=True))
    at = np.cumsum(rng.uniform(1.0, SOON_S, len(taken))) if rng.random() < TIMED_SHARE else [None] * len(taken)
    readings = tuple(_read(hidden, f"r{i}", m, errors, at[i]) for i, m in enumerate(taken))
    return Draw(truth, readings, slight is not None)


def _one_at_fault(rng: np.random.Generator, point: PointFacts) -> dict[Reference, Reference | Terminal]:
    """An outlet whose earth is a line, or pipework that is bonded to nothing and lies in the ground."""
    which = (KITCHEN, LOFT, PIPE)[rng.integers(3)]
    return {which: A_ROD if which is PIPE else point.lines[0]}


def _brought_along(rng: np.random.Generator, measurement: Measurement) -> Measurement:
    if Terminal.REF not in measurement.ends or rng.random() > REFERENCE_SHARE:
        return measurement
    return replace(measurement, reference=REFERENCES[rng.integers(len(REFERENCES))])


def _other(rng: np.random.Generator, reference: Reference) -> Reference:
    others = [each for each in REFERENCES if each != reference]
    return others[rng.integers(len(others))]


def _read(hidden: HiddenPoint, name: str, measurement: Measurement, errors: TesterErrors, at: float | None) -> Reading:
    reading = hidden.read(name, measurement, errors, at)
    if measurement.instrument is FLAT and reading.value is not None:
        return replace(reading, value=round(reading.value * errors.rng.random(), 1))
    return reading


def _measurement(rng: np.random.Generator, point: PointFacts) -> Measurement:
    if rng.random() < WITHOUT_VOLTS_SHARE:
        return _without_volts(rng, point)
    tester = TESTERS[rng.choice(len(TESTERS), p=TESTER_SHARES)]
    contacts = contacts_of(point)
    at_contacts = tester is PLUG_TESTER or rng.random() < 0.75
    pairs = contact_pairs(contacts) if at_contacts else [(t, Terminal.REF) for t in contacts]
    a, b = (_casing_or(end, rng, point) for end in pairs[rng.integers(len(pairs))])
    if rng.random() < 0.5:
        a, b = b, a
    plain = Measurement(
        VOLTAGE, a, b, tester, "low-z" if rng.random() < 0.2 else "high-z", nothing_else_on=rng.random() < ALONE_SHARE
    )
    amperes = float(np.round(rng.uniform(2, point.circuit.rating_a or 12), 1))
    kind = rng.random()
    if kind < 0.39:
        return plain
    if kind < 0.45:
        return replace(plain, dc=True)
    if kind < 0.62:
        return replace(plain, load_here_a=amperes, load_between=_load_between(rng, point))
    if kind < 0.80:
        return replace(plain, load_elsewhere_a=amperes, load_between=_load_between(rng, point))
    if kind < 0.83:
        return replace(plain, device="open")
    if kind < 0.88:
        loaded = replace(plain, load_here_a=amperes, load_between=_load_between(rng, point))
        one, other = rng.permutation(len(board_ends(contacts)))[:2]
        ends = board_ends(contacts)
        return replace(loaded if rng.random() < 0.6 else plain, from_=ends[one], to=ends[other])
    return _ohms(rng, point)


def _load_between(rng: np.random.Generator, point: PointFacts) -> tuple[Terminal, Terminal] | None:
    """Any two contacts that a load can be between, or nobody said which."""
    live = [t for t in point.terminals if t in (*LINES, Terminal.N)]
    if len(live) < 2 or rng.random() < UNSAID_SHARE:
        return None
    one, other = rng.permutation(len(live))[:2]
    return live[one], live[other]


def _ohms(rng: np.random.Generator, point: PointFacts) -> Measurement:
    """Between two contacts, or a conductor end to end; the neutral on its bar or off it."""
    contacts = contacts_of(point)
    pairs = contact_pairs(contacts)
    a, b = (_casing_or(end, rng, point) for end in pairs[rng.integers(len(pairs))])
    if rng.random() < 0.6:
        a = contacts[rng.integers(len(contacts))]
        b = board_ends(contacts)[rng.integers(len(contacts))]
    tester = (METER, LOW_OHM)[rng.integers(2)]
    alone = bool(rng.random() < ALONE_SHARE)
    neutral = NEUTRALS[rng.integers(2)]
    ohms = Measurement(RESISTANCE, a, b, tester, device="open", neutral=neutral, nothing_else_on=alone)
    joins = b not in board_ends(contacts) and rng.random() < JOINED_SHARE
    return replace(ohms, far_ends="joined") if joins else ohms


def _casing_or(end: Terminal, rng: np.random.Generator, point: PointFacts) -> Terminal:
    return Terminal.CASE if end is Terminal.PE and Terminal.CASE in point.terminals and rng.random() < 0.5 else end


def _without_volts(rng: np.random.Generator, point: PointFacts) -> Measurement:
    if rng.random() < CLAMPED_SHARE:
        return _clamped(rng, point)
    kind = rng.random()
    if rng.random() < LOOP_SHARE:
        back = [t for t in (N, PE) if t in point.terminals]
        return Measurement(LOOP, point.lines[0], back[rng.integers(len(back))], LOOP_TESTER)
    if kind < 0.3 and len(point.lines) == 1:
        return Measurement(LAMPS, None, None, LAMP_TESTER)
    if kind < 0.4 and point.circuit.residual_ma:
        amperes = float(np.round(rng.uniform(2, point.circuit.rating_a or 12), 1))
        return Measurement(LOAD_HELD, None, None, METER, load_here_a=amperes, load_between=_load_between(rng, point))
    if kind < 0.6:
        test_ma = float(rng.choice([6.0, 30.0]))
        return Measurement(TRIP, None, None, PLUG_TESTER, test_ma=test_ma)
    if kind < 0.7 and len(point.lines) == 3:
        return Measurement(SEQUENCE, None, None, STEPPED)
    ends = [t for t in point.terminals if t is not Terminal.REF]
    return Measurement(PRESENCE, ends[rng.integers(len(ends))], None, DETECTOR)


def _clamped(rng: np.random.Generator, point: PointFacts) -> Measurement:
    """Round one conductor where it leaves the board, mostly under a load that is known."""
    ends = board_ends(point.terminals)
    plain = Measurement(CURRENT, ends[rng.integers(len(ends))], None, CLAMP)
    amperes = float(np.round(rng.uniform(2, point.circuit.rating_a or 12), 1))
    where, between = rng.random(), _load_between(rng, point)
    if rng.random() < ALL_CLAMPED_SHARE:
        plain = Measurement(RESIDUAL_CURRENT, None, None, CLAMP)
    if where < 0.6:
        return replace(plain, load_here_a=amperes, load_between=between)
    return replace(plain, load_elsewhere_a=amperes, load_between=between) if where < 0.85 else plain
