"""The quickest way to safe if all is well: which measurements together rule out all that could hurt, in least time.

A set cover by seconds, exact where little is left to rule out and greedy otherwise (Chvátal, Math. Oper. Res. 4, 1979).
Proving a circuit dead is paid once for all the dead tests on the way.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from heapq import heappop, heappush
from itertools import count
from typing import NamedTuple

from evenprobe.quantities import Measurement
from evenprobe.quantities.resistance import OPEN_S

_EXACT_UP_TO = 9
"""Conditions to rule out; the states of the search double with each."""
_EACH_S = 60.0
"""What any reading costs besides: setting up, writing down."""


@dataclass(frozen=True)
class Step:
    """Measurements taken one after the other, by number, and what they rule out together."""

    numbers: tuple[int, ...]
    rules_out: frozenset[str]

    def ruling_out(self, more: str) -> "Step":
        return Step(self.numbers, self.rules_out | {more})


def shortest_way(measurements: Sequence[Measurement], steps: Sequence[Step], to_rule_out: frozenset[str]) -> list[Step]:
    """The steps that together rule out whatever any of them does of `to_rule_out`."""
    coverable = sorted(to_rule_out & frozenset().union(*(step.rules_out for step in steps)))
    bit = {name: 1 << i for i, name in enumerate(coverable)}
    masks = {i: sum(bit[name] for name in step.rules_out if name in bit) for i, step in enumerate(steps)}
    useful = {i: mask for i, mask in masks.items() if mask}
    taken = [[measurements[number] for number in step.numbers] for step in steps]
    cost = {i: _Cost(_seconds(taken[i]), _is_dead(taken[i])) for i in useful}
    search = _exact if len(coverable) <= _EXACT_UP_TO else _greedy
    return [steps[i] for i in search(cost, useful, (1 << len(coverable)) - 1)]


class _Cost(NamedTuple):
    """Seconds of a step at a closed circuit, and whether the circuit has to be opened for it."""

    seconds: float
    is_dead: bool

    def once(self, opened: bool) -> float:
        return self.seconds - OPEN_S if opened and self.is_dead else self.seconds


def _is_dead(step: Sequence[Measurement]) -> bool:
    return any(m.quantity.dead for m in step)


def _seconds(step: Sequence[Measurement]) -> float:
    return sum(m.quantity.seconds(m) + _EACH_S for m in step)


def _exact(cost: Mapping[int, _Cost], masks: dict[int, int], every: int) -> list[int]:
    """Dijkstra over what is ruled out so far and whether the circuit is open."""
    order = count()
    queue: list[tuple[float, int, int, bool, list[int]]] = [(0.0, next(order), 0, False, [])]
    seen: set[tuple[int, bool]] = set()
    while queue:
        seconds, _, done, opened, way = heappop(queue)
        if done == every:
            return way
        if (done, opened) in seen:
            continue
        seen.add((done, opened))
        for i, mask in masks.items():
            if mask & ~done:
                then = seconds + cost[i].once(opened)
                heappush(queue, (then, next(order), done | mask, opened or cost[i].is_dead, [*way, i]))
    return []


def _greedy(cost: Mapping[int, _Cost], masks: dict[int, int], every: int) -> list[int]:
    way: list[int] = []
    done, opened = 0, False
    while done != every:
        best = max(masks, key=lambda i: (masks[i] & ~done).bit_count() / cost[i].once(opened))
        way.append(best)
        done, opened = done | masks[best], opened or cost[best].is_dead
    return way
