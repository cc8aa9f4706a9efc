"""A batch of samples of a point's installation, solved as it is asked for, and what each would show."""

from collections.abc import Sequence
from functools import cached_property
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from evenprobe.installation import Installation
from evenprobe.installation.installation import Solved
from evenprobe.installation.modes import OFF, Mode
from evenprobe.installation.sensitivities import SLOPE_STEP, Blocks
from evenprobe.interpretation.memory import Memory
from evenprobe.quantities import Evidence, Measurement
from evenprobe.wiring.unknowns import Values

Array = NDArray[Any]

_MODES_KEPT = 48
"""As good as all there are."""
_LANES = 16
_NO_CHANGE = 1e-30
PREDICTIONS_KEPT = 96
"""Of a batch; a long-lived server would otherwise keep one for every load and tester anyone ever used."""


def modes_of(evidence: Sequence[Evidence]) -> list[Mode]:
    """The same for each of several, with no state of the installation solved twice, once with taps and once without."""
    modes = [e.quantity.mode(e.measurement) for e in evidence]
    return [mode._replace(taps=True) if mode._replace(taps=True) in modes else mode for mode in modes]


def _mode_with(measurement: Measurement, others: str) -> Mode:
    """The mode it is measured in, with so much else on along the run; "" is what it says of that itself."""
    mode = measurement.quantity.mode(measurement)
    return mode._replace(others=others or mode.others)


class Span(NamedTuple):
    """What a measurement could show at any moment, least and most, whatever else is on then: (B,) or (R, B) each.

    `least_with`, `most_with`: which of the installation's loadings does it.
    """

    least: Array
    most: Array
    least_with: NDArray[np.intp]
    most_with: NDArray[np.intp]

    def of(self, rows: slice | NDArray[np.intp] | NDArray[np.bool_]) -> "Span":
        """Some of the samples."""
        return Span(*(each[..., rows] for each in self))

    def readings(self, rows: Sequence[int]) -> "Span":
        """Of several readings some."""
        return Span(*(each[list(rows)] for each in self))

    def scaled(self, factor: Array) -> "Span":
        """With the source scaled."""
        return self._replace(least=self.least * factor, most=self.most * factor)


def in_whole_lanes(rows: NDArray[np.intp]) -> NDArray[np.intp]:
    """The rows, the last of them repeated until a processor takes all in lanes of one width.

    What is left over of a batch it works out by other instructions, whose last digit may be another.

    >>> len(in_whole_lanes(np.arange(33)))
    48
    """
    return np.concatenate([rows, np.repeat(rows[-1:], -len(rows) % _LANES)])


def _magnitude(phasors: Array) -> Array:
    return np.abs(phasors) if np.iscomplexobj(phasors) else phasors


def _least_on_the_way(phasors: Array) -> Array:
    """The least magnitude (B,) between what is shown with nothing on, the first of (L, B), and with the most on.

    What a load takes away may leave little of a voltage, and turn it over as it grows: the least is in between.
    """
    unloaded, change = phasors[0], phasors[1:] - phasors[0]
    dot = -(change.real * unloaded.real + change.imag * unloaded.imag)
    share = np.clip(dot / np.maximum(change.real**2 + change.imag**2, _NO_CHANGE), 0.0, 1.0)
    return np.asarray(np.abs(unloaded + share * change).min(axis=0, initial=np.inf))


class Samples:
    """A batch of samples under known conditions, solved as they are asked for."""

    def __init__(self, installation: Installation, cube: Array, blocks: Blocks, *, with_slopes: bool = False) -> None:
        self.installation = installation
        self.cube = cube
        self.blocks = blocks
        self.with_slopes = with_slopes
        self._of: tuple[Samples, NDArray[np.intp]] | None = None
        self._solved: Memory[Mode, Solved] = Memory(_MODES_KEPT)
        self._predicted: Memory[Measurement, Array] = Memory(PREDICTIONS_KEPT)
        self._spans: Memory[Measurement, Span] = Memory(PREDICTIONS_KEPT)
        self._side_by_side: Memory[Mode, Solved] = Memory(_MODES_KEPT)
        self._loaded: Memory[Measurement, Array] = Memory(PREDICTIONS_KEPT)
        self._changed: Memory[Mode, Array] = Memory(_MODES_KEPT)

    @cached_property
    def values(self) -> Values:
        return self.installation.unknowns(self.cube)

    def select(self, rows: NDArray[np.intp]) -> "Samples":
        """Some of the samples, in ascending order; what is solved of them already is not solved again."""
        if len(rows) == len(self.cube):
            return self
        blocks = [(c, slice(*np.searchsorted(rows, (block.start, block.stop)))) for c, block in self.blocks]
        some = Samples(
            self.installation,
            self.cube[rows],
            [(c, block) for c, block in blocks if block.start < block.stop],
            with_slopes=self.with_slopes,
        )
        some._of = self, rows
        return some

    def _known(self, mode: Mode) -> Solved | None:
        known = self._solved.known(mode) or self._solved.known(mode._replace(taps=True))
        if known is None and self._of is not None:
            every, rows = self._of
            of_all = every._known(mode)
            return of_all and self._solved.keep(mode, of_all.select(rows))
        return known

    def solved_at(self, rows: NDArray[np.intp], mode: Mode) -> Solved:
        """Some of the samples solved, in any order, without solving all of them for it."""
        known = self._known(mode)
        if known is not None:
            return known.select(rows)
        once, back = np.unique(rows, return_inverse=True)
        return self.select(in_whole_lanes(once)).solved(mode).select(back)

    def solved(self, mode: Mode) -> Solved:
        if mode.others:
            mode = mode._replace(taps=True)
        known = self._known(mode)
        if known is not None:
            return known

        if mode.others not in ("", OFF):
            unloaded = self.solved(mode._replace(others=OFF))
            return self._solved.keep(mode, self.installation.carrying(unloaded, self.values, self.blocks, mode))

        def solve() -> Solved:
            return self.installation.solve(self.values, self.blocks, mode, with_slopes=self.with_slopes)

        return self._solved.of(mode, solve)

    def predicted(self, measurement: Measurement) -> Array:
        """What the measurement would show, (B,) in its quantity's unit."""
        return self._predicted.of(measurement, lambda: self._shown_with(measurement, ""))

    def _shown_with(self, measurement: Measurement, others: str) -> Array:
        """What it would show with so much else on as `others` of a mode says."""
        return _magnitude(self._phasor_with(measurement, others))

    def _phasor_with(self, measurement: Measurement, others: str) -> Array:
        """The same with its angle."""
        mode = _mode_with(measurement, others)
        if self.with_slopes and mode.others:
            return np.asarray(self._phasor_with_each(measurement)[self.installation.loadings.index(mode.others)])
        return measurement.quantity.phasor(measurement, self.solved(mode), self.installation.point)

    def _phasor_with_each(self, measurement: Measurement) -> Array:
        """The same with nothing else on, and with the most between each two wires: (loadings, B)."""
        if self._of is not None:
            every, rows = self._of
            return np.asarray(every._phasor_with_each(measurement)[:, rows])

        def work_out() -> Array:
            mode = _mode_with(measurement, OFF)._replace(taps=True)
            solved = self._side_by_side.of(mode, lambda: self._solved_side_by_side(mode))
            found = measurement.quantity.phasor(measurement, solved, self.installation.point)
            return found.reshape(-1, len(self.cube))

        return self._loaded.of(measurement, work_out)

    def _solved_side_by_side(self, mode: Mode) -> Solved:
        return self.installation.side_by_side(self.solved(mode), self.values, self.blocks, mode)

    def _shown(self, measurement: Measurement, solved: Solved) -> Array:
        return measurement.quantity.shown(measurement, solved, self.installation.point)

    def span(self, measurement: Measurement) -> Span:
        """What the measurement could show at any moment, whatever else is on then: least and most, (B,) each."""
        return self._spans.of(measurement, lambda: self._span(measurement))

    def _span(self, measurement: Measurement) -> Span:
        loadings = (OFF,) if measurement.nothing_else_on else self.installation.loadings
        phasors = np.stack([self._phasor_with(measurement, others) for others in loadings])
        shown = _magnitude(phasors)
        least = (
            np.minimum(shown.min(axis=0), _least_on_the_way(phasors)) if np.iscomplexobj(phasors) else shown.min(axis=0)
        )
        wander = measurement.quantity.wander(measurement, self.solved(_mode_with(measurement, loadings[0])))
        ends = shown.argmin(axis=0), shown.argmax(axis=0)
        return Span(least * (1 - wander), shown.max(axis=0) * (1 + wander), *ends)

    def spans(self, evidence: Sequence[Evidence]) -> Span:
        """(R, B) each, a row a piece of evidence."""
        loadings = (OFF,) if self.with_slopes else self.installation.loadings
        for mode in set(modes_of(evidence)):
            for others in (mode.others,) if mode.others else loadings:
                self.solved(mode._replace(others=others))
        spans = [self.span(e.measurement) for e in evidence]
        return Span(*(np.stack(each) for each in zip(*spans, strict=True)))

    def slopes(self, evidence: Sequence[Evidence], others: str = "") -> Array:
        """What each prediction changes by along each axis of the cube, (B, R, unknowns); needs `with_slopes`."""
        found = np.empty((len(self.cube), len(evidence), self.cube.shape[1]))
        modes = [mode._replace(others=others or mode.others) for mode in modes_of(evidence)]
        installation = self.installation
        for mode in set(modes):
            solved = self.solved(mode)
            rows = [i for i, own in enumerate(modes) if own == mode]
            per_branch = np.stack(
                [e.quantity.slopes(e.measurement, solved, installation.point) for e in (evidence[i] for i in rows)]
            )
            changes, branches = self._changes(mode), installation.answering(mode)
            found[:, rows] = installation.sensitivities(mode).slopes(per_branch, changes, branches)
        for i, e in enumerate(evidence):
            found[:, i] += self._slopes_beside_branches(e, others)
        return found

    def _changes(self, mode: Mode) -> Array:
        """What the admittances change by along the axes, (E, B): with nothing on along the run, and what can be on."""
        unloaded = mode._replace(others=OFF if mode.others else "", taps=False)
        if self._of is not None:
            every, rows = self._of
            return every._changes(unloaded)[:, rows]
        find = self.installation.sensitivities(mode).changes
        return self._changed.of(unloaded, lambda: find(self.cube, self.blocks, unloaded))

    def _slopes_beside_branches(self, e: Evidence, others: str) -> Array:
        """The part of the slopes that does not go through a branch's admittance, (B, unknowns)."""
        unknowns = self.installation.unknowns
        found = np.zeros_like(self.cube)
        measurement, quantity = e.measurement, e.quantity
        solved = self.solved(_mode_with(measurement, others))
        predicted = self._shown_with(measurement, others)
        for name in quantity.beside_branches(measurement):
            axis = unknowns.names.index(name)
            step = np.where(self.cube[:, axis] > 0.5, -SLOPE_STEP, SLOPE_STEP)
            moved = solved.with_value(name, unknowns.ranges[name].at(self.cube[:, axis] + step))
            found[:, axis] = (self._shown(measurement, moved) - predicted) / step
        if not quantity.with_source:
            return found
        low, high = self.source_range
        found[:, unknowns.names.index("source_volts")] += predicted * (high - low)
        return np.asarray(found + predicted[:, None] * self._regulation_slopes)

    @cached_property
    def _regulation_slopes(self) -> Array:
        """Share by which the EMF changes along each axis for a given voltage at the board, (B, unknowns)."""
        if self._of is not None:
            every, of_all = self._of
            return np.asarray(every._regulation_slopes[of_all])
        installation, unknowns = self.installation, self.installation.unknowns
        found = np.zeros_like(self.cube)
        axes = [unknowns.names.index(name) for name in installation.regulating]
        for condition, rows in self.blocks:
            step = np.where(self.cube[rows] > 0.5, -SLOPE_STEP, SLOPE_STEP)[:, axes]
            moved = self.cube[rows][:, None] + step[:, :, None] * np.eye(unknowns.count)[axes]
            emf = installation.regulation_of(condition, unknowns(moved.reshape(-1, unknowns.count))).reshape(step.shape)
            here = installation.regulation_of(condition, unknowns(self.cube[rows]))
            found[rows, axes] = (emf / here[:, None] - 1) / step
        return found

    @cached_property
    def source_range(self) -> tuple[Array, Array]:
        """How far each sample's source voltage could be scaled and stay within its condition: low, high (B,).

        The network is linear with one source, so a sample answers for every source voltage at once.
        """
        volts = self.installation.source_volts(self.values, self.blocks)
        low, high = np.empty_like(volts), np.empty_like(volts)
        for condition, rows in self.blocks:
            span = self.installation.source_span(condition)
            low[rows], high[rows] = span[0] / volts[rows], span[1] / volts[rows]
        return low, high
