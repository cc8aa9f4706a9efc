"""A second look before a condition is struck out: its best samples are moved until they fit, if they can.

An ensemble of a thousand samples in some forty unknowns is sparse; a true condition seldom has one that meets
ten readings at once. So the samples that come nearest are moved by damped least squares (Levenberg 1944,
Marquardt 1963) on what each reading misses its tolerance by. Once a reading is inside it pulls no more, so
a sample that fits is a root of the system and is reached fast; a condition that cannot fit stops moving.
All starts of all conditions go in one batch, each with the readings it is to meet; the worse half of a condition's
starts is dropped as they go. Every third time slopes are not found anew but brought into line with what the step
just taken showed (Broyden, Math. Comp. 19, 1965).
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from evenprobe.conditions import Condition
from evenprobe.installation import Installation
from evenprobe.interpretation.movement import moment_of, of_the_source
from evenprobe.interpretation.samples import Samples
from evenprobe.quantities import Evidence

Array = NDArray[Any]

_DAMPING = 3e-3
_FURTHEST_STEP = 0.5
_SOFT_OHMS = 0.3
_SOFT_TOLERANCES = 20.0
"""Below about so many ohms, or tolerances in volts, values are compared evenly rather than by their ratio."""
_INSIDE = 0.6
"""Share of the tolerance within which a reading pulls no more."""
_ROUNDS = 20
KEEP, KEEP_PATIENTLY = {0: 0.75, 2: 0.4, 4: 0.2, 7: 0.1}, {2: 0.7, 4: 0.5, 7: 0.25}
"""After so many rounds only this share of a condition's starts goes on."""
_FEWEST_KEPT = 3
_OUT_OF_REACH = {4: 600.0, 7: 100.0}
"""After so many rounds a start that still costs more goes no further: those that fit in the end were within a
third of this by then, nearly all of them at their goal."""
ENDS = 4
FITS = 1.05
"""Least squares may stop short of the least misfit there is; a condition that comes this near is not struck out."""
_IN_LINE_EVERY = 3
_PATIENCE = {3: 0.9, 5: 0.75}
_LONG_PATIENCE = {5: 0.95}
"""A start whose misfits have not shrunk to this share in so many rounds has arrived."""


@dataclass(frozen=True)
class Start:
    """Samples (K, unknowns) of one condition to begin from, and what of the evidence they are to meet (R,)."""

    condition: Condition
    cube: Array
    meets: NDArray[np.bool_]


@dataclass(frozen=True)
class Arrival:
    """The least misfit found for a condition, and the ends (E, unknowns) nearest to fitting, for a hop from there."""

    condition: Condition
    misfit: float
    cube: Array


class LocalSearch:
    """A batch of starts moved together; `patient`, one that still moves is given up late.

    Beside the unknowns each tester's gain is moved and each moment's source, one more axis of the cube each, 0.5
    being exact. What else is on at a moment is whatever suits its reading best.
    """

    def __init__(
        self, installation: Installation, evidence: Sequence[Evidence], starts: Sequence[Start], *, patient: bool
    ) -> None:
        self._installation, self._evidence, self._patient = installation, evidence, patient
        self._conditions = [s.condition for s in starts]
        self._owner = np.concatenate([np.full(len(s.cube), i) for i, s in enumerate(starts)])
        self._meets = np.array([s.meets for s in starts])
        self._begun_with = np.bincount(self._owner)
        cube = np.concatenate([s.cube for s in starts])
        exact = np.full((len(cube), len(_testers(evidence)) + len(_moments(evidence))), 0.5)
        self._cube = np.concatenate([cube, exact], axis=1)
        begun = self._trial(self._owner, self._cube)
        self._residual, self._cost = begun.residual, begun.cost
        self._costs = [begun.cost]
        self._least = np.full(len(starts), np.inf)
        np.minimum.at(self._least, self._owner, begun.misfit)
        self._damping = np.full(len(cube), _DAMPING)
        self._slopes = np.empty((len(cube), len(evidence), self._cube.shape[1]))
        self._active: NDArray[np.intp] = np.flatnonzero(self._least[self._owner] > FITS)
        if len(self._active):
            self._slopes[self._active] = begun.slopes(self._active)

    def run(self) -> dict[str, Arrival]:
        """What became of each condition, by its id."""
        for turn in range(_ROUNDS):
            if not len(self._active):
                break
            self._move(turn)
        return {condition.id: self._arrival(i, condition) for i, condition in enumerate(self._conditions)}

    def _move(self, turn: int) -> None:
        """One step of every active start; kept where it came nearer, and shorter the next time where it did not."""
        active = self._active
        begun_at, residual, slopes = self._cube[active], self._residual[active], self._slopes[active]
        size = self._meets.sum(axis=1)[self._owner[active]]
        step = _damped_step(slopes, _outside(residual), self._damping[active], begun_at, size)
        trial = self._trial(self._owner[active], np.clip(begun_at + step, 0.0, 1.0))
        np.minimum.at(self._least, self._owner[active], trial.misfit)
        better = trial.cost < self._cost[active]
        damping = self._damping[active]
        self._damping[active] = np.clip(np.where(better, damping / 4, damping * 5), 1e-7, 1e3)
        moved, arrived = active[better], np.flatnonzero(better)
        self._cube[moved], self._residual[moved] = trial.cube[arrived], trial.residual[arrived]
        self._cost = self._cost.copy()
        self._cost[moved] = trial.cost[arrived]
        self._costs.append(self._cost)
        self._active = self._worth_going_on(turn)
        if turn % _IN_LINE_EVERY:
            go_on = np.isin(moved, self._active)
            if go_on.any():
                self._slopes[moved[go_on]] = trial.slopes(arrived[go_on])
        else:
            self._slopes[active] = _in_line_with(slopes, trial.cube - begun_at, trial.residual - residual)

    def _worth_going_on(self, turn: int) -> NDArray[np.intp]:
        active: NDArray[np.intp] = self._active[self._least[self._owner[self._active]] > FITS]
        for rounds, share in (_LONG_PATIENCE if self._patient else _PATIENCE).items():
            if turn >= rounds:
                active = active[self._cost[active] < share * self._costs[-1 - rounds][active]]
        if turn in _OUT_OF_REACH and not self._patient:
            active = active[self._cost[active] <= _OUT_OF_REACH[turn]]
        keep = KEEP_PATIENTLY if self._patient else KEEP
        return self._best_of_each(active, keep[turn]) if turn in keep else active

    def _best_of_each(self, active: NDArray[np.intp], share: float) -> NDArray[np.intp]:
        """Of each condition's starts the nearest, so many that at most `share` of those it began with are left."""
        kept = []
        for condition in np.unique(self._owner[active]):
            own = active[self._owner[active] == condition]
            most = max(_FEWEST_KEPT, int(share * self._begun_with[condition]))
            kept.append(np.sort(own[np.argsort(self._cost[own])[:most]]))
        return np.asarray(np.concatenate(kept) if kept else active, dtype=np.intp)

    def _arrival(self, number: int, condition: Condition) -> Arrival:
        own = np.flatnonzero(self._owner == number)
        ends = own[np.argsort(self._cost[own])[:ENDS]]
        return Arrival(condition, float(self._least[number]), self._cube[ends, : self._installation.unknowns.count])

    def _trial(self, owner: Array, cube: Array) -> "_Trial":
        return _Trial(self._installation, self._evidence, self._conditions, owner, cube, self._meets[owner])


def search_from(
    installation: Installation, evidence: Sequence[Evidence], starts: Sequence[Start], *, patient: bool = False
) -> dict[str, Arrival]:
    """What became of each condition of the starts, by its id; nothing where there are none."""
    return LocalSearch(installation, evidence, starts, patient=patient).run() if starts else {}


def _outside(residual: Array) -> Array:
    """What each reading misses the inner part of its tolerance by, signed."""
    return np.asarray(residual - np.clip(residual, -_INSIDE, _INSIDE))


def _cost(residual: Array) -> Array:
    return np.asarray((_outside(residual) ** 2).sum(axis=1))


class _Trial:
    """A batch tried: samples with a gain for each tester and a source for each moment, of the conditions they are of.

    `meets` (K, R): which readings each is to meet. `residual` (K, R): what each of these is missed by, signed, in
    tolerances; `misfit` (K,) the greatest of them.
    """

    def __init__(
        self,
        installation: Installation,
        evidence: Sequence[Evidence],
        conditions: Sequence[Condition],
        owner: Array,
        cube: Array,
        meets: NDArray[np.bool_],
    ) -> None:
        self.evidence = evidence
        self.cube = cube
        self.unknowns = installation.unknowns.count
        edges = np.searchsorted(owner, np.arange(len(conditions) + 1))
        blocks = [(c, slice(edges[i], edges[i + 1])) for i, c in enumerate(conditions) if edges[i] < edges[i + 1]]
        self.samples = Samples(installation, cube[:, : self.unknowns], blocks, with_slopes=True)
        testers, moments = _testers(evidence), _moments(evidence)
        self.gain_axis = np.array([self.unknowns + testers.index(e.tester) for e in evidence])
        at = self.unknowns + len(testers)
        self.source_axis = np.array([at + moments.index(moment_of(e)) for e in evidence])
        low, high = np.array([e.low for e in evidence]), np.array([e.high for e in evidence])
        tolerance = np.array([e.tolerance for e in evidence])
        self.gain_share = np.array([e.gain_share for e in evidence])
        self.source_share = np.where(meets[:, None, :], of_the_source(evidence), 0.0).max(axis=2) / 2
        self.gain = 1 + self.gain_share * (2 * cube[:, self.gain_axis] - 1)
        of_the_point = 1 + self.source_share * (2 * cube[:, self.source_axis] - 1)
        low_scale, high_scale = (end[:, None] for end in self.samples.source_range)
        self.source = np.where(self.source_share > 0, np.clip(of_the_point, low_scale, high_scale), 1.0)
        self.source_held = self.source != of_the_point
        span = self.samples.spans(evidence)
        least, most = (shown.T * self.gain * self.source for shown in (span.least, span.most))
        self.shown = np.maximum(least, np.minimum(most, low))
        self.loading = np.where(most < low, span.most_with.T, span.least_with.T)
        inside = np.clip(self.shown, low, high)
        self.misfit = np.abs((self.shown - inside) / tolerance).max(axis=1, where=meets, initial=0.0)
        with_source = np.array([e.with_source for e in evidence])
        self.soft = np.where(with_source, _SOFT_TOLERANCES * tolerance, _SOFT_OHMS)
        self.share = tolerance / (np.minimum(low, 1e9) + self.soft)
        self.residual = np.log((self.shown + self.soft) / (inside + self.soft)) / self.share * meets
        self.outside = (self.shown != inside) & meets
        self.cost = _cost(self.residual)

    def slopes(self, rows: NDArray[np.intp]) -> Array:
        """How the residuals of some rows (N,) change along each axis, (N, R, unknowns and gains)."""
        found = np.zeros((len(rows), len(self.evidence), self.cube.shape[1]))
        gain, source, shown = self.gain[rows], self.source[rows], self.shown[rows]
        found[:, :, : self.unknowns] = self._of_the_spans(rows) * (gain * source)[:, :, None]
        each = np.arange(len(self.evidence))
        found[:, each, self.gain_axis] = 2 * self.gain_share * shown / gain
        found[:, each, self.source_axis] = 2 * self.source_share[rows] * ~self.source_held[rows] * shown / source
        per_unit = self.outside[rows] / (self.share * (shown + self.soft))
        return np.asarray(found * per_unit[:, :, None])

    def _of_the_spans(self, rows: NDArray[np.intp]) -> Array:
        """How the end of its span that misses the reading changes, (N, R, unknowns); 0 where none does."""
        found = np.zeros((len(rows), len(self.evidence), self.unknowns))
        samples = self.samples.select(rows)
        for number, others in enumerate(samples.installation.loadings):
            wanted = self.outside[rows] & (self.loading[rows] == number)
            some, readings = np.flatnonzero(wanted.any(axis=1)), np.flatnonzero(wanted.any(axis=0))
            if len(some):
                slopes = samples.select(some).slopes([self.evidence[i] for i in readings.tolist()], others)
                found[np.ix_(some, readings)] += slopes * wanted[np.ix_(some, readings)][:, :, None]
        return found


def _testers(evidence: Sequence[Evidence]) -> list[str]:
    return list(dict.fromkeys(e.tester for e in evidence))


def _moments(evidence: Sequence[Evidence]) -> list[float | str]:
    return list(dict.fromkeys(moment_of(e) for e in evidence))


def _in_line_with(slopes: Array, step: Array, change: Array) -> Array:
    """The slopes (K, R, unknowns) least changed that give the change (K, R) of the residuals seen for the step."""
    unseen = change - (slopes @ step[:, :, None])[:, :, 0]
    length = (step * step).sum(axis=1)[:, None] + 1e-18
    return np.asarray(slopes + unseen[:, :, None] * (step / length)[:, None, :])


def _damped_step(slopes: Array, residual: Array, damping: Array, cube: Array, size: Array) -> Array:
    """(K, unknowns), in the dual form since there are fewer readings than unknowns; walls hold what leans on them.

    `size` (K,): how many of the readings there are to meet.
    """
    free = np.ones_like(cube)
    step = np.zeros_like(cube)
    for _ in range(3):
        held = slopes * free[:, None, :]
        inner = held @ held.transpose(0, 2, 1)
        mean = np.trace(inner, axis1=1, axis2=2) / size + 1e-12
        inner = inner + (damping * mean)[:, None, None] * np.eye(inner.shape[1])
        step = -(held.transpose(0, 2, 1) @ np.linalg.solve(inner, residual[:, :, None]))[:, :, 0]
        leaning = ((cube <= 0) & (step < 0)) | ((cube >= 1) & (step > 0))
        free = np.where(leaning, 0.0, free)
    longest = np.abs(step).max(axis=1, keepdims=True)
    return np.asarray(step * np.minimum(1.0, _FURTHEST_STEP / np.maximum(longest, 1e-12)))
