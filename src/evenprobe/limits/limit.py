"""What a limit is: a band in a unit, with the condition it holds under and where it comes from."""

from dataclasses import dataclass, replace

_FACTOR_OF_ITSELF = 1e-6


@dataclass(frozen=True)
class Band:
    """An interval in the limit's unit, both ends allowed."""

    low: float
    high: float

    def holds(self, interval: tuple[float, float]) -> bool | None:
        """Whether every value of an interval is inside; None where some are and some are not."""
        low, high = interval
        if self.low <= low and high <= self.high:
            return True
        return False if high < self.low or low > self.high else None

    def times(self, factor: float) -> "Band":
        return Band(round(self.low * factor, 1), round(self.high * factor, 1))


@dataclass(frozen=True)
class Limit:
    """`band` is what passes; `tolerable`, where there is one, is worth a note rather than a failure."""

    id: str
    unit: str
    band: Band
    source: str
    tolerable: Band | None = None
    condition: str = ""

    def times(self, factor: float) -> "Limit":
        """The same for another nominal voltage; at a factor of 1 it is itself."""
        if abs(factor - 1) < _FACTOR_OF_ITSELF:
            return self
        tolerable = self.tolerable and self.tolerable.times(factor)
        return replace(self, band=self.band.times(factor), tolerable=tolerable)


@dataclass(frozen=True)
class Override:
    """A crew's own value for a limit. The reason is shown wherever the limit is used."""

    limit: str
    low: float
    high: float
    reason: str
