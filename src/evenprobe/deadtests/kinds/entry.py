"""What an entry of every kind of dead test may say, and the numbers it may say it in."""

from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field, field_validator, model_validator

from evenprobe.deadtests.accuracy import Accuracy, Shown
from evenprobe.deadtests.continuity import Run
from evenprobe.deadtests.judgement import Outcome, Result
from evenprobe.entries import FieldError, Name, Strict, Text, Time
from evenprobe.practices import Practice
from evenprobe.rounding import figures
from evenprobe.testers.kinds import HIGHEST_OHMS, LOW_OHM
from evenprobe.wiring import Terminal, conductor_named
from evenprobe.wiring.circumstances import Neutral
from evenprobe.wiring.conductors import Conductor, Material
from evenprobe.wiring.points import BOARD_END

Number = Annotated[float, Field(strict=True)]
Ohms = Annotated[float, Field(strict=True, ge=0, le=HIGHEST_OHMS)]
Megohms = Annotated[float, Field(strict=True, ge=0, le=HIGHEST_OHMS / 1e6)]
Some = Annotated[float, Field(strict=True, gt=0, le=1e9)]
Volts = Annotated[float, Field(strict=True, gt=0, le=10_000)]
NotNegativeNumber = Annotated[float, Field(strict=True, ge=0, le=1e9)]
Celsius = Annotated[float, Field(strict=True, ge=-60, le=250)]
Metres = Annotated[float, Field(strict=True, gt=0, le=5000)]

_BEYOND_KEYS = ("over_range", "closed_over_range")


class OneTest(Strict):
    """What every kind may say. `usual`: the error of the tester it takes, unless the entry gives one."""

    usual: ClassVar[Accuracy] = Accuracy(1.0)

    id: Name
    kind: str
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
        return {key: value for key, value in data.items() if not (key in _BEYOND_KEYS and value is False)}

    @property
    def accuracy(self) -> Accuracy:
        usual = self.usual
        return Accuracy(
            usual.percent if self.accuracy_percent is None else self.accuracy_percent,
            usual.counts if self.accuracy_counts is None else self.accuracy_counts,
            usual.resolution if self.resolution is None else self.resolution,
        )

    def outcome(self, practice: Practice) -> Outcome:
        """What it comes to, against its limit."""
        raise NotImplementedError

    def as_reading(self, outcome: Outcome) -> dict[str, Any] | None:  # noqa: ARG002
        """A reading of the survey file that says of the conductors what it says; None where it says nothing of them."""
        return None

    def _exactly_one(self, *names: str) -> None:
        given = [n for n in names if getattr(self, n) is not None]
        if not given:
            raise FieldError(names[0], "is missing" + (f"; or say {' or '.join(names[1:])}" if names[1:] else ""))
        if len(given) > 1:
            raise FieldError(given[1], f"stands beside {given[0]}; give one of them")


def _low_ohm() -> Accuracy:
    ability = LOW_OHM.ohms
    assert ability is not None
    return Accuracy(ability.percent, ability.counts, ability.resolution)


LOW_OHM_ACCURACY = _low_ohm()


class OhmTest(OneTest):
    """One with a low-ohm tester, a run and two ends."""

    usual: ClassVar[Accuracy] = LOW_OHM_ACCURACY

    measured_ohm: Ohms | None = None
    over_range: Literal[True] | None = None
    null_ohm: Ohms | None = None
    conductor: str | None = None
    length_m: Metres | None = None
    temperature_c: Celsius | None = None
    material: Material = "copper"
    neutral: Neutral | None = None
    from_: Annotated[Terminal | None, Field(alias="from")] = None
    to: Terminal | None = None

    @field_validator("conductor")
    @classmethod
    def _known(cls, size: str | None) -> str | None:
        return None if size is None else conductor_named(size).name

    @model_validator(mode="after")
    def _measured(self) -> "OhmTest":
        self._exactly_one("measured_ohm", "over_range")
        return self

    @property
    def shown(self) -> Shown:
        return self.accuracy.beyond() if self.measured_ohm is None else self.accuracy.shows(self.measured_ohm)

    @property
    def run(self) -> Run:
        size: Conductor | None = None if self.conductor is None else conductor_named(self.conductor)
        return Run(size, self.length_m, self.temperature_c, self.material)

    def between(self, a: str, b: str, outcome: Outcome) -> dict[str, Any] | None:
        """Ohms less their leads between two ends, on a dead circuit."""
        reading: dict[str, Any] = {"from": a, "to": b, "device": "open"}
        if self.neutral is not None:
            reading["neutral"] = self.neutral
        reading |= {"quantity": "resistance", "unit": "ohm"}
        if self.over_range:
            return reading | {"over_range": True}
        if outcome.result is Result.INVALID:
            return None
        return reading | {"value": figures(outcome.computed["corrected_ohm"], 4)}


def board_ends_of(from_: Terminal | None, to: Terminal | None) -> tuple[str, str] | None:
    """Where a test is measured that is made at the board: at the board's ends of its two conductors."""
    ends = [BOARD_END.get(end) for end in (from_, to) if end is not None]
    one, other = ends if len(ends) == 2 else (None, None)
    return (str(one), str(other)) if one and other else None
