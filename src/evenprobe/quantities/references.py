"""Reference earths that may be at fault themselves: one alone may raise an alarm, two that agree are as good as a rod.

That two are at fault in the same way is taken for as unlikely as a rod that never reached damp ground. Of two that
agree one is sound, so what a sound one shows lies between what they show.
"""

from collections.abc import Hashable, Iterator, Sequence
from dataclasses import replace

from evenprobe.quantities.probes import ports_of
from evenprobe.quantities.sentences import KEPT
from evenprobe.quantities.voltage import VOLTAGE
from evenprobe.quantities.weighed import Evidence, Weighed
from evenprobe.wiring import PointFacts, Terminal
from evenprobe.wiring.references import Reference

_APART_VOLTS, _MOVES = 5.0, 0.05
"""What two sound references differ by, where neutral current lifts the bar; what a supply moves by meanwhile."""


def by_references_that_agree(weighed: Sequence[Weighed], point: PointFacts) -> list[Weighed]:
    """The same; what was read to a reference that may be at fault counts only as far as another bears it out.

    Parameters
    ----------
    weighed : sequence of Evidence, Alarm, Direct or Kept
        Of all the point's readings.
    point : PointFacts
        Where they were taken.

    Returns
    -------
    list of Evidence, Alarm, Direct or Kept
        In the order given.
    """
    shown: dict[Reference, list[Evidence]] = {}
    for w in weighed:
        if isinstance(w, Evidence) and _is_to_reference(w):
            shown.setdefault(w.measurement.reference, []).append(w)
    if all(reference.kind.alone for reference in shown):
        return list(weighed)
    return [_borne_out(w, shown, point) if isinstance(w, Evidence) and _is_doubtful(w) else w for w in weighed]


def _is_to_reference(e: Evidence) -> bool:
    return e.quantity is VOLTAGE and Terminal.REF in e.measurement.ends


def _is_doubtful(e: Evidence) -> bool:
    return _is_to_reference(e) and not e.measurement.reference.kind.alone


def _borne_out(e: Evidence, shown: dict[Reference, list[Evidence]], point: PointFacts) -> Weighed:
    """Between it and what others show that differ from it in nothing; without any it may raise an alarm and no more."""
    reference = e.measurement.reference
    own = shown[reference]
    others = [seen for other, seen in shown.items() if other != reference]
    alike = [seen for seen in others if all(_agree(one, other) for one, other in _of_the_same(own, seen))]
    same = [other for seen in alike for one, other in _of_the_same([e], seen)]
    if same:
        all_shown = [e, *same]
        return replace(
            e,
            low=min(one.low for one in all_shown),
            high=max(one.high for one in all_shown),
            tolerance=max(one.tolerance for one in all_shown),
        )
    key = "reference.alone" if len(alike) == len(others) else "reference.differs"
    return VOLTAGE.of_one_unfit(e.reading, str(KEPT.say(key, wrong=point.practice.in_words(reference.kind.wrong))))


def _of_the_same(seen: Sequence[Evidence], then: Sequence[Evidence]) -> Iterator[tuple[Evidence, Evidence]]:
    """Of two references the readings of the same contact under the same circumstances."""
    return ((one, other) for one in seen for other in then if _what(one) == _what(other))


def _what(e: Evidence) -> Hashable:
    """By all its circumstances, and by how the tester loads it: what floats shows each tester something else."""
    m, ability = e.measurement, e.measurement.instrument.volts()
    as_usual = ability and (ability.input_ohm, ability.input_farad)
    return ports_of(m), m.setup("reference", "ends"), m.at_low_impedance or as_usual


def _agree(one: Evidence, other: Evidence) -> bool:
    (low, high), (least, most) = _span(one), _span(other)
    return max(low - most, least - high) <= _APART_VOLTS + _MOVES * min(high, most)


def _span(e: Evidence) -> tuple[float, float]:
    """Volts that it shows, and not less where it says at most."""
    return replace(e, low=e.high).interval if e.measurement.is_at_most else e.interval
