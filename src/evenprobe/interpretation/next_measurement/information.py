"""What a reading is expected to tell: mutual information with the condition, and what falls if all is well.

For each candidate the nearest samples of every standing condition say what it would show. The mutual information
between condition and reading is binned by the tester's own error and by what a supply moves meanwhile (Lindley, Ann.
Math. Stat. 27, 1956); what falls is what cannot show it at any moment, whatever else is on then.
"""

from collections.abc import Callable, Mapping, Sequence
from functools import partial
from itertools import pairwise
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.conditions import Condition, Severity
from evenprobe.installation.modes import AS_FOUND, OFF, Mode
from evenprobe.interpretation.elimination import Elimination, Standing
from evenprobe.interpretation.ensemble import Ensemble
from evenprobe.interpretation.movement import SOON_AFTER_S, USUALLY_BETWEEN_S, share_after
from evenprobe.quantities import Measurement
from evenprobe.quantities.lamps import LAMP_DARK_SHARE, LAMP_LIT_SHARE, LAMPS, lamp_of, lamps_on
from evenprobe.testers import Instrument
from evenprobe.wiring import PointFacts

Array = NDArray[Any]

_MOST_BINS = 10
_WEIGHT = {
    Severity.OK: 1.0,
    Severity.NOTE: 1.0,
    Severity.DEFECT: 0.5,
    Severity.HAZARD: 2.0,
    Severity.DANGER: 4.0,
}
_FLATTEN = 0.35
"""Exponent on the likelihoods: a rare danger must stay worth a test."""
_FAIR_CHANCE = 0.15
_EXPECTED_SPAN = (0.15, 0.85)
"""Share of a condition's samples between which its reading is expected."""


class Expected:
    """What each candidate would show at the nearest samples of what stands, and what that tells.

    `likelihood`: by condition id, as `likelihoods` gives it.
    """

    def __init__(
        self,
        ensemble: Ensemble,
        elimination: Elimination,
        likelihood: dict[str, float],
        candidates: Sequence[Measurement],
    ) -> None:
        self._ensemble, self._elimination, self._likelihood = ensemble, elimination, likelihood
        self._standing = elimination.standing
        self._sizes = [len(s.rows) for s in self._standing]
        self._rows = np.concatenate([s.rows for s in self._standing])
        self._candidates = candidates
        self._would_show = self._shown("")
        self._with_nothing_on = self._shown(OFF)
        self._least = np.minimum(self._would_show, self._with_nothing_on)
        self._most = np.maximum(self._would_show, self._with_nothing_on)
        moves = np.array([share_after(USUALLY_BETWEEN_S) * m.quantity.with_source for m in candidates])
        constant, share = np.array([m.quantity.apart(m, ensemble.point) for m in candidates]).T
        self._error = np.array([constant, share + moves])[:, :, None]

    def _shown(self, others: str) -> Array:
        """(M, S): each candidate at the standing conditions' nearest samples, with so much else on along the run."""
        by_mode: dict[Mode, list[int]] = {}
        for number, m in enumerate(self._candidates):
            mode = m.quantity.mode(m)
            by_mode.setdefault(mode._replace(others=mode.others or others), []).append(number)
        found = np.empty((len(self._candidates), len(self._rows)))
        for mode, numbers in by_mode.items():
            asked = {
                m: partial(m.quantity.shown, m, point=self._ensemble.point)
                for m in (self._candidates[number] for number in numbers)
            }
            shown = dict(zip(asked, self._ensemble.foreseen(self._rows, mode, asked), strict=True))
            for number in numbers:
                found[number] = shown[self._candidates[number]]
        with_source = [m.quantity.with_source for m in self._candidates]
        found[with_source] *= self._elimination.scale[self._rows]
        return found

    def bits(self) -> Array:
        """(M,) what each candidate is expected to tell of which condition it is, danger weighted first."""
        owner = np.repeat(np.arange(len(self._sizes)), self._sizes)
        return _information(_bins(self._would_show, self._error), owner, self._weights())

    def _weights(self) -> Array:
        point = self._ensemble.point
        weight = np.array(
            [self._likelihood[s.condition.id] ** _FLATTEN * _weight_of(s.condition, point) for s in self._standing]
        )
        return np.asarray(weight / weight.sum())

    def ruled_out(self) -> NDArray[np.bool_]:
        """(M, conditions): what falls if a candidate comes out as the likeliest would show it, all being well."""
        return self._without_sample(self._as_if_well(self._would_show, self._least, self._most, self._doubt))

    def ruled_out_by_pairs(self, before: Sequence[int], after: Sequence[int]) -> NDArray[np.bool_]:
        """(P, conditions) of pairs of candidates with nothing else on: what falls by both and how far they are apart.

        A gain and an unknown load both have in common.
        """
        first, then = self._with_nothing_on[list(before)], self._with_nothing_on[list(after)]
        change = then - first
        moves = share_after(SOON_AFTER_S) * np.median(then, axis=1)[:, None]
        doubt = 2 * self._error[0][list(before)] + 2 * moves
        by_change = self._as_if_well(change, change, change, lambda _: doubt)
        constant, share = (error[list(before)] for error in self._error)
        by_first = self._as_if_well(first, first, first, lambda x: constant + 2 * share * x)
        return self._without_sample(by_change & by_first)

    def _doubt(self, shown: Array) -> Array:
        constant, share = self._error
        return np.asarray(constant + 2 * share * shown)

    def _as_if_well(
        self, shown: Array, least: Array, most: Array, doubt: Callable[[Array], Array]
    ) -> NDArray[np.bool_]:
        """(M, S) whether a sample can show what the likeliest usually shows, within the doubt."""
        expected = likeliest(self._ensemble, self._standing, self._likelihood)
        start = sum(self._sizes[:expected])
        own = shown[:, start : start + self._sizes[expected]]
        low, high = np.quantile(own, _EXPECTED_SPAN, axis=1)[:, :, None]
        return np.asarray((most >= low - doubt(low)) & (least <= high + doubt(high)))

    def _without_sample(self, inside: NDArray[np.bool_]) -> NDArray[np.bool_]:
        """(M, conditions) of which none is inside, the likeliest itself apart."""
        gone = ~np.logical_or.reduceat(inside, np.cumsum([0, *self._sizes[:-1]]), axis=1)
        gone[:, likeliest(self._ensemble, self._standing, self._likelihood)] = False
        return np.asarray(gone)

    def tells_apart(self, asked: Sequence[bool]) -> NDArray[np.bool_]:
        """(M,) whether a candidate, for some of what stands, has a fair chance to strike out any of the rest asked.

        Or any of the rest at all, where what is asked is true.
        """
        constant, share = self._error
        starts = np.cumsum([0, *self._sizes[:-1]])
        lowest = np.minimum.reduceat(self._least, starts, axis=1) * (1 - 2 * share) - 2 * constant
        highest = np.maximum.reduceat(self._most, starts, axis=1) * (1 + 2 * share) + 2 * constant
        shown, about = self._would_show[:, :, None], np.asarray(asked)
        beyond = (shown > highest[:, None]) | (shown < lowest[:, None])
        fair = np.add.reduceat(beyond, starts, axis=1, dtype=float) > _FAIR_CHANCE * np.array(self._sizes)[:, None]
        return np.asarray(fair[:, :, about].any(axis=(1, 2)) | fair[:, about].any(axis=(1, 2)))


def _weight_of(condition: Condition, point: PointFacts) -> float:
    """What it is worth to know it; what is beside the wiring is a question of its own."""
    return _WEIGHT[Severity.DEFECT if condition.leaves_wiring_sound else condition.severity_at(point)]


def likeliest(ensemble: Ensemble, standing: Sequence[Standing], likelihood: Mapping[str, float]) -> int:
    """Which of the standing is likeliest, of the harmless ones if there are any."""
    fine = [i for i, s in enumerate(standing) if s.condition.severity_at(ensemble.point).is_fine]
    return max(fine or range(len(standing)), key=lambda i: likelihood[standing[i].condition.id])


def dark_where_lit(
    ensemble: Ensemble, standing: Sequence[Standing], expected: int, tester: Instrument
) -> NDArray[np.bool_]:
    """Conditions, (C,), under which a lamp is certainly dark that lights if all is well."""
    gone = np.zeros(len(standing), dtype=bool)
    if LAMPS.purpose not in tester.kind.purposes or tester.proved is False:
        return gone
    nominal = ensemble.point.system.nominal_volts
    rows = np.concatenate([s.rows for s in standing])
    starts = np.cumsum([0, *(len(s.rows) for s in standing)])
    solved = ensemble.solved_at(rows, AS_FOUND)
    for lamp in lamps_on(ensemble.point):
        across = LAMPS.shown(lamp_of(lamp), solved, ensemble.point)
        share = [across[a:b] / nominal for a, b in pairwise(starts)]
        if np.median(share[expected]) >= LAMP_LIT_SHARE:
            gone |= [own.max() < LAMP_DARK_SHARE for own in share]
    return gone


def _bins(would_show: Array, error: Array) -> NDArray[np.intp]:
    """Bins two errors wide: even near zero, growing with the value, the same on both sides of zero."""
    constant, share = error
    x = np.clip(would_show, -2e6, 2e6)
    return np.asarray(np.floor(np.sign(x) * np.log1p(share * np.abs(x) / constant) / (2 * share))).astype(np.intp)


def _information(bins: NDArray[np.intp], owner: NDArray[np.intp], weight: Array) -> Array:
    """Mutual information in bits between condition and bin, (M,) for `bins` (M, S), each condition's samples alike.

    Bins are pooled to a few, and the bias of so few samples taken off (Miller and Madow, 1955), for a
    reading that merely scatters tells nothing.
    """
    conditions, count = len(weight), bins.shape[1]
    edges = np.sort(bins, axis=1)[:, (np.arange(1, _MOST_BINS) * (count - 1)) // _MOST_BINS]
    pooled = (bins[:, :, None] > edges[:, None]).sum(axis=2)
    cell = (np.arange(len(bins))[:, None] * conditions + owner) * _MOST_BINS + pooled
    joint = np.bincount(cell.ravel(), minlength=len(bins) * conditions * _MOST_BINS).astype(float)
    joint = joint.reshape(len(bins), conditions, _MOST_BINS)
    counts = joint.sum(axis=2)
    bias = (weight * ((joint > 0).sum(axis=2) - 1) / (2 * counts * np.log(2))).sum(axis=1)
    joint *= (weight / counts)[:, :, None]
    by_chance = weight[:, None] * joint.sum(axis=1, keepdims=True)
    ratio = np.divide(joint, by_chance, out=np.ones_like(joint), where=joint > 0)
    return np.asarray((joint * np.log2(ratio)).sum(axis=(1, 2)) - bias)
