"""A reading as it is written down: one quantity, between which points, under which circumstances, and what was seen."""

from collections.abc import Iterator
from itertools import pairwise
from math import isfinite
from typing import Annotated, Any, Literal

from pydantic import (
    Field,
    model_validator,
)

from evenprobe.entries import FieldError, Name, NotNegative, Positive, Strict, Text, Time, YesNo
from evenprobe.entries.units import Unit, to_si
from evenprobe.formats.fields import QuantityId, ReferenceId
from evenprobe.quantities import Measurement, Reading
from evenprobe.quantities.lamps import ENDS_OF
from evenprobe.quantities.sweep import Station, Sweep
from evenprobe.quantities.written import Written
from evenprobe.testers import Instrument
from evenprobe.wiring import Terminal
from evenprobe.wiring.circumstances import Device, FarEnds, Input, Loads, Neutral
from evenprobe.wiring.points import BOARD_END, LINES, METALWORK
from evenprobe.wiring.references import ROD, Reference

_HIGHEST_LOAD_A = 1000.0


class StationEntry(Strict):
    """`m`: metres from where the walk began."""

    m: Annotated[float, Field(ge=0, le=5000)]
    alarm: YesNo


class ReadingEntry(Strict):
    """A reading as the survey format writes it; what is not known is left out."""

    id: Name | None = None
    quantity: QuantityId
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
    load_here_a: Annotated[float, Field(gt=0, le=_HIGHEST_LOAD_A)] | None = None
    load_elsewhere_a: Annotated[float, Field(gt=0, le=_HIGHEST_LOAD_A)] | None = None
    load_between: tuple[str, str] | None = None
    """Which contacts the known load is between, where several lines come to the point."""
    nothing_else_on: Literal[True] | None = None
    """Whatever else there is on the circuit was seen to be switched off or unplugged."""
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
    reference: ReferenceId | None = None
    """Which kind of reference earth REF is; a rod or a lead to a proven earth where nothing is said."""
    reference_at: Text | None = None
    """Which one, as whoever used it calls it: two that agree must be two."""
    far_ends: FarEnds | None = None
    """Of ohms between two contacts: joined, where their conductors are joined at the board."""
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
        self._check_extremes()
        self._check_sweep()
        self._check_time()
        match self._written.seen:
            case "number":
                self._check_number()
            case "lamps":
                self._check_lamps()
            case "yes or no" if self.sweep is None and not isinstance(self.value, bool):
                raise FieldError("value", "must be true or false")
        return self

    @property
    def _written(self) -> Written:
        return self.quantity.written

    def _check_ends(self) -> None:
        written = self._written
        if written.ends in ("one", "two"):
            if self.from_ is None:
                raise FieldError("from", "is missing: a number without its points is not a reading")
            if written.ends == "two" and self.to is None:
                raise FieldError("to", "is missing: a number without both points is not a reading")
        if written.ends == "line to earth":
            for key, end, ends in (("from", self.from_, LINES), ("to", self.to, (*METALWORK, Terminal.REF))):
                if end is not None and end not in ends:
                    raise FieldError(key, f"a {self.quantity} test goes from a line to earth; use {', '.join(ends)}")
        at_board = [key for key, end in (("from", self.from_), ("to", self.to)) if end in BOARD_END.values()]
        if at_board and not written.at_board:
            raise FieldError(at_board[0], f"an end at the board is not for {self.quantity}")
        if self.nothing_else_on and not (written.load or written.unplugged):
            raise FieldError("nothing_else_on", f"says something of a live circuit or of ohms, not of {self.quantity}")
        if self.neutral == "lifted" and not written.neutral_lifted:
            raise FieldError("neutral", "is lifted only on a dead circuit, for ohms and insulation")
        if self.far_ends == "joined" and not (written.joins and {self.from_, self.to} <= set(BOARD_END)):
            raise FieldError("far_ends", "is of ohms between two contacts, their conductors joined at the board")
        for key in ("reference", "reference_at"):
            if getattr(self, key) is None:
                continue
            if not written.reference:
                raise FieldError(key, f"is of a voltage, not of {self.quantity}")
            if Terminal.REF not in (self.from_, self.to):
                raise FieldError(key, "says what REF is, and no probe is on REF")
        if self.from_ is not None and self.from_ == self.to:
            raise FieldError("to", f"both probes are on {self.to}; put one on another contact")

    def _check_time(self) -> None:
        if self.ms is not None and not self._written.timed:
            raise FieldError("ms", f"is how long a trip took, not of {self.quantity}")

    def _check_sweep(self) -> None:
        if self.sweep is None:
            return
        if not self._written.walked:
            raise FieldError("sweep", f"is of a presence, not of {self.quantity}")
        if self.value is not None:
            raise FieldError("value", "stands beside sweep, which says where it sounds")
        if any(after.m <= before.m for before, after in pairwise(self.sweep)):
            raise FieldError("sweep", "its stations must be in rising order of metres")

    @property
    def _sweep(self) -> Sweep | None:
        return None if self.sweep is None else Sweep(tuple(Station(s.m, s.alarm) for s in self.sweep))

    def _check_lamps(self) -> None:
        if not isinstance(self.value, dict) or not self.value:
            raise FieldError("value", 'must say which lamps are lit, as {"L-N": true}')
        for lamp in self.value:
            if lamp not in ENDS_OF:
                raise FieldError("value", f"unknown lamp {lamp!r}; use {', '.join(ENDS_OF)}")

    def _check_number(self) -> None:
        written = self._written
        if self.unit is not None and self.unit not in written.units:
            raise FieldError("unit", f"{self.unit} is no unit of {self.quantity}; use {', '.join(written.units)}")
        if isinstance(self.value, bool | dict):
            raise FieldError("value", "must be a number")
        self._check_given_once()
        for name in ("value", "at_least", "below"):
            number = getattr(self, name)
            if number is None:
                continue
            if number < 0 and not (written.signed_direct and self.mode == "dc" and name == "value"):
                what = written.called or f"a {self.quantity}"
                raise FieldError(name, f"{what} cannot be negative: check the sign, or DC was meant")
            if written.most_si is not None and self.si(number) > written.most_si:
                raise FieldError(name, "more than any tester shows; if the display showed OL, say over_range")
        if self.at_least is not None and self.below is not None and self.at_least >= self.below:
            raise FieldError("below", "must be above at_least: the first step that stayed dark")

    def _check_extremes(self) -> None:
        for key in ("min", "max", "turns", "continuous"):
            if getattr(self, key) is not None and not self._written.extremes:
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
        if given == 0 and self._written.extremes and self.max is not None:
            return
        if given == 0:
            raise FieldError("value", "is missing")
        if given > 1:
            raise FieldError("value", "give a value, or steps, or over_range, not several")
        if self.over_range and not self._written.over_range:
            raise FieldError("over_range", "for volts say at_least with the top of the range, and treat it as live")

    def si(self, number: float) -> float:
        return to_si(number, self.unit or self._written.units[0])

    def _through_once(self, number: float | None) -> float | None:
        """In SI units; of a conductor that goes through the clamp several times what flows in it once."""
        return None if number is None else self.si(number) / (self.turns or 1)

    def not_shown_by(self, instrument: Instrument) -> Iterator[tuple[str, str]]:
        """What such a tester cannot have shown: the key, and why."""
        for key in ("value", "at_least"):
            number = getattr(self, key)
            if isinstance(number, float) and (why := self.quantity.beyond(instrument, self.si(number))):
                yield key, why

    def reading(self, name: str, instrument: Instrument) -> Reading:
        """The core's reading; the terminals have been checked to be the point's."""
        seen = self.quantity.as_seen(self._seen(), self._sweep, None if self.from_ is None else Terminal(self.from_))
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
                nothing_else_on=self.nothing_else_on is True,
                device=self.device or ("open" if self._written.device_open else "closed"),
                neutral=self.neutral or "connected",
                far_ends=self.far_ends or "apart",
                test_ma=self.test_ma if self._written.ends == "line to earth" else None,
                dc=self.mode == "dc",
                reference=Reference(self.reference or ROD, (self.reference_at or "").strip().casefold()),
            ),
            at_least=None if self.at_least is None else self.si(self.at_least),
            below=None if self.below is None else self.si(self.below),
            over_range=self.over_range is True,
            sweep=self._sweep,
            test_volts=self.test_v,
            loads=self.loads,
            least=self._through_once(self.min),
            most=self._through_once(self.max),
            continuous=self.continuous is True,
            at=None if self.at is None else self.at.timestamp(),
            after_ms=self.ms if self.value is True else None,
            **seen,
        )

    def _seen(self) -> float | bool | dict[str, bool] | None:
        """The value, a number in SI units."""
        if isinstance(self.value, int | float) and not isinstance(self.value, bool):
            return self._through_once(float(self.value))
        return self.value


def _ends(names: tuple[str, str]) -> tuple[Terminal, Terminal]:
    return Terminal(names[0]), Terminal(names[1])
