"""What is done of a circuit on a visit, a row each: in which order, with what, how long it usually takes.

Dead tests come before live ones, as in IEC 60364-6 (clause 6.4.3) and BS 7671 (chapter 64); minutes are what the
steps take one person who knows the place, and give way to what earlier visits took.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum

from evenprobe.testers.purposes import Purpose


class Work(StrEnum):
    """In the order it is done."""

    ISOLATE = "isolate"
    DEAD_TESTS = "dead-tests"
    LIVE_TESTS = "live-tests"


@dataclass(frozen=True)
class WorkRow:
    """One sort of work.

    Parameters
    ----------
    title
        On a list of what to do.
    purposes
        What a tester is wanted for.
    with_residual
        What one is wanted for beside that where a residual-current device protects the circuit.
    base, a_source, a_point, a_pair
        Minutes: once, for every source that is locked, for every point, for every pair of contacts.
    goes_dark
        Whether the circuit is off meanwhile.
    needs
        What has to be done before it on the same circuit.
    """

    title: str
    purposes: tuple[Purpose, ...]
    base: float
    a_source: float = 0.0
    a_point: float = 0.0
    a_pair: float = 0.0
    with_residual: tuple[Purpose, ...] = ()
    goes_dark: bool = False
    needs: tuple[Work, ...] = ()


WORKS: Mapping[Work, WorkRow] = {
    Work.ISOLATE: WorkRow(
        "Isolate and prove dead", (Purpose.PROVE_DEAD,), 5.0, a_source=1.5, a_pair=0.4, goes_dark=True
    ),
    Work.DEAD_TESTS: WorkRow(
        "Dead tests",
        (Purpose.CONTINUITY, Purpose.INSULATION),
        5.0,
        a_point=2.0,
        a_pair=0.7,
        goes_dark=True,
        needs=(Work.ISOLATE,),
    ),
    Work.LIVE_TESTS: WorkRow(
        "Live tests",
        (Purpose.LIVE_VOLTAGE,),
        1.0,
        a_point=1.5,
        a_pair=0.3,
        with_residual=(Purpose.RESIDUAL_CURRENT,),
    ),
}
