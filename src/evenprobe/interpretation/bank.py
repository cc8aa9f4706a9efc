"""The bank of samples of a point: every condition, many ways each, solved once and answering any reading.

Sobol points with a fixed seed, so results repeat. The same points serve every condition, so conditions
differ by their change alone.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache
from typing import Any, TypeVar

import numpy as np
from numpy.typing import NDArray
from scipy.stats import qmc

from evenprobe.testers import (
    Evidence,
    Measurement,
    Quantity,
    follows_source,
    lamp_slopes,
    lamp_volts,
    phasor,
    potential,
    shown,
    slopes,
)
from evenprobe.wiring import Condition, Installation, PointFacts, Terminal, conditions_for
from evenprobe.wiring.installation import BesideBranches, Solved
from evenprobe.wiring.modes import AS_FOUND, CLAMPED, DEAD, NEUTRAL_LIFTED, Mode
from evenprobe.wiring.sensitivities import SLOPE_STEP, Blocks
from evenprobe.wiring.unknowns import Values

Array = NDArray[Any]
Key = TypeVar("Key")
Value = TypeVar("Value")

SAMPLES_PER_CONDITION = 1024
SEED = 20
CORNER_SHARE = 0.08
TAIL_SHARE = 0.1
EXCLUSIONS_KEPT = 64
PREDICTIONS_KEPT = 96
"""Of a bank; a long-lived server would otherwise keep one for every load and tester anyone ever used."""


def mode_of(measurement: Measurement) -> Mode:
    """Which solution of the installation a measurement is made on; dead tests are made with the device open."""
    if measurement.dead:
        return NEUTRAL_LIFTED if measurement.neutral == "lifted" else DEAD
    if measurement.quantity is Quantity.CURRENT:
        return CLAMPED
    return Mode(device_open=measurement.device == "open", taps=measurement.load_elsewhere_a is not None)


def modes_of(evidence: Sequence[Evidence]) -> list[Mode]:
    """The same for each of several, with no state of the installation solved twice, once with taps and once without."""
    modes = [mode_of(e.measurement) for e in evidence]
    return [mode._replace(taps=True) if mode._replace(taps=True) in modes else mode for mode in modes]


class Samples:
    """A batch of samples under known conditions, solved as they are asked for."""

    def __init__(self, installation: Installation, cube: Array, blocks: Blocks, *, with_slopes: bool = False) -> None:
        self.installation = installation
        self.cube = cube
        self.blocks = blocks
        self.with_slopes = with_slopes
        self._solved: dict[Mode, Solved] = {}
        self._predicted: dict[tuple[Measurement, str | None], Array] = {}

    @cached_property
    def values(self) -> Values:
        return self.installation.unknowns(self.cube)

    def select(self, rows: NDArray[np.intp]) -> "Samples":
        """Some of the samples, in ascending order, with what is already solved of them."""
        blocks = [(c, slice(*np.searchsorted(rows, (block.start, block.stop)))) for c, block in self.blocks]
        some = Samples(
            self.installation,
            self.cube[rows],
            [(c, block) for c, block in blocks if block.start < block.stop],
            with_slopes=self.with_slopes,
        )
        some._solved = {mode: solved.select(rows) for mode, solved in self._solved.items()}
        some._predicted = {key: predicted[rows] for key, predicted in self._predicted.items()}
        return some

    def _known(self, mode: Mode) -> Solved | None:
        return self._solved.get(mode) or self._solved.get(mode._replace(taps=True))

    def solved_at(self, rows: NDArray[np.intp], mode: Mode) -> Solved:
        """Some of the samples solved, in any order, without solving all of them for it."""
        known = self._known(mode)
        if known is not None:
            return known.select(rows)
        once, back = np.unique(rows, return_inverse=True)
        return self.select(once).solved(mode).select(back)

    def solved(self, mode: Mode) -> Solved:
        known = self._known(mode)
        if known is None:
            known = self.installation.solve(self.values, self.blocks, mode, with_slopes=self.with_slopes)
            self._solved[mode] = known
        return known

    def predicted(self, measurement: Measurement, lamp: str | None = None) -> Array:
        """What the measurement would show, (B,) in volts or ohms."""
        key = measurement, lamp
        if key not in self._predicted:
            return _remembered(self._predicted, key, self._predict(measurement, lamp))
        return self._predicted[key]

    def _predict(self, measurement: Measurement, lamp: str | None) -> Array:
        return self._shown(measurement, lamp, self.solved(mode_of(measurement)))

    def _shown(self, measurement: Measurement, lamp: str | None, solved: Solved) -> Array:
        if lamp is not None:
            return lamp_volts(solved)[lamp]
        return shown(measurement, solved, self.installation.point)

    def predictions(self, evidence: Sequence[Evidence]) -> Array:
        """(R, B), a row a piece of evidence."""
        for mode in set(modes_of(evidence)):
            self.solved(mode)
        return np.stack([self.predicted(e.measurement, e.lamp) for e in evidence])

    def slopes(self, evidence: Sequence[Evidence]) -> Array:
        """What each prediction changes by along each axis of the cube, (B, R, unknowns); needs `with_slopes`."""
        found = np.empty((len(self.cube), len(evidence), self.cube.shape[1]))
        modes = modes_of(evidence)
        for mode in set(modes):
            solved = self.solved(mode)
            rows = [i for i, own in enumerate(modes) if own == mode]
            per_branch = np.stack(
                [
                    lamp_slopes(e.lamp, solved)
                    if e.lamp is not None
                    else slopes(e.measurement, solved, self.installation.point)
                    for e in (evidence[i] for i in rows)
                ]
            )
            found[:, rows] = self.installation.sensitivities(mode).slopes(per_branch, self.cube, self.blocks, mode)
        for i, e in enumerate(evidence):
            found[:, i] += self._slopes_beside_branches(e)
        return found

    def _slopes_beside_branches(self, e: Evidence) -> Array:
        """The part of the slopes that does not go through a branch's admittance, (B, unknowns)."""
        unknowns = self.installation.unknowns
        found = np.zeros_like(self.cube)
        solved, predicted = self.solved(mode_of(e.measurement)), self.predicted(e.measurement, e.lamp)
        for name in _beside_branches(e.measurement):
            axis = unknowns.names.index(name)
            step = np.where(self.cube[:, axis] > 0.5, -SLOPE_STEP, SLOPE_STEP)
            moved = solved.with_value(name, unknowns.ranges[name].at(self.cube[:, axis] + step))
            found[:, axis] = (self._shown(e.measurement, e.lamp, moved) - predicted) / step
        follows = predicted * follows_source(e.measurement, predicted)
        low, high = self.source_range
        found[:, unknowns.names.index("source_volts")] += follows * (high - low)
        for condition, rows in self.blocks:
            if condition.source_share is not None:
                found[rows] += follows[rows, None] * self._regulation_slopes[rows]
        return found

    @cached_property
    def _regulation_slopes(self) -> Array:
        """Share by which the EMF changes along each axis for a given voltage at the board, (B, unknowns)."""
        installation, unknowns = self.installation, self.installation.unknowns
        found = np.zeros_like(self.cube)
        axes = [unknowns.names.index(name) for name in installation.regulating]
        for condition, rows in self.blocks:
            if condition.source_share is None:
                continue
            step = np.where(self.cube[rows] > 0.5, -SLOPE_STEP, SLOPE_STEP)[:, axes]
            moved = self.cube[rows][:, None] + step[:, :, None] * np.eye(unknowns.count)[axes]
            emf = installation.emf_over_board(unknowns(moved.reshape(-1, unknowns.count))).reshape(step.shape)
            here = installation.emf_over_board(unknowns(self.cube[rows]))
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


def _remembered(memory: dict[Key, Value], key: Key, value: Value) -> Value:
    """The value, kept; the oldest is dropped for it when there are too many."""
    while len(memory) >= PREDICTIONS_KEPT:
        memory.pop(next(iter(memory)), None)
    memory[key] = value
    return value


def _beside_branches(m: Measurement) -> list[BesideBranches]:
    """Unknowns that act at the known load and at the probes, where they matter."""
    names: list[BesideBranches] = []
    if m.load_here_a is not None or m.load_elsewhere_a is not None:
        names.append("known_load_error")
    if m.dead:
        names.append("contact_ohm")
    if Terminal.REF in (m.from_, m.to):
        names.append("reference_ohm")
    return names


@dataclass(frozen=True)
class ShownRange:
    """By condition, (C,): the `least` and the `most` its samples show, and how far beyond it could `reach`.

    What samples leave unseen beyond their ends is about as wide as the thinnest tenth of them.
    """

    least: Array
    most: Array
    reach_low: Array
    reach_high: Array


class Bank(Samples):
    """All conditions of a point, or only those named, `samples` of each: rows (C · samples, unknowns)."""

    def __init__(
        self,
        point: PointFacts,
        samples: int = SAMPLES_PER_CONDITION,
        conditions: tuple[Condition, ...] | None = None,
    ) -> None:
        installation = Installation(point)
        self.point = point
        self.samples = samples
        self.conditions = conditions_for(point) if conditions is None else conditions
        cube = _sobol(installation.unknowns.count, samples)
        blocks = [(condition, slice(i * samples, (i + 1) * samples)) for i, condition in enumerate(self.conditions)]
        super().__init__(installation, np.tile(cube, (len(self.conditions), 1)), blocks)
        self.scale = self.source_range
        self._excluded: dict[str, list[frozenset[object]]] = {}
        self._ranges: dict[tuple[Measurement, str | None], ShownRange] = {}
        self._potentials: dict[Terminal, Array] = {}

    def prepare(self) -> None:
        """Solve beforehand whatever the next readings may need, so that none has to wait for it."""
        for mode in (AS_FOUND._replace(taps=True), DEAD, NEUTRAL_LIFTED):
            if mode not in self._solved:
                self._solved[mode] = self.installation.solve(self.values, self.blocks, mode)

    def number_of(self, block: slice) -> int:
        """Which of the conditions has this block of rows."""
        return int(block.start) // self.samples

    def shown_range(self, e: Evidence) -> "ShownRange":
        """What the samples of each condition show, its source anywhere in its span."""
        key = e.measurement, e.lamp
        if key not in self._ranges:
            p = self.predicted(e.measurement, e.lamp)
            low, high = self.scale if e.with_source else (1.0, 1.0)
            by_condition = len(self.conditions), self.samples
            tail = int(TAIL_SHARE * self.samples)
            lowest = np.partition((p * low).reshape(by_condition), (0, tail), axis=1)[:, [0, tail]]
            highest = np.partition(-(p * high).reshape(by_condition), (0, tail), axis=1)[:, [0, tail]]
            found = ShownRange(
                lowest[:, 0], -highest[:, 0], 2 * lowest[:, 0] - lowest[:, 1], highest[:, 1] - 2 * highest[:, 0]
            )
            return _remembered(self._ranges, key, found)
        return self._ranges[key]

    def potential(self, terminal: Terminal) -> Array:
        """Volts of a terminal against the mass of earth, (B,)."""
        if terminal not in self._potentials:
            self._potentials[terminal] = potential(terminal, self.solved(AS_FOUND))
        return self._potentials[terminal]

    def phasor(self, terminal: Terminal, row: int) -> complex:
        """The same of one sample, with its angle."""
        return complex(phasor(terminal, self.solved(AS_FOUND))[row])

    def excludes(self, condition_id: str, evidence: Sequence[Evidence]) -> bool:
        """Whether evidence among this was already found to exclude the condition: more readings never bring it back."""
        given = {e.key for e in evidence}
        return any(known <= given for known in self._excluded.get(condition_id, ()))

    def remember_excluded(self, condition_id: str, evidence: Sequence[Evidence]) -> None:
        known = self._excluded.setdefault(condition_id, [])
        known.append(frozenset(e.key for e in evidence))
        del known[:-EXCLUSIONS_KEPT]


@lru_cache(maxsize=4)
def _sobol(dimensions: int, samples: int) -> Array:
    """(samples, dimensions) in the unit cube; `samples` is best a power of two.

    A share of them is pushed to the cube's corners, where long runs meet heavy loads: what a condition can
    show at the most must be in the bank, or a reading out there would strike out the truth.
    """
    cube = np.asarray(qmc.Sobol(dimensions, rng=SEED).random(samples))
    corners = int(samples * CORNER_SHARE)
    cube[-corners:] = np.round(cube[-corners:])
    return cube


def bank_for(point: PointFacts, samples: int = SAMPLES_PER_CONDITION) -> Bank:
    """The bank of a point, kept: points that the record describes alike share one."""
    return _kept(point, samples)


def forget_banks() -> None:
    """As if no point had ever been opened."""
    _kept.cache_clear()


@lru_cache(maxsize=12)
def _kept(point: PointFacts, samples: int) -> Bank:
    return Bank(point, samples)
