"""What is said of readings from which nothing is to be concluded yet, as in practice: which of them do not count."""

from collections.abc import Sequence

from evenprobe.interpretation.beside_wiring import insulation_of, protection_of
from evenprobe.interpretation.findings import NotCounted, PointInterpretation, Verdict
from evenprobe.interpretation.verdict import summary
from evenprobe.quantities import Direct, Kept, Reading, Weighed, weigh_all
from evenprobe.wiring import PointFacts


def covered(point: PointFacts, readings: Sequence[Reading]) -> PointInterpretation:
    """The readings of a point with nothing concluded from them; no condition is so much as looked at.

    Parameters
    ----------
    point : PointFacts
        What the record knows of the point and of what feeds it.
    readings : sequence of Reading
        All there are, in SI units.

    Returns
    -------
    PointInterpretation
        Untested, and which readings would not count.

    Examples
    --------
    >>> from evenprobe.practices import BRITISH
    >>> from evenprobe.quantities import FREQUENCY, VOLTAGE, Measurement
    >>> from evenprobe.supplies import SYSTEMS, Earthing
    >>> from evenprobe.testers import TYPED
    >>> from evenprobe.wiring import PointKind, Terminal
    >>> contacts = (Terminal.L, Terminal.N, Terminal.PE)
    >>> outlet = PointFacts(BRITISH, SYSTEMS["230"], Earthing.TN_S, PointKind.OUTLET, contacts)
    >>> volts = Reading("r1", Measurement(VOLTAGE, Terminal.L, Terminal.N, TYPED), value=231.0)
    >>> hertz = Reading("r2", Measurement(FREQUENCY, Terminal.L, Terminal.N, TYPED), value=50.0)
    >>> found = covered(outlet, [volts, hertz])
    >>> str(found.verdict), found.conditions, [each.reading for each in found.not_counted]
    ('untested', (), ['r2'])
    """
    said = summary(Verdict.UNTESTED, (), point, alarm_unanswered=False, alarm_unexplained=False)
    return PointInterpretation(
        point.practice,
        Verdict.UNTESTED,
        said,
        insulation_of(()),
        protection_of(point, ()),
        not_counted=not_counted(weigh_all(readings, point)),
    )


def not_counted(weighed: Sequence[Weighed]) -> tuple[NotCounted, ...]:
    """What is kept and clears nothing, with the reason."""
    kept = (w for w in weighed if isinstance(w, Kept | Direct))
    return tuple(NotCounted(w.reading.id, w.why, warns=isinstance(w, Direct)) for w in kept)
