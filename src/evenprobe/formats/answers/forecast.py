"""What each pair and each lamp would show under one condition."""

from pydantic import Field

from evenprobe.formats.answers.answer import Answer
from evenprobe.interpretation import Forecast


class PairForecastOut(Answer):
    """Volts, 2nd to 98th percentile, at the two inputs of a multimeter."""

    from_: str = Field(alias="from")
    to: str
    high_z: list[float]
    low_z: list[float]


class ForecastOut(Answer):
    """`lamps`: true certainly lit, false certainly dark, null either."""

    condition: str
    pairs: list[PairForecastOut]
    lamps: dict[str, bool | None]

    @classmethod
    def of(cls, forecast: Forecast) -> "ForecastOut":
        return cls(
            condition=forecast.condition,
            pairs=[
                PairForecastOut(
                    from_=str(p.from_),
                    to=str(p.to),
                    high_z=[round(v, 1) for v in p.high_z],
                    low_z=[round(v, 1) for v in p.low_z],
                )
                for p in forecast.pairs
            ],
            lamps=forecast.lamps,
        )
