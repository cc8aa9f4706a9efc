"""What every test of the tests file may say, and the numbers it may say it in."""

from typing import Annotated, Any, ClassVar

from pydantic import Field, model_validator

from evenprobe.deadtests import Accuracy, Outcome
from evenprobe.formats.fields import Name, Strict, Text
from evenprobe.formats.plausible import Time
from evenprobe.formats.problems import FieldError
from evenprobe.practices import Practice
from evenprobe.quantities.resistance import HIGHEST_OHMS

Number = Annotated[float, Field(strict=True)]
Ohms = Annotated[float, Field(strict=True, ge=0, le=HIGHEST_OHMS)]
Megohms = Annotated[float, Field(strict=True, ge=0, le=HIGHEST_OHMS / 1e6)]
Some = Annotated[float, Field(strict=True, gt=0, le=1e9)]
Volts = Annotated[float, Field(strict=True, gt=0, le=10_000)]
NotNegativeNumber = Annotated[float, Field(strict=True, ge=0, le=1e9)]
Celsius = Annotated[float, Field(strict=True, ge=-60, le=250)]
Metres = Annotated[float, Field(strict=True, gt=0, le=5000)]

BEYOND_KEYS = ("over_range", "closed_over_range")


class OneTest(Strict):
    """What every kind may say. `usual`: the error of the tester it takes, unless the entry gives one."""

    usual: ClassVar[Accuracy] = Accuracy(1.0)

    id: Name
    accuracy_percent: Annotated[float, Field(strict=True, ge=0, le=50)] | None = None
    accuracy_counts: Annotated[float, Field(strict=True, ge=0, le=1000)] | None = None
    resolution: Some | None = None
    at: Time | None = None
    by: Text | None = None
    note: Text | None = None

    @model_validator(mode="before")
    @classmethod
    def _not_beyond(cls, data: Any) -> Any:
        """A display that is said not to be over-range says no more than its value."""
        if not isinstance(data, dict):
            return data
        return {key: value for key, value in data.items() if not (key in BEYOND_KEYS and value is False)}

    @property
    def accuracy(self) -> Accuracy:
        usual = self.usual
        return Accuracy(
            usual.percent if self.accuracy_percent is None else self.accuracy_percent,
            usual.counts if self.accuracy_counts is None else self.accuracy_counts,
            usual.resolution if self.resolution is None else self.resolution,
        )

    def outcome(self, practice: Practice) -> Outcome:
        raise NotImplementedError

    def _exactly_one(self, *names: str) -> None:
        given = [n for n in names if getattr(self, n) is not None]
        if not given:
            raise FieldError(names[0], "is missing" + (f"; or say {' or '.join(names[1:])}" if names[1:] else ""))
        if len(given) > 1:
            raise FieldError(given[1], f"stands beside {given[0]}; give one of them")


LOW_OHM_ACCURACY = Accuracy(2.0, 3, 0.01)
"""As `testers.instruments` has it of a low-ohm tester."""
