"""Where a stop of a round stands: what of the quick set is there, and whether the check became a full one."""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

from evenprobe.interpretation import Verdict
from evenprobe.interpretation.findings import State
from evenprobe.quantities import TRIP, Measurement, Reading
from evenprobe.rounds.quick import quick_set
from evenprobe.testers import TYPED, Instrument
from evenprobe.wiring import PointFacts

_OPEN_VERDICTS = (Verdict.UNTESTED, Verdict.CONTRADICTORY, Verdict.UNCONFIRMED)
"""Something that could hurt is neither found nor excluded yet."""


class StopState(StrEnum):
    """How far a stop of a round is."""

    LEFT = "left"
    BEGUN = "begun"
    SKIPPED = "skipped"
    QUICK = "quick"
    FULL = "full"

    @property
    def done(self) -> bool:
        return self in (StopState.QUICK, StopState.FULL)


@dataclass(frozen=True)
class Stop:
    """`quick`: each measurement of the set with the reading of this round that is it, None where there is none yet."""

    state: StopState
    quick: tuple[tuple[Measurement, Reading | None], ...]


def stop_of(
    point: PointFacts,
    tester: Instrument,
    readings: Sequence[Reading],
    verdict: Verdict,
    protection: State = State.NOT_PRESENT,
    *,
    skipped: bool = False,
) -> Stop:
    """Where a stop of a round stands.

    Quick where the set of the round's tester is complete; its lamps or pairs may be a meter's pairs instead. Full
    where also nothing that could hurt is left open, excluded or found, and the device that is on record was tripped.
    Nobody presses a trip button where metalwork is live. What was measured after all is no longer skipped.

    Parameters
    ----------
    point : PointFacts
        The outlet.
    tester : Instrument
        What the round is made with.
    readings : sequence of Reading
        Those of this round that count.
    verdict : Verdict
        Of the point with everything known of it.
    protection : State
        What the trips of the point's device came to.
    skipped : bool
        Whether somebody passed it by, with a reason.

    Returns
    -------
    Stop
    """
    own = quick_matches(point, tester, readings)
    with_a_meter = quick_matches(point, TYPED, readings)
    trips = tuple(pair for pair in own if pair[0].quantity is TRIP and verdict is not Verdict.DANGER)
    if _complete(own) or _complete((*with_a_meter, *trips)):
        is_open = verdict in _OPEN_VERDICTS or (verdict.is_safe and protection is State.NOT_TESTED)
        state = StopState.QUICK if is_open else StopState.FULL
    elif skipped:
        state = StopState.SKIPPED
    else:
        state = StopState.BEGUN if readings else StopState.LEFT
    return Stop(state, own)


def _complete(matched: tuple[tuple[Measurement, Reading | None], ...]) -> bool:
    return bool(matched) and all(reading is not None for _, reading in matched)


def quick_matches(
    point: PointFacts, tester: Instrument, readings: Sequence[Reading]
) -> tuple[tuple[Measurement, Reading | None], ...]:
    """A tester's quick set, each measurement with the latest reading that is it.

    Parameters
    ----------
    point : PointFacts
        The outlet.
    tester : Instrument
        What the round is made with.
    readings : sequence of Reading
        Those that may be it, in the order they were taken.

    Returns
    -------
    tuple of (Measurement, Reading or None)
    """
    wanted = quick_set(point, tester)
    return tuple((m, next((r for r in reversed(readings) if _is(r, m)), None)) for m in wanted)


def _is(reading: Reading, wanted: Measurement) -> bool:
    """A reading of the same thing as it is found, with whichever fit and proved tester, whichever probe was where."""
    taken = reading.measurement
    if taken.quantity is not wanted.quantity or reading.unfit or taken.instrument.proved is False:
        return False
    if not wanted.ends or wanted.quantity.written.ends == "line to earth":
        return True
    return taken.setup("input") == wanted.setup("input")
