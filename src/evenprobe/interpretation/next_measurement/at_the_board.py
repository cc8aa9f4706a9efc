"""The same at the board, of a reading that jumps: what jumps there too is the supply's, and no joint along the run."""

from collections.abc import Collection, Sequence
from dataclasses import replace

from evenprobe.interpretation.elimination import Elimination
from evenprobe.interpretation.findings import NextMeasurement
from evenprobe.interpretation.intermittent import jumping
from evenprobe.interpretation.next_measurement.obstacles import Obstacle, can_be_taken
from evenprobe.interpretation.sentences import NEXT
from evenprobe.practices import Practice
from evenprobe.quantities import Reading
from evenprobe.wiring.points import BOARD_END


def to_be_taken_at_the_board(
    elimination: Elimination, taken: Sequence[Reading], cannot: Collection[Obstacle], practice: Practice
) -> NextMeasurement | None:
    """What jumps, at the board; None where nothing does, where it was taken there, or cannot be."""
    for m in jumping(elimination.evidence):
        if m.from_ not in BOARD_END or m.to not in BOARD_END or m.instrument.kind.plugs_in:
            continue
        there = replace(m, from_=BOARD_END[m.from_], to=BOARD_END[m.to])
        if can_be_taken(there, cannot) and there.setup() not in {r.measurement.setup() for r in taken}:
            return NextMeasurement(
                there, (), 0.0, there.quantity.seconds(there), str(NEXT.say("jumps", **practice.named))
            )
    return None
