"""Talking to a meter over its link, one conversation an address, and few at a time.

Whatever goes wrong is one of a few states a person can act on; typing a reading never depends on any of it. Nobody
waits for anybody: who comes while a meter is asked is told that it is busy.
"""

import threading
from dataclasses import dataclass
from urllib.parse import quote, unquote

from meters.line import Line, NoAnswer, TooLong, address_of, opened
from meters.scpi import FUNCTIONS, Function, Garbage, Shown, function_of, shown_of

_KNOWS_WITHIN_S = 0.3
"""Not every meter keeps its lowest and highest; one that does says so in this time."""
_QUOTED = 16
"""Characters that are repeated of what came back, and only those that print."""
_TALKS_AT_ONCE = 2
"""Conversations under way at a time: so many threads wait for meters, and no more."""
_STAND_IN = "Stand-in meter"


@dataclass(frozen=True)
class Setup:
    """What the meter is asked to show. `function`: by the Bench's name. The rest only a stand-in is told."""

    function: str
    point: str
    measuring: str
    reference: str
    load_here_a: float | None = None
    load_elsewhere_a: float | None = None
    load_between: tuple[str, str] | None = None
    device_open: bool = False

    @property
    def routes(self) -> tuple[str, ...]:
        between = "".join(f",{end}" for end in self.load_between or ())
        load = "NONE"
        if self.load_here_a is not None:
            load = f"HERE,{self.load_here_a:g}{between}"
        elif self.load_elsewhere_a is not None:
            load = f"ELS,{self.load_elsewhere_a:g}{between}"
        return (
            f"ROUT:POIN {self.point}",
            f"ROUT:PROB {self.measuring},{self.reference}",
            f"ROUT:LOAD {load}",
            f"ROUT:DEV {'OPEN' if self.device_open else 'CLOS'}",
        )


_ON_A_HUNT = "hunt/"


def on_a_hunt(hunt: str, at: str, side: str) -> str:
    """A place along what is hunted, as a stand-in is told it; `side` of a box that is taken apart."""
    return f"{_ON_A_HUNT}{hunt}/{side}/{quote(at, safe='')}"


def off_a_hunt(point: str) -> tuple[str, str, str] | None:
    """Hunt, place and side; None where the probes are at a point."""
    if not point.startswith(_ON_A_HUNT):
        return None
    hunt, side, at = point.removeprefix(_ON_A_HUNT).split("/", 2)
    return hunt, unquote(at), side


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
    """One link, opened where it is asked and closed where anything goes wrong."""

    def __init__(self, address: str) -> None:
        self.address = address
        self.lock = threading.Lock()
        self._line: Line | None = None
        self._stand_in = self._keeps_extremes = False

    def ask(self, setup: Setup, function: Function, *, begin_anew: bool) -> Live:
        try:
            return self._ask(setup, function, begin_anew=begin_anew)
        except Garbage as said:
            self._hang_up()
            return _garbage(function, f"it answered {_quoted(str(said))}, which is no reading")
        except (TooLong, UnicodeDecodeError):
            self._hang_up()
            return _garbage(function, "what it answers is no line of text, so it is no meter's")
        except NoAnswer:
            self._hang_up()
            return Live("no-answer", function.unit, problem="it does not answer; is it switched to remote?")
        except (OSError, ValueError):
            self._hang_up()
            return Live("lost", function.unit, problem="nothing at its address; check the cable and that it is on")

    def _ask(self, setup: Setup, function: Function, *, begin_anew: bool) -> Live:
        line = self._opened()
        for told in setup.routes if self._stand_in else ():
            line.send(told)
        if function_of(line.ask("FUNC?")) != function.word:
            line.send(f"CONF:{function.word}")
            found = function_of(line.ask("FUNC?"))
            if found != function.word:
                text = f"the meter is on {_quoted(found) if found else 'nothing it names'}, {function.name} is wanted"
                return Live("wrong-function", function.unit, problem=f"{text}: turn it")
        if function.unit == "V":
            line.send(f"INP:IMP {'LOW' if function.low_impedance else 'HIGH'}")
        if begin_anew and self._keeps_extremes:
            line.send("CALC:AVER:CLE")
        shown = shown_of(line.ask("READ?"))
        lowest, highest = (self._extreme(line, end) for end in ("MIN", "MAX"))
        return Live("over-range" if shown.over_range else "live", function.unit, shown, lowest, highest)

    def _extreme(self, line: Line, end: str) -> Shown | None:
        """None where the meter keeps none, or has none yet."""
        if not self._keeps_extremes:
            return None
        try:
            return shown_of(line.ask(f"CALC:AVER:{end}?"))
        except Garbage:
            return None

    def _opened(self) -> Line:
        if self._line is None:
            self._line = opened(address_of(self.address))
            self._stand_in = _STAND_IN in self._line.ask("*IDN?")
            self._keeps_extremes = self._knows(self._line, "CALC:AVER:MIN?")
        return self._line

    @staticmethod
    def _knows(line: Line, question: str) -> bool:
        try:
            return bool(line.ask(question, _KNOWS_WITHIN_S))
        except NoAnswer:
            return False

    def _hang_up(self) -> None:
        line, self._line = self._line, None
        if line is not None:
            line.close()


def _quoted(said: str) -> str:
    """A little of what came back, what does not print as a dot."""
    shown = "".join(c if c.isascii() and c.isprintable() else "·" for c in said[:_QUOTED])
    return f"“{shown}{'…' if len(said) > _QUOTED else ''}”"


def _garbage(function: Function, problem: str) -> Live:
    return Live("garbage", function.unit, problem=problem)


_CONVERSATIONS: dict[str, _Conversation] = {}
_TO_FIND_ONE = threading.Lock()
_TALKING = threading.BoundedSemaphore(_TALKS_AT_ONCE)


def live(address: str, setup: Setup, *, begin_anew: bool = False) -> Live:
    """What the meter at the address shows. `begin_anew`: forget its lowest and highest first."""
    function = FUNCTIONS[setup.function]
    with _TO_FIND_ONE:
        conversation = _CONVERSATIONS.setdefault(address, _Conversation(address))
    busy = Live("busy", function.unit, problem="somebody else is reading a meter just now; it is tried again")
    if not conversation.lock.acquire(blocking=False):
        return busy
    try:
        if not _TALKING.acquire(blocking=False):
            return busy
        try:
            return conversation.ask(setup, function, begin_anew=begin_anew)
        finally:
            _TALKING.release()
    finally:
        conversation.lock.release()
