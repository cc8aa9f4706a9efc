"""What may be measured next at a point, with whatever is in the kit, that was not measured yet."""

from collections.abc import Callable, Hashable, Iterator, Sequence
from dataclasses import replace

from evenprobe.quantities import LOAD_HELD, VOLTAGE, Measurement, Reading
from evenprobe.quantities.probes import port_of, with_loads_placed
from evenprobe.quantities.setups import setups_with
from evenprobe.testers import TYPED, Instrument
from evenprobe.wiring import PointFacts, Terminal
from evenprobe.wiring.points import BOARD_END


def candidates(point: PointFacts, taken: Sequence[Reading], kit: Sequence[Instrument]) -> Iterator[Measurement]:
    """Set-ups of every tester; where none of them takes volts, what a multimeter would."""
    done = {same_test(r.measurement, point) for r in taken}
    asked = _asked_of(taken)
    volts_in_kit = any(tester.volts() is not None for tester in kit)
    ohms_in_kit = any(tester.ohms() is not None for tester in kit)
    for tester in kit:
        yield from (m for m in setups_with(point, tester) if asked(m) and same_test(m, point) not in done)
    if not volts_in_kit:
        stands_in = (m for m in setups_with(point, TYPED) if not (m.quantity.dead and ohms_in_kit))
        yield from (m for m in stands_in if asked(m) and same_test(m, point) not in done)


def _asked_of(taken: Sequence[Reading]) -> Callable[[Measurement], bool]:
    """What is asked at all.

    Volts at the board only once a load at the point showed what is lost on the way there, and a load held only of a
    device that was seen to trip, or that tripped under it and may have had too much.
    """
    loaded = any(r.measurement.quantity is VOLTAGE and r.measurement.load_here_a is not None for r in taken)
    tripped = any(r.tripped for r in taken)
    at_board = set(BOARD_END.values())

    def is_asked(m: Measurement) -> bool:
        if m.quantity is LOAD_HELD:
            return tripped
        return loaded or m.quantity is not VOLTAGE or not m.ends & at_board

    return is_asked


def same_test(m: Measurement, point: PointFacts) -> Hashable:
    """What makes two measurements the same test, however many amperes the load draws; the casing hangs on the earth."""
    loads = m.load_here_a is not None, m.load_elsewhere_a is not None
    same = replace(
        with_loads_placed(m, point),
        from_=m.from_ and Terminal(port_of(m.from_)),
        to=m.to and Terminal(port_of(m.to)),
        device="open" if m.quantity.dead else m.device,
    )
    return same.setup("load_here_a", "load_elsewhere_a"), loads
