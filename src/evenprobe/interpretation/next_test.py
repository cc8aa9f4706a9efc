"""Which reading decides: expected information about the condition, danger first, for what it costs.

For each candidate the nearest samples of every standing condition say what it would show. The mutual
information between condition and reading, binned by the tester's own error (Lindley, Ann. Math. Stat. 27,
1956), is what it is expected to tell; it is divided by seconds, live ones dearer.
"""

from collections.abc import Hashable, Iterable, Sequence
from dataclasses import replace
from itertools import pairwise
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.conditions import Severity
from evenprobe.installation.modes import AS_FOUND
from evenprobe.interpretation.bank import Bank
from evenprobe.interpretation.elimination import Elimination, Standing
from evenprobe.interpretation.outcome import NextTest
from evenprobe.quantities import Measurement, Reading
from evenprobe.quantities.lamps import LAMP_DARK_SHARE, LAMP_LIT_SHARE, LAMPS, lamp_of, lamps_on
from evenprobe.quantities.probes import port_of, with_loads_placed
from evenprobe.quantities.setups import setups_with
from evenprobe.testers import TYPED, Instrument
from evenprobe.wiring import PointFacts, Terminal

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
TOUCHED_METAL_FIRST = 0.4
"""While a danger stands the metal a hand touches comes first, of all that would rule the danger out."""
MERELY_NARROWING = 6.0
"""A reading that strikes nothing out, even if all is well, comes after those that do."""
EXPECTED_SPAN = (0.15, 0.85)
"""Share of a condition's samples between which its reading is expected."""
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
    candidates = list(_candidates(bank, taken, kit))
    if not candidates:
        return (), _note(bank, standing)
    would_show, error = _would_show(bank, elimination, candidates), _errors(bank, candidates)
    sizes = [len(s.rows) for s in standing]
    bits = _information(
        _bins(would_show, error), np.repeat(np.arange(len(sizes)), sizes), _weights(bank, standing, likelihood)
    )
    gone = _ruled_out(_expected(bank, standing, likelihood), would_show, error, sizes)
    danger_stands = any(s.condition.severity_at(bank.point) is Severity.DANGER for s in standing)
    ranked: list[tuple[float, NextTest]] = []
    for measurement, informs, falls in zip(candidates, bits, gone, strict=True):
        if informs >= LEAST_BITS:
            ids = tuple(s.condition.id for s, f in zip(standing, falls, strict=True) if f)
            quantity = measurement.quantity
            why = " ".join(filter(None, (_why(bank, standing, ids), quantity.warning(measurement))))
            test = NextTest(measurement, ids, float(informs), quantity.seconds(measurement), why)
            ranked.append((informs / _cost(measurement, danger_stands, bool(ids)), test))
    ranked.sort(key=lambda entry: -entry[0])
    offered: list[NextTest] = []
    for _, test in ranked:
        if not any(test.rules_out == earlier.rules_out for earlier in offered):
            offered.append(test)
    return tuple(offered[:OFFERED]), "" if offered else _note(bank, standing)


def would_rule_out(
    bank: Bank, elimination: Elimination, likelihood: dict[str, float], tester: Instrument
) -> frozenset[str]:
    """Ids of what falls if all that can be measured here with a tester comes out as if all were well."""
    standing = elimination.standing
    candidates = list(setups_with(bank.point, tester))
    if not standing:
        return frozenset()
    expected = _expected(bank, standing, likelihood)
    gone = _dark_where_lit(bank, standing, expected, tester)
    if candidates:
        would_show = _would_show(bank, elimination, candidates)
        sizes = [len(s.rows) for s in standing]
        gone = gone | _ruled_out(expected, would_show, _errors(bank, candidates), sizes).any(axis=0)
    return frozenset(s.condition.id for s, falls in zip(standing, gone, strict=True) if falls)


def _dark_where_lit(bank: Bank, standing: Sequence[Standing], expected: int, tester: Instrument) -> NDArray[np.bool_]:
    """Conditions, (C,), under which a lamp is certainly dark that lights if all is well."""
    gone = np.zeros(len(standing), dtype=bool)
    if LAMPS.purpose not in tester.kind.purposes or tester.proved is False:
        return gone
    nominal = bank.point.system.nominal_volts
    rows = np.concatenate([s.rows for s in standing])
    starts = np.cumsum([0, *(len(s.rows) for s in standing)])
    solved = bank.solved_at(rows, AS_FOUND)
    for lamp in lamps_on(bank.point):
        across = LAMPS.shown(lamp_of(lamp), solved, bank.point)
        share = [across[a:b] / nominal for a, b in pairwise(starts)]
        if np.median(share[expected]) >= LAMP_LIT_SHARE:
            gone |= [own.max() < LAMP_DARK_SHARE for own in share]
    return gone


def _errors(bank: Bank, candidates: Sequence[Measurement]) -> Array:
    return np.array([m.quantity.apart(m, bank.point) for m in candidates]).T[:, :, None]


def _would_show(bank: Bank, elimination: Elimination, candidates: Sequence[Measurement]) -> Array:
    """(M, S): what each candidate would show at the standing conditions' nearest samples, one after another."""
    rows = np.concatenate([s.rows for s in elimination.standing])
    solved = {mode: bank.solved_at(rows, mode) for mode in {m.quantity.mode(m) for m in candidates}}
    found = np.empty((len(candidates), len(rows)))
    for m, x in zip(candidates, found, strict=True):
        x[:] = m.quantity.shown(m, solved[m.quantity.mode(m)], bank.point)
        if m.quantity.with_source:
            x *= elimination.scale[rows]
    return found


def _cost(measurement: Measurement, danger_stands: bool, rules_out: bool) -> float:
    cost = measurement.quantity.seconds(measurement)
    if danger_stands and measurement.under_load:
        cost *= PLUGGING_IN_NEAR_DANGER
    if danger_stands and measurement.of_metal_to_reference:
        cost *= TOUCHED_METAL_FIRST
    return cost if rules_out else cost * MERELY_NARROWING


def _weights(bank: Bank, standing: Sequence[Standing], likelihood: dict[str, float]) -> Array:
    weight = np.array(
        [likelihood[s.condition.id] ** FLATTEN * WEIGHT[s.condition.severity_at(bank.point)] for s in standing]
    )
    return np.asarray(weight / weight.sum())


def _candidates(bank: Bank, taken: Sequence[Reading], kit: Sequence[Instrument]) -> Iterable[Measurement]:
    done = {_setup(r.measurement, bank.point) for r in taken}
    volts_in_kit = any(tester.volts() is not None for tester in kit)
    ohms_in_kit = any(tester.ohms() is not None for tester in kit)
    for tester in kit:
        yield from (m for m in setups_with(bank.point, tester) if _setup(m, bank.point) not in done)
    if not volts_in_kit:
        stands_in = (m for m in setups_with(bank.point, TYPED) if not (m.quantity.dead and ohms_in_kit))
        yield from (m for m in stands_in if _setup(m, bank.point) not in done)


def _setup(m: Measurement, point: PointFacts) -> Hashable:
    """What makes two measurements the same test, however many amperes the load draws; the casing hangs on the earth."""
    loads = m.load_here_a is not None, m.load_elsewhere_a is not None
    same = replace(
        with_loads_placed(m, point),
        from_=m.from_ and Terminal(port_of(m.from_)),
        to=m.to and Terminal(port_of(m.to)),
        device="open" if m.quantity.dead else m.device,
    )
    return same.setup("load_here_a", "load_elsewhere_a"), loads


def _bins(would_show: Array, error: Array) -> NDArray[np.intp]:
    """Bins two errors wide: even near zero, growing with the value."""
    constant, share = error
    x = np.minimum(would_show, 2e6)
    return np.asarray(np.floor(np.log1p(share * x / constant) / (2 * share))).astype(np.intp)


def _information(bins: NDArray[np.intp], owner: NDArray[np.intp], weight: Array) -> Array:
    """Mutual information in bits between condition and bin, (M,) for `bins` (M, S), each condition's samples alike.

    Bins are pooled to a few, and the bias of so few samples taken off (Miller and Madow, 1955), for a
    reading that merely scatters tells nothing.
    """
    conditions, count = len(weight), bins.shape[1]
    edges = np.sort(bins, axis=1)[:, (np.arange(1, MOST_BINS) * (count - 1)) // MOST_BINS]
    pooled = (bins[:, :, None] > edges[:, None]).sum(axis=2)
    cell = (np.arange(len(bins))[:, None] * conditions + owner) * MOST_BINS + pooled
    joint = np.bincount(cell.ravel(), minlength=len(bins) * conditions * MOST_BINS).astype(float)
    joint = joint.reshape(len(bins), conditions, MOST_BINS)
    counts = joint.sum(axis=2)
    bias = (weight * ((joint > 0).sum(axis=2) - 1) / (2 * counts * np.log(2))).sum(axis=1)
    joint *= (weight / counts)[:, :, None]
    by_chance = weight[:, None] * joint.sum(axis=1, keepdims=True)
    ratio = np.divide(joint, by_chance, out=np.ones_like(joint), where=joint > 0)
    return np.asarray((joint * np.log2(ratio)).sum(axis=(1, 2)) - bias)


def _expected(bank: Bank, standing: Sequence[Standing], likelihood: dict[str, float]) -> int:
    """Which of the standing is likeliest, of the harmless ones if there are any."""
    fine = [i for i, s in enumerate(standing) if s.condition.severity_at(bank.point).is_fine]
    return max(fine or range(len(standing)), key=lambda i: likelihood[standing[i].condition.id])


def _ruled_out(expected: int, would_show: Array, error: Array, sizes: Sequence[int]) -> NDArray[np.bool_]:
    """(M, conditions): what falls if the reading comes out as the expected condition would show it."""
    starts = np.cumsum([0, *sizes[:-1]])
    own = would_show[:, starts[expected] : starts[expected] + sizes[expected]]
    low, high = np.quantile(own, EXPECTED_SPAN, axis=1)[:, :, None]
    constant, share = error
    low, high = low - constant - 2 * share * low, high + constant + 2 * share * high
    inside = (would_show >= low) & (would_show <= high)
    gone = ~np.logical_or.reduceat(inside, starts, axis=1)
    gone[:, expected] = False
    return np.asarray(gone)


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
        f"No test from this kit tells these apart: {'; '.join(titles)}. Look for {worst.cause}; or measure "
        "each conductor end to end, isolated and proved dead, with a low-ohm tester."
    )
