"""Which reading decides: expected information about the condition, danger first, for what it costs.

For each candidate the nearest samples of every standing condition say what it would show. The mutual
information between condition and reading, binned by the tester's own error (Lindley, Ann. Math. Stat. 27,
1956), is what it is expected to tell; it is divided by seconds, live ones dearer.
"""

from collections.abc import Iterable, Sequence
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.interpretation.bank import Bank, mode_of
from evenprobe.interpretation.elimination import Elimination, Standing
from evenprobe.interpretation.outcome import NextTest
from evenprobe.testers import TYPED, Instrument, Measurement, Quantity, Reading, port_of, shown, weigh
from evenprobe.testers.measurement import Input
from evenprobe.wiring import Severity, Terminal, contact_pairs
from evenprobe.wiring.installation import Solved
from evenprobe.wiring.points import METALWORK
from evenprobe.wiring.unknowns import assumed_rating_a

Array = NDArray[Any]

OFFERED = 3
LEAST_BITS = 0.01
MOST_BINS = 10
WEIGHT = {
    Severity.OK: 1.0,
    Severity.NOTE: 1.0,
    Severity.DEFECT: 0.5,
    Severity.HAZARD: 2.0,
    Severity.DANGER: 4.0,
}
FLATTEN = 0.35
"""Exponent on the likelihoods: a rare danger must stay worth a test."""
SECONDS = {
    "contact": 15.0,
    "reference": 25.0,
    "low-z": 8.0,
    "at a live contact": 2.0,
    "here": 40.0,
    "elsewhere": 70.0,
    "open": 150.0,
}
LIVE_EXPOSURE = 1.3
TOUCHED_METAL_FIRST = 0.4
"""While a danger stands the metal a hand touches comes first, of all that would rule the danger out."""
MERELY_NARROWING = 6.0
"""A reading that strikes nothing out, even if all is well, comes after those that do."""
USUAL_LOAD_A = 10.0
PLUGGING_IN_NEAR_DANGER = 3.0
"""Nothing is plugged in while metalwork may be live, so tests that need it wait until it is known."""


def next_tests(
    bank: Bank,
    elimination: Elimination,
    likelihood: dict[str, float],
    taken: Sequence[Reading],
    kit: Sequence[Instrument],
) -> tuple[tuple[NextTest, ...], str]:
    """The best few, and where nothing in the kit separates what stands, what would."""
    standing = elimination.standing
    if len(standing) < 2 or all(s.condition.severity_at(bank.point).is_fine for s in standing):
        return (), ""
    rows = np.concatenate([s.rows for s in standing])
    owner = np.concatenate([np.full(len(s.rows), i) for i, s in enumerate(standing)])
    weight = _weights(bank, standing, likelihood)
    solved = {mode: _subset(bank.solved(mode), rows) for mode in ((False, False), (True, True))}
    danger_stands = any(s.condition.severity_at(bank.point) is Severity.DANGER for s in standing)
    ranked: list[tuple[float, NextTest]] = []
    for measurement in _candidates(bank, taken, kit):
        x = shown(
            measurement,
            solved[mode_of(measurement)],
            bank.point.system.nominal_volts,
            bank.point.system.frequency_hz,
        )
        if measurement.quantity is Quantity.VOLTAGE:
            x = x * elimination.scale[rows]
        bits = _information(_bins(measurement, x, bank.point.system.nominal_volts), owner, weight)
        if bits >= LEAST_BITS:
            gone = _ruled_out(bank, standing, likelihood, measurement, x, owner)
            cost = _seconds(measurement)
            if danger_stands and (measurement.load_here_a or measurement.load_elsewhere_a):
                cost *= PLUGGING_IN_NEAR_DANGER
            if danger_stands and _metal_to_reference(measurement):
                cost *= TOUCHED_METAL_FIRST
            if not gone:
                cost *= MERELY_NARROWING
            ranked.append(
                (bits / cost, NextTest(measurement, gone, bits, _seconds(measurement), _why(bank, standing, gone)))
            )
    ranked.sort(key=lambda entry: -entry[0])
    offered: list[NextTest] = []
    for _, test in ranked:
        if not any(test.rules_out == earlier.rules_out for earlier in offered):
            offered.append(test)
    return tuple(offered[:OFFERED]), "" if offered else _note(bank, standing)


def _weights(bank: Bank, standing: Sequence[Standing], likelihood: dict[str, float]) -> Array:
    weight = np.array(
        [likelihood[s.condition.id] ** FLATTEN * WEIGHT[s.condition.severity_at(bank.point)] for s in standing]
    )
    return np.asarray(weight / weight.sum())


def _subset(solved: Solved, rows: NDArray[np.intp]) -> Solved:
    return Solved(
        solved.at.select(rows),
        solved.known_load_error[rows],
        solved.contact_ohm[rows],
        solved.reference_ohm[rows],
    )


def _candidates(bank: Bank, taken: Sequence[Reading], kit: Sequence[Instrument]) -> Iterable[Measurement]:
    done = {_setup(r.measurement) for r in taken}
    load = round(min(USUAL_LOAD_A, 0.8 * assumed_rating_a(bank.point)))
    pairs = contact_pairs(bank.point.terminals)
    references = [(t, Terminal.REF) for t in bank.point.terminals if t is not Terminal.REF]
    volts_in_kit = any(tester.volts() is not None for tester in kit)
    for tester in [*kit] if volts_in_kit else [*kit, TYPED]:
        setups: list[Measurement] = []
        ability = tester.volts()
        if ability is not None and tester.proved is not False:
            inputs: list[Input] = ["high-z", "low-z"] if ability.low_input_ohm else ["high-z"]
            for a, b in [*pairs, *references]:
                setups += [Measurement(Quantity.VOLTAGE, a, b, tester, i) for i in inputs]
            for a, b in pairs:
                setups.append(Measurement(Quantity.VOLTAGE, a, b, tester, load_here_a=load))
                setups.append(Measurement(Quantity.VOLTAGE, a, b, tester, load_elsewhere_a=load))
        if tester.ohms() is not None and tester.proved is not False:
            setups += [Measurement(Quantity.RESISTANCE, a, b, tester, device="open") for a, b in pairs]
        yield from (m for m in setups if _setup(m) not in done)


def _setup(m: Measurement) -> tuple[object, ...]:
    """What makes two measurements the same test, whichever probe is where and however many amperes."""
    ends = frozenset(port_of(t) for t in (m.from_, m.to) if t)
    loads = m.load_here_a is not None, m.load_elsewhere_a is not None
    device = "open" if m.quantity is Quantity.RESISTANCE else m.device
    return m.quantity, ends, m.input, loads, device


def _metal_to_reference(m: Measurement) -> bool:
    return Terminal.REF in (m.from_, m.to) and any(end in METALWORK for end in (m.from_, m.to))


def _seconds(m: Measurement) -> float:
    if m.quantity is Quantity.RESISTANCE:
        return SECONDS["open"]
    seconds = SECONDS["contact"]
    if not any(end in METALWORK for end in (m.from_, m.to)):
        seconds += SECONDS["at a live contact"]
    seconds += SECONDS["reference"] * (Terminal.REF in (m.from_, m.to))
    seconds += SECONDS["low-z"] * (m.input == "low-z")
    seconds += SECONDS["here"] * (m.load_here_a is not None)
    seconds += SECONDS["elsewhere"] * (m.load_elsewhere_a is not None)
    return seconds * LIVE_EXPOSURE


def _error(measurement: Measurement, nominal: float) -> tuple[float, float]:
    """(constant, share) of what two readings must differ by to be told apart."""
    at_zero = weigh(Reading("", measurement, value=0.0), nominal)[0]
    constant = getattr(at_zero, "tolerance", 0.5)
    return constant, getattr(at_zero, "gain_share", 0.01) + 0.002


def _bins(measurement: Measurement, x: Array, nominal: float) -> NDArray[np.intp]:
    """Bins two errors wide: even near zero, growing with the value."""
    constant, share = _error(measurement, nominal)
    x = np.minimum(x, 2e6)
    return np.asarray(np.floor(np.log1p(share * x / constant) / (2 * share))).astype(np.intp)


def _information(bins: NDArray[np.intp], owner: NDArray[np.intp], weight: Array) -> float:
    """Mutual information in bits between condition and bin, each condition's samples alike.

    Bins are pooled to a few, and the bias of so few samples taken off (Miller and Madow, 1955), for a
    reading that merely scatters tells nothing.
    """
    edges = np.unique(np.quantile(bins, np.linspace(0, 1, MOST_BINS + 1)[1:-1], method="lower"))
    pooled = np.searchsorted(edges, bins)
    joint = np.zeros((len(weight), len(edges) + 1))
    np.add.at(joint, (owner, pooled), 1.0)
    counts = joint.sum(axis=1)
    bias = float((weight * ((joint > 0).sum(axis=1) - 1) / (2 * counts * np.log(2))).sum())
    joint *= (weight / counts)[:, None]
    seen = joint.sum(axis=0)
    filled = joint > 0
    ratio = joint[filled] / (weight[:, None] * seen[None, :])[filled]
    return float((joint[filled] * np.log2(ratio)).sum()) - bias


def _ruled_out(
    bank: Bank,
    standing: Sequence[Standing],
    likelihood: dict[str, float],
    measurement: Measurement,
    x: Array,
    owner: NDArray[np.intp],
) -> tuple[str, ...]:
    """What falls if the reading comes out as the likeliest harmless condition, or the likeliest, would show it."""
    fine = [i for i, s in enumerate(standing) if s.condition.severity_at(bank.point).is_fine]
    expected = max(fine or range(len(standing)), key=lambda i: likelihood[standing[i].condition.id])
    low, high = np.quantile(x[owner == expected], [0.15, 0.85])
    constant, share = _error(measurement, bank.point.system.nominal_volts)
    low, high = low - constant - 2 * share * low, high + constant + 2 * share * high
    return tuple(
        s.condition.id
        for i, s in enumerate(standing)
        if i != expected and not ((x[owner == i] >= low) & (x[owner == i] <= high)).any()
    )


def _why(bank: Bank, standing: Sequence[Standing], gone: Sequence[str]) -> str:
    if not gone:
        return "Narrows down what is left."
    worst_first = sorted(
        (s.condition for s in standing if s.condition.id in gone),
        key=lambda c: -c.severity_at(bank.point),
    )
    titles = [c.in_words(c.title, bank.point.practice) for c in worst_first[:2]]
    more = f" and {len(gone) - 2} more" if len(gone) > 2 else ""
    return f"If all is well it rules out {'; '.join(t[0].lower() + t[1:] for t in titles)}{more}."


def _note(bank: Bank, standing: Sequence[Standing]) -> str:
    titles = [s.condition.in_words(s.condition.title, bank.point.practice) for s in standing]
    worst = max((s.condition for s in standing), key=lambda c: c.severity_at(bank.point))
    return (
        f"No test from this kit tells these apart: {'; '.join(titles)}. Look for {worst.look_for}; or measure "
        "each conductor end to end, isolated and proved dead, with a low-ohm tester."
    )
