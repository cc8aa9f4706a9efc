"""Evidence of several readings: in an order of its own, and which of several alike confine most."""

from collections.abc import Sequence

from evenprobe.quantities.weighed import Evidence

Extremes = tuple[Evidence, Evidence]


def in_order(evidence: Sequence[Evidence]) -> list[Evidence]:
    """Evidence by what it says, so that nothing depends on the order in which readings were taken down.

    Parameters
    ----------
    evidence : sequence of Evidence

    Returns
    -------
    list of Evidence
    """
    return sorted(evidence, key=lambda e: (seen(e), repr(e.key), e.reading.id))


def seen(e: Evidence) -> tuple[object, ...]:
    """What was seen between what, whichever probe was where: it orders evidence, and decides nothing."""
    ends = sorted(map(str, e.measurement.ends))
    return str(e.quantity), ends, e.low, e.high, e.tolerance, e.tester, str(e.reading.at)


def confining(evidence: Sequence[Evidence]) -> tuple[Evidence, ...]:
    """Of readings repeated with one tester the one that confines most from below and the one from above.

    They confine a prediction as much as all of them do, so a reading taken ten times costs no more than twice.

    Parameters
    ----------
    evidence : sequence of Evidence

    Returns
    -------
    tuple of Evidence
        In the order given.
    """
    kept = {id(e) for group in _repeated(evidence) for e in _extremes(group)}
    return tuple(e for e in evidence if id(e) in kept)


def _extremes(group: Sequence[Evidence]) -> Extremes:
    return max(group, key=lambda e: e.low - e.tolerance), min(group, key=lambda e: e.high + e.tolerance)


def _repeated(evidence: Sequence[Evidence]) -> list[list[Evidence]]:
    """The evidence in groups of one prediction each: one setup of one tester, whichever probe was where."""
    groups: dict[tuple[object, ...], list[Evidence]] = {}
    for e in evidence:
        groups.setdefault((e.measurement.setup(), e.tester, e.gain_share), []).append(e)
    return list(groups.values())
