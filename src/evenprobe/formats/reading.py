"""A reading as it is written down: one quantity, between which points, under which circumstances, and what was seen."""

from itertools import pairwise
from math import isfinite
from typing import Annotated, Any, Literal

from pydantic import (
    Field,
    model_validator,
)

from evenprobe.formats.fields import Name, NotNegative, Positive, Strict, Text
from evenprobe.formats.plausible import Time
from evenprobe.formats.problems import FieldError
from evenprobe.formats.units import UNITS_OF, Unit, to_si
from evenprobe.testers import Device, Input, Instrument, Measurement, Quantity, Reading
from evenprobe.testers.measurement import DEAD_QUANTITIES, Loads, Neutral
from evenprobe.testers.showing import LAMPS
from evenprobe.testers.sweep import Station, Sweep
from evenprobe.wiring import Terminal
from evenprobe.wiring.points import BOARD_END, LINES, METALWORK

HIGHEST_OHMS = 1e12
HIGHEST_LOAD_A = 1000.0


class StationEntry(Strict):
    """`m`: metres from where the walk began."""

    m: Annotated[float, Field(ge=0, le=5000)]
    alarm: Annotated[bool, Field(strict=True)]


class ReadingEntry(Strict):
    id: Name | None = None
    quantity: Quantity
    mode: Literal["ac", "dc"] | None = None
    from_: Annotated[str | None, Field(alias="from")] = None
    to: str | None = None
    value: float | bool | dict[str, bool] | None = None
    sweep: Annotated[list[StationEntry], Field(min_length=2, max_length=200)] | None = None
    """Of a presence: a detector walked along a cable, or along the casing named; instead of a value."""
    at_least: float | None = None
    below: float | None = None
    over_range: Literal[True] | None = None
    unit: Unit | None = None
    input: Input | None = None
    instrument: Name | None = None
    test_v: Positive | None = None
    test_ma: Positive | None = None
    ms: NotNegative | None = None
    load_here_a: Annotated[float, Field(gt=0, le=HIGHEST_LOAD_A)] | None = None
    load_elsewhere_a: Annotated[float, Field(gt=0, le=HIGHEST_LOAD_A)] | None = None
    load_between: tuple[str, str] | None = None
    """Which contacts the known load is between, where several lines come to the point."""
    min: NotNegative | None = None
    max: NotNegative | None = None
    """Of a current: what it fell and rose to, as a meter keeps them; the most is that of a start."""
    turns: Annotated[float, Field(ge=1, le=100)] | None = None
    """Of a current: how often the conductor goes through the clamp, as in a line splitter's loop."""
    continuous: Literal[True] | None = None
    """Of a current: it flows for three hours and more."""
    device: Device | None = None
    neutral: Neutral | None = None
    """Of a dead test: lifted off its bar at the board, or opened by the device."""
    loads: Loads | None = None
    source: Literal["typed", "captured"] | None = None
    """How it came into the record: typed, which it is where nothing is said, or captured from a meter's link."""
    at: Time | None = None
    by: Text | None = None
    note: Text | None = None
    supersedes: Name | None = None
    """The reading this one corrects; both stay in the file, this one counts."""
    withdrawn: Literal[True] | None = None
    """Taken back by whoever took it. It stays in the file and does not count."""

    @model_validator(mode="before")
    @classmethod
    def _numbers_are_numbers(cls, data: Any) -> Any:
        """A number as text is a slip, and true is no number where one is meant."""
        if isinstance(data, dict):
            value = data.get("value")
            if isinstance(value, str | list):
                raise FieldError("value", f"must be a number, not {value!r}")
            if isinstance(value, float) and not isfinite(value):
                raise FieldError("value", "must be a finite number")
            for key in ("at_least", "below", "load_here_a", "load_elsewhere_a"):
                if isinstance(data.get(key), str | bool):
                    raise FieldError(key, f"must be a number, not {data[key]!r}")
        return data

    @model_validator(mode="after")
    def _makes_sense(self) -> "ReadingEntry":
        self._check_ends()
        self._check_current()
        if self.sweep is not None and self.quantity is not Quantity.PRESENCE:
            raise FieldError("sweep", f"is of a presence, not of {self.quantity}")
        match self.quantity:
            case Quantity.PRESENCE if self.sweep is not None:
                self._check_sweep(self.sweep)
            case Quantity.PRESENCE | Quantity.TRIP | Quantity.SEQUENCE:
                if not isinstance(self.value, bool):
                    raise FieldError("value", "must be true or false")
            case Quantity.LAMPS:
                self._check_lamps()
            case _:
                self._check_number()
        return self

    def _check_ends(self) -> None:
        two_ends = self.quantity in (Quantity.VOLTAGE, Quantity.RESISTANCE, Quantity.INSULATION)
        if two_ends or self.quantity is Quantity.PRESENCE:
            if self.from_ is None:
                raise FieldError("from", "is missing: a number without its points is not a reading")
            if two_ends and self.to is None:
                raise FieldError("to", "is missing: a number without both points is not a reading")
        if self.quantity is Quantity.TRIP:
            for key, end, ends in (("from", self.from_, LINES), ("to", self.to, (*METALWORK, Terminal.REF))):
                if end is not None and end not in ends:
                    raise FieldError(key, f"a trip test goes from a line to earth; use {', '.join(ends)}")
        at_board = [key for key, end in (("from", self.from_), ("to", self.to)) if end in BOARD_END.values()]
        if at_board and self.quantity not in (*DEAD_QUANTITIES, Quantity.CURRENT):
            raise FieldError(at_board[0], f"an end at the board is for dead tests and currents, not {self.quantity}")
        if self.neutral == "lifted" and self.quantity not in DEAD_QUANTITIES:
            raise FieldError("neutral", "is lifted only on a dead circuit, for ohms and insulation")
        if self.from_ is not None and self.from_ == self.to:
            raise FieldError("to", f"both probes are on {self.to}; put one on another contact")

    def _check_sweep(self, stations: list[StationEntry]) -> None:
        if self.value is not None:
            raise FieldError("value", "stands beside sweep, which says where it sounds")
        if any(after.m <= before.m for before, after in pairwise(stations)):
            raise FieldError("sweep", "its stations must be in rising order of metres")

    @property
    def _sweep(self) -> Sweep | None:
        return None if self.sweep is None else Sweep(tuple(Station(s.m, s.alarm) for s in self.sweep))

    def _alarm(self) -> bool | None:
        """Of a walk along metal whether it sounds anywhere, along a cable whether it does at its end."""
        sweep = self._sweep
        if sweep is None:
            return self._yes_or_no(Quantity.PRESENCE)
        return sweep.sounds if self.from_ in METALWORK else sweep.at_the_end

    def _check_lamps(self) -> None:
        if not isinstance(self.value, dict) or not self.value:
            raise FieldError("value", 'must say which lamps are lit, as {"L-N": true}')
        for lamp in self.value:
            if lamp not in LAMPS:
                raise FieldError("value", f"unknown lamp {lamp!r}; use {', '.join(LAMPS)}")

    def _check_number(self) -> None:
        units = UNITS_OF[self.quantity]
        if self.unit is not None and self.unit not in units:
            raise FieldError("unit", f"{self.unit} is no unit of {self.quantity}; use {', '.join(units)}")
        if isinstance(self.value, bool | dict):
            raise FieldError("value", "must be a number")
        self._check_given_once()
        for name in ("value", "at_least", "below"):
            number = getattr(self, name)
            if number is None:
                continue
            if number < 0 and not (self.quantity is Quantity.VOLTAGE and self.mode == "dc" and name == "value"):
                what = "an AC voltage" if self.quantity is Quantity.VOLTAGE else f"a {self.quantity}"
                raise FieldError(name, f"{what} cannot be negative: check the sign, or DC was meant")
            if self.quantity in (Quantity.RESISTANCE, Quantity.INSULATION) and self.si(number) > HIGHEST_OHMS:
                raise FieldError(name, "more than any tester shows; if the display showed OL, say over_range")
        if self.at_least is not None and self.below is not None and self.at_least >= self.below:
            raise FieldError("below", "must be above at_least: the first step that stayed dark")

    def _check_current(self) -> None:
        for key in ("min", "max", "turns", "continuous"):
            if getattr(self, key) is not None and self.quantity is not Quantity.CURRENT:
                raise FieldError(key, f"is of a current, not of {self.quantity}")
        for key, wrong in (("min", self._above(self.min)), ("max", self._below(self.max))):
            if wrong:
                raise FieldError(key, "must hold the value between them: the least, the value, the most")

    def _above(self, least: float | None) -> bool:
        return least is not None and isinstance(self.value, int | float) and least > self.value

    def _below(self, most: float | None) -> bool:
        return most is not None and isinstance(self.value, int | float) and most < self.value

    def _check_given_once(self) -> None:
        stepped = self.at_least is not None or self.below is not None
        given = (self.value is not None) + stepped + (self.over_range is True)
        if given == 0 and self.quantity is Quantity.CURRENT and self.max is not None:
            return
        if given == 0:
            raise FieldError("value", "is missing")
        if given > 1:
            raise FieldError("value", "give a value, or steps, or over_range, not several")
        if self.over_range and self.quantity not in (Quantity.RESISTANCE, Quantity.INSULATION):
            raise FieldError("over_range", "for volts say at_least with the top of the range, and treat it as live")

    def si(self, number: float) -> float:
        return to_si(number, self.unit or UNITS_OF[self.quantity][0])

    def _number(self) -> float | None:
        """The value in SI units; a sequence is 1 forwards and 0 reversed."""
        if self.quantity is Quantity.SEQUENCE:
            return float(self.value is True)
        if self.quantity in UNITS_OF and isinstance(self.value, int | float):
            return self._through_once(float(self.value))
        return None

    def _through_once(self, number: float | None) -> float | None:
        """In SI units; of a conductor that goes through the clamp several times what flows in it once."""
        return None if number is None else self.si(number) / (self.turns or 1)

    def _yes_or_no(self, quantity: Quantity) -> bool | None:
        return self.value if self.quantity is quantity and isinstance(self.value, bool) else None

    def reading(self, name: str, instrument: Instrument) -> Reading:
        """The core's reading; the terminals have been checked to be the point's."""
        device: Device = self.device or ("open" if self.quantity in DEAD_QUANTITIES else "closed")
        return Reading(
            id=name,
            measurement=Measurement(
                quantity=self.quantity,
                from_=None if self.from_ is None else Terminal(self.from_),
                to=None if self.to is None else Terminal(self.to),
                instrument=instrument,
                input=self.input or "high-z",
                load_here_a=self.load_here_a,
                load_elsewhere_a=self.load_elsewhere_a,
                load_between=None if self.load_between is None else _ends(self.load_between),
                device=device,
                neutral=self.neutral or "connected",
                test_ma=self.test_ma if self.quantity is Quantity.TRIP else None,
                dc=self.mode == "dc",
            ),
            value=self._number(),
            at_least=None if self.at_least is None else self.si(self.at_least),
            below=None if self.below is None else self.si(self.below),
            over_range=self.over_range is True,
            alarm=self._alarm(),
            sweep=self._sweep,
            tripped=self._yes_or_no(Quantity.TRIP),
            lit=self.value if isinstance(self.value, dict) else {},
            test_volts=self.test_v,
            loads=self.loads,
            least=self._through_once(self.min),
            most=self._through_once(self.max),
            continuous=self.continuous is True,
        )


def _ends(names: tuple[str, str]) -> tuple[Terminal, Terminal]:
    return Terminal(names[0]), Terminal(names[1])
