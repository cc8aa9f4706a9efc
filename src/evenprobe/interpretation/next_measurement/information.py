"""What a reading is expected to tell: mutual information with the condition, and what falls if all is well.

For each candidate the nearest samples of every standing condition say what it would show. The mutual information
between condition and reading is binned by the tester's own error (Lindley, Ann. Math. Stat. 27, 1956).
"""

from collections.abc import Sequence
from itertools import pairwise
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.conditions import Severity
from evenprobe.installation.modes import AS_FOUND
from evenprobe.interpretation.elimination import Elimination, Standing
from evenprobe.interpretation.ensemble import Ensemble
from evenprobe.quantities import Measurement
from evenprobe.quantities.lamps import LAMP_DARK_SHARE, LAMP_LIT_SHARE, LAMPS, lamp_of, lamps_on
from evenprobe.testers import Instrument

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
        self._would_show = self._shown(candidates)
        self._error = np.array([m.quantity.apart(m, ensemble.point) for m in candidates]).T[:, :, None]

    def _shown(self, candidates: Sequence[Measurement]) -> Array:
        """(M, S): each candidate at the standing conditions' nearest samples, one after another."""
        modes = {m.quantity.mode(m) for m in candidates}
        solved = {mode: self._ensemble.solved_at(self._rows, mode) for mode in modes}
        found = np.empty((len(candidates), len(self._rows)))
        for m, x in zip(candidates, found, strict=True):
            x[:] = m.quantity.shown(m, solved[m.quantity.mode(m)], self._ensemble.point)
            if m.quantity.with_source:
                x *= self._elimination.scale[self._rows]
        return found

    def bits(self) -> Array:
        """(M,) what each candidate is expected to tell of which condition it is, danger weighted first."""
        owner = np.repeat(np.arange(len(self._sizes)), self._sizes)
        return _information(_bins(self._would_show, self._error), owner, self._weights())

    def _weights(self) -> Array:
        point = self._ensemble.point
        weight = np.array(
            [
                self._likelihood[s.condition.id] ** _FLATTEN * _WEIGHT[s.condition.severity_at(point)]
                for s in self._standing
            ]
        )
        return np.asarray(weight / weight.sum())

    def ruled_out(self) -> NDArray[np.bool_]:
        """(M, conditions): what falls if a candidate comes out as the likeliest would show it, all being well."""
        expected = likeliest(self._ensemble, self._standing, self._likelihood)
        starts = np.cumsum([0, *self._sizes[:-1]])
        own = self._would_show[:, starts[expected] : starts[expected] + self._sizes[expected]]
        low, high = np.quantile(own, _EXPECTED_SPAN, axis=1)[:, :, None]
        constant, share = self._error
        low, high = low - constant - 2 * share * low, high + constant + 2 * share * high
        inside = (self._would_show >= low) & (self._would_show <= high)
        gone = ~np.logical_or.reduceat(inside, starts, axis=1)
        gone[:, expected] = False
        return np.asarray(gone)


def likeliest(ensemble: Ensemble, standing: Sequence[Standing], likelihood: dict[str, float]) -> int:
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
