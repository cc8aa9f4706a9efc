"""Hunting by the plan: 2 000 random runs played out, against going in order; trees halved against the exact plan.

`python -m bench.hunting 2000 7` draws so many with seed 7. Exit 1 where a plan's mean minutes are not its expectation.
"""

import sys
import time
from dataclasses import dataclass

import numpy as np

from evenprobe.hunting.evidence import Split
from evenprobe.hunting.findings import HuntState
from evenprobe.hunting.hidden import HiddenShort
from evenprobe.hunting.left import Left
from evenprobe.hunting.plan import Halves, plan
from evenprobe.hunting.run import BOARD, Box, Place, Run
from evenprobe.hunting.shorts import hunt_short

RUNS, SEED = 2_000, 17
EVEN_BOXES, EVEN_METRES = (12, 30, 60), 5.0
FEWEST, MOST = 5, 60
TREES, TREE_BOXES = 300, 16
STANDARD_ERRORS = 4.0
"""Within which a mean over so many runs is its expectation."""


@dataclass(frozen=True)
class Played:
    """Minutes of one fault found: said beforehand, spent by the plan, and spent in order."""

    said: float
    spent: float
    in_order: float


def random_run(rng: np.random.Generator, boxes: int, *, branches: bool = False) -> Run:
    """Of boxes some suspected and some hidden."""

    def after(number: int) -> str:
        if number == 1:
            return BOARD
        return f"p{rng.integers(max(1, number - 3), number) if branches else number - 1}"

    return Run(
        Box(
            f"p{number}",
            after(number),
            float(rng.uniform(2, 15)),
            float(rng.choice([0.3, 1, 1, 1, 3, 4, 6])),
            float(rng.choice([1, 1, 3])),
            float(rng.choice([6, 6, 6, 25])),
        )
        for number in range(1, boxes + 1)
    )


def play(run: Run, truth: Place) -> tuple[float, float]:
    """What was expected at the start, and the minutes until it is found by what is offered."""
    hidden = HiddenShort(run, truth)
    seen, here, minutes, said = [Split(BOARD, onward=True)], BOARD, 0.0, 0.0
    while (found := hunt_short(run, seen, here)).state is HuntState.HUNTING and found.next is not None:
        said = said or found.next.minutes
        at = found.next.at
        minutes += run.walk_minutes(here, at) + run.box[at].open_minutes
        seen.append(hidden.split(at))
        here = at
    assert set(found.share) == {truth}
    return said, minutes


def played(rng: np.random.Generator) -> Played:
    """One random run and one fault in it, drawn by its weight."""
    run = random_run(rng, int(rng.integers(FEWEST, MOST + 1)))
    weights = np.array([run.weight(place) for place in run.places])
    truth = run.places[rng.choice(len(weights), p=weights / weights.sum())]
    said, spent = play(run, truth)
    return Played(said, spent, hunt_short(run, [Split(BOARD, onward=True)]).in_order_minutes)


def _halves(rng: np.random.Generator) -> float:
    """Minutes by halves over those of the exact plan, of one small tree."""
    run = random_run(rng, int(rng.integers(FEWEST, TREE_BOXES + 1)), branches=True)
    left = Left(run, {place: run.weight(place) for place in run.places})
    exact = plan(left, BOARD)
    return left.expected(BOARD, Halves(left).best) / exact.minutes if exact else 1.0


def main(runs: int = RUNS, seed: int = SEED) -> int:
    rng = np.random.default_rng(seed)
    for boxes in EVEN_BOXES:
        run = Run(Box(f"p{i}", f"p{i - 1}" if i > 1 else BOARD, EVEN_METRES) for i in range(1, boxes + 1))
        started = time.perf_counter()
        found = hunt_short(run, [Split(BOARD, onward=True)])
        took = 1000 * (time.perf_counter() - started)
        minutes = found.next.minutes if found.next else 0.0
        times = found.in_order_minutes / minutes
        print(f"hunting, {boxes} even boxes: {minutes:.1f} min, in order {times:.2f} times; planned in {took:.0f} ms")
    all_played = [played(rng) for _ in range(runs)]
    said, spent, in_order = (np.array([getattr(p, name) for p in all_played]) for name in ("said", "spent", "in_order"))
    off = float((spent - said).mean())
    allowed = STANDARD_ERRORS * float((spent - said).std()) / runs**0.5
    print(
        f"hunting, {runs} random runs of {FEWEST} to {MOST} boxes (seed {seed}): said {said.mean():.1f} min, "
        f"spent {spent.mean():.1f}, in order {in_order.mean() / said.mean():.2f} times"
    )
    ratios = np.array([_halves(rng) for _ in range(TREES)])
    print(
        f"hunting, {TREES} trees of {FEWEST} to {TREE_BOXES} boxes by halves: "
        f"{100 * (ratios.mean() - 1):.1f} % over exact, {100 * (np.quantile(ratios, 0.95) - 1):.1f} % at p95"
    )
    if abs(off) > allowed:
        print(f"hunting: {off:+.2f} min off what was said, more than chance ({allowed:.2f})")
        return 1
    return 0


if __name__ == "__main__":
    sys.exit(main(*(int(each) for each in sys.argv[1:])))
