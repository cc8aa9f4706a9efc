"""What the meters' routes take and give."""

from typing import Any
from uuid import UUID

from ninja import Schema
from pydantic import Field

from meters.scpi import Shown
from meters.wire import Live


class MeterLinkIn(Schema):
    """`address`: a VISA resource name of a TCP socket or a serial port."""

    address: str


class MeterLinkOut(Schema):
    tester: UUID
    label: str
    address: str


class MeterLinksOut(Schema):
    links: list[MeterLinkOut]


class LiveIn(Schema):
    """Where the probes are and what is asked for, as the Bench is set up."""

    function: str
    from_: str = Field(alias="from")
    to: str
    load_here_a: float | None = None
    load_elsewhere_a: float | None = None
    load_between: tuple[str, str] | None = None
    device_open: bool = False
    begin_anew: bool = False


class LiveOut(Schema):
    """`state`: live or over-range; or garbage, no-answer, lost, busy, wrong-function, and `problem` says what to do.

    `entry`: what is recorded when it is captured as it stands, as the survey format has it.
    """

    state: str
    unit: str
    value: float | None
    lowest: float | None
    highest: float | None
    problem: str
    entry: dict[str, Any] | None

    @classmethod
    def of(cls, live: Live, top_volts: float) -> "LiveOut":
        """`top_volts`: the highest the tester shows, which it is over when it is over its range."""
        value = _number(live.shown)
        entry: dict[str, Any] | None = None
        if live.shown is not None:
            over = {"at_least": top_volts} if live.unit == "V" else {"over_range": True}
            entry = {**(over if value is None else {"value": value}), "unit": live.unit, "source": "captured"}
        return cls(
            state=live.state,
            unit=live.unit,
            value=value,
            lowest=_number(live.lowest),
            highest=_number(live.highest),
            problem=live.problem,
            entry=entry,
        )


def _number(shown: Shown | None) -> float | None:
    return None if shown is None else shown.value
