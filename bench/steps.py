"""How many readings it takes, as a person would who takes what is offered first: to safe, or to what is wrong."""

import sys
from collections.abc import Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, replace

import numpy as np

from bench.draws import DETECTOR, L1, L2, L3, LOW_OHM, METER, PE, STEPPED, N
from evenprobe.conditions import Condition, Severity, conditions_for
from evenprobe.interpretation import Verdict, interpret
from evenprobe.interpretation.next_measurement import Obstacle
from evenprobe.practices import PRACTICES
from evenprobe.quantities import Reading
from evenprobe.simulation import HiddenPoint, TesterErrors
from evenprobe.supplies import SYSTEMS, Earthing
from evenprobe.testers import Instrument, kinds
from evenprobe.wiring import CircuitFacts, PointFacts, PointKind, Terminal, conductor_named

SEED = 3
SOUND_TIMES, FAULT_TIMES = 4, 1
MOST_STEPS = 12
NAMED_WITHIN = 6
"""Readings; handbook, "Measures"."""
SECONDS_BETWEEN = 20.0
_WORKERS = 2
LAMP_PLUG = Instrument("lamp plug", kinds.LAMP_TESTER, proved=True, test_ma=8.0)


@dataclass(frozen=True)
class Kit:
    name: str
    testers: tuple[Instrument, ...]
    cannot: tuple[Obstacle, ...] = ()
    sound_is: Verdict = Verdict.SAFE
    """What a sound outlet is to come to."""


KITS = (
    Kit("meter and reference", (METER,)),
    Kit("meter, detector, lamp plug", (METER, DETECTOR, LAMP_PLUG), (Obstacle.REFERENCE,)),
    Kit("meter, low-ohm, two-pole", (METER, LOW_OHM, STEPPED), (Obstacle.REFERENCE,), Verdict.CORRECT),
    Kit("a meter alone", (METER,), (Obstacle.REFERENCE,)),
)
_VERDICT_OF = {
    Severity.DEFECT: {Verdict.DEFECT, Verdict.HAZARD, Verdict.DANGER},
    Severity.HAZARD: {Verdict.HAZARD, Verdict.DANGER},
    Severity.DANGER: {Verdict.DANGER},
}
_SOUND = {Verdict.SAFE: {Verdict.SAFE, Verdict.CORRECT}, Verdict.CORRECT: {Verdict.CORRECT}}


def places() -> dict[str, PointFacts]:
    """Outlets of one, two and three lines, with the circuit on record and without."""
    america, continent, _ = PRACTICES.values()
    one_line, two_lines, three_lines = (Terminal.L, N, PE), (L1, L2, N, PE), (L1, L2, L3, N, PE)
    rows = {
        "120": (america, Earthing.TN_C_S, one_line, CircuitFacts(20, conductor_named("12 AWG"), 18, 5)),
        "230": (continent, Earthing.TN_S, one_line, CircuitFacts(16, conductor_named("2.5 mm2"), 24, 30)),
        "120/240": (america, Earthing.TN_C_S, two_lines, CircuitFacts(30, conductor_named("10 AWG"), 16)),
        "230/400": (continent, Earthing.TN_S, three_lines, CircuitFacts(32, conductor_named("6 mm2"), 22)),
    }
    found = {
        system: PointFacts(practice, SYSTEMS[system], earthing, PointKind.OUTLET, terminals, circuit)
        for system, (practice, earthing, terminals, circuit) in rows.items()
    }
    return found | {f"{name}, unknown": replace(point, circuit=CircuitFacts()) for name, point in found.items()}


@dataclass(frozen=True)
class Walk:
    """`steps`: readings taken until it was known; None where it never was, `ended` being the verdict there."""

    truth: Condition
    steps: int | None
    ended: Verdict
    taken: tuple[str, ...]


def walk(point: PointFacts, kit: Kit, truth: Condition, rng: np.random.Generator) -> Walk:
    """What is offered first is taken, until the verdict is the truth's or nothing more is offered."""
    severity = truth.severity_at(point)
    wanted = _SOUND[kit.sound_is] if severity.is_fine else _VERDICT_OF[severity]
    hidden, errors = HiddenPoint(point, truth, rng, moves=True), TesterErrors(rng)
    readings: list[Reading] = []
    taken: list[str] = []
    found = interpret(point, readings, kit.testers, cannot=kit.cannot)
    while len(readings) < MOST_STEPS and found.next_tests:
        m = found.next_tests[0].measurement
        readings.append(hidden.read(f"r{len(readings)}", m, errors, at=SECONDS_BETWEEN * len(readings)))
        ends = "-".join(str(end) for end in (m.from_, m.to) if end)
        load = " here" * (m.load_here_a is not None) + " elsewhere" * (m.load_elsewhere_a is not None)
        taken.append(f"{m.quantity} {ends}{load}{' low-z' * (m.input == 'low-z')}{' alone' * m.nothing_else_on}")
        found = interpret(point, readings, kit.testers, cannot=kit.cannot)
        if found.verdict in wanted:
            return Walk(truth, len(readings), found.verdict, tuple(taken))
    return Walk(truth, None, found.verdict, tuple(taken))


def walks(name: str, kit: Kit, seed: int) -> list[Walk]:
    """Of a sound outlet several, of every fault one."""
    point = places()[name]
    return [
        walk(point, kit, truth, np.random.default_rng([seed, number, time]))
        for number, truth in enumerate(conditions_for(point))
        if not truth.device_blind
        for time in range(SOUND_TIMES if truth.severity_at(point).is_fine else FAULT_TIMES)
    ]


def _named(found: Sequence[Walk]) -> str:
    """How many of them were named soon enough, and by how many readings the last that was named at all."""
    steps = [w.steps for w in found if w.steps is not None]
    soon = sum(each <= NAMED_WITHIN for each in steps)
    return f"{soon} of {len(found)}, last by {max(steps, default=0)}"


def run(seed: int, names: Sequence[str], *, aloud: bool = False) -> None:
    """Prints the table. A device that does not trip is no fault of the wiring: protection answers for it."""
    named = f"named within {NAMED_WITHIN}"
    heads = f"{'can hurt, ' + named:28} {'defects, ' + named:28}"
    print(f"{'place':18} {'kit':28} {'sound, readings to':>20}  {heads} (seed {seed})")
    wanted = {kit.name: kit.sound_is for kit in KITS}
    with ProcessPoolExecutor(_WORKERS) as pool:
        jobs = {(name, kit.name): pool.submit(walks, name, kit, seed) for name in names for kit in KITS}
        for (name, kit), job in jobs.items():
            point = places()[name]
            of_sound = [w for w in job.result() if w.truth.id == "correct"]
            faults = [w for w in job.result() if not w.truth.severity_at(point).is_fine]
            can_hurt = [w for w in faults if w.truth.severity_at(point).can_hurt]
            defects = [w for w in faults if not w.truth.severity_at(point).can_hurt]
            sound = " ".join("-" if w.steps is None else str(w.steps) for w in of_sound)
            sound = f"{wanted[kit]} {sound:>11}"
            print(f"{name:18} {kit:28} {sound:>20}  {_named(can_hurt):28} {_named(defects)}")
            if aloud:
                for w in of_sound + faults:
                    print(f"      {w.truth.id:32} {w.steps or '-'!s:>3} {w.ended:12} {'; '.join(w.taken)}")


def main(seed: int = SEED) -> None:
    run(seed, tuple(places()))


if __name__ == "__main__":
    run(SEED, sys.argv[1:] or tuple(places()), aloud=True)
