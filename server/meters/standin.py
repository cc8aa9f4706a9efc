"""A stand-in meter: speaks SCPI, and measures the demo installations' hidden conditions through the core.

It has a display's noise and error, ranges with over-range, high and low impedance, AC, DC and ohms, lowest and
highest, and words of its own under ROUTe that say where its probes are, for it has no hands.
"""

from collections.abc import Callable
from dataclasses import dataclass, field, replace
from typing import Protocol

import numpy as np

from evenprobe.quantities import RESISTANCE, VOLTAGE, Measurement, Reading
from evenprobe.simulation import TesterErrors
from evenprobe.testers import Instrument, kinds
from evenprobe.wiring import Terminal
from meters.scpi import FUNCTIONS, Shown, written

IDENTITY = "Even Probe,Stand-in meter,0,1"
METER = Instrument("stand-in", kinds.MULTIMETER, proved=True)
_WORDS = {function.word for function in FUNCTIONS.values()}
HIGHEST_VOLTS = 1000.0
DC_OFFSET_VOLTS = 0.02
"""What a DC range shows of a live AC conductor: next to nothing, which is why it cannot confirm safe."""

_NO_ERROR = '0,"No error"'
_UNDEFINED = '-113,"Undefined header"'
_BAD_PARAMETER = '-224,"Illegal parameter value"'


class Hidden(Protocol):
    """What the probes are on."""

    def read(self, name: str, measurement: Measurement, errors: TesterErrors) -> Reading:
        """What a person would write down. Raises ValueError for what is no part of it."""


@dataclass
class Probes:
    """Where they are, under which circumstances."""

    point: str = ""
    measuring: str = ""
    reference: str = ""
    load_here_a: float | None = None
    load_elsewhere_a: float | None = None
    load_between: tuple[Terminal, Terminal] | None = None
    device_open: bool = False


@dataclass
class StandIn:
    """`hidden_at`: the installation behind a point, by its id; KeyError where there is none."""

    hidden_at: Callable[[str], Hidden]
    seed: int = 1
    word: str = "VOLT:AC"
    low_impedance: bool = False
    probes: Probes = field(default_factory=Probes)
    lowest: float | None = None
    highest: float | None = None
    error: str = _NO_ERROR

    def __post_init__(self) -> None:
        self._errors = TesterErrors(np.random.default_rng(self.seed))
        self._points: dict[str, Hidden] = {}

    def answer(self, line: str) -> str | None:
        """What comes back of one command; None where nothing does."""
        header, _, parameter = line.strip().partition(" ")
        word = header.upper().lstrip(":")
        if word.endswith("?"):
            return self._asked(word)
        self._told(word, parameter.strip())
        return None

    def _asked(self, word: str) -> str:
        match word:
            case "*IDN?":
                return IDENTITY
            case "SYST:ERR?":
                said, self.error = self.error, _NO_ERROR
                return said
            case "FUNC?":
                return f'"{self.word}"'
            case "INP:IMP?":
                return "LOW" if self.low_impedance else "HIGH"
            case "READ?":
                return written(self._read())
            case "CALC:AVER:MIN?":
                return written(None if self.lowest is None else Shown(self.lowest))
            case "CALC:AVER:MAX?":
                return written(None if self.highest is None else Shown(self.highest))
        self.error = _UNDEFINED
        return ""

    def _told(self, word: str, parameter: str) -> None:
        match word:
            case "*RST" | "*CLS" | "CALC:AVER:CLE":
                self.lowest = self.highest = None
                self.error = _NO_ERROR
                if word == "*RST":
                    self.word, self.low_impedance, self.probes = "VOLT:AC", False, Probes()
            case _ if word.startswith("CONF:") and word.removeprefix("CONF:") in _WORDS:
                self._change(word.removeprefix("CONF:"), self.low_impedance)
            case "INP:IMP" if parameter.upper() in ("LOW", "HIGH"):
                self._change(self.word, parameter.upper() == "LOW")
            case "ROUT:POIN":
                self._move(replace(self.probes, point=parameter))
            case "ROUT:PROB" if parameter.count(",") == 1:
                measuring, reference = (end.strip() for end in parameter.split(","))
                self._move(replace(self.probes, measuring=measuring, reference=reference))
            case "ROUT:LOAD":
                self._load(parameter)
            case "ROUT:DEV" if parameter.upper() in ("OPEN", "CLOS"):
                self._move(replace(self.probes, device_open=parameter.upper() == "OPEN"))
            case _:
                self.error = _BAD_PARAMETER if word.split(":")[0] in ("CONF", "INP", "ROUT") else _UNDEFINED

    def _load(self, parameter: str) -> None:
        """`NONE`, `HERE,10` or `ELS,10`, and between which contacts, as `HERE,10,L1,N`."""
        where, amperes, *ends = [part.strip() for part in f"{parameter.upper()},".split(",")]
        between = [end for end in ends if end]
        try:
            here = float(amperes) if where == "HERE" else None
            elsewhere = float(amperes) if where == "ELS" else None
            placed = (Terminal(between[0]), Terminal(between[1])) if between else None
        except (ValueError, IndexError):
            self.error = _BAD_PARAMETER
            return
        self._move(replace(self.probes, load_here_a=here, load_elsewhere_a=elsewhere, load_between=placed))

    def _change(self, word: str, low_impedance: bool) -> None:
        if (word, low_impedance) != (self.word, self.low_impedance):
            self.word, self.low_impedance = word, low_impedance
            self.lowest = self.highest = None

    def _move(self, probes: Probes) -> None:
        if probes != self.probes:
            self.probes = probes
            self.lowest = self.highest = None

    def _read(self) -> Shown | None:
        shown = self._measured()
        if shown is not None and shown.value is not None:
            self.lowest = shown.value if self.lowest is None else min(self.lowest, shown.value)
            self.highest = shown.value if self.highest is None else max(self.highest, shown.value)
        return shown

    def _measured(self) -> Shown | None:
        """None where the probes are on nothing it knows, or ohms are measured on a live circuit."""
        try:
            hidden = self._point()
            ends = Terminal(self.probes.measuring), Terminal(self.probes.reference)
            if self.word == "VOLT:DC":
                return Shown(round(float(self._errors.rng.uniform(-1, 1)) * DC_OFFSET_VOLTS, 3))
            if self.word == "RES":
                return self._ohms(hidden, ends)
            measurement = Measurement(
                VOLTAGE,
                *ends,
                METER,
                "low-z" if self.low_impedance else "high-z",
                self.probes.load_here_a,
                self.probes.load_elsewhere_a,
                self.probes.load_between,
                device="open" if self.probes.device_open else "closed",
            )
            value = hidden.read("", measurement, self._errors).value or 0.0
        except (KeyError, ValueError):
            return None
        return Shown(value, over_range=value > HIGHEST_VOLTS)

    def _ohms(self, hidden: Hidden, ends: tuple[Terminal, Terminal]) -> Shown | None:
        if not self.probes.device_open:
            return None
        reading = hidden.read("", Measurement(RESISTANCE, *ends, METER, device="open"), self._errors)
        return Shown(reading.value, over_range=reading.over_range)

    def _point(self) -> Hidden:
        if self.probes.point not in self._points:
            self._points[self.probes.point] = self.hidden_at(self.probes.point)
        return self._points[self.probes.point]
