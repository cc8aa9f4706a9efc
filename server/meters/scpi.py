"""The few words of SCPI (Standard Commands for Programmable Instruments, volume 2) a meter and its link share.

Numbers are NR3; more than the range is 9.9E+37, not a number 9.91E+37 (SCPI 1999, volume 1, 7.2.1).
"""

from dataclasses import dataclass

_OVER_RANGE = 9.9e37
_NOT_A_NUMBER = 9.91e37

USUAL_PORT = 5025
"""Where SCPI over raw TCP is usually found."""


@dataclass(frozen=True)
class Function:
    """`word`: as it is configured and answered. `unit`: of what it reads, as the survey format has it."""

    word: str
    name: str
    unit: str
    low_impedance: bool = False


FUNCTIONS: dict[str, Function] = {
    "volts": Function("VOLT:AC", "AC volts", "V"),
    "low-z": Function("VOLT:AC", "AC volts, low impedance", "V", low_impedance=True),
    "dc": Function("VOLT:DC", "DC volts", "V"),
    "ohms": Function("RES", "ohms", "ohm"),
}
"""By the name the Bench has for them."""


class Garbage(ValueError):
    """What came back is no answer to what was asked."""


@dataclass(frozen=True)
class Shown:
    """A number in the function's unit, or more than the range."""

    value: float | None
    over_range: bool = False


def shown_of(answer: str) -> Shown:
    """Raises Garbage when the answer is no number, or is SCPI's not-a-number."""
    try:
        number = float(answer)
    except ValueError:
        raise Garbage(answer) from None
    size = abs(number)
    if size != size or size == _NOT_A_NUMBER or size > _NOT_A_NUMBER:
        raise Garbage(answer)
    return Shown(None, over_range=True) if size >= _OVER_RANGE else Shown(number)


def written(shown: Shown | None) -> str:
    """As a meter answers; None is not a number."""
    if shown is None:
        return f"{_NOT_A_NUMBER:.2E}"
    return f"{_OVER_RANGE:.1E}" if shown.over_range or shown.value is None else f"{shown.value:+.6E}"


def function_of(answer: str) -> str:
    """The word a meter gives for its function, without quotes and in capitals."""
    return answer.strip().strip('"').upper()
