"""Talking to a meter over its link: PyVISA with its pure-Python backend, one conversation an address.

Whatever goes wrong is one of a few states a person can act on; typing a reading never depends on any of it.
"""

import threading
from dataclasses import dataclass
from functools import cache
from typing import Any

import pyvisa
from pyvisa import errors
from pyvisa.constants import StatusCode

from meters.scpi import FUNCTIONS, Function, Garbage, Shown, function_of, shown_of

ANSWER_WITHIN_MS = 1500
STAND_IN = "Stand-in meter"


@dataclass(frozen=True)
class Setup:
    """What the meter is asked to show. `function`: by the Bench's name. The rest only a stand-in is told."""

    function: str
    point: str
    measuring: str
    reference: str
    load_here_a: float | None = None
    load_elsewhere_a: float | None = None
    device_open: bool = False

    @property
    def routes(self) -> tuple[str, ...]:
        load = "NONE"
        if self.load_here_a is not None:
            load = f"HERE,{self.load_here_a:g}"
        elif self.load_elsewhere_a is not None:
            load = f"ELS,{self.load_elsewhere_a:g}"
        return (
            f"ROUT:POIN {self.point}",
            f"ROUT:PROB {self.measuring},{self.reference}",
            f"ROUT:LOAD {load}",
            f"ROUT:DEV {'OPEN' if self.device_open else 'CLOS'}",
        )


@dataclass(frozen=True)
class Live:
    """`state`: live, over-range, or what is wrong; then `problem` says what to do about it."""

    state: str
    unit: str
    shown: Shown | None = None
    lowest: Shown | None = None
    highest: Shown | None = None
    problem: str = ""


class _Conversation:
    """One open link; whoever asks waits for the one before."""

    def __init__(self, address: str) -> None:
        self.address = address
        self.lock = threading.Lock()
        self._session: Any = None
        self._stand_in = self._keeps_extremes = False

    def ask(self, setup: Setup, *, begin_anew: bool) -> Live:
        function = FUNCTIONS[setup.function]
        with self.lock:
            try:
                return self._ask(setup, function, begin_anew=begin_anew)
            except Garbage as said:
                self._hang_up()
                return Live("garbage", function.unit, problem=f"it answered {str(said)[:40]!r}, which is no reading")
            except errors.VisaIOError as error:
                self._hang_up()
                if error.error_code == StatusCode.error_timeout:
                    return Live("no-answer", function.unit, problem="it does not answer; is it switched to remote?")
                return _lost(function)
            except (OSError, ValueError, pyvisa.Error, UnicodeDecodeError):
                self._hang_up()
                return _lost(function)

    def _ask(self, setup: Setup, function: Function, *, begin_anew: bool) -> Live:
        session = self._opened()
        for line in setup.routes if self._stand_in else ():
            session.write(line)
        if function_of(session.query("FUNC?")) != function.word:
            session.write(f"CONF:{function.word}")
            found = function_of(session.query("FUNC?"))
            if found != function.word:
                text = f"the meter is on {found or 'nothing it names'}, {function.name} is wanted: turn it"
                return Live("wrong-function", function.unit, problem=text)
        if function.unit == "V":
            session.write(f"INP:IMP {'LOW' if function.low_impedance else 'HIGH'}")
        if begin_anew and self._keeps_extremes:
            session.write("CALC:AVER:CLE")
        shown = shown_of(session.query("READ?"))
        lowest, highest = (self._extreme(session, end) for end in ("MIN", "MAX"))
        return Live("over-range" if shown.over_range else "live", function.unit, shown, lowest, highest)

    def _extreme(self, session: Any, end: str) -> Shown | None:
        """None where the meter keeps none, or has none yet."""
        if not self._keeps_extremes:
            return None
        try:
            return shown_of(session.query(f"CALC:AVER:{end}?"))
        except Garbage:
            return None

    def _opened(self) -> Any:
        if self._session is None:
            self._session = _manager().open_resource(
                self.address, read_termination="\n", write_termination="\n", timeout=ANSWER_WITHIN_MS
            )
            self._stand_in = STAND_IN in self._session.query("*IDN?")
            self._keeps_extremes = self._answers("CALC:AVER:MIN?")
        return self._session

    def _answers(self, question: str) -> bool:
        """Whether the meter knows a question at all; not every one keeps its lowest and highest."""
        try:
            return bool(self._session.query(question))
        except errors.VisaIOError as error:
            if error.error_code != StatusCode.error_timeout:
                raise
            return False

    def _hang_up(self) -> None:
        session, self._session = self._session, None
        if session is not None:
            try:
                session.close()
            except (OSError, pyvisa.Error):
                return


def _lost(function: Function) -> Live:
    return Live("lost", function.unit, problem="nothing at its address; check the cable and that it is on")


@cache
def _manager() -> pyvisa.ResourceManager:
    return pyvisa.ResourceManager("@py")


_CONVERSATIONS: dict[str, _Conversation] = {}
_ONE_AT_A_TIME = threading.Lock()


def live(address: str, setup: Setup, *, begin_anew: bool = False) -> Live:
    """What the meter at the address shows. `begin_anew`: forget its lowest and highest first."""
    with _ONE_AT_A_TIME:
        conversation = _CONVERSATIONS.setdefault(address, _Conversation(address))
    return conversation.ask(setup, begin_anew=begin_anew)
