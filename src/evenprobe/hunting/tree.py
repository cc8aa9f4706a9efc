"""The plan that takes the fewest minutes on a small tree: all of them, but none is followed that cannot be the best.

Branch and bound over what is left and where one stands (Land and Doig, Econometrica 28, 1960).
"""

from evenprobe.hunting.left import Left
from evenprobe.hunting.run import BOARD, Place

_MOST_STATES = 60_000


class TooManyPlans(Exception):
    """More than can be gone through."""


class Tree:
    """All plans on a small tree: what is left as bits, and where one stands.

    Whatever the plan, a box that is at fault, or the cable to it, is told by opening the box: it takes the way there
    and the opening at least, and no plan is followed that with so much is not the best.
    """

    def __init__(self, left: Left) -> None:
        self.of = left
        places = sorted(left.region)
        self.weights = [left.weight[place] for place in places]
        self.bit = {place: 1 << i for i, place in enumerate(places)}
        self.whole = (1 << len(places)) - 1
        self.looks = {
            name: (
                self.bit[Place(name)],
                left.minutes_at(name),
                [sum(self.bit[p] for p in group.region) for group in left.groups(name, left.region)],
            )
            for name in left.stops
        }
        self.walks = {
            here: {name: left.run.walk_minutes(here, name) for name in self.looks} for here in (BOARD, *left.run.box)
        }
        self.told_by_opening = [(name, *pair) for name in self.looks if (pair := self._with_its_cable(name))]
        self.known: dict[tuple[int, str], tuple[float, str]] = {}
        self.bounds: dict[tuple[int, str], float] = {}
        self.shares: dict[int, tuple[float, int]] = {}

    def _with_its_cable(self, name: str) -> tuple[int, float] | None:
        """Bits and weight of a box and the cable to it; None where either cannot be, and the other is told alone."""
        places = Place(name), Place(name, stretch=True)
        weights = [self.of.weight.get(place, 0.0) for place in places]
        return (self.bit[places[0]] | self.bit[places[1]], sum(weights)) if min(weights) > 0 else None

    def first(self, here: str) -> tuple[str, float]:
        """The box to look at first, and the minutes of the whole plan from here. Raises TooManyPlans."""
        minutes, name = self.least(self.whole, here)
        return name, minutes / self.share(self.whole)[0]

    def share(self, left: int) -> tuple[float, int]:
        """Weight of what is left, and how many of it can be."""
        if left not in self.shares:
            weights = [w for i, w in enumerate(self.weights) if left >> i & 1]
            self.shares[left] = sum(weights), sum(w > 0 for w in weights)
        return self.shares[left]

    def at_least(self, left: int, here: str) -> float:
        """Weighted minutes that no plan is under."""
        if (left, here) not in self.bounds:
            walks = self.walks[here]
            self.bounds[left, here] = sum(
                weight * (walks[name] + self.looks[name][1])
                for name, bits, weight in self.told_by_opening
                if left & bits == bits
            )
        return self.bounds[left, here]

    def least(self, left: int, here: str) -> tuple[float, str]:
        """Weighted minutes, and the box to look at first."""
        weight, many = self.share(left)
        if many < 2:
            return 0.0, ""
        if (left, here) in self.known:
            return self.known[left, here]
        if len(self.known) > _MOST_STATES:
            raise TooManyPlans
        walks = self.walks[here]
        ways = []
        for name, (own, minutes, groups) in self.looks.items():
            if left & own:
                parts = [(part, self.at_least(part, name)) for group in groups if (part := left & group)]
                cost = weight * (walks[name] + minutes) + sum(bound for _, bound in parts)
                ways.append((cost, name, parts))
        best: tuple[float, str] = (float("inf"), "")
        for cost, name, parts in sorted(ways):
            for part, bound in parts:
                if cost >= best[0]:
                    break
                cost += self.least(part, name)[0] - bound
            best = min(best, (cost, name))
        self.known[left, here] = best
        return best
