"""What a display shows, and how far from it the truth can be: ± (percent of reading + counts · last digit)."""

from dataclasses import dataclass
from math import inf


@dataclass(frozen=True)
class Accuracy:
    """A tester's error as makers give it. `resolution` in the unit of the value."""

    percent: float = 1.0
    counts: float = 0.0
    resolution: float = 0.0

    def shows(self, value: float) -> "Shown":
        return Shown(value, self.percent / 100 * abs(value) + self.counts * self.resolution)

    def beyond(self, top: float = inf) -> "Shown":
        """A display that says only more than its range, which goes up to `top`."""
        return Shown(top, 0.0, beyond=True)


@dataclass(frozen=True)
class Shown:
    """`value` ± `doubt`; with `beyond` the truth is the value or any more."""

    value: float
    doubt: float
    beyond: bool = False

    @property
    def interval(self) -> tuple[float, float]:
        return self.value - self.doubt, inf if self.beyond else self.value + self.doubt

    def less(self, amount: float) -> "Shown":
        """With something in series taken off: what a tester shows too much of both readings cancels."""
        return Shown(self.value - amount, self.doubt, self.beyond)

    def times(self, factor: float) -> "Shown":
        return Shown(self.value * factor, self.doubt * abs(factor), self.beyond)
